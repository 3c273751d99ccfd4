import type { Block, PieceText, WholePiece } from '../model'
import { shareAnalysis } from './piece'
import { countWords, printOf } from '../text'

/** What the blocks of pieces are compared by: a short print of each one's words, furniture or not. */
export function blockPrints(text: Pick<PieceText, 'text' | 'blocks'>): string[] {
  return text.blocks.map((b) => printOf(text.text.slice(b.start, b.end)))
}

/** On how many other pages a block must stand, word for word, to be furniture. */
const REPEATED = 2

/**
 * Marks as furniture what stands word for word on other pages of the same source: a house line,
 * a standing invitation, a disclaimer. `others` are the prints of the blocks of each other page.
 * Headings of one or two words may come back ("Tools", "What you need") and are left.
 */
export function markRepeats<T extends WholePiece>(piece: T, others: readonly ReadonlySet<string>[]): T {
  let marked = false
  const blocks = piece.blocks.map((block): Block => {
    if (block.furniture !== null) return block
    const print = printOf(piece.text.slice(block.start, block.end))
    if (block.kind === 'heading' ? print.split(' ').length < 3 : print.length < 12) return block
    if (others.filter((o) => o.has(print)).length < REPEATED) return block
    marked = true
    return { ...block, furniture: 'repeats on other pages' }
  })
  if (!marked) return piece
  shareAnalysis(piece.blocks, blocks)
  const words = blocks.reduce(
    (sum, b) => (b.furniture === null ? sum + countWords(piece.text.slice(b.start, b.end)) : sum),
    0,
  )
  return { ...piece, blocks, words }
}
