import type { Card, Look } from '../model'
import { sizeOf } from './draw'
import type { Area, Drawing } from './drawing'
import { fitted } from './fit'
import { Stage, type Faces } from './stage'

/** The width and the height, of one another, of what stands in a film's place where a recording has no pictures. */
const WAVE = { width: 5, height: 1 }
/** So many bars show how loud a recording is, and how much of the room of one is left between two. */
export const BARS = 64
const BETWEEN = 0.4

/** Where a film stands in a clip, and what is drawn about it. */
export interface Plate {
  drawing: Drawing
  /** Where the film is shown. */
  film: Area
  /** Where what is said stands. */
  said: Area
}

const NO_CARD: Card = { layout: 'words', head: '', text: '', items: [], speaker: '' }
/** How much of the height the film's middle is down, and how much of it what is said may take. */
const MIDDLE = 0.46
/** Letters of what is said, as a part of the shorter side, at most and at least. */
const SAID = { most: 0.072, least: 0.03 }

/**
 * The brand's frame about a film: the film whole and as wide as the clip, its words above, the brand's line at the foot, and
 * room for what is said below it. A film that is as tall as the clip, or is to fill it, takes all of it. `film` is its size in pixels,
 * or null of a recording without pictures.
 */
export function drawPlate(
  hook: string,
  look: Look,
  faces: Faces,
  shape: { width: number; height: number } | null,
  film: { width: number; height: number } | null,
  filled: boolean,
): Plate {
  const size = sizeOf(shape)
  const { width, height } = film ?? WAVE
  const stage = new Stage(NO_CARD, look, faces, size)
  const on = stage.palette.plain
  const side = stage.body.x
  const tall = (size.width * height) / width
  if ((film && filled) || tall > 0.62 * size.height) {
    const all = { x: 0, y: 0, ...size }
    const height = 0.16 * size.height
    const said = { x: side, y: 0.78 * size.height - height, width: size.width - 2 * side, height }
    return { drawing: stage.drawing, film: all, said }
  }
  stage.ground(on)
  const top = MIDDLE * size.height - tall / 2
  const above = stage.body.y
  if (hook !== '') {
    const room = { width: size.width - 2 * side, height: top - above - 0.6 * side }
    const words = fitted(hook, faces.strongWords, { ...room, least: 3 * stage.unit, most: 8 * stage.unit })
    stage.block(words, side, top - 0.6 * side - words.height, on.ink, on)
  }
  stage.sign(on)
  const below = top + tall + 0.6 * side
  return {
    drawing: stage.drawing,
    film: { x: 0, y: top, width: size.width, height: tall },
    said: {
      x: side,
      y: below,
      width: size.width - 2 * side,
      height: stage.body.y + stage.body.height - below,
    },
  }
}

/**
 * What is said, as it stands in a clip: in the brand's ink below the film, or on a plate of its ground where the film fills
 * the clip.
 */
export function drawSaid(text: string, plate: Plate, look: Look, faces: Faces): Drawing {
  const { width, height } = plate.drawing
  const stage = new Stage(NO_CARD, look, faces, { width, height })
  const on = stage.palette.plain
  const { x, y, width: across, height: room } = plate.said
  const shorter = Math.min(width, height)
  const over = plate.film.height === height
  const pad = over ? 2.5 * stage.unit : 0
  const block = fitted(text, faces.strongLabels, {
    width: across - 2 * pad,
    height: room - 2 * pad,
    least: SAID.least * shorter,
    most: SAID.most * shorter,
  })
  if (over) {
    const down = y + room - block.height - 2 * pad
    stage.field(
      {
        x: x + (across - block.width) / 2 - pad,
        y: down,
        width: block.width + 2 * pad,
        height: block.height + 2 * pad,
      },
      on.ground,
    )
    stage.block(block, x + (across - block.width) / 2, down + pad, on.ink, on)
  } else stage.block(block, x, y, on.ink, on)
  return stage.drawing
}

/**
 * How loud a recording is, as bars about the middle of the film's place (`barsOf`, from 0 to 1): those that were heard in the brand's
 * accent, those to come quiet. Both stand alike, so that the one is uncovered over the other as it plays.
 */
export function drawWave(
  bars: readonly number[],
  plate: Plate,
  look: Look,
  faces: Faces,
  heard: boolean,
): Drawing {
  const { width, height } = plate.drawing
  const stage = new Stage(NO_CARD, look, faces, { width, height })
  const { accent, quiet } = stage.palette.plain
  const { x, width: across } = plate.said
  const room = across / bars.length
  const middle = plate.film.y + plate.film.height / 2
  bars.forEach((bar, i) => {
    // What is silent is still a dot.
    const high = Math.max(room * (1 - BETWEEN), bar * plate.film.height)
    stage.field(
      { x: x + (i + BETWEEN / 2) * room, y: middle - high / 2, width: room * (1 - BETWEEN), height: high },
      heard ? accent : quiet,
    )
  })
  return stage.drawing
}
