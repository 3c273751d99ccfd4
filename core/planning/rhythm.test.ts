import fc from 'fast-check'
import { expect, it } from 'vitest'
import { beatCount, beatDays, rhythmNamed, RHYTHMS, rhythmOfDays } from './rhythm'

it('spaces the built-in rhythms as they are described', () => {
  expect(beatDays(rhythmNamed('trickle')!)).toEqual([0, 7, 17, 34, 60, 103, 171, 280])
  expect(beatDays(rhythmNamed('Echo')!)).toEqual([0, 3])
  expect(beatDays(rhythmNamed('Shower')!)).toEqual([0, 2, 4, 6, 10])
  expect(rhythmNamed('nothing')).toBeNull()
})

it('puts one beat on day 0 and spaces evenly without thinning', () => {
  expect(beatDays({ name: 'own', days: 30, beats: 1, thinning: 1.5 })).toEqual([0])
  expect(beatDays({ name: 'own', days: 30, beats: 4, thinning: 1 })).toEqual([0, 10, 20, 30])
})

it('always gives as many distinct ascending days as it has beats', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 1500 }),
      fc.integer({ min: 1, max: 60 }),
      fc.double({ min: 1, max: 5, noNaN: true }),
      (days, beats, thinning) => {
        const found = beatDays({ name: 'own', days, beats, thinning })
        expect(found).toHaveLength(beats)
        expect(found[0]).toBe(0)
        found.forEach((d, i) => i && expect(d).toBeGreaterThan(found[i - 1] as number))
      },
    ),
  )
})

it('thins: later gaps are never clearly shorter than earlier ones', () => {
  for (const rhythm of RHYTHMS.filter((r) => !('list' in r))) {
    const days = beatDays(rhythm)
    const gaps = days.slice(1).map((d, i) => d - (days[i] as number))
    gaps.forEach((gap, i) => i && expect(gap).toBeGreaterThanOrEqual((gaps[i - 1] as number) - 1))
    expect(beatCount(rhythm)).toBe(days.length)
  }
})

it('makes a rhythm of days as people list them, and of nothing else', () => {
  for (const text of ['0, 3, 30', '30 0 3', ' 3; 0;30; 3 ', 'day 0, day 3 and day 30'])
    expect(rhythmOfDays(text)).toEqual({ name: 'Your own', list: [0, 3, 30] })
  expect(beatDays(rhythmOfDays('7') ?? { name: '', list: [0] })).toEqual([7])
  for (const text of ['', 'every day', '0, 1501', Array.from({ length: 61 }, (_, i) => i).join(' ')])
    expect(rhythmOfDays(text)).toBeNull()
})
