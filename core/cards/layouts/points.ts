import { inALine, fitted, fittedTogether, RISE, type Block } from '../fit'
import type { Stage } from '../stage'

/** Ems between two points, and before each. */
const GAP = 0.72
const INDENT = { list: 1.1, steps: 1.7 } as const

/** What a list is of, and its points, each after a small square. */
export function list(stage: Stage): void {
  points(stage, 'list')
}

/** What is to be done, and its steps, numbered along a line that leads down. */
export function steps(stage: Stage): void {
  points(stage, 'steps')
}

function points(stage: Stage, kind: 'list' | 'steps'): void {
  const { unit, body, palette, faces, card, isWide } = stage
  const on = palette.plain
  stage.ground(on)
  const headed = card.head.trim() !== ''
  const beside = isWide && headed
  const head = headed
    ? fitted(card.head, faces.strongLabels, {
        width: beside ? body.width * 0.32 : body.width,
        height: beside ? body.height : body.height * 0.3,
        least: 3.2 * unit,
        most: 6.2 * unit,
        leading: 1.14,
      })
    : null
  const taken = head && !beside ? head.height + 5.5 * unit : 0
  const room = {
    width: beside ? body.width * 0.6 : body.width,
    height: body.height - taken,
    least: 2.6 * unit,
    most: 6.6 * unit,
    leading: 1.24,
  }
  const blocks = fittedTogether(card.items, faces.words, room, { gap: GAP, indent: INDENT[kind] })
  const size = blocks[0]?.size ?? 0
  const height = blocks.reduce((sum, b) => sum + b.height, 0) + GAP * size * Math.max(0, blocks.length - 1)
  const x = body.x + body.width - room.width
  const top = body.y + (body.height - taken - height) / 2
  if (head) stage.block(head, body.x, beside ? body.y + (body.height - head.height) / 2 : top, on.accent, on)
  if (beside) stage.field({ x: x - 4 * unit, y: body.y, width: 0.35 * unit, height: body.height }, on.quiet)
  draw(stage, kind, blocks, { x, y: top + taken })
  stage.sign(on)
}

/** Draws points one under the other, with what stands before each. */
function draw(
  stage: Stage,
  kind: 'list' | 'steps',
  blocks: readonly Block[],
  from: { x: number; y: number },
): void {
  const on = stage.palette.plain
  let y = from.y
  const size = blocks[0]?.size ?? 0
  const squares = blocks.map((block) => {
    const place = y
    y = stage.said(block, from.x + INDENT[kind] * size, y, on) + GAP * size
    return place
  })
  squares.forEach((place, i) => {
    const baseline = place + RISE * size
    if (kind === 'list') {
      const square = 0.36 * size
      stage.field(
        { x: from.x, y: baseline - 0.25 * size - square / 2, width: square, height: square },
        on.accent,
      )
      return
    }
    const numeral = inALine(String(i + 1), stage.faces.strongWords, 1.2 * size, size)
    stage.block(numeral, from.x, place, on.accent, on)
    const next = squares[i + 1]
    const above = baseline + 0.34 * size
    if (next !== undefined && next - 0.2 * size > above)
      stage.field(
        {
          x: from.x + numeral.width / 2 - 0.03 * size,
          y: above,
          width: 0.06 * size,
          height: next - 0.1 * size - above,
        },
        on.quiet,
      )
  })
}
