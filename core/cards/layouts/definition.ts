import { fitted } from '../fit'
import type { Stage } from '../stage'

/** A term, ruled off from what it means. */
export function definition(stage: Stage): void {
  const { unit, body, palette, faces, card } = stage
  const on = palette.plain
  stage.ground(on)
  const term = fitted(card.head, faces.strongWords, {
    width: body.width,
    height: body.height * 0.36,
    least: 5 * unit,
    most: 15 * unit,
    leading: 1.06,
  })
  const between = 7 * unit
  const block = fitted(card.text, faces.words, {
    width: body.width,
    height: body.height - term.height - between,
    least: 3 * unit,
    most: 6.4 * unit,
    leading: 1.3,
  })
  const top = body.y + (body.height - term.height - between - block.height) / 2
  const end = stage.block(term, body.x, top, on.ink, on)
  stage.field({ x: body.x, y: end + 2.6 * unit, width: 18 * unit, height: 0.9 * unit }, on.accent)
  stage.said(block, body.x, end + between, on)
  stage.sign(on)
}
