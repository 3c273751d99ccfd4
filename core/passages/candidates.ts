import { danglingWords, hasVerb, isBalanced, promisesList, type Token } from '../language'
import type { Block } from '../model'
import { longestClip } from '../networks'
import { endsSentence } from '../text'
import { lacksItsTerm, type Study, type StudiedSentence } from '../study'
import type { SentenceOdds } from './model'

/** A run of neighbouring sentences that could be a passage: indexes into the study, the last included. */
export interface Run {
  from: number
  to: number
  /** Whether it is a list with its lead-in, or steps in order. */
  steps: boolean
}

/** Lengths in characters that a passage may have, and a list with its lead-in. */
const LENGTH = { least: 25, most: 600, list: 900 }
const LONGEST_RUN = 3

/** The shortest clip that says something, and the longest that every network takes, in seconds. */
const CLIP = { least: 5, most: longestClip() }

/** Where a run stands in its piece's text. */
export function placeOf({ sentences }: Study, { from, to }: Run): { start: number; end: number } {
  return { start: sentences[from]?.start ?? 0, end: sentences[to]?.end ?? 0 }
}

/** Whether a run of text can stand by itself as far as its marks tell: ended, balanced, not leading on. */
function isWhole(text: string, last: StudiedSentence): boolean {
  return (
    text.length >= LENGTH.least &&
    text.length <= LENGTH.most &&
    endsSentence(text) &&
    !last.text.endsWith('?') &&
    !promisesList(last.text) &&
    isBalanced(text)
  )
}

/** Whether what is spoken in a run is neither too short nor too long for a clip; what is read always fits. */
function fitsClip({ piece }: Study, from: number, to: number): boolean {
  if (!piece.video) return true
  const begins = piece.sentences[from]?.from
  const ends = piece.sentences[to]?.to
  return (
    begins !== undefined && ends !== undefined && ends - begins >= CLIP.least && ends - begins <= CLIP.most
  )
}

/** Whether somebody speaks of whom only a first name or initials are known: such words cannot go out. */
function isUnnamed(block: Block | undefined): boolean {
  return block?.kind === 'quotation' && block.speaker !== undefined && !/\s/.test(block.speaker.trim())
}

/** Whether a sentence opens the paragraph below the one that ends with a question, and so answers it. */
function answers(question: StudiedSentence, answer: StudiedSentence): boolean {
  return (
    question.text.endsWith('?') &&
    question.toBlockEnd === 0 &&
    answer.block === question.block + 1 &&
    answer.inBlock === 0 &&
    question.kind === 'paragraph' &&
    answer.kind === 'paragraph' &&
    !answer.furniture
  )
}

/**
 * The runs of a piece that could be quoted: one to three sentences of a paragraph, a question that ends
 * one with the answer that opens the next, and lists with what leads into them. A run ends before a sentence that points to something which no sentence of the run
 * has named. Furniture, headings, tables and code never are in one; `mayOpen` tells which sentences may
 * be the first of one.
 */
export function runsOf(study: Study, mayOpen: (s: StudiedSentence) => boolean = () => true): Run[] {
  const { sentences, piece } = study
  const found: Run[] = []
  for (const first of sentences) {
    if (first.furniture || first.kind === 'heading' || isUnnamed(piece.blocks[first.block])) continue
    // A phrase without a verb is the label or the answer of something, and opens nothing.
    if (!mayOpen(first) || !hasVerb(first.tokens) || /^\p{Ll}/u.test(first.text)) continue
    if (lacksItsTerm(study, first)) continue
    let before: readonly Token[] = []
    for (let to = first.index; to < first.index + LONGEST_RUN; to++) {
      const last = sentences[to]
      const previous = to > first.index ? sentences[to - 1] : last
      if (!last || !previous || (last.block !== previous.block && !answers(previous, last))) break
      if (to > first.index && danglingWords(last.tokens, last.text, before) !== null) break
      before = [...before, ...last.tokens]
      if (isWhole(piece.text.slice(first.start, last.end), last) && fitsClip(study, first.index, to))
        found.push({ from: first.index, to, steps: false })
    }
  }
  return [...found, ...listsOf(study)]
}

/** Lists of a piece: steps in order, or items after a sentence that ends in a colon. */
function listsOf({ sentences, piece }: Study): Run[] {
  const found: Run[] = []
  for (let i = 0; i < sentences.length; i++) {
    const first = sentences[i]
    const list = first && piece.blocks[first.block]?.list
    if (!first || !list || list.index !== 0 || first.inBlock !== 0 || first.furniture) continue
    let to = i
    while (piece.blocks[sentences[to + 1]?.block ?? -1]?.list?.id === list.id) to++
    const lead = sentences[i - 1]
    const led = lead !== undefined && lead.kind === 'paragraph' && !lead.furniture && lead.text.endsWith(':')
    const from = led ? i - 1 : i
    const text = piece.text.slice(sentences[from]?.start, sentences[to]?.end)
    const several = sentences[to]?.block !== first.block
    if (several && (led || list.ordered) && text.length <= LENGTH.list && isBalanced(text))
      found.push({ from, to, steps: true })
    i = to
  }
  return found
}

/**
 * What a run is weighed by, from what the model says of its sentences (`length` in characters), in the
 * order of the model's weights: how far the first sentence stands alone; the most and the least worth, the
 * worst “never” and the most quotable of all; how good the first is; whether they are two, or three and
 * more; how far the second stands alone; the length against 120 characters, as a logarithm.
 */
export function traitsOf({ from, to }: Run, odds: readonly SentenceOdds[], length: number): number[] {
  const first = odds[from]
  const most: Record<'worth' | 'never' | 'quotable', number> = {
    worth: -Infinity,
    never: -Infinity,
    quotable: -Infinity,
  }
  let least = Infinity
  for (let i = from; i <= to; i++) {
    const of = odds[i]
    if (!of) continue
    most.worth = Math.max(most.worth, of.worth)
    most.never = Math.max(most.never, of.never)
    most.quotable = Math.max(most.quotable, of.quotable)
    least = Math.min(least, of.worth)
  }
  return [
    first?.alone ?? 0,
    most.worth,
    least,
    most.never,
    most.quotable,
    first?.good ?? 0,
    to > from ? 1 : 0,
    to > from + 1 ? 1 : 0,
    to > from ? (odds[from + 1]?.alone ?? 0) : 0,
    Math.log(Math.max(1, length)) - 4.8,
  ]
}
