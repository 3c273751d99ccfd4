import type { Slot } from '../model'
import { clockTime, spanOf } from '../planning'
import { effectsOf, HOURS_TOGETHER } from './effects'
import { asRatio, normally, type Estimate } from './estimate'
import { readAt, type Fact } from './facts'

/** So many posts of an account say something of its own hours; fewer are taken together with those of its network. */
const OWN = 40
/** The least that other hours have to be worth, as a ratio, for slots to be moved. */
const WORTH = 1.02

/** Slots that are proposed, and what speaks for them. */
export type BestTimes =
  | {
      found: true
      slots: Slot[]
      /** How many times as much the mean post earns at these slots as at those of today. */
      gain: Estimate
      moved: number
      /** Whose posts were learned from, and how many. */
      from: 'account' | 'network'
      posts: number
    }
  /** None, since there are too few posts, or since nothing better than today's slots is known. */
  | { found: false; why: 'few' | 'good'; posts: number }

/** An hour's effect on the scale of logarithms, and how unsure it is. */
export interface Worth {
  effect: number
  deviation: number
}

/**
 * Better times for an account's slots, each on the weekday it has: the hours of a day that earn most with all else alike
 * (`effectsOf`), as far as it has posted then; no two slots of a day closer than `gapMinutes`. `facts` are all posts of a brand.
 */
export function bestTimes(
  facts: readonly Fact[],
  account: { id: string; network: string; slots: readonly Slot[]; gapMinutes: number },
  now: number,
): BestTimes {
  const { hours, from, posts } = hoursOf(facts, account, now)
  if (hours.size < 2 || account.slots.length === 0) return { found: false, why: 'few', posts }
  const slots = moved(account.slots, hours, account.gapMinutes)
  const gain = gainOf(account.slots, slots, hours)
  const changed = slots.filter((s, i) => JSON.stringify(s) !== JSON.stringify(account.slots[i])).length
  if (changed === 0 || gain.at < WORTH) return { found: false, why: 'good', posts }
  return { found: true, slots, gain, moved: changed, from, posts }
}

/** What is known of hours: of each the worth, by where it begins, and whose posts it was learned from. */
export interface Hours {
  hours: ReadonlyMap<number, Worth>
  from: 'account' | 'network'
  posts: number
}

/** What each hour of the day is worth with all else alike, learned from an account's own posts where they are many, else its network's. */
export function hoursOf(
  facts: readonly Fact[],
  account: { id: string; network: string },
  now: number,
): Hours {
  const seen = facts.flatMap((fact) => {
    const read = fact.network === account.network ? readAt(fact, '7 d', now) : 'missing'
    const count = typeof read === 'string' ? undefined : read.impressions
    return count === undefined ? [] : [{ fact, count }]
  })
  const own = seen.filter((s) => s.fact.account === account.id)
  const from = own.length >= OWN ? 'account' : 'network'
  const learned = from === 'account' ? own : seen
  const { effects } = effectsOf(
    learned.map((s) => s.fact),
    learned.map((s) => s.count),
  )
  const hours = new Map(
    effects
      .filter((e) => e.factor === 'hour')
      .map((e): [number, Worth] => [
        Number(e.level),
        { effect: Math.log(e.times.at), deviation: Math.log(e.times.high / e.times.low) / (2 * 1.96) },
      ]),
  )
  return { hours, from, posts: learned.length }
}

/** The hours in which a slot begins, as they are looked at together. */
export function hourOf(slot: Slot): number {
  return Math.floor(spanOf(slot).from / 60 / HOURS_TOGETHER) * HOURS_TOGETHER
}

/** Each slot at the best hour that is left of its day; one that stands in one of these stays as it is. */
function moved(slots: readonly Slot[], hours: ReadonlyMap<number, Worth>, gapMinutes: number): Slot[] {
  const best = [...hours].sort(([, a], [, b]) => b.effect - a.effect).map(([hour]) => hour)
  const apart = Math.max(HOURS_TOGETHER * 60, gapMinutes)
  const result = [...slots]
  for (const weekday of new Set(slots.map((s) => s.weekday))) {
    const mine = slots.flatMap((s, i) => (s.weekday === weekday ? [i] : []))
    const wanted = spread(best, mine.length, apart)
    const left = wanted.filter((hour) => !mine.some((i) => hourOf(slots[i] as Slot) === hour))
    for (const i of mine) {
      const slot = slots[i] as Slot
      if (wanted.includes(hourOf(slot))) continue
      const hour = left.shift()
      if (hour !== undefined) result[i] = { weekday, at: clockTime((hour + HOURS_TOGETHER / 2) * 60) }
    }
  }
  return result
}

/** The best hours that lie so many minutes apart, as many as are wanted or there are. */
function spread(best: readonly number[], count: number, apart: number): number[] {
  const chosen: number[] = []
  for (const hour of best)
    if (chosen.length < count && chosen.every((c) => Math.abs(c - hour) * 60 >= apart)) chosen.push(hour)
  return chosen
}

/** What a change of slots is worth for the mean post; hours that nobody has tried are worth what is usual, and wholly unsure. */
function gainOf(
  before: readonly Slot[],
  after: readonly Slot[],
  hours: ReadonlyMap<number, Worth>,
): Estimate {
  const unsure = Math.max(...[...hours.values()].map((h) => h.deviation))
  const parts = new Map<number, number>()
  const add = (slot: Slot, part: number): void => {
    const hour = hourOf(slot)
    parts.set(hour, (parts.get(hour) ?? 0) + part / before.length)
  }
  for (const slot of before) add(slot, -1)
  for (const slot of after) add(slot, 1)
  let [effect, variance] = [0, 0]
  for (const [hour, part] of parts) {
    const worth = hours.get(hour) ?? { effect: 0, deviation: unsure }
    effect += part * worth.effect
    variance += (part * worth.deviation) ** 2
  }
  return asRatio(normally(effect, Math.sqrt(variance)))
}
