import { FaceName, FACES, hasCode, type Card, type Look } from '../model'
import { codeOf } from './code'
import type { Drawing } from './drawing'
import { Face, type FontFile, type Weight } from './faces'
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

/**
 * The faces of a look: typefaces that come with Dripline, or the brand's own, whose files are given by their hashes; the first
 * shipped one where there is none of that name. What a face lacks is taken from the others that come with Dripline.
 */
export function facesOf(
  look: Look,
  files: Readonly<Record<FaceName, readonly FontFile[]>>,
  own: ReadonlyMap<string, FontFile> = new Map(),
): Faces {
  const others = (name: string): FontFile[] =>
    Object.entries(files).flatMap(([other, list]) => (other === name ? [] : list))
  const ownOf = (name: string, weight: Weight): FontFile[] => {
    const face = look.own?.find((f) => f.name === name)
    const file = face && own.get((weight === 'strong' ? face.strong : null) ?? face.regular)
    return file ? [file] : []
  }
  const face = (name: string, weight: Weight): Face => {
    const shipped = FaceName.safeParse(name).data
    const mine = shipped ? files[shipped] : ownOf(name, weight)
    return new Face(mine.length > 0 ? mine : files[FACES[0]], weight, others(name))
  }
  return {
    words: face(look.words, 'regular'),
    strongWords: face(look.words, 'strong'),
    labels: face(look.labels, 'regular'),
    strongLabels: face(look.labels, 'strong'),
  }
}

/**
 * Draws a card. The same words, look, shape and link give the same drawing, wherever it is made. `link` is what its code
 * leads to, if it has one; without a link there is none.
 */
export function drawCard(
  card: Card,
  look: Look,
  faces: Faces,
  shape: Shape | null,
  link: string | null = null,
): Drawing {
  const code = link !== null && hasCode(card) ? codeOf(link) : null
  const stage = new Stage(card, look, faces, sizeOf(shape), code)
  DRAWN[card.layout](stage)
  return stage.drawing
}
