import { alikeIn, firstPicture, type Account, type Post } from '../model'
import { network } from '../networks'
import { addDays, dayNumber, localDay, weekNumber } from './zone'

/** What people compare of an account's posts over some weeks. */
export interface LaneFigures {
  account: string
  posts: number
  /** Posts a week on average, and the slots there are a week. */
  perWeek: number
  slots: number
  /** The longest run of days without a post, and the day after which it begins. */
  silence: { days: number; after: string | null }
  /** Posts that show a picture or say words that were on the account within 30 days before. */
  repeats: { pictures: number; passages: number }
  /** How many different pictures are shown. */
  pictures: number
  /** Of the posts, the part that has no last day and keeps, 0 to 1. */
  evergreen: number
  /** The part whose piece was published at most four weeks before it goes out, 0 to 1. */
  fresh: number
  /** Weeks in which nothing stands, and weeks with more posts than the network holds sensible. */
  gaps: number
  crowded: number
}

const REPEAT_DAYS = 30

/**
 * The figures of one account between two local days, both included. `posts` are those with a
 * moment, in any order; what is set aside does not count. `published` says when their pieces
 * appeared, ISO 8601 by id, for what is new.
 */
export function laneFigures(
  account: Account,
  posts: readonly Post[],
  from: string,
  to: string,
  published: ReadonlyMap<string, string> = new Map(),
): LaneFigures {
  const first = dayNumber(from)
  const last = dayNumber(to)
  const placed = posts
    .filter((p) => p.account === account.id && p.state !== 'set aside')
    .flatMap((post) => {
      const at = post.publishedAt ?? post.at
      return at ? [{ post, day: localDay(Date.parse(at), account.zone), at }] : []
    })
    .sort((a, b) => (a.at < b.at ? -1 : 1))
  const alike = alikeIn(placed.flatMap((p) => p.post.media))
  const shownBy = (post: Post): string | null => {
    const first = firstPicture(post)
    return first === null ? null : alike(first)
  }
  const mine = placed.filter((p) => p.day >= first && p.day <= last)
  const weeks = Math.max(1, (last - first + 1) / 7)
  const counts = new Map<number, number>()
  for (let week = weekNumber(first); week <= weekNumber(last); week++) counts.set(week, 0)
  for (const p of mine) counts.set(weekNumber(p.day), (counts.get(weekNumber(p.day)) ?? 0) + 1)
  const sensible = network(account.network).limits.sensiblePostsPerDay * 7
  const seenAgain = (what: (post: Post) => string | null | undefined): number => {
    const lastSeen = new Map<string, number>()
    let again = 0
    for (const { post, day } of placed) {
      const key = what(post)
      if (!key) continue
      const before = lastSeen.get(key)
      if (before !== undefined && day - before <= REPEAT_DAYS && day >= first && day <= last) again++
      lastSeen.set(key, day)
    }
    return again
  }
  return {
    account: account.id,
    posts: mine.length,
    perWeek: mine.length / weeks,
    slots: account.slots.length,
    silence: longestSilence(
      mine.map((p) => p.day),
      first,
      last,
    ),
    repeats: {
      pictures: seenAgain(shownBy),
      passages: seenAgain((p) => p.passage),
    },
    pictures: new Set(mine.flatMap((p) => shownBy(p.post) ?? [])).size,
    evergreen: mine.length ? mine.filter((p) => p.post.latest === null).length / mine.length : 0,
    fresh: mine.length
      ? mine.filter((p) => isFresh(published.get(p.post.piece ?? ''), p.at)).length / mine.length
      : 0,
    gaps: [...counts.values()].filter((n) => n === 0).length,
    crowded: [...counts.values()].filter((n) => n > Math.min(sensible, account.maxPerWeek)).length,
  }
}

/** For so long after it appeared a piece is new, in milliseconds. */
const NEW = 28 * 86_400_000

function isFresh(published: string | undefined, at: string): boolean {
  return published !== undefined && Date.parse(at) - Date.parse(published) <= NEW
}

function longestSilence(days: readonly number[], first: number, last: number): LaneFigures['silence'] {
  let best = { days: 0, after: null as string | null }
  let before = first - 1
  for (const day of [...days, last + 1]) {
    const quiet = day - before - 1
    if (quiet > best.days)
      best = { days: quiet, after: before < first ? null : addDays('1970-01-01', before) }
    before = day
  }
  return best
}
