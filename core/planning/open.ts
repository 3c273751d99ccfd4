import { Fault } from '../model'
import { aroundOf } from './around'
import { ruleAt, softWords } from './explain'
import { momentIn } from './places'
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
  const post = input.posts.find((p) => p.id === id)
  const { book, taskFor } = aroundOf(input, new Set([id]))
  const task = post && taskFor({ ...post, pinnedAt: null })
  if (!task) throw new Fault('not-found', 'This post is no longer there.', id)
  const { lane } = task
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
