import { isNoun, readSentences, STOP_WORDS, type Token } from '../language'
import type { PieceContent, Place } from '../model'
import { chancesOf, type Chances, type Run as PassageRun } from '../passages'
import { headlines, termsOf, type Headline } from '../setting'
import { sentenceFeatures, studyOf, type SentenceFeatures, type Study } from '../study'

/** All that a writer knows of a piece in English: made once, handed on, never changed. */
export interface Stock {
  piece: PieceContent
  study: Study
  /** What each sentence is, in the order of the study's sentences. */
  features: readonly SentenceFeatures[]
  chances: Chances
  /** The terms of its field, for hashtags, and what may be a title, each best first. */
  terms: readonly string[]
  /** The words by which it is looked for: those terms and the nouns of its title. */
  sought: readonly string[]
  headlines: readonly Headline[]
  /** Everybody who is named in full, by each word of the name in lower case. */
  people: ReadonlyMap<string, string>
}

/** Reads a piece for writing. */
export function stockOf(piece: PieceContent): Stock {
  const study = studyOf(piece)
  const terms = termsOf(study)
  return {
    piece,
    study,
    features: study.sentences.map((s) => sentenceFeatures(s, piece.publishedAt)),
    chances: chancesOf(study),
    terms,
    sought: soughtFor(study, terms),
    headlines: headlines(study, 60),
    people: peopleIn(study),
  }
}

/** Author's tags, terms and the nouns of the title, in lower case, each once. */
function soughtFor({ piece }: Study, terms: readonly string[]): string[] {
  const title = readSentences(piece.title)
    .flatMap((s) => s.tokens)
    .filter((t) => isNoun(t) && t.lower.length > 2 && !STOP_WORDS.has(t.lower))
    .map((t) => t.lower)
  return [...new Set([...piece.categories.map((c) => c.toLowerCase()), ...terms, ...title])]
}

/** A stretch of neighbouring sentences: indexes into the study, the last included. */
export type Run = Pick<PassageRun, 'from' | 'to'>

/** The sentences that lie in a place, or null where it holds none or cuts one in two. */
export function runAt({ study: { sentences } }: Stock, { start, end }: Place): Run | null {
  const from = sentences.findIndex((s) => s.start >= start)
  let to = from
  while (to >= 0 && (sentences[to + 1]?.end ?? Infinity) <= end) to++
  const [first, last] = [sentences[from], sentences[to]]
  return first && last && first.start === start && last.end === end ? { from, to } : null
}

/** The features of a run. */
export const featuresOf = ({ features }: Stock, { from, to }: Run): readonly SentenceFeatures[] =>
  features.slice(from, to + 1)

/** Verbs of which somebody is the subject. */
const PERSONAL = new Set(
  'say tell ask explain write add think believe remember laugh smile nod reply answer joke admit call work start want'.split(
    ' ',
  ),
)

/** Names of two words and more that somebody bears: each word that may stand for the whole later. */
function peopleIn({ sentences }: Study): Map<string, string> {
  const people = new Map<string, string>()
  for (const s of sentences)
    for (let i = 0; i < s.words.length; i++) {
      let end = i
      while (isName(s.words[end])) end++
      if (end - i < 2 || end - i > 4 || s.kind === 'heading') {
        i = Math.max(i, end - 1)
        continue
      }
      const words = s.words.slice(i, end)
      const full = words.map((t) => t.text).join(' ')
      for (const word of words) if (!people.has(word.lower)) people.set(word.lower, full)
      i = end
    }
  return people
}

const isName = (t: Token | undefined): boolean => t?.pos === 'PROPN' && /^\p{Lu}\p{Ll}/u.test(t.text)

/**
 * Somebody whom a run speaks of by a part of the name only, though the piece gives the whole elsewhere; or
 * who does what people do and was named before. Null where everybody is introduced.
 */
export function strangerIn({ study, people }: Stock, { from, to }: Run): string | null {
  const words = study.sentences.slice(from, to + 1).flatMap((s) => s.words)
  for (let i = 0; i < words.length; i++) {
    const word = words[i] as Token
    if (!isName(word) || isName(words[i - 1]) || isName(words[i + 1])) continue
    if (study.titleLemmas.has(word.lower)) continue
    const full = people.get(word.lower)
    if (
      full &&
      !study.piece.text.slice(study.sentences[from]?.start, study.sentences[to]?.end).includes(full)
    )
      return word.text
    const acts = PERSONAL.has(words[i + 1]?.lemma ?? '')
    const introduced = i > 0 && isNoun(words[i - 1] as Token)
    if (acts && !introduced && (study.names.get(word.lower) ?? from) < from) return word.text
  }
  return null
}
