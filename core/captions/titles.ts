import { danglingWords, isBalanced, lowerFirst, opensOnKnown, readSentences } from '../language'
import { isBelief } from './belief'
import type { PieceContent, Place } from '../model'
import { graphemes } from '../networks'
import { sentenceFeatures } from '../study'
import { ageingWords, analyse } from '../reading'
import { printOf } from '../text'
import { topicOf } from './topics'

/** A headline for a piece or one of its parts, with where its words come from. */
export interface Headline {
  text: string
  why: 'its title' | 'a heading' | 'a heading with the title' | 'a list' | 'a sentence' | 'a question'
  span: Place | null
}

/** Headings that say what kind of part follows and not what it says. */
const EMPTY =
  /^(?:introduction|conclusion|summary|overview|background|ingredients|method|notes?|resources|sources|references|what you need|fixed|words|cleaning|cooking|counting|imports|further reading|the basics|faq|questions|why it matters|what happened|chapter \d+|part \d+)\W*$/i

/** Whether a heading says what kind of part follows and not what it says. */
export const isEmptyHeading = (heading: string): boolean => EMPTY.test(heading.trim())

/**
 * Headlines that a piece holds, best first: its title, its headings (with the title's subject
 * where they name none), lists by what they count, and short sentences that stand alone. None is
 * made up, none ends in a full stop, and no two are alike.
 */
export function headlines(piece: PieceContent, most = 10, limit = 100): Headline[] {
  const topic = topicOf(piece)
  const found: (Headline & { score: number })[] = []
  const add = (text: string, why: Headline['why'], span: Place | null, score: number): void => {
    const plain = text.trim().replace(/[.:;,]+$/, '')
    if (graphemes(plain) < 8 || graphemes(plain) > limit || !isBalanced(plain) || ageingWords(plain)) return
    found.push({ text: plain, why, span, score })
  }
  if (piece.title) add(piece.title, 'its title', null, 1)
  piece.blocks.forEach((block, index) => {
    if (block.furniture !== null) return
    const text = piece.text.slice(block.start, block.end)
    if (block.kind === 'heading') {
      const tokens = readSentences(text).flatMap((s) => s.tokens)
      if (
        EMPTY.test(text) ||
        /\bthe ones?\b/i.test(text) ||
        danglingWords(tokens, text) !== null ||
        /^\d/.test(text)
      )
        return
      const words = text.split(/\s+/).length
      const names = tokens.some((t) => topic.lemmas.has(t.lemma))
      const why = text.endsWith('?') ? 'a question' : 'a heading'
      if (words >= 3 && words <= 12) add(text, why, block, names ? 0.85 : 0.7)
      else if (topic.label && words <= 4 && !names)
        add(`${topic.label}: ${lowerFirst(text)}`, 'a heading with the title', block, 0.6)
    }
    if (block.kind === 'item' && block.list?.index === 0 && block.list.ordered) {
      let count = 1
      while (piece.blocks[index + count]?.list?.id === block.list.id) count++
      const heading = piece.blocks
        .slice(0, index)
        .reverse()
        .find((b) => b.kind === 'heading')
      const over = heading ? piece.text.slice(heading.start, heading.end) : null
      if (over && count >= 3 && !/\d/.test(over) && !EMPTY.test(over) && over.split(/\s+/).length <= 8)
        add(`${over.replace(/[?:.]+$/, '')}, in ${countWord(count)} steps`, 'a list', block, 0.65)
    }
  })
  for (const sentence of analyse(piece)) {
    const block = piece.blocks[sentence.block]
    if (!block || block.furniture !== null || block.kind !== 'paragraph') continue
    const { text } = sentence
    if (text.length < 24 || text.length > 80 || !/[.?]$/.test(text) || /[“”"]/.test(text)) continue
    const f = sentenceFeatures(sentence, piece.publishedAt)
    if (f.dangling !== null || !f.verb || f.ageing !== null || f.past || opensOnKnown(sentence.tokens))
      continue
    if (/\b(?:I|we|my|our)\b/i.test(text) || isBelief(text)) continue
    const edge = Number(f.contrast) + Number(f.surprise) + Number(f.numbers > 0) + Number(f.imperative)
    const about = f.lemmas.some((l) => topic.lemmas.has(l))
    add(
      text,
      f.question ? 'a question' : 'a sentence',
      { start: sentence.start, end: sentence.end },
      0.4 + 0.08 * edge + (about ? 0.15 : 0),
    )
  }
  const seen = new Set<string>()
  return found
    .sort((a, b) => b.score - a.score)
    .filter((h) => {
      const key = printOf(h.text)
      if (seen.has(key)) return false
      seen.add(key)
      return true
    })
    .slice(0, most)
    .map(({ text, why, span }) => ({ text, why, span }))
}

function countWord(count: number): string {
  const words = ['three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve']
  return words[count - 3] ?? String(count)
}
