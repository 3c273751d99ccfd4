import { fitted } from '../fit'
import type { Stage } from '../stage'

/** The link as a large code, and what it leads to; without a link the words alone. */
export function code(stage: Stage): void {
  const { unit, body, palette, faces, card, isWide } = stage
  const on = palette.plain
  stage.ground(on)
  const gap = 5 * unit
  const side = stage.hasCode
    ? Math.min(body.width * (isWide ? 0.45 : 1), body.height * (isWide ? 1 : 0.62))
    : 0
  const taken = side === 0 ? 0 : side + gap
  const block = fitted(card.text, faces.strongWords, {
    width: isWide ? body.width - taken : body.width,
    height: isWide ? body.height : body.height - taken,
    least: 3 * unit,
    most: 8 * unit,
    leading: 1.16,
  })
  const height = isWide ? Math.max(side, block.height) : taken + block.height
  const top = body.y + (body.height - height) / 2
  stage.code(body.x, isWide ? body.y + (body.height - side) / 2 : top, side, on, { x: -1, y: 0 })
  const [x, y] = isWide ? [body.x + taken, body.y + (body.height - block.height) / 2] : [body.x, top + taken]
  stage.said(block, x, y, on)
  stage.sign(on)
}
