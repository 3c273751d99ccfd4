import type { FoundPassage, PieceContent, Place } from '../model'
import { analyse } from '../reading'
import { danglingWords, isBalanced, opensOnKnown, promisesList } from '../language'
import { sentenceFeatures } from '../study'
import type { Draft } from './drafts'
import { isEmptyHeading } from './titles'

const LEAST = 350
const MOST = 3600

/**
 * The part of a piece around a passage as the body of a letter, in Markdown: whole paragraphs under
 * their heading, lists as lists, quotations as quotations. Parts are added from below until there
 * is enough to be worth a letter. Null where the part begins with something that points out of it.
 */
export function letterDraft(piece: PieceContent, passage: FoundPassage, angle: Draft['angle']): Draft | null {
  const at = piece.blocks.findIndex((b) => b.start <= passage.start && passage.start < b.end)
  if (at < 0 || piece.video) return null
  let first = at
  while (first > 0 && piece.blocks[first]?.kind !== 'heading') first--
  const heading = piece.blocks[first]?.kind === 'heading'
  const part = (from: number): number => {
    let end = from + 1
    while (end < piece.blocks.length && piece.blocks[end]?.kind !== 'heading') end++
    return end
  }
  let start = heading ? first + 1 : first
  let end = part(first)
  if (sizeOf(piece, start, end) < LEAST && end < piece.blocks.length) end = part(end)
  // A long part without headings is a letter from the passage's own paragraph on.
  if (sizeOf(piece, start, end) > MOST) start = at
  while (end - 1 > start && sizeOf(piece, start, end) > MOST) end--
  const blocks = piece.blocks
    .slice(start, end)
    .filter((b) => b.furniture === null && b.kind !== 'code' && b.kind !== 'row')
  const opening = blocks[0]
  if (!opening || opening.kind === 'item' || sizeOf(piece, start, end) < LEAST) return null
  const sentences = analyse(piece).filter((s) => s.start >= opening.start && s.end <= opening.end)
  const [hook] = sentences
  if (!hook || sentenceFeatures(hook).dangling !== null || !sentenceFeatures(hook).verb) return null
  const paragraphs: string[] = []
  const spans: Place[] = []
  const over = piece.blocks[first]
  if (heading && over && start === first + 1 && headingStands(piece, over)) {
    paragraphs.push(`## ${piece.text.slice(over.start, over.end)}`)
    spans.push({ start: over.start, end: over.end })
  }
  let list: string[] = []
  const close = (): void => {
    if (list.length) paragraphs.push(list.join('\n'))
    list = []
  }
  for (const block of blocks) {
    const text = piece.text.slice(block.start, block.end)
    if (block.kind === 'item') {
      if (block.list?.index === 0) close()
      list.push(block.list?.ordered ? `${block.list.index + 1}. ${text}` : `- ${text}`)
    } else {
      close()
      paragraphs.push(
        block.kind === 'heading' ? `## ${text}` : block.kind === 'quotation' ? `> ${text}` : text,
      )
    }
    const last = spans[spans.length - 1]
    if (last && last.end + 2 === block.start) last.end = block.end
    else spans.push({ start: block.start, end: block.end })
  }
  close()
  const tail = paragraphs[paragraphs.length - 1] ?? ''
  if (tail.startsWith('#') || promisesList(tail) || !isBalanced(paragraphs.join('\n'))) return null
  const features = sentences.map((s) => sentenceFeatures(s))
  return {
    angle,
    paragraphs,
    spans,
    framed: false,
    known: opensOnKnown(hook.tokens),
    heading: null,
    opens: features[0]?.imperative ? 'order' : 'statement',
    lemmas: new Set(features.flatMap((f) => f.lemmas)),
  }
}

/** Whether a heading says something to somebody who has not seen the piece. */
function headingStands(piece: PieceContent, place: Place): boolean {
  const text = piece.text.slice(place.start, place.end)
  const tokens = analyse(piece)
    .filter((s) => s.start >= place.start && s.end <= place.end)
    .flatMap((s) => s.tokens)
  return danglingWords(tokens, text) === null && !isEmptyHeading(text)
}

function sizeOf(piece: PieceContent, from: number, to: number): number {
  return piece.blocks
    .slice(from, to)
    .reduce((sum, b) => sum + (b.furniture === null ? b.end - b.start : 0), 0)
}
