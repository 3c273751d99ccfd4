import { fitted } from '../fit'
import type { Stage } from '../stage'

/** A question on the brand's accent, standing on the foot of the card. */
export function question(stage: Stage): void {
  const { unit, body, palette, faces, card } = stage
  const on = palette.bright
  stage.ground(on)
  const block = fitted(card.text, faces.strongWords, {
    width: body.width,
    height: body.height - 4 * unit,
    least: 3.6 * unit,
    most: 13 * unit,
    leading: 1.14,
  })
  stage.said(block, body.x, body.y + body.height - block.height, on)
  stage.sign(on)
}
