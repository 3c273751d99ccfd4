import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { LEVEL_SECONDS, toLeaveOut } from '.'

/** Levels of a recording told as "what it is, for how long in seconds": 's' is speech, 'q' is quiet, with a noise of its own. */
function levels(told: readonly (readonly ['s' | 'q', number])[], noise = 0.001): number[] {
  let seed = 7
  const random = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647
  return told.flatMap(([what, seconds]) =>
    Array.from({ length: Math.round(seconds / LEVEL_SECONDS) }, () =>
      what === 's' ? 0.1 + 0.2 * random() : noise * (0.5 + random()),
    ),
  )
}
const told = (...of: Parameters<typeof toLeaveOut>) =>
  toLeaveOut(...of).map(({ from, to }) => [Number(from.toFixed(2)), Number(to.toFixed(2))])

describe('what may be left out of a recording', () => {
  it('is the middle of pauses over half a second; a breath of 0.3 s stays, and so do its ends', () => {
    const of = levels([
      ['q', 1],
      ['s', 2],
      ['q', 0.5],
      ['s', 2],
      ['q', 1.2],
      ['s', 2],
      ['q', 1],
    ])
    // The long pause begins at 5.5 s and ends at 6.7 s.
    expect(told(of, [])).toEqual([[5.65, 6.55]])
  })

  it('is a sound of hesitation that stands alone near its words, with the quiet about it', () => {
    const of = levels([
      ['s', 2],
      ['q', 0.1],
      ['s', 0.4],
      ['q', 0.2],
      ['s', 2],
    ])
    // The sound lies from 2.1 to 2.5 s, in a gap from 2 to 2.7 s.
    expect(told(of, [2.5])).toEqual([[2.1, 2.55]])
    expect(told(of, [])).toEqual([])
    expect(told(of, [3.2])).toEqual([])
  })

  it('is no sound that runs into a word, is as long as words are, or may be another', () => {
    const run = levels([
      ['s', 2],
      ['q', 0.1],
      ['s', 2.4],
    ])
    expect(told(run, [2.2])).toEqual([])
    const long = levels([
      ['s', 2],
      ['q', 0.1],
      ['s', 1],
      ['q', 0.1],
      ['s', 2],
    ])
    expect(told(long, [2.6])).toEqual([])
    const two = levels([
      ['s', 2],
      ['q', 0.1],
      ['s', 0.3],
      ['q', 0.1],
      ['s', 0.3],
      ['q', 0.1],
      ['s', 2],
    ])
    expect(told(two, [2.5])).toEqual([])
  })

  it('is nothing where all is one noise, or all is silent', () => {
    expect(told(levels([['q', 5]]), [1])).toEqual([])
    expect(told(levels([['s', 5]]), [1])).toEqual([])
    expect(told(new Array<number>(200).fill(0), [1])).toEqual([])
  })

  it('never touches speech, whatever it is made of, and leaves every long pause shorter', () => {
    const run = fc.array(fc.tuple(fc.integer({ min: 20, max: 150 }), fc.integer({ min: 4, max: 100 })), {
      minLength: 3,
      maxLength: 12,
    })
    fc.assert(
      fc.property(run, fc.constantFrom(0, 0.0005, 0.002), (runs, noise) => {
        const of = levels(
          runs.flatMap(([speech, quiet]) => [
            ['s', speech * LEVEL_SECONDS] as const,
            ['q', quiet * LEVEL_SECONDS] as const,
          ]),
          noise,
        )
        const out = toLeaveOut(of, [])
        of.forEach((level, i) => {
          const at = (i + 0.5) * LEVEL_SECONDS
          if (level > 0.05) expect(out.some(({ from, to }) => from <= at && at < to)).toBe(false)
        })
        // Of 28 levels, 0.56 s, at least 0.25 s go; the last pause is the breath at the end. All must not be quiet but for a little.
        const speech = runs.reduce((sum, [s]) => sum + s, 0) / of.length
        if (speech > 0.15) expect(out).toHaveLength(runs.slice(0, -1).filter(([, q]) => q >= 28).length)
      }),
    )
  })
})
