import { danglingWords, isBalanced, opensOnKnown, promisesList } from '../../language'
import type { Angle, Block, FoundPassage, PieceContent, Place } from '../../model'
import { isEmptyHeading, plainly, type Draft, type Paragraph } from '../../setting'
import type { Stock } from '../stock'

const LEAST = 350
const MOST = 3600

/**
 * The part of a piece around a passage as the body of a letter, in Markdown: whole paragraphs under
 * their heading, lists as lists, quotations as quotations. Parts are added from below until there
 * is enough to be worth a letter. Null where the part begins with something that points out of it.
 */
export function letterDraft(stock: Stock, passage: FoundPassage, angle: Angle): Draft | null {
  const { piece, study, features } = stock
  const at = piece.blocks.findIndex((b) => b.start <= passage.start && passage.start < b.end)
  if (at < 0 || piece.video) return null
  const { first, start, end } = partAround(piece, at)
  const blocks = piece.blocks
    .slice(start, end)
    .filter((b) => b.furniture === null && b.kind !== 'code' && b.kind !== 'row')
  const opening = blocks[0]
  if (!opening || opening.kind === 'item' || sizeOf(piece, start, end) < LEAST) return null
  const hook = study.sentences.find((s) => s.start >= opening.start && s.end <= opening.end)
  const f = hook && features[hook.index]
  if (!hook || !f || f.dangling !== null || !f.verb) return null
  const over = piece.blocks[first]
  const named = over?.kind === 'heading' && start === first + 1 && headingStands(stock, over)
  const { paragraphs, spans } = laidOut(piece, named && over ? [over, ...blocks] : blocks)
  const tail = paragraphs[paragraphs.length - 1]
  const text = paragraphs.map(plainly).join('\n')
  if (!tail || tail.kind === 'heading' || promisesList(plainly(tail)) || !isBalanced(text)) return null
  const worth = opensOnKnown(hook.tokens) ? passage.score * 0.8 : passage.score
  return { angle, paragraphs, spans, worth, whole: false }
}

/** The blocks of the part around a block: its heading or first block, and where the letter begins and ends. */
function partAround(piece: PieceContent, at: number): { first: number; start: number; end: number } {
  let first = at
  while (first > 0 && piece.blocks[first]?.kind !== 'heading') first--
  const part = (from: number): number => {
    let end = from + 1
    while (end < piece.blocks.length && piece.blocks[end]?.kind !== 'heading') end++
    return end
  }
  let start = piece.blocks[first]?.kind === 'heading' ? first + 1 : first
  let end = part(first)
  if (sizeOf(piece, start, end) < LEAST && end < piece.blocks.length) end = part(end)
  // A long part without headings is a letter from the passage's own paragraph on.
  if (sizeOf(piece, start, end) > MOST) start = at
  while (end - 1 > start && sizeOf(piece, start, end) > MOST) end--
  return { first, start, end }
}

/** Blocks as paragraphs of a letter, with their places. */
function laidOut(piece: PieceContent, blocks: readonly Block[]): { paragraphs: Paragraph[]; spans: Place[] } {
  const paragraphs: Paragraph[] = []
  const spans: Place[] = []
  let items: string[] = []
  for (const [i, block] of blocks.entries()) {
    const text = piece.text.slice(block.start, block.end)
    if (block.kind === 'item') {
      items.push(text)
      if (blocks[i + 1]?.list?.id !== block.list?.id) {
        paragraphs.push({ kind: 'list', lead: '', items, ordered: block.list?.ordered ?? false })
        items = []
      }
    } else if (block.kind === 'heading') paragraphs.push({ kind: 'heading', text })
    else if (block.kind === 'quotation') paragraphs.push({ kind: 'quotation', text })
    else paragraphs.push({ kind: 'prose', sentences: [text] })
    const last = spans[spans.length - 1]
    if (last && last.end + 2 === block.start) last.end = block.end
    else spans.push({ start: block.start, end: block.end })
  }
  return { paragraphs, spans }
}

/** Whether a heading says something to somebody who has not seen the piece. */
function headingStands({ piece, study }: Stock, place: Place): boolean {
  const text = piece.text.slice(place.start, place.end)
  const tokens = study.sentences
    .filter((s) => s.start >= place.start && s.end <= place.end)
    .flatMap((s) => s.tokens)
  return danglingWords(tokens, text) === null && !isEmptyHeading(text)
}

function sizeOf(piece: PieceContent, from: number, to: number): number {
  return piece.blocks
    .slice(from, to)
    .reduce((sum, b) => sum + (b.furniture === null ? b.end - b.start : 0), 0)
}
