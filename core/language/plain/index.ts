import type { SentenceTokens, Token } from '../en'

/*
 * What can be said of a text in any language without rules of its own: where its sentences and words
 * are (Unicode Standard Annex 29, as the runtime knows it), and nothing of what they do.
 */

const segmenters = new Map<string, { sentences: Intl.Segmenter; words: Intl.Segmenter }>()

function segmentersFor(language: string): { sentences: Intl.Segmenter; words: Intl.Segmenter } {
  let known = segmenters.get(language)
  if (!known) {
    const of = (granularity: 'sentence' | 'word'): Intl.Segmenter => {
      try {
        return new Intl.Segmenter(language, { granularity })
      } catch {
        return new Intl.Segmenter(undefined, { granularity })
      }
    }
    segmenters.set(language, (known = { sentences: of('sentence'), words: of('word') }))
  }
  return known
}

/** A short word before a full stop that ends no sentence: "z. B.", "Dr.", "Nr.", "art.", a number or an initial. */
const NO_END =
  /(?:^|[\s(])(?:\p{L}|\d{1,2}|\p{Lu}\p{Ll}{0,2}|bzw|usw|ca|vgl|evtl|inkl|approx|art|etc|ecc|pág|núm)\.\s*$/u

/** The sentences of a stretch of text in another language, with words that have no part of speech ("X"). */
export function plainSentences(text: string, language: string, offset = 0): SentenceTokens[] {
  const { sentences, words } = segmentersFor(language)
  const found: SentenceTokens[] = []
  let from = 0
  for (const { segment, index } of sentences.segment(text)) {
    const until = index + segment.length
    if (NO_END.test(text.slice(from, until)) && until < text.length) continue
    const said = text.slice(from, until)
    const start = from + (said.length - said.trimStart().length)
    const end = from + said.trimEnd().length
    from = until
    if (end <= start) continue
    const tokens = [...words.segment(text.slice(start, end))]
      .filter((w) => w.segment.trim())
      .map((w): Token => ({
        text: w.segment,
        lower: w.segment.toLowerCase(),
        lemma: w.segment.toLowerCase(),
        pos: w.isWordLike ? 'X' : 'PUNCT',
        start: start + w.index + offset,
        end: start + w.index + w.segment.length + offset,
        word: w.isWordLike ?? false,
      }))
    found.push({ start: start + offset, end: end + offset, tokens })
  }
  return found
}
