import type { Post } from '../../../core/model'
import { clockNow } from '../clock'
import { all, type Write } from '../store'
import { happensIfMay } from './life'
import { isMovable, tryPlaces, writesOf } from './plan'

/** What is due so soon, in milliseconds, stays: the server may be sending it. */
const SOON = 10 * 60_000

/** The posts from the shelf that give way to new work on some accounts: not what is pinned, out, or due in a moment. */
export async function givingWay(accounts: readonly string[]): Promise<Post[]> {
  const now = clockNow()
  return (await all('posts')).filter(
    (p) =>
      p.shelf !== undefined &&
      accounts.includes(p.account) &&
      isMovable(p) &&
      p.at !== null &&
      Date.parse(p.at) > now + SOON,
  )
}

/**
 * What becomes of the posts from the shelf on some accounts once new work has its places there: those whose openings it took
 * look for another one on their day, and are set aside where there is none. Gives those, which the server may have, and
 * the writes; what stands as it did is in neither.
 */
export async function gaveWay(
  accounts: readonly string[],
  fresh: readonly Post[],
): Promise<{ touched: Post[]; writes: Write[] }> {
  const yielding = await givingWay(accounts)
  if (yielding.length === 0) return { touched: [], writes: [] }
  const ids = new Set(yielding.map((p) => p.id))
  const others = (await all('posts')).filter((p) => !ids.has(p.id))
  const placed = await tryPlaces(yielding, { posts: [...others, ...fresh] })
  const moves = placed.flatMap((post, i) => {
    const from = yielding[i]?.at ?? null
    return post.at === from ? [] : [{ post, from, to: post.at }]
  })
  return {
    touched: moves.map((m) => m.post),
    writes: [
      ...moves.filter((m) => m.to === null).map((m) => happensIfMay(m.post.id, 'set aside')),
      ...writesOf(moves.filter((m) => m.to !== null)),
    ],
  }
}
