import fc from 'fast-check'
import { expect, it } from 'vitest'
import { AGES, type Age } from '../model'
import { followingsToDrop, readingsToDrop } from './thin'

const DAY = 86_400_000
const NOW = Date.parse('2026-11-30T00:00:00Z')
const reading = (daysAgo: number, age: Age) => ({
  id: `${daysAgo} ${age}`,
  age,
  takenAt: new Date(NOW - daysAgo * DAY + AGES[age]).toISOString(),
})
const EVERY = Object.keys(AGES) as Age[]

it('drops nothing as long as there is room', () => {
  const all = EVERY.map((age) => reading(800, age))
  expect(readingsToDrop(all, 7, NOW)).toEqual([])
  expect(readingsToDrop([], 7, NOW)).toEqual([])
  expect(followingsToDrop([{ id: 'a', day: '2026-11-30' }], 1)).toEqual([])
})

it('drops of old posts first what is missed least, and of the young ones last', () => {
  const all = [400, 500, 100].flatMap((days) => EVERY.map((age) => reading(days, age)))
  // Twenty may stay, one in twenty is left free: nineteen stay.
  expect(readingsToDrop(all, 20, NOW)).toEqual(['500 1 h', '400 1 h'])
  expect(readingsToDrop(all, 10, NOW)).toEqual([
    ...['1 h', '6 h', '30 d', '1 d', '90 d', '3 d'].flatMap((age) => [`500 ${age}`, `400 ${age}`]),
  ])
  expect(readingsToDrop(all, 5, NOW).slice(12)).toEqual([
    '500 7 d',
    '400 7 d',
    '100 1 h',
    '100 6 h',
    '100 30 d',
  ])
})

it('keeps within the bound whatever there is, and never drops a young reading while an old one of its age stays', () => {
  const some = fc.array(
    fc.record({ days: fc.integer({ min: 0, max: 3000 }), age: fc.constantFrom(...EVERY) }),
    { maxLength: 200 },
  )
  fc.assert(
    fc.property(some, fc.integer({ min: 1, max: 120 }), (of, most) => {
      const all = of.map(({ days, age }, i) => ({ ...reading(days, age), id: String(i), days }))
      const dropped = new Set(readingsToDrop(all, most, NOW))
      const stay = all.filter((r) => !dropped.has(r.id))
      expect(stay.length).toBeLessThanOrEqual(most)
      expect(stay.length === all.length || stay.length >= Math.floor(most * 0.95)).toBe(true)
      for (const age of EVERY) {
        const youngest = Math.min(...all.filter((r) => r.age === age && dropped.has(r.id)).map((r) => r.days))
        const oldest = Math.max(...stay.filter((r) => r.age === age).map((r) => r.days))
        expect(stay.some((r) => r.age === age) && dropped.size > 0 ? oldest <= youngest : true).toBe(true)
      }
    }),
  )
})

it('keeps of followers the Mondays longest', () => {
  const days = Array.from({ length: 28 }, (_, i) => `2026-02-${String(i + 1).padStart(2, '0')}`)
  const all = days.map((day) => ({ id: day, day }))
  const stay = (most: number) => {
    const dropped = new Set(followingsToDrop(all, most))
    return days.filter((d) => !dropped.has(d))
  }
  // February 2026 has its Mondays on the 2nd, the 9th, the 16th and the 23rd.
  expect(stay(8)).toEqual([
    '2026-02-02',
    '2026-02-09',
    '2026-02-16',
    '2026-02-23',
    '2026-02-26',
    '2026-02-27',
    '2026-02-28',
  ])
  expect(stay(4)).toEqual(['2026-02-09', '2026-02-16', '2026-02-23'])
})
