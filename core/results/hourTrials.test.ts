import { describe, expect, it } from 'vitest'
import type { Slot } from '../model'
import { addDays, clockMinutes, seededRandom, type Random } from '../planning'
import type { Fact } from './facts'
import { hourTrialsOf, type Trying } from './hourTrials'
import { aFact } from './testing/fact'
import { normals } from './testing/normal'
import { bestTimes } from './times'

const DAY = 86_400_000
/** A Monday. */
const START = '2026-01-05'
const at = (date: string): number => Date.parse(`${date}T00:00:00Z`)
const minuteOf = (slot: Slot): number => clockMinutes('at' in slot ? slot.at : slot.from)

const WEEK: Slot[] = [1, 2, 3, 4, 5].flatMap((weekday) => [
  { weekday, at: '09:00' },
  { weekday, at: '13:00' },
])
const trying = (change: Partial<Trying> = {}): Trying => ({
  id: 'a',
  network: 'murmur',
  slots: WEEK,
  gapMinutes: 60,
  share: 0.2,
  ...change,
})

/** Posts of half a year at some hours, which earn what `worth` says of each, a little apart from one another. */
const posts = (hours: readonly number[], worth: (hour: number) => number, noise = 0.05): Fact[] => {
  const normal = normals(seededRandom(4))
  return Array.from({ length: 180 }, (_, i) => {
    const hour = hours[i % hours.length] as number
    return aFact({
      post: `p${i}`,
      at: at(START) - (190 - i) * DAY,
      hour,
      weekday: 1 + (i % 7),
      readings: { '7 d': { impressions: Math.round(1000 * worth(hour) * Math.exp(noise * normal())) } },
    })
  })
}

describe('trials of other hours', () => {
  it('come to their share of the slots over the weeks, each week others, all of them in turn', () => {
    for (const share of [0.05, 0.1, 0.2]) {
      const tried = new Map<string, number>()
      let count = 0
      for (let week = 0; week < 100; week++) {
        const monday = addDays(START, week * 7)
        for (const { slot, date } of hourTrialsOf(
          [],
          trying({ share }),
          monday,
          at(monday),
          seededRandom(week),
        )) {
          expect((new Date(date).getUTCDay() + 6) % 7).toBe(slot.weekday - 1)
          expect(date >= monday && date < addDays(monday, 7)).toBe(true)
          tried.set(JSON.stringify(slot), (tried.get(JSON.stringify(slot)) ?? 0) + 1)
          count++
        }
      }
      // Now and then the slot's own hour is drawn, and it stays.
      expect(count).toBeGreaterThan(share * WEEK.length * 100 * 0.75)
      expect(count).toBeLessThanOrEqual(share * WEEK.length * 100)
      expect(tried.size).toBe(WEEK.length)
    }
    expect(hourTrialsOf([], trying({ slots: [] }), START, at(START), seededRandom(1))).toEqual([])
  })

  it('keep the gap to the other slots of the day, and lie where readers are awake', () => {
    for (let week = 0; week < 200; week++)
      for (const trial of hourTrialsOf(
        [],
        trying({ gapMinutes: 180 }),
        START,
        at(START),
        seededRandom(week),
      )) {
        const minute = clockMinutes(trial.at)
        const others = WEEK.filter(
          (s) => s.weekday === trial.slot.weekday && JSON.stringify(s) !== JSON.stringify(trial.slot),
        )
        for (const other of others) expect(Math.abs(minuteOf(other) - minute)).toBeGreaterThanOrEqual(180)
        expect(minute).toBeGreaterThanOrEqual(6 * 60)
        expect(minute).toBeLessThan(22 * 60)
      }
  })

  it('try an hour about as often as it may be the best: surely bad ones not, unknown ones often', () => {
    // The morning hours are known, and known to be poor beside ten o'clock.
    const facts = posts([6, 8, 10], (hour) => (hour === 10 ? 2 : 1))
    const drawn = new Map<number, number>()
    for (let seed = 0; seed < 300; seed++)
      for (const trial of hourTrialsOf(facts, trying(), START, at(START), seededRandom(seed))) {
        const hour = Math.floor(clockMinutes(trial.at) / 120) * 2
        drawn.set(hour, (drawn.get(hour) ?? 0) + 1)
      }
    const times = (hour: number): number => drawn.get(hour) ?? 0
    expect(times(6) + times(8)).toBeLessThan(10)
    expect(times(10)).toBeGreaterThan(50)
    for (const unknown of [16, 18, 20]) expect(times(unknown)).toBeGreaterThan(5)
  })

  it('leave slots that surely stand at the best hour', () => {
    const facts = posts([6, 8, 10, 12, 14, 16, 18, 20], (hour) => (hour === 8 ? 3 : 1))
    const nine = trying({ slots: WEEK.filter((s) => minuteOf(s) === 9 * 60) })
    for (let seed = 0; seed < 50; seed++)
      expect(hourTrialsOf(facts, nine, START, at(START), seededRandom(seed))).toEqual([])
  })
})

describe('a simulated year', () => {
  type Policy = 'fixed' | 'greedy' | 'trials'

  /**
   * The regret of one account's year: how much more its posts would have earned at its best hours, on the scale of logarithms,
   * summed over posts. Both that learn move their slots to the best times once a month; one of them tries other hours too.
   */
  function regretOf(policy: Policy, truth: ReadonlyMap<number, number>, random: Random): number {
    const normal = normals(random)
    // Three hours are known from the first week on, so that there is something to go for.
    let slots: Slot[] = [1, 2, 3, 4].flatMap((weekday) => [
      { weekday, at: weekday % 2 ? '09:00' : '13:00' },
      { weekday, at: '17:00' },
    ])
    const facts: Fact[] = []
    let regret = 0
    const best = [...truth.values()].sort((a, b) => b - a)
    for (let week = 0; week < 52; week++) {
      const monday = addDays(START, week * 7)
      const now = at(monday)
      if (policy !== 'fixed' && week > 0 && week % 4 === 0) {
        const times = bestTimes(facts, { id: 'a', network: 'murmur', slots, gapMinutes: 60 }, now)
        if (times.found) slots = times.slots
      }
      const trials = policy === 'trials' ? hourTrialsOf(facts, trying({ slots }), monday, now, random) : []
      for (const slot of slots) {
        const trial = trials.find((t) => t.slot === slot)
        const hour = Math.floor((trial ? clockMinutes(trial.at) : minuteOf(slot)) / 120) * 2
        const worth = truth.get(hour) ?? 0
        regret += (best[0] as number) - worth
        const date = addDays(monday, slot.weekday - 1)
        facts.push(
          aFact({
            post: `p${facts.length}`,
            at: at(date),
            hour,
            weekday: slot.weekday,
            readings: { '7 d': { impressions: Math.round(1000 * Math.exp(worth + 0.4 * normal())) } },
          }),
        )
      }
    }
    return regret
  }

  it('costs less with trials than at fixed hours, and less than by going for what is known alone', () => {
    const sum: Record<Policy, number> = { fixed: 0, greedy: 0, trials: 0 }
    for (let account = 0; account < 6; account++) {
      const normal = normals(seededRandom(100 + account))
      const truth = new Map([6, 8, 10, 12, 14, 16, 18, 20].map((hour) => [hour, 0.35 * normal()]))
      for (const policy of ['fixed', 'greedy', 'trials'] as const)
        sum[policy] += regretOf(policy, truth, seededRandom(account))
    }
    expect(sum.trials).toBeLessThan(0.6 * sum.fixed)
    expect(sum.trials).toBeLessThan(0.75 * sum.greedy)
  })
})
