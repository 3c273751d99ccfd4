import type { QuietDay, Slot } from '../model'
import { hash32 } from './random'
import { clockMinutes, clockTime, fromWall, weekdayOf } from './zone'

/** Whether a local day is kept quiet by any of the rules. */
export function isQuiet(date: string, quiet: readonly QuietDay[]): boolean {
  return quiet.some((q) => {
    if ('weekday' in q) return q.weekday === weekdayOf(date)
    if ('date' in q) return q.date === date
    if ('yearly' in q) return q.yearly === date.slice(5)
    return q.from <= date && date <= q.to
  })
}

/**
 * The moments of one local day at which an account's slots open, one list a slot. An exact slot
 * gives one moment. A window gives minutes of it, beginning with one drawn from the day and the
 * account, so that the time does not repeat week after week; `perWindow` caps how many. Times
 * that summer time skips are left out, doubled ones count once.
 */
export function openingsOn(
  date: string,
  account: { id: string; zone: string; slots: readonly Slot[] },
  perWindow = 30,
): number[][] {
  const weekday = weekdayOf(date)
  return account.slots.flatMap((slot, index) => {
    if (slot.weekday !== weekday) return []
    const times =
      'at' in slot
        ? [slot.at]
        : windowMinutes(slot.from, slot.to, hash32(`${account.id} ${date} ${index}`), perWindow)
    const moments = times.flatMap((time) => fromWall(date, time, account.zone) ?? [])
    return moments.length ? [[...new Set(moments)]] : []
  })
}

/** `most` minutes spread over a window, the first one drawn by `seed`. */
function windowMinutes(from: string, to: string, seed: number, most: number): string[] {
  const first = clockMinutes(from)
  const length = clockMinutes(to) - first + 1
  const count = Math.min(length, most)
  const start = seed % length
  return Array.from({ length: count }, (_, i) =>
    clockTime(first + ((start + Math.floor((i * length) / count)) % length)),
  )
}
