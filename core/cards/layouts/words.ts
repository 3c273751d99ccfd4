import { fitted } from '../fit'
import type { Stage } from '../stage'

/** A sentence or two, large, under a short bar. */
export function words(stage: Stage): void {
  const { unit, body, palette, faces, card } = stage
  const on = palette.plain
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
  stage.block(block, body.x, top + bar + under, on.ink, on)
  stage.sign(on)
}
