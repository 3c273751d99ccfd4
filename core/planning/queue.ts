import { aroundOf } from './around'
import type { Book, Task } from './book'
import { whyNowhere } from './explain'
import { momentIn, REACH_DAYS } from './places'
import { RULE_WORDS, type Placement, type Plan, type Reason, type Rule } from './rules'
import { dateOf, localDay } from './zone'

/** What a person asks for a post: the next free opening from a moment on, or that very moment. */
export interface Ask {
  id: string
  /** ISO 8601 in UTC. */
  after?: string
  at?: string
  /** A person who says "now" means it on a quiet day too. */
  quietDays?: boolean
}

const BY_HAND = { code: 'by-hand', message: 'A person put it there.' }

/**
 * Gives posts their places as a person asks for them, one after the other, each minding those
 * before it: first the very moments, then the next openings in the order in which they come. A
 * very moment needs no slot; where a hard rule forbids it the post has no place and the reason
 * names the rule. A next opening is the first one that is free by the hard rules; soft rules do
 * not count.
 */
export function placeAsked(input: Plan, asks: readonly Ask[]): Placement[] {
  const { book, taskFor } = aroundOf(input, new Set(asks.map((a) => a.id)))
  const now = Date.parse(input.now)
  const posts = new Map(input.posts.map((p) => [p.id, p]))
  const answered = new Map<string, Placement>()
  const answer = (ask: Ask, find: (task: Task) => Placement): void => {
    const post = posts.get(ask.id)
    const task = post ? taskFor({ ...post, pinnedAt: null }) : null
    if (!task) return
    const place = find(task)
    if (place.at) book.add(task, Date.parse(place.at))
    answered.set(ask.id, place)
  }
  for (const ask of asks)
    if (ask.at !== undefined) {
      const at = Date.parse(ask.at)
      answer(ask, (task) => veryMoment(ask, task, at, now, book))
    }
  for (const ask of asks)
    if (ask.at === undefined) {
      const after = Math.max(now, ask.after ? Date.parse(ask.after) : now)
      answer(ask, (task) => nextOpening(task, after, now, book))
    }
  return asks.flatMap((a) => answered.get(a.id) ?? [])
}

/**
 * The first moment from one to another, both in milliseconds, at which no hard rule forbids a post, whether or not a
 * slot is there; looked for every so many minutes. Null where there is none.
 */
export function firstMoment(
  input: Plan,
  id: string,
  from: number,
  to: number,
  minutes: number,
): number | null {
  const { book, taskFor } = aroundOf(input, new Set([id]))
  const now = Date.parse(input.now)
  const post = input.posts.find((p) => p.id === id)
  const task = post ? taskFor({ ...post, pinnedAt: null }) : null
  for (let at = from; task && at <= to; at += minutes * 60_000)
    if (ruleAtMoment(task, at, now, book, false) === null) return at
  return null
}

function veryMoment(ask: Ask, task: Task, at: number, now: number, book: Book): Placement {
  const rule = ruleAtMoment(task, at, now, book, ask.quietDays === true)
  if (rule === null) return { id: task.id, at: new Date(at).toISOString(), reasons: [BY_HAND] }
  const date = dateOf(localDay(at, task.lane.account.zone))
  return {
    id: task.id,
    at: null,
    reasons: [{ code: rule.replaceAll(' ', '-'), message: `${date} ${RULE_WORDS[rule]}.` }],
  }
}

/** The hard rule that a post would break at a moment, whether or not a slot is there. */
function ruleAtMoment(task: Task, at: number, now: number, book: Book, quietDays: boolean): Rule | null {
  const day = localDay(at, task.lane.account.zone)
  if (at < now) return 'past'
  if (at < task.from || at > task.to) return 'out of bounds'
  if (!quietDays && task.lane.isQuiet(day)) return 'quiet day'
  return book.obstacle(task, at, day, { from: at, to: at })
}

function nextOpening(task: Task, after: number, now: number, book: Book): Placement {
  const from = Math.max(after, task.from)
  const first = localDay(from, task.lane.account.zone)
  for (let day = first; day <= first + REACH_DAYS; day++) {
    if (task.lane.isQuiet(day)) continue
    for (const opening of task.lane.openings(day)) {
      const at = momentIn(opening, task, day, from, book)
      if (at !== null)
        return {
          id: task.id,
          at: new Date(at).toISOString(),
          reasons: [{ code: 'next-opening', message: `${dateOf(day)} was the next opening that was free.` }],
        }
    }
  }
  const nowhere = (reasons: Reason[]): Placement => ({ id: task.id, at: null, reasons })
  if (after > now && from > task.to)
    return nowhere([
      {
        code: 'out-of-bounds',
        message: `What waits there already reaches beyond its last day, ${dateOf(localDay(task.to, task.lane.account.zone))}.`,
      },
    ])
  return nowhere(whyNowhere({ ...task, from }, now, book))
}

/**
 * Moments spread evenly over a span, one for each of `count` posts in their order: the middles of
 * as many equal parts, so that spans laid end to end stay even. All in milliseconds.
 */
export function spreadOver(from: number, to: number, count: number): number[] {
  return Array.from({ length: count }, (_, i) => Math.round(from + ((i + 0.5) * (to - from)) / count))
}
