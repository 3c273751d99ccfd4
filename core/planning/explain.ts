import type { Book, SoftRule, Task } from './book'
import { daysOutward, momentFor, momentIn } from './places'
import { roomFor } from './room'
import type { Weights } from '../model'
import { RULE_WORDS, type Reason, type Rule } from './rules'
import { dateOf, localDay } from './zone'

const SOFT_WORDS: Record<Exclude<SoftRule, 'distance'>, (weights: Weights) => string> = {
  picture: (w) => `the same picture stands on this account within ${w.pictureDays} days`,
  passage: (w) => `the same passage stands on this account within ${w.passageDays} days`,
  share: () => 'its pipeline has more than its share of that week',
  even: () => 'other posts stand on that day already',
  hours: () => 'its hour is worth less',
  stagger: () => 'another account is served with the same beat about then',
}
const SOFT_RULES = Object.keys(SOFT_WORDS) as (keyof typeof SOFT_WORDS)[]

/** What the soft rules have most against a free place, or null where it is next to nothing. */
export function softWords(task: Task, at: number, day: number, book: Book): string | null {
  const terms = book.terms(task, at, day)
  const [dearest] = SOFT_RULES.filter((rule) => terms[rule] >= WORTH_SAYING).sort(
    (a, b) => terms[b] - terms[a],
  )
  return dearest ? SOFT_WORDS[dearest](task.lane.weights) : null
}

/** A price in days below which a soft rule is not worth a sentence. */
const WORTH_SAYING = 0.7

/**
 * Why a post stands where it stands: how far from its wish, and of every nearer opening the rule
 * that forbade it or the soft rule that made it dearer, each rule once, with its day.
 */
export function explain(task: Task, at: number, day: number, now: number, book: Book): Reason[] {
  const moved = day - task.wishDay
  const head: Reason =
    moved === 0
      ? { code: 'as-wished', message: `It stands on its wished day, ${dateOf(day)}.` }
      : {
          code: 'moved',
          message: `Wished for ${dateOf(task.wishDay)}, it stands ${Math.abs(moved)} ${Math.abs(moved) === 1 ? 'day' : 'days'} ${moved > 0 ? 'later' : 'earlier'}.`,
        }
  const found = new Map<string, Reason>()
  const note = (code: string, message: string): void => {
    if (!found.has(code)) found.set(code, { code, message })
  }
  const today = localDay(now, task.lane.account.zone)
  if (task.wishDay < today) note('past', `${dateOf(task.wishDay)} ${RULE_WORDS.past}.`)
  const here = book.terms(task, at, day)
  const hereSum = Object.values(here).reduce((a, b) => a + b, 0)
  for (const other of daysOutward(task, now)) {
    if (Math.abs(other - task.wishDay) > Math.abs(moved)) break
    if (other === day && moved === 0 && found.size === 0 && task.lane.openings(day).length === 1) break
    if (task.lane.isQuiet(other)) {
      note('quiet-day', `${dateOf(other)} ${RULE_WORDS['quiet day']}.`)
      continue
    }
    for (const opening of task.lane.openings(other)) {
      if (at >= opening.from && at <= opening.to) continue
      const free = momentIn(opening, task, other, now, book)
      if (free === null) {
        const rule = ruleAt(task, momentFor(opening, task), other, opening, now, book)
        // On its own day another slot that is taken is nothing to tell.
        if (rule && other !== day)
          note(
            rule.replaceAll(' ', '-'),
            `${dateOf(other)} ${rule === 'past' ? 'has a slot that is over already' : RULE_WORDS[rule]}.`,
          )
        continue
      }
      if (other === day) continue
      const there = book.terms(task, free, other)
      if (Object.values(there).reduce((a, b) => a + b, 0) <= hereSum) continue
      const [dearest] = SOFT_RULES.filter((rule) => there[rule] > here[rule]).sort(
        (a, b) => there[b] - here[b] - (there[a] - here[a]),
      )
      if (dearest)
        note(`soft-${dearest}`, `${dateOf(other)} was free, but ${SOFT_WORDS[dearest](task.lane.weights)}.`)
    }
  }
  return [head, ...found.values()]
}

/** The first hard rule that a post would break at a moment of an opening, or null. */
export function ruleAt(
  task: Task,
  at: number,
  day: number,
  opening: { from: number; to: number },
  now: number,
  book: Book,
): Rule | null {
  if (opening.to < now) return 'past'
  if (opening.to < task.from || opening.from > task.to) return 'out of bounds'
  if (task.lane.isQuiet(day)) return 'quiet day'
  return book.obstacle(task, at, day, opening)
}

/**
 * Why a post has no place: the rules in its way, the nearest opening first, and the smallest
 * change that would make room.
 */
export function whyNowhere(task: Task, now: number, book: Book): Reason[] {
  const { lane } = task
  if (lane.account.slots.length === 0)
    return [{ code: 'no-slot', message: 'The account has no slots: give it at least one.' }]
  if (task.to < Math.max(task.from, now))
    return [{ code: 'too-late', message: 'Its last day has passed: give it a later one or set it aside.' }]
  const met = new Map<Rule, string>()
  let openings = 0
  for (const day of daysOutward(task, now)) {
    const date = dateOf(day)
    for (const opening of lane.openings(day)) {
      const at = [momentFor(opening, task), opening.from, opening.to].find(
        (m) => m >= now && m >= task.from && m <= task.to,
      )
      if (at === undefined) continue
      openings++
      const rule = ruleAt(task, at, day, opening, now, book)
      if (rule && !met.has(rule)) met.set(rule, date)
    }
  }
  const change = roomFor(task, now, book)
  const room: Reason[] = change ? [{ code: 'room', message: change }] : []
  if (openings === 0)
    return [
      {
        code: 'no-opening',
        message: 'No slot of the account opens between its first and its last day.',
      },
      ...room,
    ]
  return [
    ...[...met].map(([rule, date]) => ({
      code: rule.replaceAll(' ', '-'),
      message: `Every opening in reach is closed; the nearest, ${date}, ${RULE_WORDS[rule]}.`,
    })),
    ...room,
  ]
}
