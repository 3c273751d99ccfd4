import { NUMBER_WORDS } from '../../language'
import type { FoundPassage, Place } from '../../model'
import { isEmptyHeading, type Draft } from '../../setting'
import type { Stock } from '../stock'

/**
 * A list whole, with the sentence that leads into it or, where there is none, the heading right over it or
 * the title: one item a line, numbered where the piece numbers them.
 */
export function listDrafts({ piece, study }: Stock, passage: FoundPassage): Draft[] {
  if (passage.kind !== 'steps') return []
  const blocks = piece.blocks.filter((b) => b.start < passage.end && b.end > passage.start)
  const items = blocks.filter((b) => b.kind === 'item')
  const [first] = items
  if (!first) return []
  const led = blocks[0] && blocks[0].kind !== 'item' ? blocks[0] : null
  const at = piece.blocks.indexOf(first)
  const above = piece.blocks.slice(0, at).findLast((b) => b.kind === 'heading')
  const heading = above ? piece.text.slice(above.start, above.end) : null
  const spans: Place[] = [{ start: passage.start, end: passage.end }]
  let lead = led ? piece.text.slice(Math.max(led.start, passage.start), led.end) : null
  if (lead === null) {
    const over = [heading, study.piece.title].find((t) => t && mayHead(t, items.length))
    if (!over) return []
    if (over === heading && above) spans.unshift({ start: above.start, end: above.end })
    lead = `${over.replace(/[.:!?]+$/, '')}:`
  }
  return [
    {
      angle: 'checklist',
      paragraphs: [
        {
          kind: 'list',
          lead,
          items: items.map((b) => piece.text.slice(b.start, b.end)),
          ordered: first.list?.ordered ?? false,
        },
      ],
      spans,
      worth: passage.score,
      whole: false,
    },
  ]
}

/** Whether a heading may stand over a list: it says something, and names no other count than the list has. */
export function mayHead(heading: string, count: number): boolean {
  if (isEmptyHeading(heading)) return false
  return heading
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((w) => w !== 'first' && w !== 'second' && w !== 'once' && w !== 'one')
    .every((w) => {
      const number = NUMBER_WORDS[w] ?? (/^\d+$/.test(w) ? Number(w) : null)
      return number === null || number === count
    })
}
