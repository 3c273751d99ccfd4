import type { Book, Standing, Task } from './book'
import { WEEKDAYS } from './names'
import type { Opening } from './openings'
import { daysOutward, momentFor, momentIn, REACH_DAYS } from './places'
import type { Rule } from './rules'
import { clockTime, dateOf, localDay, localMinutes, momentAt, weekdayOfDay } from './zone'

const MINUTE = 60_000

/** A change that a person can make, as a clause, and how much it changes. */
interface Change {
  size: number
  words: string
}

/** So many openings are looked at, the nearest to the wish first, so many posts thought away at each. */
const OPENINGS = 60
const POSTS = 12
/** Within so many days of the wish, outwards, another slot is thought of. */
const SLOT_DAYS = 30
/** The half hours at which a slot is thought of, those of the working day first. */
const HALF_HOURS = Array.from({ length: 48 }, (_, i) => ((i + 18) % 48) * 30)

/**
 * The smallest change that would make room for a post without a place, as a sentence, or null where
 * none does. Each is tried in thought before it is said: a longer span, a post moved away, a slot
 * more, a limit let out, or several of these together at one opening.
 */
export function roomFor(task: Task, now: number, book: Book): string | null {
  let best: Change | null = null
  const consider = (change: Change | null): void => {
    if (change?.words && (!best || change.size < best.size)) best = change
  }
  consider(longer(task, now, book))
  let looked = 0
  for (const day of daysOutward(task, now)) {
    for (const opening of task.lane.openings(day)) {
      const minutes = [momentFor(opening, task), opening.drawn, opening.from, opening.to]
      const may = [...new Set(minutes)].filter((m) => m >= now && m >= task.from && m <= task.to)
      for (const at of may) changesAt(task, at, day, opening, now, book).forEach(consider)
      if (may.length) looked++
    }
    if (looked >= OPENINGS || smallEnough(best)) break
  }
  if (!smallEnough(best)) consider(anotherSlot(task, now, book))
  const found = best as Change | null
  return found && `${found.words.slice(0, 1).toUpperCase()}${found.words.slice(1)}.`
}

function smallEnough(change: Change | null): boolean {
  return change !== null && change.size <= MOVED
}

/** What moving one post away counts as. */
const MOVED = 1

/** Changes by which a post might stand at a moment: by settings alone, or with one other post away. */
function changesAt(task: Task, at: number, day: number, opening: Opening, now: number, book: Book): Change[] {
  const broken = (): Rule[] => [
    ...(task.lane.isQuiet(day) ? (['quiet day'] as const) : []),
    ...book.obstacles(task, at, day, opening),
  ]
  const rules = broken()
  const changes: Change[] = []
  const settings = letOut(rules, task, at, day, book)
  if (settings) changes.push(settings)
  for (const other of inTheWay(rules, task, at, day, book)) {
    if (other.at <= now) continue
    book.remove(other.task)
    const rest = broken()
    const more = letOut(rest, task, at, day, book)
    book.add(other.task, other.at)
    if (more)
      changes.push({ size: MOVED + more.size, words: both(away(other, rules, task, day), more.words) })
  }
  return changes
}

/** The settings that would have to change for a moment to break none of these rules; null where none helps. */
function letOut(rules: readonly Rule[], task: Task, at: number, day: number, book: Book): Change | null {
  const { lane } = task
  const { account } = lane
  let sum: Change = { size: 0, words: '' }
  for (const rule of rules) {
    let change: Change | null = null
    if (rule === 'gap') {
      const minutes = Math.floor(nearest(task, at, day, book) / MINUTE)
      if (minutes >= 1)
        change = {
          size: 2,
          words: `make the smallest gap of the account at most ${minutes} ${minutes === 1 ? 'minute' : 'minutes'} instead of ${account.gapMinutes}`,
        }
    } else if (rule === 'day full')
      change = {
        size: 3,
        words: `let the account take ${book.on(lane, day).length + 1} posts a day instead of ${account.maxPerDay}`,
      }
    else if (rule === 'week full')
      change = {
        size: 3,
        words: `let the account take ${book.inWeek(lane, day).length + 1} posts a week instead of ${account.maxPerWeek}`,
      }
    else if (rule === 'pipeline day full')
      change = {
        size: 3,
        words: `let its pipeline make ${book.ofPipeline(task, day).onDay + 1} posts a day instead of ${task.limit?.aDay ?? 0}`,
      }
    else if (rule === 'pipeline week full')
      change = {
        size: 3,
        words: `let its pipeline make ${book.ofPipeline(task, day).inWeek + 1} posts a week instead of ${task.limit?.aWeek ?? 0}`,
      }
    else if (rule === 'quiet day') change = { size: 4, words: `let ${dateOf(day)} no longer be a quiet day` }
    else if (rule === 'same words') change = { size: 5, words: 'word it differently' }
    else if (rule === 'warming up')
      change = { size: 6, words: 'wait until the account is warm, or change its warm-up' }
    if (!change) return null
    sum = { size: sum.size + change.size, words: both(sum.words, change.words) }
  }
  return sum
}

