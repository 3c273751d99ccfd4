import type { Block, PieceContent, PieceImage, Sentence } from '../model'
import { isEnglish, languageOf, plainSentences, readSentences, type SentenceTokens } from '../language'
import { countWords } from '../text'

/** A block before its place in the text is known. */
export interface BlockDraft {
  kind: Block['kind']
  text: string
  level?: number
  list?: NonNullable<Block['list']>
  speaker?: string
  furniture: string | null
  /** What of it is set in bold at its beginning. */
  bold?: string
}

/** A sentence of a piece with its tokens and the index of its block. */
export interface ReadSentence extends SentenceTokens {
  block: number
  text: string
}

/** Signs that turn the direction of what follows: unseen in a text, they turn the caption around it as well. */
const withoutTurns = (text: string): string => text.replace(/[\u202A-\u202E\u2066-\u2069]/g, '')

const analyses = new WeakMap<object, ReadSentence[]>()

/**
 * Joins blocks by blank lines into a piece's text and finds the sentences of each block.
 * Empty blocks are left out; the images' block numbers are mapped accordingly.
 */
export function assemblePiece(
  about: Omit<PieceContent, 'text' | 'words' | 'blocks' | 'sentences' | 'images'>,
  drafts: readonly BlockDraft[],
  images: readonly PieceImage[],
): PieceContent {
  const blocks: Block[] = []
  const numbers: number[] = []
  let text = ''
  for (const draft of drafts) {
    const words = withoutTurns(draft.text).trim()
    if (!words) {
      numbers.push(blocks.length - 1)
      continue
    }
    if (text) text += '\n\n'
    const { text: _, bold: __, ...rest } = draft
    blocks.push({ ...rest, start: text.length, end: text.length + words.length })
    numbers.push(blocks.length - 1)
    text += words
  }
  const content: PieceContent = {
    ...about,
    title: withoutTurns(about.title),
    language: languageOf(text, about.language),
    text,
    words: blocks
      .filter((b) => b.furniture === null)
      .reduce((sum, b) => sum + countWords(text.slice(b.start, b.end)), 0),
    blocks,
    sentences: [],
    images: images.map((i) => ({ ...i, block: i.block < 0 ? -1 : (numbers[i.block] ?? -1) })),
  }
  const read = analyse(content)
  content.sentences = read.map((s): Sentence => ({ start: s.start, end: s.end, block: s.block }))
  return content
}

/**
 * The sentences of a piece with tokens, and parts of speech where it is English. One pass per piece: reading, passages
 * and captions share it through a weak map.
 */
export function analyse(piece: Pick<PieceContent, 'text' | 'blocks' | 'language'>): ReadSentence[] {
  // Kept by the blocks, which stay the same objects while a piece gets an owner.
  const known = analyses.get(piece.blocks)
  if (known) return known
  const read = piece.blocks.flatMap((block, index) =>
    block.kind === 'code' || block.kind === 'row'
      ? []
      : sentencesIn(piece, block).map((s) => ({
          ...s,
          block: index,
          text: piece.text.slice(s.start, s.end),
        })),
  )
  analyses.set(piece.blocks, read)
  return read
}

function sentencesIn(
  { text, language }: Pick<PieceContent, 'text' | 'language'>,
  block: Block,
): SentenceTokens[] {
  const words = text.slice(block.start, block.end)
  return isEnglish(language)
    ? readSentences(words, block.start)
    : plainSentences(words, language ?? '', block.start)
}

/** Lets blocks that only got other marks share what was read of the ones they were made from. */
export function shareAnalysis(from: readonly Block[], to: readonly Block[]): void {
  const known = analyses.get(from)
  if (known) analyses.set(to, known)
}
