import type { ReportedFollowers, ReportedPost } from '../../../core/formats'
import { followersOf, type AskedReport, type Report } from '../../../core/results'
import { results } from '../../workers'
import { clockNow } from '../clock'
import { all, one } from '../store'
import { pictureData } from './pictures'

/** What a report tells, and its best posts with their pictures. */
export interface Reported {
  asked: AskedReport
  report: Report
  best: ReportedPost[]
  followers: ReportedFollowers[]
}

/** Gathers what a report of a brand's posts tells, of posts that the worker has (`useReport`). A picture that cannot be had is left out. */
export async function gatherReport(brand: string, asked: AskedReport, best: number): Promise<Reported> {
  const report = await results().report(brand, asked, best, clockNow())
  const accounts = new Map((await all('accounts', 'brand', brand)).map((a) => [a.id, a]))
  const shown: ReportedPost[] = []
  for (const { post: id, value, times } of report.best) {
    const post = await one('posts', id)
    const account = accounts.get(post?.account ?? '')
    if (!post || !account || post.publishedAt === null) continue
    shown.push({
      network: account.network,
      handle: account.handle,
      text: [post.wording.title, post.wording.text].filter(Boolean).join('\n'),
      at: Date.parse(post.publishedAt),
      url: post.publicUrl,
      picture: await pictureData(post),
      alt: post.media[0]?.alt ?? '',
      seen: value,
      times,
    })
  }
  const followed = followersOf(await all('followings', 'brand', brand), [...accounts.values()], asked)
  const followers = followed.flatMap(({ account: id, ...rest }) => {
    const account = accounts.get(id)
    return account ? [{ network: account.network, handle: account.handle, ...rest }] : []
  })
  return { asked, report, best: shown, followers }
}
