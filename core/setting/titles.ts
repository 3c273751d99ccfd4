import { danglingWords, isBalanced, isBelief, opensOnKnown } from '../language'
import type { Place } from '../model'
import { graphemes } from '../networks'
import { ageingWords } from '../reading'
import { sentenceFeatures, type StudiedSentence, type Study } from '../study'
import { printOf } from '../text'

/** A headline for a piece or one of its parts, with where its words come from. */
export interface Headline {
  text: string
  why: 'its title' | 'a heading' | 'a chapter' | 'a sentence' | 'a question'
  /** Where a heading or a sentence stands, or all that a chapter of a film says. */
  span: Place | null
}

/** Headings that say what kind of part follows and not what it says. */
const EMPTY =
  /^(?:introduction|conclusions?|summary|overview|background|ingredients|method|notes?|resources|sources|references|what you need|fixed|words|cleaning|cooking|counting|imports|further reading|the basics|faqs?|questions|why it matters|what happened|tl;?dr|in (?:short|brief|conclusion)|(?:final|closing) (?:thoughts|words)|wrapping up|the (?:bottom line|takeaways?|end)|before (?:we|you) (?:start|begin)|getting started|next steps|chapter \d+|part \d+)\W*$/i

/** Whether a heading says what kind of part follows and not what it says. */
export const isEmptyHeading = (heading: string): boolean => EMPTY.test(heading.trim())

type Scored = Headline & { score: number }

/**
 * Headlines that a piece holds, best first: its title, its headings or the chapters that its film names, and short sentences
 * that stand alone.
 * None is made up, none ends in a full stop, and no two are alike.
 */
export function headlines(study: Study, most = 10, limit = 100): Headline[] {
  const { piece } = study
  const title: Scored[] = piece.title ? [{ text: piece.title, why: 'its title', span: null, score: 1 }] : []
  const seen = new Set<string>()
  return [...title, ...chaptersOf(piece), ...study.sentences.flatMap((s) => headlineOf(study, s) ?? [])]
    .map((h) => ({ ...h, text: h.text.trim().replace(/[.:;,]+$/, '') }))
    .filter(({ text }) => {
      const length = graphemes(text)
      return length >= 8 && length <= limit && isBalanced(text) && !ageingWords(text)
    })
    .sort((a, b) => b.score - a.score)
    .filter(({ text }) => {
      const key = printOf(text)
      return !seen.has(key) && seen.add(key)
    })
    .slice(0, most)
    .map(({ text, why, span }) => ({ text, why, span }))
}

/** The chapters that a film names, but for those that say only what kind of part follows. */
function chaptersOf({ video, sentences }: Study['piece']): Scored[] {
  if (!video || video.chaptersFound) return []
  const begins = video.chapters.map(({ at }) => sentences.find((s) => (s.from ?? -1) >= at - EARLY))
  return video.chapters.flatMap(({ title }, i) => {
    const [from, to] = [begins[i], begins[i + 1]]
    if (!from || from === to || isEmptyHeading(title) || title.split(/\s+/).length < 2) return []
    const span = { start: from.start, end: to?.start ?? Infinity }
    return [{ text: title, why: 'a chapter' as const, span, score: 0.7 }]
  })
}

/** So many seconds before its mark a chapter's first sentence may begin. */
const EARLY = 0.5

/** A sentence as a headline, or null: a heading that says something, or a short one that stands alone. */
function headlineOf(study: Study, s: StudiedSentence): Scored | null {
  if (s.furniture) return null
  const { text } = s
  const span = { start: s.start, end: s.end }
  const about = s.lemmas.some((l) => study.titleLemmas.has(l))
  if (s.kind === 'heading') {
    const words = text.split(/\s+/).length
    const empty = isEmptyHeading(text) || /\bthe ones?\b/i.test(text) || /^\d/.test(text)
    if (empty || words < 3 || words > 12 || danglingWords(s.tokens, text) !== null) return null
    return { text, why: text.endsWith('?') ? 'a question' : 'a heading', span, score: about ? 0.85 : 0.7 }
  }
  if (s.kind !== 'paragraph' || text.length < 24 || text.length > 80) return null
  if (!/[.?]$/.test(text) || /[“”"]/.test(text) || /\b(?:I|we|my|our)\b/i.test(text) || isBelief(text))
    return null
  const f = sentenceFeatures(s, study.piece.publishedAt)
  if (f.dangling !== null || !f.verb || f.ageing !== null || f.past || opensOnKnown(s.tokens)) return null
  const edge = Number(f.contrast) + Number(f.surprise) + Number(f.numbers > 0) + Number(f.imperative)
  const score = 0.4 + 0.08 * edge + (about ? 0.15 : 0)
  return { text, why: f.question ? 'a question' : 'a sentence', span, score }
}
