import { Resvg } from '@resvg/resvg-js'
import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { openFaces } from '../../cli/faces'
import { facesOf, strokesOf, toSvg, type Drawing, type Faces } from '../cards'
import { usualLook, type Cut } from '../model'
import { seededRandom } from '../planning'
import { aroundLines, LOOKED_AT, textLines } from './textLines'

let faces: Faces
beforeAll(async () => {
  faces = facesOf(usualLook('The yard'), await openFaces())
})

const WORDS = 'the seam wants two strands of cotton and a keel of oak 1,400 miles away'.split(' ')
const GROUNDS = [
  ['#ffffff', '#22302e'],
  ['#22302e', '#efe7d6'],
  ['#a8432d', '#ffffff'],
  ['#e6ecdd', '#3557c9'],
] as const

/** A picture with lines of text at random places among plain shapes, painted by another program; and where the lines are. */
function withText(seed: number): {
  pixels: { width: number; height: number; data: Buffer }
  lines: Cut[]
} {
  const random = seededRandom(seed)
  const [width, height] = [LOOKED_AT, 400]
  const [ground, ink] = GROUNDS[Math.floor(random() * GROUNDS.length)] ?? GROUNDS[0]
  const drawing: Drawing = { width, height, strokes: [], words: [], code: null, missing: [] }
  drawing.strokes.push({ kind: 'field', fill: ground, x: 0, y: 0, width, height })
  for (let i = 0; i < 4; i++)
    drawing.strokes.push({
      kind: 'field',
      fill: ink,
      x: random() * width,
      y: 300 + random() * 60,
      width: 20 + random() * 200,
      height: 8 + random() * 30,
    })
  const lines = [0, 1].map((row) => {
    const size = 16 + random() * 40
    const text = Array.from(
      { length: 2 + Math.floor(random() * 3) },
      () => WORDS[Math.floor(random() * WORDS.length)],
    ).join(' ')
    const face = random() < 0.5 ? faces.words : faces.strongLabels
    const run = face.run(text)
    const at = { x: random() * Math.max(0, width - run.width * size - 8), y: 80 + row * 120 }
    drawing.strokes.push(...strokesOf(run, at.x, at.y, size, ink))
    const line = {
      x: at.x / width,
      y: (at.y - 0.7 * size) / height,
      width: (run.width * size) / width,
      height: size / height,
    }
    return { ...line, width: Math.min(line.width, 1 - line.x) }
  })
  const image = new Resvg(toSvg(drawing)).render()
  return { pixels: { width: image.width, height: image.height, data: image.pixels }, lines }
}

/** How much of a line's length is within a box that lies on it. */
function covered(line: Cut, boxes: readonly Cut[]): number {
  const middle = line.y + line.height / 2
  const on = boxes.filter((b) => b.y <= middle && middle <= b.y + b.height)
  const length = on.reduce(
    (sum, b) => sum + Math.max(0, Math.min(b.x + b.width, line.x + line.width) - Math.max(b.x, line.x)),
    0,
  )
  return length / line.width
}

describe('lines of text in a picture', () => {
  it('are found where they are, and plain shapes are none', () => {
    let found = 0
    let all = 0
    for (let seed = 1; seed <= 60; seed++) {
      const { pixels, lines } = withText(seed)
      const boxes = textLines(pixels)
      for (const line of lines) {
        all++
        if (covered(line, boxes) > 0.8) found++
      }
      expect(boxes.filter((b) => b.y > 0.72)).toEqual([])
    }
    expect(found / all).toBeGreaterThan(0.93)
  })

  it.each([
    ['two blocks', [8, 8, 8], 8],
    ['a dashed bar', [13, 13, 13, 13, 13], 6],
  ])('are not %s', (_, widths, high) => {
    const [width, height] = [200, 60]
    const data = new Uint8Array(4 * width * height).fill(255)
    let x = 40
    widths.forEach((wide, i) => {
      for (let dx = 0; dx < wide && i % 2 === 0; dx++)
        for (let dy = 0; dy < high; dy++)
          data.fill(0, 4 * ((20 + dy) * width + x + dx), 4 * ((20 + dy) * width + x + dx) + 3)
      x += wide
    })
    expect(textLines({ width, height, data })).toEqual([])
  })

  it('are none in a picture of one colour, and in one of a pixel', () => {
    expect(textLines({ width: 40, height: 40, data: new Uint8Array(6400).fill(200) })).toEqual([])
    expect(textLines({ width: 1, height: 1, data: [0, 0, 0, 255] })).toEqual([])
  })
})

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
        const made = aroundLines(cut, lines)
        expect(made).toMatchObject({ y: 0, width, height: 1 })
        const places = Array.from({ length: 61 }, (_, i) => ((1 - width) * i) / 60)
        if ([cut.x, ...places].some((x) => !through(x))) expect(through(made.x)).toBe(false)
      }),
    )
  })

  it('moves along the side that is free', () => {
    const line = { x: 0.1, y: 0.45, width: 0.5, height: 0.1 }
    const cut = { x: 0, y: 0.5, width: 1, height: 0.5 }
    const made = aroundLines(cut, [line])
    expect(made.x).toBe(0)
    expect(made.y).toBeLessThanOrEqual(0.45)
    // It goes no further than it has to.
    expect(made.y).toBeGreaterThan(0.42)
    // A line that is clear of the edge moves nothing; one that touches it gets a little room.
    expect(aroundLines(cut, [{ ...line, y: 0.7 }])).toEqual(cut)
    const touching = aroundLines(cut, [{ ...line, y: 0.5 }])
    expect(touching.y).toBeLessThanOrEqual(0.489)
    expect(touching.y).toBeGreaterThan(0.47)
    // One that is wider than the cut decides nothing.
    const tall = { x: 0.2, y: 0, width: 0.4, height: 1 }
    expect(aroundLines(tall, [{ ...line, width: 0.8 }])).toEqual(tall)
  })
})
