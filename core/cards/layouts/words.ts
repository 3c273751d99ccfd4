import { hash32 } from '../../text'
import type { Palette } from '../colours'
import { fitted } from '../fit'
import type { Stage } from '../stage'

/** How long words may be, in characters, to stand on the accent. */
const BRIEF = 110

/** Cards of an account are to differ: half of them stand on the plain ground, the others on what their words draw. */
function groundFor(text: string): keyof Palette {
  const drawn = hash32(text) % 4
  if (drawn === 2) return 'deep'
  return drawn === 3 && text.length <= BRIEF ? 'bright' : 'plain'
}

/** A sentence or two, large, under a short bar. */
export function words(stage: Stage): void {
  const { unit, body, palette, faces, card } = stage
  const on = palette[groundFor(card.text)]
  stage.ground(on)
  const bar = 1.3 * unit
  const under = 5 * unit
  const block = fitted(card.text, faces.words, {
    width: body.width,
    height: body.height - bar - under,
    least: 3.4 * unit,
    most: 11.5 * unit,
  })
  const top = body.y + (body.height - bar - under - block.height) / 2
  stage.field({ x: body.x, y: top, width: 11 * unit, height: bar }, on.accent)
  stage.said(block, body.x, top + bar + under, on)
  stage.sign(on)
}
