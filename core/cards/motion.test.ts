import { beforeAll, describe, expect, it } from 'vitest'
import { openFaces } from '../../cli/faces'
import { LAYOUTS, usualLook, type Card } from '../model'
import { drawCard, facesOf, frameAt, type DrawnScene, type Faces, type MovedStroke } from '.'

const LOOK = usualLook('The yard')
const SHAPE = { width: 9, height: 16 }
const NONE = { head: '', text: '', items: [], speaker: '' }
const LONG =
  'A hive dies of damp long before it dies of cold, since bees can warm themselves and cannot dry themselves.'
let faces: Faces
beforeAll(async () => void (faces = facesOf(LOOK, await openFaces())))

const drawn = (card: Partial<Card>, seconds: number): DrawnScene => ({
  drawing: drawCard({ ...NONE, layout: 'words', ...card }, LOOK, faces, SHAPE),
  seconds,
})
const clip = (): DrawnScene[] => [drawn({ layout: 'title', text: 'Damp' }, 3), drawn({ text: LONG }, 8)]

/** How much of a scene's own strokes stands where it was drawn, 0 to 1 each; what is under it and the thread left out. */
const there = (frame: readonly MovedStroke[], { drawing }: DrawnScene): MovedStroke[] =>
  frame.filter(({ stroke }) => drawing.strokes.includes(stroke))
const isWhole = ({ down, shown }: MovedStroke): boolean => down === 0 && shown === 1

describe('a moving card', () => {
  it('shows all that it opens with in its first frame, so that it may stand for the clip', () => {
    const scenes = clip()
    const [first] = scenes
    if (!first) throw new Error('no scene')
    const frame = there(frameAt(scenes, 0), first)
    expect(frame).toHaveLength(first.drawing.strokes.length)
    expect(frame.every(isWhole)).toBe(true)
  })

  it('lays each further card over the one before it from above, and covers it within half a second', () => {
    const scenes = clip()
    const [first, second] = scenes
    if (!first || !second) throw new Error('no scenes')
    const ground = (at: number) => there(frameAt(scenes, at), second)[0]
    expect(there(frameAt(scenes, 3.01), first)).toHaveLength(first.drawing.strokes.length)
    expect(ground(3.01)?.down).toBeLessThan(-0.8 * second.drawing.height)
    expect(ground(3.2)?.down).toBeGreaterThan(-0.3 * second.drawing.height)
    expect(ground(3.5)?.down).toBe(0)
    expect(there(frameAt(scenes, 3.5), first)).toEqual([])
  })

  it('brings lines up one after the other, from the top, never to vanish again', () => {
    const scenes = clip()
    const second = scenes[1]
    if (!second) throw new Error('no scene')
    const glyphs = second.drawing.strokes.filter((s) => s.kind === 'glyph' && !s.still)
    const [top, bottom] = [glyphs[0], glyphs.at(-1)]
    const shown = (at: number, stroke: unknown) =>
      frameAt(scenes, at).find((m) => m.stroke === stroke)?.shown ?? 0
    let before = 0
    for (let at = 3; at < 11; at += 0.1) {
      expect(shown(at, top)).toBeGreaterThanOrEqual(shown(at, bottom))
      expect(shown(at, bottom)).toBeGreaterThanOrEqual(before)
      before = shown(at, bottom)
    }
    expect(shown(3.6, top)).toBeGreaterThan(0.5)
    expect(shown(3.6, bottom)).toBe(0)
  })

  it.each(LAYOUTS)('has all words of a card laid out as %s there for half of its time', (layout) => {
    const card = { layout, head: 'Damp', text: LONG, items: ['It is dry.', 'It is damp.'], speaker: 'A.' }
    const scene = drawn(card, 6)
    const frame = there(frameAt([drawn({ text: 'Oak.' }, 2), scene], 2 + 3 + 0.65), scene)
    expect(frame).toHaveLength(scene.drawing.strokes.length)
    expect(frame.every(isWhole)).toBe(true)
  })

  it('tells along its foot how far it is, and stays on its last frame', () => {
    const scenes = clip()
    const thread = (at: number) => frameAt(scenes, at).at(-1)?.stroke
    const width = scenes[0]?.drawing.width ?? 0
    expect(thread(0)).toMatchObject({ width: 0 })
    expect(thread(5.5)).toMatchObject({ width: width / 2 })
    expect(thread(99)).toMatchObject({ width })
    expect(frameAt([], 1)).toEqual([])
  })
})
