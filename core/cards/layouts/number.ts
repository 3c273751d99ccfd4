import { inALine, fitted, type Block } from '../fit'
import type { Stage } from '../stage'

/** A number as large as it goes, its unit, and under or beside them what is counted. */
export function number(stage: Stage): void {
  const { unit, body, palette, faces, card, isWide } = stage
  const on = palette.plain
  stage.ground(on)
  const side = isWide ? body.width * 0.42 : body.width
  const head = headOf(stage, side, body.height * (isWide ? 1 : 0.45))
  const tall = head.reduce((sum, b) => sum + b.height, 0) + 1.5 * unit * (head.length - 1)
  const beside = isWide ? body.width * 0.5 : body.width
  const block = fitted(card.text, faces.words, {
    width: beside,
    height: isWide ? body.height : body.height - tall - 9 * unit,
    least: 3 * unit,
    most: 6.6 * unit,
    leading: 1.28,
  })
  const top = isWide
    ? body.y + (body.height - tall) / 2
    : body.y + Math.max(0, (body.height - tall - 9 * unit - block.height) / 2)
  let end = top
  for (const part of head) end = stage.block(part, body.x, end, on.accent, on) + 1.5 * unit
  end -= 1.5 * unit
  if (isWide) {
    const x = body.x + body.width - beside
    stage.field({ x: x - 4 * unit, y: body.y, width: 0.35 * unit, height: body.height }, on.quiet)
    stage.said(block, x, body.y + (body.height - block.height) / 2, on)
  } else {
    stage.field({ x: body.x, y: end + 4 * unit, width: body.width, height: 0.35 * unit }, on.quiet)
    stage.said(block, body.x, end + 9 * unit, on)
  }
  stage.sign(on)
}

/** A number in digits, as it leads its unit. */
const DIGITS = /^(\D{0,2}\d[\d.,\u00a0\u202f ]*(?:\s?[%‰°])?)\s+(\S.*)$/u

/** The number alone and its unit under it; or all of it at once, where it is in words. */
function headOf({ card, faces, unit }: Stage, width: number, height: number): Block[] {
  const parts = DIGITS.exec(card.head.trim())
  const room = { width, height, least: 6 * unit, most: 40 * unit, leading: 1.04 }
  if (!parts) return [fitted(card.head, faces.strongWords, room)]
  const figure = inALine(
    (parts[1] ?? '').trim(),
    faces.strongWords,
    width,
    Math.min(40 * unit, height * 0.72),
  )
  const left = height - figure.height - 1.5 * unit
  const under = {
    width,
    height: left,
    least: 3 * unit,
    most: Math.min(9 * unit, figure.size * 0.6),
    leading: 1.1,
  }
  return [figure, fitted(parts[2] ?? '', faces.strongWords, under)]
}
