import { contentLemmas, type Token } from '../language'
import type { Block, PieceContent, Place } from '../model'
import { ageingPhrases, agesSentence, analyse, type ReadSentence } from '../reading'
import { lexRank } from './centrality'

/** A stretch of a piece between two headings; the first may have none. */
export interface Section {
  heading: string | null
  /** The words of the heading, in lower case. */
  words: ReadonlySet<string>
  /** Indexes of its sentences: the first, and one past the last. */
  from: number
  to: number
}

/** A sentence with its place among the others. Indexes are into `Study.sentences`. */
export interface StudiedSentence extends ReadSentence {
  index: number
  words: Token[]
  lemmas: string[]
  /** The words by which it ages, or null. */
  ageing: string | null
  kind: Block['kind']
  furniture: boolean
  section: number
  /** Its place in its block, counted from both ends. */
  inBlock: number
  toBlockEnd: number
}

/**
 * A piece studied once: what every later stage wants to know of its sentences. It is a value that is
 * made in one place (`studyOf`) and handed on; nothing in it changes.
 */
export interface Study {
  piece: PieceContent
  sentences: readonly StudiedSentence[]
  sections: readonly Section[]
  /** How central each sentence is to the piece (LexRank), 0 to 1. */
  centrality: readonly number[]
  /** In which sentence each lemma of a content word stands first, and how often in all. */
  lemmas: ReadonlyMap<string, { first: number; count: number }>
  /** In which sentence each word of a name stands first. */
  names: ReadonlyMap<string, number>
  titleLemmas: ReadonlySet<string>
}

/** Studies a piece: its sentences in their sections and paragraphs, what is new in each, what is central. */
export function studyOf(piece: PieceContent): Study {
  const read = analyse(piece)
  const sections: Section[] = []
  const inBlock = new Map<number, number>()
  const blockSizes = new Map<number, number>()
  for (const s of read) blockSizes.set(s.block, (blockSizes.get(s.block) ?? 0) + 1)
  const ageing = ageingIn(piece)
  const sentences = read.map((sentence, index): StudiedSentence => {
    const block = piece.blocks[sentence.block] as Block
    if (block.kind === 'heading' || sections.length === 0) {
      const heading = block.kind === 'heading' ? sentence.text : null
      const words = new Set(heading?.toLowerCase().split(/[^\p{L}\p{N}]+/u))
      sections.push({ heading, words, from: index, to: index })
    }
    const section = sections.length - 1
    ;(sections[section] as Section).to = index + 1
    const place = inBlock.get(sentence.block) ?? 0
    inBlock.set(sentence.block, place + 1)
    return {
      ...sentence,
      index,
      words: sentence.tokens.filter((t) => t.word),
      lemmas: contentLemmas(sentence.tokens),
      ageing: ageing(sentence),
      kind: block.kind,
      furniture: block.furniture !== null,
      section,
      inBlock: place,
      toBlockEnd: (blockSizes.get(sentence.block) ?? 1) - 1 - place,
    }
  })
  const lemmas = new Map<string, { first: number; count: number }>()
  const names = new Map<string, number>()
  for (const s of sentences) {
    for (const lemma of s.lemmas) {
      const known = lemmas.get(lemma)
      if (known) known.count++
      else lemmas.set(lemma, { first: s.index, count: 1 })
    }
    for (const t of s.words) if (t.pos === 'PROPN' && !names.has(t.lower)) names.set(t.lower, s.index)
  }
  return {
    piece,
    sentences,
    sections,
    centrality: lexRank(sentences.map((s) => s.lemmas)),
    lemmas,
    names,
    titleLemmas: new Set(readTitle(piece.title)),
  }
}

/** The level that a term of a definition list has as a heading (`reading/walk.ts`). */
const TERM_LEVEL = 5

/**
 * Whether a sentence begins the definition of a term that it does not say: it stands first below the term of a
 * definition list, as "A hull of two skins." does below "Double-ender", and means nothing without it.
 */
export function lacksItsTerm(
  { piece }: Pick<Study, 'piece'>,
  s: Pick<StudiedSentence, 'block' | 'text' | 'inBlock'>,
): boolean {
  const over = piece.blocks[s.block - 1]
  if (s.inBlock !== 0 || over?.kind !== 'heading' || over.level !== TERM_LEVEL) return false
  const words =
    piece.text
      .slice(over.start, over.end)
      .toLowerCase()
      .match(/\p{L}{3,}/gu) ?? []
  const said = s.text.toLowerCase()
  return words.length > 0 && !words.some((w) => said.includes(w.replace(/(?:es|s)$/, '')))
}

/** The heading under which a place stands, the nearest above it; null where there is none. */
export function headingOver(piece: Pick<PieceContent, 'blocks'>, place: Pick<Place, 'start'>): Block | null {
  let over: Block | null = null
  for (const block of piece.blocks) {
    if (block.start > place.start) break
    if (block.kind === 'heading') over = block
  }
  return over
}

/** Tells of a sentence the words by which it ages; the phrases are looked for in the whole text at once. */
function ageingIn({ text, publishedAt }: PieceContent): (s: Place) => string | null {
  const phrases = ageingPhrases(text, publishedAt).filter((p) => agesSentence(p))
  return ({ start, end }) => {
    const first = phrases.find((p) => p.start >= start && p.end <= end)
    return first ? text.slice(first.start, first.end) : null
  }
}

function readTitle(title: string): string[] {
  return title
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((w) => w.length > 3)
    .flatMap((w) => [w, w.replace(/(?:ies)$/, 'y'), w.replace(/s$/, '')])
}
