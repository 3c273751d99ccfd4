import { nanoid } from 'nanoid'
import { may, openFlagsOf, type Brand, type Post } from '../../../core/model'
import { flagName, reviewPrint, type Decisions, type PacketPost } from '../../../core/formats'
import { toWall } from '../../../core/planning'
import { heavy } from '../../workers'
import { nowIso } from '../clock'
import { pictureData } from './pictures'
import { all, commit, newAction, one, patch } from '../store'
import { approve, setAside } from './posts'

/** The posts of a packet at most, so that it stays a file that can be sent. */
const MOST = 200

/**
 * Makes a review packet of posts: one HTML file, the posts by their days. `day` says a moment in words, in a zone. A
 * picture that cannot be had is left out.
 */
export async function makePacket(
  brand: Brand,
  posts: readonly Post[],
  note: string,
  day: (at: string, zone: string) => string,
): Promise<Blob> {
  const accounts = new Map((await all('accounts')).map((a) => [a.id, a]))
  const shown: PacketPost[] = []
  const sorted = [...posts].sort((a, b) => (a.at ?? '9').localeCompare(b.at ?? '9')).slice(0, MOST)
  for (const post of sorted) {
    const account = accounts.get(post.account)
    if (!account) continue
    const piece = post.piece ? await one('pieces', post.piece) : undefined
    shown.push({
      post,
      account,
      when: post.at && day(post.at, account.zone),
      picture: await pictureData(post),
      piece: piece?.title ?? null,
    })
  }
  const made = toWall(Date.parse(nowIso()), brand.zone).date
  const html = await heavy().writePacket({
    id: nanoid(),
    brand: brand.name,
    made,
    note: note.trim(),
    posts: shown,
  })
  return new Blob([html], { type: 'text/html' })
}

/** What became of a file of decisions. */
export interface Decided {
  approved: number
  rejected: number
  remarks: number
  /** Posts that say something else than when the packet was made, or are gone: nothing was decided for them. */
  changed: number
  /** Posts that may not be approved as they are, and why. */
  left: { post: Post; why: string }[]
}

/**
 * Does what a file of decisions says, as one action: what was approved is approved with the doubts that were shown
 * beside it, what was rejected is set aside, comments stay with the posts. A post that changed since the packet was
 * made is left as it is, apart from its comment.
 */
export async function takeDecisions(brand: string, { by, at, decisions }: Decisions): Promise<Decided> {
  const posts = new Map((await all('posts', 'brand', brand)).map((p) => [p.id, p]))
  const same = decisions.filter((d) => {
    const post = posts.get(d.post)
    return post !== undefined && reviewPrint(post) === d.print
  })
  const told = decisions.filter((d) => posts.has(d.post) && (d.comment || d.decision !== 'open'))
  const action = newAction()
  const actor = { brand, label: `Take in ${by || 'a reviewer'}’s decisions`, action }
  await commit(
    actor,
    told.map((d) =>
      patch('posts', d.post, (p) => {
        const remark = { by: by || 'a reviewer', at, decision: d.decision, text: d.comment }
        // The same file may come twice.
        if (p.remarks.some((r) => r.at === at && r.by === remark.by)) return undefined
        const approved = d.decision === 'approve' && reviewPrint(p) === d.print
        const flags = approved ? openFlagsOf(p).filter((f) => d.flags.includes(flagName(f))) : []
        return {
          ...p,
          accepted: [
            ...p.accepted,
            ...flags.map((f) => ({ code: f.code, words: f.words ?? '', at: nowIso() })),
          ],
          remarks: [...p.remarks, remark],
        }
      }),
    ),
  )
  const ids = (decision: 'approve' | 'reject'): string[] =>
    same.filter((d) => d.decision === decision).map((d) => d.post)
  const approval = await approve(ids('approve'), action)
  const rejected = ids('reject').filter((id) => {
    const post = posts.get(id)
    return post !== undefined && may(post, 'set aside')
  })
  return {
    approved: approval.approved,
    rejected: rejected.length ? await setAside(rejected, action) : 0,
    remarks: told.filter((d) => d.comment).length,
    changed: decisions.filter((d) => d.decision !== 'open' && !same.includes(d)).length,
    left: approval.left,
  }
}
