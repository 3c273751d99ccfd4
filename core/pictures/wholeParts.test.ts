import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { aroundParts } from './wholeParts'

const aShare = fc.double({ min: 0, max: 1, noNaN: true })

describe('a cut about lines of text', () => {
  it('cuts through none where it can stand so that it does not', () => {
    const aLine = fc.tuple(aShare, aShare, aShare).map(([x, width, y]) => ({
      x: 0.9 * x,
      y: 0.9 * y,
      width: Math.min(0.4 * width + 0.02, 1 - 0.9 * x),
      height: 0.05,
    }))
    fc.assert(
      fc.property(fc.array(aLine, { minLength: 1, maxLength: 4 }), aShare, (lines, at) => {
        const width = 0.55
        const cut = { x: (1 - width) * at, y: 0, width, height: 1 }
        const through = (x: number): boolean =>
          lines.some((l) => {
            const inside = Math.min(x + width, l.x + l.width) - Math.max(x, l.x)
            return l.width <= width && inside > 0.012 * l.width && inside < 0.988 * l.width
          })
        const made = aroundParts(cut, { faces: [], lines })
        expect(made).toMatchObject({ y: 0, width, height: 1 })
        const places = Array.from({ length: 61 }, (_, i) => ((1 - width) * i) / 60)
        if ([cut.x, ...places].some((x) => !through(x))) expect(through(made.x)).toBe(false)
      }),
    )
  })

  it('moves along the side that is free', () => {
    const line = { x: 0.1, y: 0.45, width: 0.5, height: 0.1 }
    const cut = { x: 0, y: 0.5, width: 1, height: 0.5 }
    const made = aroundParts(cut, { faces: [], lines: [line] })
    expect(made.x).toBe(0)
    expect(made.y).toBeLessThanOrEqual(0.45)
    // It goes no further than it has to.
    expect(made.y).toBeGreaterThan(0.42)
    // A line that is clear of the edge moves nothing; one that touches it gets a little room.
    expect(aroundParts(cut, { faces: [], lines: [{ ...line, y: 0.7 }] })).toEqual(cut)
    const touching = aroundParts(cut, { faces: [], lines: [{ ...line, y: 0.5 }] })
    expect(touching.y).toBeLessThanOrEqual(0.489)
    expect(touching.y).toBeGreaterThan(0.47)
    // One that is wider than the cut decides nothing.
    const tall = { x: 0.2, y: 0, width: 0.4, height: 1 }
    expect(aroundParts(tall, { faces: [], lines: [{ ...line, width: 0.8 }] })).toEqual(tall)
  })
})

describe('a cut about faces', () => {
  const face = (x: number, y = 0.3, size = 0.1) => ({ x, y, width: size, height: size })
  const square = { x: 0, y: 0, width: 0.5, height: 1 }

  it('has a head that is left out or cut through whole, with its hair', () => {
    const far = aroundParts(square, { faces: [face(0.7)], lines: [] })
    // Paper: the head reaches from 0.685 to 0.815.
    expect(far.x).toBeLessThanOrEqual(0.685)
    expect(far.x + far.width).toBeGreaterThanOrEqual(0.8149)
    const wide = { x: 0, y: 0.5, width: 1, height: 0.5 }
    const high = aroundParts(wide, { faces: [face(0.4, 0.45)], lines: [] })
    expect(high.y).toBeLessThanOrEqual(0.45 - 0.035)
    expect(high.y).toBeGreaterThan(0.38)
    expect(aroundParts(square, { faces: [face(0.2)], lines: [] })).toEqual(square)
  })

  it('has as many of several as go in, and halves none of the others', () => {
    const faces = [face(0.02), face(0.45), face(0.6), face(0.75)]
    const made = aroundParts(square, { faces, lines: [] })
    // Paper: the heads of the last three reach from 0.435 to 0.865, that of the first to 0.135.
    expect(made.x).toBeLessThanOrEqual(0.435)
    expect(made.x).toBeGreaterThanOrEqual(0.365 - 1e-9)
  })

  it('goes before lines of text', () => {
    const line = { x: 0.3, y: 0.8, width: 0.4, height: 0.05 }
    const made = aroundParts(square, { faces: [face(0.88)], lines: [line] })
    expect(made.x + made.width).toBeGreaterThan(0.99)
  })

  it('keeps as much as goes in of a face that is larger than it is', () => {
    const wide = { x: 0, y: 0, width: 1, height: 0.4 }
    const made = aroundParts(wide, { faces: [{ x: 0.2, y: 0.3, width: 0.5, height: 0.5 }], lines: [] })
    expect(made.y).toBeGreaterThanOrEqual(0.29)
    expect(made.y).toBeLessThanOrEqual(0.41)
    // A head that does not fit, whose face does.
    const portrait = aroundParts(wide, { faces: [{ x: 0.2, y: 0.4, width: 0.35, height: 0.35 }], lines: [] })
    expect(portrait.y).toBeLessThanOrEqual(0.4)
    expect(portrait.y).toBeGreaterThanOrEqual(0.35 - 1e-9)
  })
})
