import type { Book, SoftRule, Task } from './book'
import { daysOutward, momentFor, momentIn, REACH_DAYS } from './places'
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
        if (rule && other !== day) note(rule.replaceAll(' ', '-'), `${dateOf(other)} ${RULE_WORDS[rule]}.`)
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

/** The smallest change that takes a rule away, in words; smaller numbers are smaller changes. */
function remedy(rule: Rule, date: string, task: Task, onDay: number): { size: number; message: string } {
  const { account } = task.lane
  switch (rule) {
    case 'taken':
      return {
        size: 1,
        message: `Move or set aside the post that stands there on ${date}, or add a slot that day.`,
      }
    case 'gap':
      return {
        size: 2,
        message: `Make the smallest gap of the account less than ${account.gapMinutes} minutes.`,
      }
    case 'day full':
      return {
        size: 3,
        message: `Let the account take ${onDay + 1} posts a day instead of ${account.maxPerDay}.`,
      }
    case 'week full':
      return {
        size: 3,
        message: `Let the account take ${account.maxPerWeek + 1} posts a week instead of ${account.maxPerWeek}.`,
      }
    case 'quiet day':
      return { size: 4, message: `Let ${date} no longer be a quiet day.` }
    case 'same piece':
      return { size: 4, message: `Move the other post of this piece away from ${date}.` }
    case 'same minute':
      return { size: 1, message: `Add a slot at another time on ${date}.` }
    case 'same words':
      return { size: 5, message: `Word it differently: another account says the same about ${date}.` }
    case 'warming up':
      return { size: 6, message: `Wait until the account is warm, or change its warm-up.` }
    default:
      return { size: 9, message: `Give it more days around ${date}.` }
  }
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
  let easiest: { size: number; message: string } | null = null
  for (const day of daysOutward(task, now)) {
    const date = dateOf(day)
    for (const opening of lane.openings(day)) {
      const at = [momentFor(opening, task), opening.from, opening.to].find(
        (m) => m >= now && m >= task.from && m <= task.to,
      )
      if (at === undefined) continue
      openings++
      const rule = ruleAt(task, at, day, opening, now, book)
      if (!rule) continue
      if (!met.has(rule)) met.set(rule, date)
      const change = remedy(rule, date, task, book.on(lane, day).length)
      if (!easiest || change.size < easiest.size) easiest = change
    }
  }
  const longer = waits(task, now, book)
  if (longer && (!easiest || longer.size < easiest.size)) easiest = longer
  const room: Reason[] = easiest ? [{ code: 'room', message: easiest.message }] : []
  if (openings === 0)
    return [
      {
        code: 'no-opening',
        message:
          'No slot of the account opens between its first and its last day: add a slot or widen the days.',
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

/** Where it would stand if it might go out later. */
function waits(task: Task, now: number, book: Book): { size: number; message: string } | null {
  if (task.to === Infinity) return null
  const last = localDay(task.to, task.lane.account.zone)
  const later: Task = { ...task, to: Infinity }
  for (let day = last; day <= last + REACH_DAYS; day++) {
    if (task.lane.isQuiet(day)) continue
    for (const opening of task.lane.openings(day))
      if (momentIn(opening, later, day, now, book) !== null) {
        const days = Math.max(1, day - last)
        return {
          size: days <= 3 ? 0.5 : days <= 14 ? 2.5 : 7,
          message: `Let it go out up to ${days} ${days === 1 ? 'day' : 'days'} later: ${dateOf(day)} is free.`,
        }
      }
  }
  return null
}
