import { drawCard, facesOf, toSvg } from '../core/cards'
import { Card, cardLacks, FaceName, Fault, Look, usualLook } from '../core/model'
import { openFaces } from './faces'
import { jsonFrom, jsonIn } from './jsonIn'

/** A look as it is given here: typefaces and a mark of a brand's own are known to its workspace alone. */
const ShippedLook = Look.omit({ own: true, mark: true })
  .extend({ words: FaceName, labels: FaceName })
  .partial()

/** A card in a look and a shape, drawn: the SVG, its size in pixels, and the letters that no typeface has. */
export async function card(
  bytes: Uint8Array,
  file: string,
  look: string | undefined,
  shape: string | undefined,
) {
  // A field that the layout does not use may be left out.
  const parts = Card.extend({
    head: Card.shape.head.default(''),
    text: Card.shape.text.default(''),
    items: Card.shape.items.default([]),
    speaker: Card.shape.speaker.default(''),
  })
  const words = jsonFrom(new TextDecoder().decode(bytes), 'card', file, parts)
  const lacks = cardLacks(words)
  if (lacks) throw new Fault('bad-file', lacks, file)
  const chosen = look === undefined ? {} : (await jsonIn(look, 'look', 'look', ShippedLook)).data
  const whole = Look.parse({ ...usualLook(''), ...chosen })
  const drawing = drawCard(words, whole, facesOf(whole, await openFaces()), shapeOf(shape ?? '1:1'))
  const { width, height, missing } = drawing
  return { width, height, missing, svg: toSvg(drawing) }
}

function shapeOf(text: string): { width: number; height: number } {
  const [width = 0, height = 0] = text.split(':').map(Number)
  if (
    !Number.isInteger(width) ||
    !Number.isInteger(height) ||
    Math.min(width, height) < 1 ||
    Math.max(width, height) > 100
  )
    throw new Fault('bad-request', `--shape wants width to height, as 4:5, not ${text}.`, 'shape')
  return { width, height }
}
