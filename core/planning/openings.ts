import type { HourTrial, QuietDay, Slot } from '../model'
import { hash32 } from '../text'
import { spanOf } from './slots'
import { dateOf, dayNumber, momentAt, weekdayOf, weekdayOfDay, weekNumber } from './zone'

/** Whether a local day is kept quiet by any of the rules. */
export function isQuiet(date: string, quiet: readonly QuietDay[]): boolean {
  return quiet.some((q) => {
    if ('weekday' in q) return q.weekday === weekdayOf(date)
    if ('date' in q) return q.date === date
    if ('yearly' in q) return q.yearly === date.slice(5)
    return q.from <= date && date <= q.to
  })
}

/** One slot of one local day: the span it opens and the moment drawn in it. */
export interface Opening {
  from: number
  to: number
  /** The moment of an exact slot, or the one drawn in a window. */
  drawn: number
  /** More moments of a window, spread over it, for when the drawn one is not free. */
  others: () => readonly number[]
}

/** How many minutes of a window are tried where its drawn one is not free. */
const TRIED = 30
/** Steps of the golden section leave the widest gaps between all points so far (Swierczkowski 1958). */
const GOLDEN = (Math.sqrt(5) - 1) / 2
const NONE: readonly number[] = []

/**
 * The openings of one local day, one a slot, in the order of the clock. A window's drawn minute
 * goes by the golden section from week to week, so that it never comes twice in a row; another is
 * drawn for another account. Times that summer time skips are left out, doubled ones count once.
 */
export function openingsOn(date: string, account: Opened): Opening[] {
  return openingsBy(account)(dayNumber(date))
}

/** What openings come of: weekly slots, some of which stand at another time on one day. */
interface Opened {
  id: string
  zone: string
  slots: readonly Slot[]
  hourTrials?: readonly HourTrial[] | null | undefined
}

/** A slot as minutes of the day; `phase` is where its window's minutes begin. */
interface Minutes {
  from: number
  to: number
  phase: number
}

const inTime = (a: Minutes, b: Minutes): number => a.from - b.from || a.to - b.to

/** The same for many days: slots are parted by weekday once. */
export function openingsBy(account: Opened): (day: number) => Opening[] {
  const parted = Array.from({ length: 8 }, (_, weekday) =>
    account.slots
      .filter((s) => s.weekday === weekday)
      .map((slot): Minutes => {
        const { from, to } = spanOf(slot)
        return { from, to, phase: hash32(`${account.id} ${weekday} ${from} ${to}`) / 2 ** 32 }
      })
      .sort(inTime),
  )
  const trials = new Map<number, HourTrial[]>()
  for (const trial of account.hourTrials ?? []) {
    const day = dayNumber(trial.date)
    trials.set(day, [...(trials.get(day) ?? []), trial])
  }
  return (day) => {
    const slots = parted[weekdayOfDay(day)] ?? []
    const tried = trials.get(day)
    return (tried ? withTrials(slots, tried) : slots).flatMap(
      (slot) => openingOf(slot, day, account.zone) ?? [],
    )
  }
}

/** The slots of a day of which some stand elsewhere; a trial whose slot is gone counts for nothing. */
function withTrials(slots: readonly Minutes[], trials: readonly HourTrial[]): Minutes[] {
  const result = [...slots]
  for (const { slot, at } of trials) {
    const { from, to } = spanOf(slot)
    const i = result.findIndex((s) => s.from === from && s.to === to)
    if (i >= 0) result[i] = { ...spanOf({ weekday: slot.weekday, at }), phase: 0 }
  }
  return result.sort(inTime)
}

function openingOf(slot: Minutes, day: number, zone: string): Opening | null {
  const from = momentAt(day, slot.from, zone)
  if (slot.from === slot.to) return from === null ? null : { from, to: from, drawn: from, others: () => NONE }
  const length = slot.to - slot.from + 1
  const turn = slot.phase + weekNumber(day) * GOLDEN
  const start = Math.floor((turn - Math.floor(turn)) * length)
  const others = (): readonly number[] => {
    const count = Math.min(length, TRIED)
    const minutes = Array.from(
      { length: count },
      (_, i) => (start + Math.floor((i * length) / count)) % length,
    )
    return [...new Set(minutes.flatMap((m) => momentAt(day, slot.from + m, zone) ?? []))]
  }
  // Where the clocks skip a part of it, what is left of it opens: to the very minute before and after.
  const first = firstThere(day, slot.from, slot.to, 1, zone)
  const last = firstThere(day, slot.to, slot.from, -1, zone)
  if (first === null || last === null) return null
  const drawn =
    momentAt(day, slot.from + start, zone) ?? firstThere(day, slot.from + start, slot.to, 1, zone) ?? last
  return { from: first, to: last, drawn, others }
}

/** The moment of the first minute of a day from one on that the clocks show, up to another; null where none is. */
function firstThere(day: number, from: number, to: number, step: 1 | -1, zone: string): number | null {
  for (let minute = from; step > 0 ? minute <= to : minute >= to; minute += step) {
    const at = momentAt(day, minute, zone)
    if (at !== null) return at
  }
  return null
}

/** Quiet rules made ready for many questions: whether a day's number is quiet. */
export function quietDays(quiet: readonly QuietDay[]): (day: number) => boolean {
  const weekdays = new Set(quiet.flatMap((q) => ('weekday' in q ? [q.weekday] : [])))
  const spans = quiet.flatMap((q) => {
    if ('date' in q) return [{ from: dayNumber(q.date), to: dayNumber(q.date) }]
    return 'from' in q ? [{ from: dayNumber(q.from), to: dayNumber(q.to) }] : []
  })
  const yearly = new Set(quiet.flatMap((q) => ('yearly' in q ? [q.yearly] : [])))
  return (day) =>
    weekdays.has(weekdayOfDay(day)) ||
    spans.some((s) => s.from <= day && day <= s.to) ||
    (yearly.size > 0 && yearly.has(dateOf(day).slice(5)))
}
