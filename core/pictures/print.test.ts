import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { greyOf, PRINT_SIDE, printOf } from './print'

/** The transform as it is defined, one sum a wave. */
function wavesByDefinition(grey: readonly number[]): number[] {
  const waves: number[] = []
  for (let v = 0; v <= 7; v++)
    for (let u = 0; u <= 8; u++) {
      if ((u === 0 && v === 0) || (u === 8 && v > 0)) continue
      let sum = 0
      for (let y = 0; y < 32; y++)
        for (let x = 0; x < 32; x++)
          sum +=
            (grey[32 * y + x] ?? 0) *
            Math.cos((Math.PI / 32) * (x + 0.5) * u) *
            Math.cos((Math.PI / 32) * (y + 0.5) * v)
      waves.push(sum)
    }
  return waves
}

const pixels = (of: (x: number, y: number) => number): number[] =>
  Array.from({ length: PRINT_SIDE * PRINT_SIDE }, (_, i) => of(i % PRINT_SIDE, Math.floor(i / PRINT_SIDE)))

describe('the print of a picture', () => {
  it('is which waves stand above their median, by the definition of the transform', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 255 }), { minLength: 1024, maxLength: 1024 }),
        (grey) => {
          // The wave of eight across comes last.
          const byRow = wavesByDefinition(grey)
          const waves = [...byRow.slice(0, 7), ...byRow.slice(8), byRow[7] as number]
          const sorted = waves.toSorted((a, b) => a - b)
          const middle = ((sorted[31] as number) + (sorted[32] as number)) / 2
          const bits = waves.map((w) => (w > middle ? '1' : '0')).join('')
          expect(BigInt(`0x${printOf(grey)}`)).toBe(BigInt(`0b${bits}`))
        },
      ),
      { numRuns: 20 },
    )
  })

  it('has half of its bits set, and does not mind how light the picture is', () => {
    const slope = (more: number) => pixels((x, y) => ((7 * x * x + 13 * y * y * x + 29 * y) % 199) + more)
    const print = printOf(slope(0)) as string
    expect([...BigInt(`0x${print}`).toString(2)].filter((b) => b === '1')).toHaveLength(32)
    expect(printOf(slope(40))).toBe(print)
  })

  it('is none of a picture that is flat, or nearly', () => {
    expect(printOf(pixels(() => 200))).toBeNull()
    expect(printOf(pixels((x) => (x < 16 ? 200 : 200.8)))).toBeNull()
    // One wave of an amplitude of 2: twice what counts as flat.
    const wave = (height: number) =>
      pixels(
        (x, y) => 128 + height * Math.cos((Math.PI / 32) * (x + 0.5)) * Math.cos((Math.PI / 32) * (y + 0.5)),
      )
    expect(printOf(wave(2))).not.toBeNull()
    expect(printOf(wave(0.5))).toBeNull()
  })

  it('is refused of any other size', () => {
    expect(() => printOf([1, 2, 3])).toThrow('32 by 32')
  })
})

it('grey is what the eye sees of red, green and blue, on white', () => {
  const rgba = [255, 0, 0, 255, 0, 255, 0, 255, 0, 0, 255, 255, 255, 255, 255, 255, 0, 0, 0, 0, 0, 0, 0, 255]
  const grey = [...greyOf(new Uint8ClampedArray(rgba))]
  // 0.299, 0.587 and 0.114 of 255; white; white shines through; black.
  for (const [i, value] of [76.245, 149.685, 29.07, 255, 255, 0].entries())
    expect(grey[i]).toBeCloseTo(value, 6)
})
