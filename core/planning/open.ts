import { Fault } from '../model'
import { Book } from './book'
import { ruleAt, softWords } from './explain'
import { Lane } from './lane'
import { momentIn } from './places'
import { taskOf } from './plan'
import { RULE_WORDS, type Plan, type Rule } from './rules'
import { dateOf, dayNumber } from './zone'

/** An opening of an account as a post would find it. */
export interface OpenPlace {
  date: string
  /** The span of the opening, ISO 8601 in UTC; equal where the slot is exact. */
  from: string
  to: string
  /** The moment that the post would take, or null where a rule forbids the opening. */
  at: string | null
  /** The rule that forbids it. */
  rule: Rule | null
  /** What stands against it, as a sentence that goes on from the day; null where nothing does. */
  against: string | null
}

/**
 * Every opening of a post's account on some days as that post would find it, the others standing
 * where they stand: where it may go, and of the rest which rule forbids it. `from` is a local day
 * of the account.
 */
export function openPlaces(input: Plan, id: string, from: string, days: number): OpenPlace[] {
  const lanes = new Map(input.accounts.map((a, i) => [a.id, new Lane(a, i, input.weights)]))
  const networks = input.accounts.map((a) => a.network)
  const book = new Book(input.siblingDays)
  const post = input.posts.find((p) => p.id === id)
  const lane = post && lanes.get(post.account)
  if (!post || !lane) throw new Fault('not-found', 'This post is no longer there.', id)
  const hasSiblings = (network: string): boolean => networks.filter((n) => n === network).length > 1
  for (const other of input.posts) {
    const on = lanes.get(other.account)
    const at = other.pinnedAt ?? other.at
    if (other !== post && on && at)
      book.add(taskOf(other, on, hasSiblings(on.account.network)), Date.parse(at))
  }
  const task = taskOf({ ...post, pinnedAt: null }, lane, hasSiblings(lane.account.network))
  const now = Date.parse(input.now)
  const first = dayNumber(from)
  return Array.from({ length: days }, (_, i) => first + i).flatMap((day) =>
    lane.openings(day).map((opening): OpenPlace => {
      const date = dateOf(day)
      const span = {
        date,
        from: new Date(opening.from).toISOString(),
        to: new Date(opening.to).toISOString(),
      }
      const at = lane.isQuiet(day) ? null : momentIn(opening, task, day, now, book)
      if (at !== null)
        return {
          ...span,
          at: new Date(at).toISOString(),
          rule: null,
          against: softWords(task, at, day, book),
        }
      const rule = ruleAt(task, opening.drawn, day, opening, now, book) ?? 'gap'
      return { ...span, at: null, rule, against: RULE_WORDS[rule] }
    }),
  )
}
