import type { HourTrial, Slot } from '../model'
import { addDays, clockTime, dayNumber, spanOf, weekNumber, type Random } from '../planning'
import { HOURS_TOGETHER } from './effects'
import type { Fact } from './facts'
import { hourOf, hoursOf, type Worth } from './times'

/** Hours of the day that are tried: when readers are mostly awake. */
const FIRST_HOUR = 6
const LAST_HOUR = 22
/** How unsure an hour is that nobody has tried, at the least, on the scale of logarithms: about a third more or less. */
const UNTRIED = 0.3
/** Steps of the golden section visit all slots evenly (Swierczkowski 1958). */
const GOLDEN = (Math.sqrt(5) - 1) / 2

/** An account that tries other hours with a share of its slots. */
export interface Trying {
  id: string
  network: string
  slots: readonly Slot[]
  gapMinutes: number
  share: number
}

/**
 * The trials of an account in the week that begins on a Monday: as many of its slots as its share comes to over the weeks,
 * each week others, each at the hour that does best in one draw of what every hour may be worth (Thompson 1933; Russo and
 * others, A Tutorial on Thompson Sampling, 2018). So an hour is tried about as often as it may well be the best, and a slot
 * that surely stands at the best hour stays. `facts` are all posts of a brand.
 */
export function hourTrialsOf(
  facts: readonly Fact[],
  account: Trying,
  monday: string,
  now: number,
  random: Random,
): HourTrial[] {
  const chosen = slotsTried(account, monday)
  if (chosen.length === 0) return []
  const { hours } = hoursOf(facts, account, now)
  return chosen.flatMap((slot): HourTrial[] => {
    const date = addDays(monday, slot.weekday - 1)
    const at = drawnTime(slot, account, hours, random)
    return at === null ? [] : [{ date, slot, at }]
  })
}

/** The slots that are given to trials in a week. */
function slotsTried({ slots, share }: Trying, monday: string): Slot[] {
  const week = weekNumber(dayNumber(monday))
  const count = Math.floor((week + 1) * share * slots.length) - Math.floor(week * share * slots.length)
  const turn = week * GOLDEN
  const indices = Array.from({ length: count }, (_, i) => {
    const part = turn + i / count
    return Math.floor((part - Math.floor(part)) * slots.length)
  })
  return [...new Set(indices)].flatMap((i) => slots[i] ?? [])
}

/** The time at which a slot is tried; null where the best of the draw is its own hour. */
function drawnTime(
  slot: Slot,
  { slots, gapMinutes }: Trying,
  hours: ReadonlyMap<number, Worth>,
  random: Random,
): string | null {
  const others = slots.filter((s) => s !== slot && s.weekday === slot.weekday)
  const unsure = Math.max(UNTRIED, ...[...hours.values()].map((h) => h.deviation))
  let best: { hour: number; worth: number } | null = null
  for (let hour = FIRST_HOUR; hour < LAST_HOUR; hour += HOURS_TOGETHER) {
    const { effect, deviation } = hours.get(hour) ?? { effect: 0, deviation: unsure }
    const worth = effect + deviation * normal(random)
    if (isFree(timeIn(hour), others, gapMinutes) && (best === null || worth > best.worth))
      best = { hour, worth }
  }
  return best === null || best.hour === hourOf(slot) ? null : clockTime(timeIn(best.hour))
}

/** The middle of some hours together, in minutes of the day. */
const timeIn = (hour: number): number => (hour + HOURS_TOGETHER / 2) * 60

/** Whether a time keeps the gap to the other slots of its day. */
function isFree(minute: number, others: readonly Slot[], gapMinutes: number): boolean {
  return others.every((s) => {
    const { from, to } = spanOf(s)
    return Math.max(from - minute, minute - to) >= Math.max(1, gapMinutes)
  })
}

/** A number drawn from the standard normal distribution (Box and Muller 1958). */
function normal(random: Random): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
}
