import { endsSentence } from '../../text'
import { danglingWords } from './alone'
import { hasVerb } from './verbs'
import { isBalanced } from './form'
import { readSentences, type Token } from './sentences'
import { upperFirst } from './grammar'

/** Openings that a sentence can lose without saying more than it did. "Usually" is not among them. */
const OPENING =
  /^(?:however|moreover|furthermore|in fact|of course|indeed|incidentally|by the way|after all|in other words|in addition|additionally|for example|for instance|in short|in practice|needless to say|as it happens|to be fair|to be honest|mind you|anyway|still|then again|at any rate|in any case|of all things|as ever), /i

/** Clauses after a comma that give a reason, a result or a remark. One that limits what is said stays. */
const TRAILING = /, (?:which|because|since|so that|so|who|whereas|as if)\b[^,;:–()]*([.!])$/i

/** A sentence that answers or takes up the one before it. */
const TAKES_UP = /^(?:but|and|yet|so|or|nor|then|still|it|this|that|these|those|they|he|she|not)\b/i

const nounLike = (t: Token | undefined): boolean => t?.pos === 'NOUN' || t?.pos === 'PROPN'
const verbLike = (t: Token | undefined): boolean => t?.pos === 'VERB' || t?.pos === 'AUX'

/**
 * Shorter ways of saying one sentence, each with one thing left out: a parenthesis, an opening
 * adverbial, a trailing reason or remark, an apposition, the first of two adjectives. Only where
 * what is left is a whole sentence; conditions and limits ("if", "unless", "although", "usually")
 * are never left out. After the clause-level rules of sentence compression by syntax (Jing 2000),
 * as far as punctuation and parts of speech can carry them without a parser.
 */
export function shorterSentences(sentence: string): readonly string[] {
  const before = known.get(sentence)
  if (before) return before
  const found = [
    sentence.replace(/ \([^()]{2,90}\)(?=[ .,;:!?])/, ''),
    upperFirst(sentence.replace(OPENING, '')),
    sentence.replace(TRAILING, '$1'),
    withoutApposition(sentence),
    withoutFirstAdjective(sentence),
  ]
  const shorter = [...new Set(found)].filter((s) => s !== sentence && stillStands(s, sentence))
  if (known.size > 3000) known.clear()
  known.set(sentence, shorter)
  return shorter
}

const known = new Map<string, readonly string[]>()

/**
 * A text brought down until it fits, by leaving things out of its sentences, the last ones first;
 * null where that is not enough. Nothing is cut inside a sentence that then does not stand.
 */
export function shortenUntil(text: string, fits: (text: string) => boolean): string | null {
  let current = text
  for (let round = 0; round < 12; round++) {
    if (fits(current)) return current
    const sentences = readSentences(current).map((s) => ({ ...s, text: current.slice(s.start, s.end) }))
    const next = sentences
      // What the next sentence takes up may stand in the part that would be left out.
      .filter((_, i) => !TAKES_UP.test(sentences[i + 1]?.text ?? ''))
      .reverse()
      .map((s) => {
        const [shorter] = [...shorterSentences(s.text)].sort((a, b) => a.length - b.length)
        return shorter === undefined ? null : current.slice(0, s.start) + shorter + current.slice(s.end)
      })
      .find((t) => t !== null)
    if (next === undefined || next === null) return null
    current = next
  }
  return fits(current) ? current : null
}

/** Whether what is left is a sentence that points at nothing the whole one did not point at. */
function stillStands(sentence: string, whole: string): boolean {
  const [read, more] = readSentences(sentence)
  if (!read || more || !isBalanced(sentence) || sentence.split(/\s+/).length < 5) return false
  if (!endsSentence(sentence)) return false
  const before = readSentences(whole)[0]
  const points = danglingWords(read.tokens, sentence)
  return (
    hasVerb(read.tokens) &&
    (points === null || (before !== undefined && danglingWords(before.tokens, whole) !== null))
  )
}

/** ", the second of three," between a noun and its verb. */
function withoutApposition(sentence: string): string {
  const tokens = readSentences(sentence)[0]?.tokens ?? []
  for (let i = 1; i < tokens.length - 3; i++) {
    if (tokens[i]?.text !== ',' || !nounLike(tokens[i - 1])) continue
    if (!/^(?:a|an|the|his|her|its|their|our|my)$/.test(tokens[i + 1]?.lower ?? '')) continue
    const close = tokens.findIndex((t, k) => k > i + 1 && t.text === ',')
    if (close < 0 || close - i > 9 || !verbLike(tokens[close + 1])) continue
    const inside = tokens.slice(i + 1, close)
    if (inside.some((t) => verbLike(t) || /^(?:and|or)$/.test(t.lower))) continue
    return sentence.slice(0, tokens[i]?.start) + sentence.slice(tokens[close]?.end)
  }
  return sentence
}

/** "a long, slow curve" without the first of its adjectives. */
function withoutFirstAdjective(sentence: string): string {
  const tokens = readSentences(sentence)[0]?.tokens ?? []
  for (let i = 1; i < tokens.length - 3; i++) {
    const [before, first, comma, second, noun] = tokens.slice(i - 1, i + 4)
    if (first?.pos !== 'ADJ' || comma?.text !== ',' || second?.pos !== 'ADJ' || !nounLike(noun)) continue
    // The article before it may have to change its sound, so only one that does not is touched.
    if (
      before?.lower !== 'the' &&
      !/^(?:with|of|in|no|some|his|her|its|their|our|my|your)$/.test(before?.lower ?? '')
    )
      continue
    return sentence.slice(0, first.start) + sentence.slice(second.start)
  }
  return sentence
}
