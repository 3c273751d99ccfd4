import type { Drawing, Stroke } from './drawing'

/** A card of a clip, drawn, and for how long it shows, in seconds. All of a clip have one size. */
export interface DrawnScene {
  drawing: Drawing
  seconds: number
}

/** A stroke at a moment of a clip: moved so many pixels down (up below nought), and how much of it is there, 0 to 1. */
export interface MovedStroke {
  stroke: Stroke
  down: number
  shown: number
}

/** Seconds in which a card is laid over the one before it, and in which a line comes up. */
const LAID = 0.45
const COMES = 0.35
/** Lines come up at so many letters a second, twice as fast as they are read, and all within this part of their card's time. */
const LETTERS = 30
const WITHIN = 0.5
/** How far a line comes up from, and how thick the line is that tells how far the clip is, as parts of its height. */
const RISES = 0.012
const THREAD = 0.006

/**
 * What a clip shows at a moment, in seconds from its beginning, in the order of painting. What it opens with is there from
 * the first frame on, so that it may stand for the clip; each further card is laid over the one before it and its lines come
 * up one after the other. A line along the foot tells how far it is.
 */
export function frameAt(scenes: readonly DrawnScene[], at: number): MovedStroke[] {
  let from = 0
  let current = 0
  while (current < scenes.length - 1 && at >= from + (scenes[current]?.seconds ?? 0)) {
    from += scenes[current]?.seconds ?? 0
    current++
  }
  const scene = scenes[current]
  if (!scene) return []
  const { drawing, seconds } = scene
  const since = Math.max(0, at - from)
  const before = scenes[current - 1]
  const laying = before !== undefined && since < LAID
  const down = laying ? -drawing.height * (1 - eased(since / LAID)) : 0
  const comes = startsOf(drawing)
  const period = Math.min(WITHIN * (seconds - LAID), lettersOf(drawing) / LETTERS)
  const strokes = drawing.strokes.map((stroke, i): MovedStroke => {
    const start = comes[i]
    if (!before || start === null || start === undefined) return { stroke, down, shown: 1 }
    const shown = eased(Math.min(1, Math.max(0, (since - LAID - start * Math.max(0, period)) / COMES)))
    return { stroke, down: down + RISES * drawing.height * (1 - shown), shown }
  })
  const under = laying ? before.drawing.strokes.map((stroke) => ({ stroke, down: 0, shown: 1 })) : []
  return [...under, ...strokes, thread(drawing, at / scenes.reduce((sum, s) => sum + s.seconds, 0))]
}

/** Slower towards the end. */
const eased = (part: number): number => 1 - (1 - part) ** 3

/** The line along the foot, in the ink of the card. */
function thread({ width, height, words }: Drawing, part: number): MovedStroke {
  const thick = Math.max(2, Math.round(THREAD * height))
  const fill = words[0]?.fill ?? '#000000'
  const stroke: Stroke = {
    kind: 'field',
    fill,
    x: 0,
    y: height - thick,
    width: width * Math.min(1, Math.max(0, part)),
    height: thick,
  }
  return { stroke, down: 0, shown: 0.6 }
}

const lettersOf = ({ strokes }: Drawing): number => strokes.filter((s) => s.kind === 'glyph').length

const known = new WeakMap<Drawing, (number | null)[]>()

/**
 * When each stroke of a drawing comes up, as a part of the time in which all do: by lines, as far along as there are letters
 * before its line. Null of what is there with the card: its ground and what stays on every card.
 */
function startsOf(drawing: Drawing): (number | null)[] {
  const before = known.get(drawing)
  if (before) return before
  const all = Math.max(1, lettersOf(drawing))
  let letters = 0
  let baseline: number | null = null
  let start = 0
  const starts = drawing.strokes.map((stroke): number | null => {
    if (stroke.still || isGround(stroke, drawing)) return null
    if (stroke.kind === 'glyph') {
      if (baseline === null || Math.abs(stroke.y - baseline) > drawing.height / 200) start = letters / all
      baseline = stroke.y
      letters++
      return start
    }
    // A bar comes with the words that follow it.
    return letters / all
  })
  known.set(drawing, starts)
  return starts
}

function isGround(stroke: Stroke, { width, height }: Drawing): boolean {
  return stroke.kind === 'field' && stroke.width >= width && stroke.height >= height
}
