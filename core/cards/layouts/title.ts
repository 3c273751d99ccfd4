import { fitted } from '../fit'
import type { Stage } from '../stage'

/** The title of the piece, at the foot beside a stripe down the edge. */
export function title(stage: Stage): void {
  const { unit, body, palette, faces, card, height } = stage
  const on = palette.deep
  stage.ground(on)
  stage.field({ x: 0, y: 0, width: 3.2 * unit, height }, on.accent)
  const block = fitted(card.text, faces.strongWords, {
    width: body.width,
    height: body.height - 4 * unit,
    least: 3.6 * unit,
    most: 14 * unit,
    leading: 1.1,
  })
  stage.said(block, body.x, body.y + body.height - block.height - 2 * unit, on)
  stage.sign(on)
}
