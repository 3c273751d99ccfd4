import type { Card, FaceName, Look } from '../model'
import type { Drawing } from './drawing'
import { Face, type FontFile } from './faces'
import { DRAWN } from './layouts'
import { Stage, type Faces } from './stage'

/** Width to height, as networks name shapes. */
interface Shape {
  width: number
  height: number
}

/** The shape of a card where a network takes any. */
export const ANY_SHAPE: Shape = { width: 1, height: 1 }

/** The pixels of a card: 1080 on its shorter side, and at most 1920 on the longer one. */
export function sizeOf(shape: Shape | null): Shape {
  const { width, height } = shape ?? ANY_SHAPE
  const side = Math.min(1080 / Math.min(width, height), 1920 / Math.max(width, height))
  return { width: Math.round(width * side), height: Math.round(height * side) }
}

/** The faces of a look. What a face lacks is taken from the others that come with Dripline. */
export function facesOf(look: Look, files: Readonly<Record<FaceName, readonly FontFile[]>>): Faces {
  const others = (name: FaceName): FontFile[] =>
    Object.entries(files).flatMap(([other, list]) => (other === name ? [] : list))
  const face = (name: FaceName, weight: 'regular' | 'strong'): Face =>
    new Face(files[name], weight, others(name))
  return {
    words: face(look.words, 'regular'),
    strongWords: face(look.words, 'strong'),
    labels: face(look.labels, 'regular'),
    strongLabels: face(look.labels, 'strong'),
  }
}

/** Draws a card. The same words, look and shape give the same drawing, wherever it is made. */
export function drawCard(card: Card, look: Look, faces: Faces, shape: Shape | null): Drawing {
  const stage = new Stage(card, look, faces, sizeOf(shape))
  DRAWN[card.layout](stage)
  return stage.drawing
}
