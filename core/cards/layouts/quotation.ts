import { inALine, fitted, RISE } from '../fit'
import type { Stage } from '../stage'

/** What somebody said, under a large opening mark, with the name of who said it. */
export function quotation(stage: Stage): void {
  const { unit, body, palette, faces, card } = stage
  const on = palette.deep
  stage.ground(on)
  const mark = { size: 24 * unit, height: 10 * unit }
  const name = card.speaker.trim()
  const named = name === '' ? 0 : 9 * unit
  const block = fitted(card.text, faces.words, {
    width: body.width,
    height: body.height - mark.height - named - 2 * unit,
    least: 3.4 * unit,
    most: 10 * unit,
  })
  const top = body.y + (body.height - mark.height - block.height - named) / 2
  // The mark hangs from its top: of its box only the upper part is drawn on.
  const opening = inALine('“', faces.strongWords, body.width, mark.size)
  stage.block(opening, body.x - 0.4 * unit, top - (RISE - 0.72) * mark.size, on.accent, on)
  const end = stage.said(block, body.x, top + mark.height + 2 * unit, on)
  if (name !== '') {
    const size = 3.6 * unit
    const line = inALine(`— ${name}`, faces.labels, body.width, size)
    stage.block(line, body.x, end + named - line.height, on.accent, on)
  }
  stage.sign(on)
}
