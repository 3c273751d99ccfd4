import type { Brand } from '../../../core/model'
import type { ReportedPost } from '../../../core/formats'
import type { AskedReport } from '../../../core/results'
import { heavy } from '../../workers'
import { clockNow } from '../clock'
import { reportFor } from '../results'
import { all, one } from '../store'
import { pictureData } from './pictures'

/** What a person says of a report: its title, who made it, words above the figures, and how many of the best posts it shows. */
export interface ReportWords {
  title: string
  by: string
  note: string
  best: number
}

/**
 * Writes a report of a brand's posts for a client: one HTML file that needs nothing else. A picture that cannot be had is
 * left out.
 */
export async function makeReport(
  brand: Brand,
  asked: AskedReport,
  { title, by, note, best }: ReportWords,
): Promise<string> {
  const report = await reportFor(brand.id, asked, best, clockNow())
  const accounts = new Map((await all('accounts', 'brand', brand.id)).map((a) => [a.id, a]))
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
  return heavy().writeReport({
    title: title.trim() || brand.name,
    by: by.trim(),
    note,
    zone: brand.zone,
    asked,
    report,
    best: shown,
  })
}
