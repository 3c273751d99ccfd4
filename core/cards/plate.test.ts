import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { openFaces } from '../../cli/faces'
import { usualLook, type Look } from '../model'
import { drawPlate, drawSaid, drawWave, facesOf, type Drawing, type Faces } from '.'

const LOOK: Look = usualLook('The yard')
const SHAPES = [
  { width: 9, height: 16 },
  { width: 1, height: 1 },
  { width: 4, height: 5 },
]
const FILMS = [
  { width: 640, height: 360 },
  { width: 1080, height: 1920 },
  { width: 640, height: 480 },
]
let faces: Faces
beforeAll(async () => void (faces = facesOf(LOOK, await openFaces())))

const within = (
  words: Drawing['words'],
  { x, y, width, height }: { x: number; y: number; width: number; height: number },
): boolean =>
  words.every(
    (w) => w.x >= x - 1 && w.y >= y - 1 && w.x + w.width <= x + width + 1 && w.y + w.height <= y + height + 1,
  )

describe('the brand’s frame about a film', () => {
  it('shows the film whole and as wide as the clip, words above it and the brand’s line below', () => {
    const { drawing, film, said } = drawPlate(
      'Oak or larch?',
      LOOK,
      faces,
      SHAPES[0] ?? null,
      FILMS[0] ?? { width: 1, height: 1 },
      false,
    )
    expect(film).toMatchObject({ x: 0, width: 1080 })
    expect(film.height).toBeCloseTo(1080 * (9 / 16))
    const [hook, sign] = [drawing.words[0], drawing.words.at(-1)]
    expect((hook?.y ?? 0) + (hook?.height ?? 0)).toBeLessThan(film.y)
    expect(sign?.text).toBe('The yard')
    expect(said.y).toBeGreaterThan(film.y + film.height)
    expect(said.y + said.height).toBeLessThan(sign?.y ?? 0)
  })

  it('is left out where the film fills the clip, or would be nearly as tall', () => {
    for (const [film, filled] of [
      [FILMS[0], true],
      [FILMS[1], false],
    ] as const) {
      const plate = drawPlate('Oak', LOOK, faces, SHAPES[0] ?? null, film ?? { width: 1, height: 1 }, filled)
      expect(plate.film).toEqual({ x: 0, y: 0, width: 1080, height: 1920 })
      expect(plate.drawing.strokes).toEqual([])
      // Above what networks lay over the foot of a tall clip.
      expect(plate.said.y + plate.said.height).toBeLessThan(0.82 * 1920)
    }
  })

  it('has room for whatever is said and for any words over it, in every shape', () => {
    const text = fc.string({ unit: 'grapheme', minLength: 1, maxLength: 70 }).filter((t) => t.trim() !== '')
    fc.assert(
      fc.property(
        text,
        text,
        fc.constantFrom(...SHAPES),
        fc.constantFrom(...FILMS),
        fc.boolean(),
        (hook, words, shape, film, filled) => {
          const plate = drawPlate(hook, LOOK, faces, shape, film, filled)
          const above = { x: 0, y: 0, width: plate.drawing.width, height: plate.film.y }
          const hooks = plate.drawing.words.filter((w) => w.text !== LOOK.sign)
          expect(plate.film.y === 0 || within(hooks, above)).toBe(true)
          expect(within(drawSaid(words, plate, LOOK, faces).words, plate.said)).toBe(true)
        },
      ),
      { numRuns: 300 },
    )
  })
})

describe('a recording without pictures', () => {
  const WAVE = [0, 0.25, 1, 0.5, 0, 0, 0, 0]
  const plate = (filled = false) => drawPlate('Oak or larch?', LOOK, faces, SHAPES[0] ?? null, null, filled)

  it('shows bars in a film’s place, a fifth as high as wide, and is never asked to fill the clip', () => {
    for (const filled of [false, true]) {
      const { film, said } = plate(filled)
      expect(film).toMatchObject({ x: 0, width: 1080, height: 216 })
      expect(said.y).toBeGreaterThan(film.y + film.height)
    }
  })

  it('has a bar for each level about the middle of it, from side to side, as high as it is loud', () => {
    const on = plate()
    const bars = drawWave(WAVE, on, LOOK, faces, true).strokes.flatMap((s) => (s.kind === 'field' ? [s] : []))
    expect(bars).toHaveLength(8)
    const middle = on.film.y + on.film.height / 2
    for (const { y, height } of bars) expect(y + height / 2).toBeCloseTo(middle)
    // 1080 pixels less twice nine hundredths are 885.6, an eighth of that 110.7, and six tenths of it 66.42: the least that a bar is
    // high. A quarter of 216 pixels is less than that.
    expect(bars[0]?.width).toBeCloseTo(66.42)
    expect(bars.slice(0, 4).map((b) => Math.round(b.height * 100) / 100)).toEqual([66.42, 66.42, 216, 108])
    expect(bars[0]?.x).toBeGreaterThan(on.said.x)
    const last = bars.at(-1)
    expect((last?.x ?? 0) + (last?.width ?? 0)).toBeLessThan(on.said.x + on.said.width)
    // What was heard lies over what is to come, in another colour.
    const toCome = drawWave(WAVE, on, LOOK, faces, false).strokes
    expect(toCome.map((s) => ({ ...s, fill: '' }))).toEqual(bars.map((s) => ({ ...s, fill: '' })))
    expect(toCome[0]).not.toEqual(bars[0])
  })
})
