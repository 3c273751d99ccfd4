import { isToCome, waitsForReview, type LinkCheck, type Piece, type Post } from '../../../core/model'
import { linkedPage } from '../../../core/pipeline'
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

/** What a hold says whose reason is a broken link, so that it can be let go when the page is back. */
const LEADS_NOWHERE = 'Its link leads nowhere: '

/** A page with the posts that lead to it: a piece's own, or one that a person gave. */
interface Page {
  url: string
  piece: Piece | null
  posts: Post[]
}

/**
 * Looks whether the pages are there to which the posts of the next two weeks lead. Where one is
 * gone, its posts are flagged, and those that would go out by themselves are held until it is back.
 */
export async function mindLinks(changed: boolean): Promise<void> {
  const now = clockNow()
  if (!changed && now - looked < LOOKS) return
  looked = now
  const soon = (post: Post): boolean => post.at === null || Date.parse(post.at) < now + AHEAD
  const stale = (check: LinkCheck | null): boolean => check === null || Date.parse(check.at) < now - RESTS
  const due = (await pagesToCome())
    .filter(
      ({ piece, posts }) =>
        posts.some(soon) && (piece ? [piece] : posts).some(({ linkCheck }) => stale(linkCheck)),
    )
    .slice(0, BATCH)
  if (due.length === 0) return
  if (due.length === BATCH) looked = 0
  const { troubles } = await send<{ troubles: (string | null)[] }>('/api/intake/links', {
    urls: due.map((page) => page.url),
  })
  const at = nowIso()
  const found = due.map((page, i) => ({ ...page, linkCheck: { at, trouble: troubles[i] ?? null } }))
  await commit(
    'machine',
    found.flatMap(({ piece, posts, linkCheck }): Write[] =>
      piece
        ? [patch('pieces', piece.id, (p) => ({ ...p, linkCheck }))]
        : posts.map((post) => patch('posts', post.id, (p) => ({ ...p, linkCheck }))),
    ),
  )
  const writes: Write[] = []
  for (const { piece, posts, linkCheck } of found)
    for (const post of posts) {
      const { trouble } = linkCheck
      const heldSo = post.held?.reason.startsWith(LEADS_NOWHERE) ?? false
      const same = ((piece ?? post).linkCheck?.trouble ?? null) === trouble
      if (same && !(heldSo && trouble === null)) continue
      const checks = await checksOf(piece ? post : { ...post, linkCheck })
      writes.push(
        patch('posts', post.id, (p) => ({
          ...p,
          checks,
          held:
            trouble === null
              ? p.held?.reason.startsWith(LEADS_NOWHERE)
                ? null
                : p.held
              : isToCome(p) && !waitsForReview(p) && p.held === null
                ? { reason: `${LEADS_NOWHERE}${trouble}`, since: nowIso() }
                : p.held,
        })),
      )
    }
  await commit('machine', writes)
}

/** The pages to which posts still to go out lead. */
async function pagesToCome(): Promise<Page[]> {
  const posts = (await all('posts')).filter(isToCome)
  const pieces = new Map((await all('pieces')).map((p) => [p.id, p]))
  const pages = new Map<string, Page>()
  for (const post of posts) {
    const piece = pieces.get(post.piece ?? '') ?? null
    const led = linkedPage(post)
    const url = piece ? led && piece.url : led
    if (!url) continue
    const page = pages.get(piece?.id ?? url)
    if (page) page.posts.push(post)
    else pages.set(piece?.id ?? url, { url, piece, posts: [post] })
  }
  return [...pages.values()]
}
