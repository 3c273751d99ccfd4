import { describe, expect, it } from 'vitest'
import { audienceOf } from '../../world/audience'
import { seededRandom } from '../planning'
import type { Slot } from '../model'
import type { Fact } from './facts'
import { aFact } from './testing/fact'
import { normals } from './testing/normal'
import { bestTimes } from './times'

const HOUR = 3_600_000
const DAY = 24 * HOUR
const NOW = Date.parse('2026-11-30T12:00:00Z')

const fact = (i: number, hour: number, seen: number, change: Partial<Fact> = {}): Fact =>
  aFact({
    post: `p${i}`,
    at: NOW - (190 - i) * DAY,
    hour,
    weekday: 1 + (i % 7),
    readings: { '7 d': { impressions: Math.round(seen) } },
    ...change,
  })
const slots: Slot[] = [
  { weekday: 1, at: '07:15' },
  { weekday: 1, at: '18:40' },
  { weekday: 4, from: '09:00', to: '11:00' },
]
const account = { id: 'a', network: 'murmur', slots, gapMinutes: 60 }
/** 180 posts, over the hours of the day; what goes out in the evening earns twice as much. */
const evening = (change: Partial<Fact> = {}): Fact[] =>
  Array.from({ length: 180 }, (_, i) => {
    const hour = 7 + (i % 14)
    return fact(i, hour, (hour >= 18 ? 2000 : 1000) * (1 + 0.1 * Math.sin(i * 7)), change)
  })

describe('better times', () => {
  it('are hours that earn more, on the same days; what stands well stays', () => {
    const best = bestTimes(evening(), account, NOW)
    if (!best.found) throw new Error(best.why)
    expect(best).toMatchObject({ from: 'account', posts: 180, moved: 2 })
    expect(best.slots[1]).toEqual(slots[1])
    expect(best.slots[0]).toEqual({ weekday: 1, at: '21:00' })
    expect(['19:00', '21:00']).toContain('at' in best.slots[2]! ? best.slots[2].at : '')
    // Two of three slots earn twice as much: the cube root of four.
    expect(best.gain.at).toBeCloseTo(4 ** (1 / 3), 1)
    expect(best.gain.low).toBeGreaterThan(1.3)
  })

  it('keep the gap between posts', () => {
    const best = bestTimes(evening(), { ...account, gapMinutes: 600 }, NOW)
    const monday = best.found ? best.slots.flatMap((s) => ('at' in s && s.weekday === 1 ? [s.at] : [])) : []
    expect(monday).toContain('18:40')
    expect(monday.every((at) => at === '18:40' || at <= '09:00')).toBe(true)
  })

  it('are learned from the network where the account has few posts, and from nobody where it has few too', () => {
    const others = evening({ account: 'b' })
    expect(bestTimes(others, account, NOW)).toMatchObject({ found: true, from: 'network', posts: 180 })
    expect(bestTimes(others.slice(0, 15), account, NOW)).toEqual({ found: false, why: 'few', posts: 15 })
    expect(bestTimes(evening({ network: 'guildhall' }), account, NOW)).toMatchObject({
      found: false,
      posts: 0,
    })
  })

  it('are none where nothing is better', () => {
    const even = evening().map((f, i) => ({ ...f, readings: { '7 d': { impressions: 1000 + (i % 3) } } }))
    expect(bestTimes(even, account, NOW)).toEqual({ found: false, why: 'good', posts: 180 })
  })

  it('are truly better for audiences that nothing here knows, nine times in ten where they are proposed', () => {
    let [proposed, better, held] = [0, 0, 0]
    for (let round = 0; round < 60; round++) {
      const random = seededRandom(round + 1)
      const audience = audienceOf('times', {
        id: `a${round}`,
        network: 'murmur',
        handle: 'a',
        name: 'a',
        about: '',
        zone: 'UTC',
        targets: [],
      })
      // What a moment is worth to it: how many are awake in the three hours after.
      const worth = (weekday: number, hour: number): number =>
        Math.log(
          0.5 +
            (0.5 / 3) *
              [0, 1, 2].reduce(
                (sum, h) => sum + (audience.awake[((weekday - 1) * 24 + hour + h) % 168] ?? 0),
                0,
              ),
        )
      const normal = normals(random)
      const facts = Array.from({ length: 180 }, (_, i) => {
        const hour = 6 + Math.floor(random() * 17)
        return fact(i, hour, 800 * Math.exp(worth(1 + (i % 7), hour) + 0.3 * normal()))
      })
      const best = bestTimes(facts, account, NOW)
      if (!best.found) continue
      const mean = (of: readonly Slot[]): number =>
        of.reduce((sum, s) => sum + worth(s.weekday, Number(('at' in s ? s.at : s.from).slice(0, 2))), 0) /
        of.length
      const truth = Math.exp(mean(best.slots) - mean(slots))
      proposed++
      if (truth > 1) better++
      if (best.gain.low <= truth && truth <= best.gain.high) held++
    }
    expect(proposed).toBeGreaterThan(30)
    expect(better / proposed).toBeGreaterThan(0.9)
    expect(held / proposed).toBeGreaterThan(0.85)
  })
})
