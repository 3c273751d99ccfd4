import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { beatCount, beatDays, proposedRhythm, rhythmWithin, TRICKLE } from '.'

const TODAY = '2026-11-24'
const in_ = (days: number): string =>
  new Date(Date.parse(TODAY) + days * 86_400_000).toISOString().slice(0, 10)

describe('the rhythm proposed for how long a piece keeps', () => {
  it.each([
    [null, 'Trickle'],
    [300, 'Trickle'],
    [250, 'Tide'],
    [100, 'Swell'],
    [11, 'Shower'],
    [0, 'Once'],
    [-9, 'Once'],
  ])('%s days from now: %s', (days, name) => {
    expect(proposedRhythm({ until: days === null ? null : in_(days) }, TODAY).name).toBe(name)
  })

  it('never goes past the last day, and says that day where none that ships fits', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 400 }), (days) => {
        const rhythm = proposedRhythm({ until: in_(days) }, TODAY)
        expect(beatDays(rhythm).at(-1)).toBeLessThanOrEqual(days)
        expect(beatCount(rhythm)).toBeGreaterThan(0)
      }),
    )
    expect(proposedRhythm({ until: in_(6) }, TODAY)).toEqual({ name: `Until ${in_(6)}`, list: [0, 3, 6] })
    expect(proposedRhythm({ until: null }, TODAY)).toBe(TRICKLE)
  })
})

describe('a rhythm within how long a piece keeps', () => {
  it('loses the beats after the last day, and is none where all are', () => {
    expect(rhythmWithin(TRICKLE, { until: null }, TODAY)).toBe(TRICKLE)
    expect(rhythmWithin(TRICKLE, { until: in_(280) }, TODAY)).toBe(TRICKLE)
    expect(rhythmWithin({ name: 'Mine', list: [0, 3, 30] }, { until: in_(29) }, TODAY)).toEqual({
      name: 'Mine',
      list: [0, 3],
    })
    expect(rhythmWithin(TRICKLE, { until: in_(-1) }, TODAY)).toBeNull()
  })
})
