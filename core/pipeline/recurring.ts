import { isToCome, type Account, type Post, type Recurrence } from '../model'
import { toWall } from '../planning'
import type { HandPost, HandRow } from './hand'

/** What a recurring post says, where, and when of a day. */
export type Said = Pick<Recurrence, 'words' | 'accounts' | 'time'>

/** The posts that a recurring post asks for, and what becomes of those it has. */
export interface Renewal {
  /** A row a post that is to be written, each for one account. */
  rows: HandRow[]
  /** The post that a row writes anew, by the row's index; null where there was none. */
  was: (Post | null)[]
  /** Posts to come that its days or accounts no longer ask for. */
  gone: Post[]
  /** Posts to come that a person edited one by one: they stay. */
  edited: Post[]
}

/**
 * What the days of a recurring post come to, beside the posts of it that stand. Those to come keep
 * their moment where the time of day stays; what went out or was set aside does not come again, and
 * what would have been earlier today is over.
 * @param days the days that its rule names
 * @param was what it said before; null where it is new
 */
export function renewalOf(
  days: readonly string[],
  said: Said,
  was: Pick<Said, 'time'> | null,
  { posts, accounts, now }: { posts: readonly Post[]; accounts: readonly Account[]; now: string },
): Renewal {
  const renewal: Renewal = { rows: [], was: [], gone: [], edited: [] }
  const standing = new Map(posts.map((p) => [`${p.account} ${p.occurrence}`, p]))
  const there = accounts.filter((a) => said.accounts.includes(a.id) && a.endedAt === null)
  const asked = new Set<string>()
  for (const date of days)
    for (const account of there) {
      const key = `${account.id} ${date}`
      asked.add(key)
      const post = standing.get(key) ?? null
      if (post && (post.edited || !isToCome(post))) continue
      const stays = post !== null && post.at !== null && was?.time === said.time ? post.at : null
      const wall = toWall(Date.parse(now), account.zone)
      const over = date < wall.date || (date === wall.date && said.time !== null && said.time <= wall.time)
      if (over && !post) continue
      renewal.rows.push({
        words: said.words,
        accounts: [account.id],
        on: stays === null ? { date, time: said.time } : { at: stays },
        earliest: null,
        latest: null,
      })
      renewal.was.push(post)
    }
  for (const post of posts)
    if (isToCome(post)) {
      if (post.edited) renewal.edited.push(post)
      else if (!asked.has(`${post.account} ${post.occurrence}`)) renewal.gone.push(post)
    }
  return renewal
}

/**
 * A post of a recurring one with its new words: it stays the post it was, at the moment it had
 * where that was asked for, and as often handed over.
 */
export function renewed({ row, post }: HandPost, { rows, was }: Renewal): Post {
  const before = was[row]
  if (!before) return post
  const { wording, link, media, checks, state } = post
  const anew = {
    ...before,
    wording,
    link,
    shortLink: null,
    linkCheck: null,
    media,
    checks,
    state,
    accepted: [],
  }
  const on = rows[row]?.on
  if (on && 'at' in on && post.at === on.at) return anew
  const { at, wished, pinned, reasons } = post
  return { ...anew, at, wished, pinned, reasons }
}
