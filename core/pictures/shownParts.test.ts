import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { FilmPart, PieceContent } from '../model'
import { barsOf, clipMoment, filmMoment, partSeconds, pausesOf, shownParts, subtitleFile } from '.'

const part: FilmPart = {
  start: 10,
  end: 20,
  hook: '',
  filled: false,
  subtitles: [
    { from: 10.2, to: 12, text: 'Oak bends.' },
    { from: 12.5, to: 13.5, text: '' },
    { from: 16, to: 19, text: 'Larch does not.' },
  ],
  leftOut: [
    { from: 12, to: 13 },
    { from: 15, to: 17 },
  ],
}

describe('a part of a film without what is left out of it', () => {
  it('plays what is left one after the other', () => {
    expect(shownParts(part)).toEqual([
      { from: 10, to: 12 },
      { from: 13, to: 15 },
      { from: 17, to: 20 },
    ])
    expect(partSeconds(part)).toBe(7)
    expect(partSeconds({ start: 10, end: 20 })).toBe(10)
    expect(clipMoment(part, 14)).toBe(3)
    expect(clipMoment(part, 16.5)).toBe(4)
    expect(filmMoment(part, 3)).toBe(14)
    expect(filmMoment(part, 4)).toBe(17)
    expect(filmMoment(part, 7)).toBe(20)
  })

  it('has its subtitles as long as their words are heard', () => {
    expect(subtitleFile(part, 'srt')).toBe(
      '1\n00:00:00,200 --> 00:00:02,000\nOak bends.\n\n2\n00:00:04,000 --> 00:00:06,000\nLarch does not.\n',
    )
  })

  it('shows each of its moments once and in their order, whatever is left out', () => {
    const cuts = fc.uniqueArray(fc.integer({ min: 0, max: 1000 }), { minLength: 0, maxLength: 12 })
    fc.assert(
      fc.property(cuts, (of) => {
        const ends = of.sort((a, b) => a - b).map((n) => n / 10)
        const leftOut = ends.flatMap((from, i) =>
          i % 2 === 0 && ends[i + 1] !== undefined ? [{ from, to: ends[i + 1] ?? 0 }] : [],
        )
        const any = { start: 0, end: 100, leftOut }
        // By brute force, a tenth of a second at a time.
        const shown = Array.from({ length: 1000 }, (_, i) => (i + 0.5) / 10).filter(
          (at) => !leftOut.some((g) => g.from <= at && at < g.to),
        )
        expect(partSeconds(any)).toBeCloseTo(shown.length / 10, 6)
        shown.forEach((at, i) => {
          expect(clipMoment(any, at)).toBeCloseTo((i + 0.5) / 10, 6)
          expect(filmMoment(any, (i + 0.5) / 10)).toBeCloseTo(at, 6)
        })
      }),
    )
  })
})

it('hesitations are looked for where their words have them', () => {
  const text = 'Oak bends, um, and larch will not.'
  const sentences = [
    { start: 0, end: text.length, block: 0, from: 10, to: 16.8 },
  ] as PieceContent['sentences']
  // The word stands in the middle of the sentence's twelfth of 34 letters: about 12.4 s. It is heard from 12.2 to 12.6 s.
  const heard = [
    [10, 12],
    [12.2, 12.6],
    [12.8, 16.8],
  ]
  const levels = Array.from({ length: 340 }, (_, i) => {
    const at = 10 + (i + 0.5) * 0.02
    return heard.some(([from = 0, to = 0]) => from <= at && at < to) ? 0.2 : 0
  })
  expect(pausesOf({ sentences, text }, { start: 10, end: 16.8 }, levels)).toEqual([
    { from: 12.15, to: 12.65 },
  ])
  expect(pausesOf({ sentences: [], text }, { start: 10, end: 16.8 }, levels)).toEqual([])
})

it('a recording’s bars show how loud it is against its loudest, without what is left out', () => {
  const levels = [
    ...new Array<number>(50).fill(0.1),
    ...new Array<number>(50).fill(0.4),
    ...new Array<number>(50).fill(0),
  ]
  // A quarter of the pressure sounds 0.25 to the power of 0.6 as loud: 0.435.
  const bars = barsOf({ start: 5, end: 8 }, levels, 3)
  expect(bars.map((b) => Number(b.toFixed(3)))).toEqual([0.435, 1, 0])
  expect(barsOf({ start: 5, end: 8, leftOut: [{ from: 6, to: 7 }] }, levels, 2)).toEqual([1, 0])
  expect(barsOf({ start: 5, end: 8 }, new Array<number>(150).fill(0), 3)).toEqual([0, 0, 0])
  expect(barsOf({ start: 5, end: 8 }, [], 2)).toEqual([0, 0])
})
