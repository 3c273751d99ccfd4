import { Resvg } from '@resvg/resvg-js'
import { beforeAll, describe, expect, it } from 'vitest'
import { openFaces } from '../../cli/faces'
import { facesOf, strokesOf, toSvg, type Drawing, type Faces } from '../cards'
import { usualLook, type Cut } from '../model'
import { seededRandom } from '../planning'
import { LOOKED_AT, textLines } from './textLines'

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
