import type { Piece, Post } from '../../../core/model'
import { checksOf } from '../actions/posts'
import { post as send } from '../api'
import { clockNow, nowIso } from '../clock'
import { all, commit, patch, type Write } from '../store'

const DAY = 86_400_000
/** A page is looked at this long before a post leads to it, and not again sooner than so. */
const AHEAD = 14 * DAY
const RESTS = 3 * DAY
/** Pages that are looked at in one round. */
const BATCH = 8
/** Without a change of posts it is enough to see so often whether a page has become due. */
const LOOKS = 3_600_000
let looked = 0

const OPEN: ReadonlySet<Post['state']> = new Set(['draft', 'for review', 'approved', 'handed over'])
const isOpen = (post: Post): boolean => OPEN.has(post.state)

/** What a hold says whose reason is a broken link, so that it can be let go when the page is back. */
const LEADS_NOWHERE = 'Its link leads nowhere: '

/**
 * Looks whether the pages are there to which the posts of the next two weeks lead. Where one is
 * gone, its posts are flagged, and those that would go out by themselves are held until it is back.
 */
export async function mindLinks(changed: boolean): Promise<void> {
  const now = clockNow()
  if (!changed && now - looked < LOOKS) return
  looked = now
  const soon = new Map<string, Post[]>()
  for (const post of await all('posts'))
    if (isOpen(post) && post.piece && post.link && (post.at === null || Date.parse(post.at) < now + AHEAD))
      soon.set(post.piece, [...(soon.get(post.piece) ?? []), post])
  if (soon.size === 0) return
  const due = (await all('pieces'))
    .filter(
      (p): p is Piece & { url: string } =>
        p.url !== null &&
        soon.has(p.id) &&
        (p.linkCheck === null || Date.parse(p.linkCheck.at) < now - RESTS),
    )
    .slice(0, BATCH)
  if (due.length === 0) return
  if (due.length === BATCH) looked = 0
  const { troubles } = await send<{ troubles: (string | null)[] }>('/api/intake/links', {
    urls: due.map((p) => p.url),
  })
  await commit(
    'machine',
    due.map(
      (piece, i) =>
        patch('pieces', piece.id, (p) => ({
          ...p,
          linkCheck: { at: nowIso(), trouble: troubles[i] ?? null },
        })) as Write,
    ),
  )
  const turned = due.filter((p, i) => (p.linkCheck?.trouble ?? null) !== (troubles[i] ?? null))
  const writes: Write[] = []
  for (const piece of turned) {
    const trouble = troubles[due.indexOf(piece)] ?? null
    for (const post of (await all('posts', 'piece', piece.id)).filter(isOpen)) {
      const checks = await checksOf(post)
      const going = post.state === 'approved' || post.state === 'handed over'
      writes.push(
        patch('posts', post.id, (p) => ({
          ...p,
          checks,
          held:
            trouble === null
              ? p.held?.reason.startsWith(LEADS_NOWHERE)
                ? null
                : p.held
              : going && p.link && p.held === null
                ? { reason: `${LEADS_NOWHERE}${trouble}`, since: nowIso() }
                : p.held,
        })) as Write,
      )
    }
  }
  await commit('machine', writes)
}