function both(first: string, second: string): string {
  return first && second ? `${first}, and ${second}` : first || second
}

/** How far the nearest post of the account is from a moment, in milliseconds. */
function nearest(task: Task, at: number, day: number, book: Book): number {
  return neighbours(task, at, day, book).reduce((least, s) => Math.min(least, Math.abs(s.at - at)), Infinity)
}

/** The posts of the account about a moment that its gap may reach. */
function neighbours(task: Task, at: number, day: number, book: Book): Standing[] {
  const { lane } = task
  const days = Math.ceil(lane.account.gapMinutes / 1440) + 1
  const found: Standing[] = []
  for (let d = day - days; d <= day + days; d++) found.push(...book.on(lane, d))
  return found.filter((s) => Math.abs(s.at - at) < Math.max(1, lane.account.gapMinutes * MINUTE))
}

/** The posts of which one, moved away, might open a moment that breaks these rules. */
function inTheWay(rules: readonly Rule[], task: Task, at: number, day: number, book: Book): Standing[] {
  const { lane } = task
  const found = new Set(book.on(lane, day))
  if (rules.includes('gap')) for (const s of neighbours(task, at, day, book)) found.add(s)
  if (rules.includes('week full')) for (const s of book.inWeek(lane, day)) found.add(s)
  if (rules.includes('same words') || rules.includes('same minute'))
    for (const s of book.related(task)) if (book.placeOf(s.task) === s) found.add(s)
  return [...found].slice(0, POSTS)
}

/** "move the post of 2026-11-26, 09:00 to another day, or set it aside", as far as the rules ask for. */
function away({ task, at, day }: Standing, rules: readonly Rule[], wants: Task, on: number): string {
  const post = `the post of ${dateOf(day)}, ${clockTime(localMinutes(at, task.lane.account.zone))}`
  if (task.lane !== wants.lane) return `move ${post} on another account further away, or set it aside`
  const where = rules.includes('week full')
    ? 'to another week'
    : rules.includes('gap') && day !== on
      ? 'further away'
      : 'to another day'
  return `move ${post} ${where}, or set it aside`
}

/** A slot at an hour of a day near the wish at which a post would break no rule. */
function anotherSlot(task: Task, now: number, book: Book): Change | null {
  const { lane } = task
  const { zone } = lane.account
  for (const day of daysOutward(task, now)) {
    if (Math.abs(day - task.wishDay) > SLOT_DAYS) break
    if (lane.isQuiet(day)) continue
    for (const minutes of HALF_HOURS) {
      const at = momentAt(day, minutes, zone)
      if (at === null || at < now || at < task.from || at > task.to || lane.openingAt(at, day)) continue
      if (book.obstacles(task, at, day, { from: at, to: at }).length) continue
      const weekday = WEEKDAYS[weekdayOfDay(day) - 1] ?? ''
      return {
        size: 2,
        words: `add a slot on ${weekday}s, say at ${clockTime(minutes)}: ${dateOf(day)} is free then`,
      }
    }
  }
  return null
}

/** Where it would stand if it might go out later. */
function longer(task: Task, now: number, book: Book): Change | null {
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
          words: `let it go out up to ${days} ${days === 1 ? 'day' : 'days'} later: ${dateOf(day)} is free`,
        }
      }
  }
  return null
}
