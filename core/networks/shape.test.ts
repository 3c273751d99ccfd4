import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cutIn, movedCut } from './shape'

const side = fc.integer({ min: 40, max: 6000 })
const size = fc.record({ width: side, height: side })
const shape = fc.constantFrom(
  { width: 1, height: 1 },
  { width: 4, height: 5 },
  { width: 9, height: 16 },
  { width: 2, height: 3 },
  { width: 16, height: 9 },
)
const part = fc.double({ min: -2, max: 2, noNaN: true })
const moves = fc.array(fc.record({ x: part, y: part, times: fc.double({ min: 0.1, max: 5, noNaN: true }) }), {
  maxLength: 6,
})
const WHOLE = { x: 0, y: 0, width: 1, height: 1 }

describe('the part of a picture that is shown', () => {
  it('keeps its shape and stays in the picture, however it is moved', () => {
    fc.assert(
      fc.property(size, shape, moves, (of, as, by) => {
        const cut = by.reduce((at, move) => movedCut(of, as, at, move), movedCut(of, as, WHOLE, {}))
        expect((cut.width * of.width) / (cut.height * of.height)).toBeCloseTo(as.width / as.height, 6)
        for (const [at, length] of [
          [cut.x, cut.width],
          [cut.y, cut.height],
        ] as const) {
          expect(at).toBeGreaterThanOrEqual(0)
          expect(at + length).toBeLessThanOrEqual(1 + 1e-9)
        }
        const box = cutIn(of, cut)
        expect(box.x + box.width).toBeLessThanOrEqual(of.width)
        expect(box.y + box.height).toBeLessThanOrEqual(of.height)
        expect(Math.min(box.width, box.height)).toBeGreaterThanOrEqual(1)
      }),
    )
  })

  it('is at first the largest of its shape, which fills the picture one way', () => {
    const square = movedCut({ width: 1200, height: 800 }, { width: 1, height: 1 }, WHOLE, {})
    expect(square).toMatchObject({ y: 0, height: 1 })
    expect(square.x).toBeCloseTo(1 / 6, 12)
    expect(square.width).toBeCloseTo(2 / 3, 12)
    const tall = movedCut({ width: 800, height: 1200 }, { width: 4, height: 5 }, WHOLE, {})
    expect(tall.width).toBe(1)
    expect(tall.height).toBeCloseTo(1000 / 1200, 12)
    expect(cutIn({ width: 800, height: 1200 }, tall)).toEqual({ x: 0, y: 100, width: 800, height: 1000 })
  })

  it('moves by so much, comes closer about its middle, and stops at a fifth and at the edges', () => {
    const of = { width: 1000, height: 1000 }
    const square = { width: 1, height: 1 }
    const half = movedCut(of, square, WHOLE, { times: 0.5 })
    expect(half).toEqual({ x: 0.25, y: 0.25, width: 0.5, height: 0.5 })
    expect(movedCut(of, square, half, { x: 0.1, y: -0.05 })).toEqual({
      x: 0.35,
      y: 0.2,
      width: 0.5,
      height: 0.5,
    })
    expect(movedCut(of, square, half, { x: 9 })).toMatchObject({ x: 0.5, y: 0.25 })
    expect(movedCut(of, square, half, { times: 0.01 })).toEqual({ x: 0.4, y: 0.4, width: 0.2, height: 0.2 })
    expect(movedCut(of, square, half, { times: 9 })).toEqual(WHOLE)
  })
})
