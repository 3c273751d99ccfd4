import type { Area } from '../drawing'
import { fittedTogether, type Block } from '../fit'
import type { Stage } from '../stage'

/** Two sides, each on a ground of its own: one over the other, or side by side where the card lies. */
export function contrast(stage: Stage): void {
  const { unit, body, palette, faces, card, isWide, width, height } = stage
  const [first, second] = [palette.plain, palette.deep]
  stage.ground(first)
  const middle = isWide ? width / 2 : body.y + body.height / 2
  stage.field(
    isWide
      ? { x: middle, y: 0, width: width - middle, height }
      : { x: 0, y: middle, width, height: height - middle },
    second.ground,
  )
  const edge = 7 * unit
  const sides: [Area, Area] = isWide
    ? [
        { ...body, width: middle - edge - body.x },
        { ...body, x: middle + edge, width: body.x + body.width - middle - edge },
      ]
    : [
        { ...body, height: middle - edge - body.y },
        { ...body, y: middle + edge, height: body.y + body.height - middle - edge },
      ]
  const room = {
    width: Math.min(sides[0].width, sides[1].width),
    height: Math.min(sides[0].height, sides[1].height),
    least: 2.6 * unit,
    most: 8.4 * unit,
  }
  const size = Math.min(
    ...card.items.map((text) => fittedTogether([text], faces.words, room, SINGLE)[0]?.size ?? room.most),
  )
  const blocks = card.items.map(
    (text) => fittedTogether([text], faces.words, { ...room, most: size }, SINGLE)[0] as Block,
  )
  const [a, b] = blocks
  const centre = (side: Area, block: Block): number => side.y + (side.height - block.height) / 2
  if (a) stage.said(a, sides[0].x, centre(sides[0], a), first)
  if (b) stage.said(b, sides[1].x, centre(sides[1], b), second)
  stage.sign(isWide ? first : second, second)
}

const SINGLE = { gap: 0, indent: 0 }
