import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { chooseShape, cropAboutCentre, graphemes, measure, network, NETWORKS, sliceGraphemes } from '.'

describe('measuring', () => {
  it('counts what a reader sees as one character once', () => {
    expect(graphemes('e\u0301')).toBe(1)
    expect(graphemes('👩‍👩‍👧 and 🇵🇹')).toBe(7)
    expect(sliceGraphemes('👩‍👩‍👧ab', 2)).toBe('👩‍👩‍👧a')
  })

  it('counts and cuts as the segmenter does, on its quick way too', () => {
    const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' })
    const unit = fc.oneof(
      fc.constantFrom('é', 'ß', '–', '“', '…', '\u00a0', '\u00ad', '\n', 'e\u0301', '👩‍👩‍👧', '\u200d', '\r\n'),
      fc.string({ unit: 'grapheme-ascii', maxLength: 3 }),
    )
    fc.assert(
      fc.property(fc.array(unit, { maxLength: 12 }), fc.nat(12), (parts, count) => {
        const text = parts.join('')
        const clusters = [...segmenter.segment(text)].map((s) => s.segment)
        expect(graphemes(text)).toBe(clusters.length)
        expect(sliceGraphemes(text, count)).toBe(clusters.slice(0, count).join(''))
      }),
    )
  })

  it('counts a link for the profile’s fixed number, wherever it stands', () => {
    const { text } = network('murmur')
    expect(measure('Look: https://a.example/long/long/long', text)).toBe(30)
    expect(measure('(https://a.example/x).', text)).toBe(24 + 3)
    expect(measure('https://a.example/x', network('guildhall').text)).toBe(19)
  })

  it('adds up: two texts with a space between measure the sum and one', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme-ascii' }), fc.string({ unit: 'grapheme-ascii' }), (a, b) => {
        const rule = { limit: 300, fold: null, linkCounts: null }
        expect(measure(`${a} ${b}`, rule)).toBe(measure(a, rule) + 1 + measure(b, rule))
      }),
    )
  })
})

describe('shapes', () => {
  it('chooses the shape that keeps most of the picture', () => {
    const { shapes } = network('shutterleaf').media
    expect(chooseShape({ width: 1200, height: 800 }, shapes)).toEqual({ width: 1, height: 1 })
    expect(chooseShape({ width: 800, height: 1200 }, shapes)).toEqual({ width: 4, height: 5 })
    expect(chooseShape({ width: 800, height: 1200 }, [])).toBeNull()
  })

  it('crops about the centre and stays inside the picture', () => {
    expect(cropAboutCentre({ width: 1200, height: 800 }, { width: 1, height: 1 })).toEqual({
      x: 200,
      y: 0,
      width: 800,
      height: 800,
    })
    const size = fc.record({
      width: fc.integer({ min: 1, max: 9000 }),
      height: fc.integer({ min: 1, max: 9000 }),
    })
    fc.assert(
      fc.property(
        size,
        fc.record({ width: fc.integer({ min: 1, max: 16 }), height: fc.integer({ min: 1, max: 16 }) }),
        (picture, shape) => {
          const box = cropAboutCentre(picture, shape)
          expect(box.x).toBeGreaterThanOrEqual(0)
          expect(box.y).toBeGreaterThanOrEqual(0)
          expect(box.x + box.width).toBeLessThanOrEqual(picture.width)
          expect(box.y + box.height).toBeLessThanOrEqual(picture.height)
          expect(Math.abs(box.x * 2 + box.width - picture.width)).toBeLessThanOrEqual(1)
        },
      ),
    )
  })
})

describe('profiles', () => {
  it('are told apart by id, name and mark', () => {
    for (const key of ['id', 'name', 'mark', 'hatch'] as const)
      expect(new Set(NETWORKS.map((n) => n[key])).size).toBe(NETWORKS.length)
    expect(() => network('nowhere')).toThrow(/Known are murmur/)
  })
})
