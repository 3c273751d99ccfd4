import type { Token } from './sentences'
import { isNoun, isWord } from './verbs'
import { NUMBER_WORDS, STOP_WORDS } from './words'

/** The words of a sentence that carry its subject, as lemmas. */
export function contentLemmas(tokens: readonly Token[]): string[] {
  return tokens
    .filter((t) => isWord(t) && !STOP_WORDS.has(t.lower) && !STOP_WORDS.has(t.lemma))
    .map((t) => t.lemma)
}

/** The numbers in a sentence, as written: figures, and number words from three upwards or with a unit. */
export function numbersIn(tokens: readonly Token[]): Token[] {
  return tokens.filter((t, i) => {
    if (/\d/.test(t.text)) return true
    const value = NUMBER_WORDS[t.lower]
    if (value === undefined || t.lower === 'once' || t.lower === 'first' || t.lower === 'second') return false
    return (
      value >= 2 ||
      (tokens[i + 1]?.pos === 'NOUN' &&
        /^(hour|day|week|month|year|inch|mile|minute|kilo|metre|coat|degree)s?$/.test(
          tokens[i + 1]?.lower ?? '',
        ))
    )
  })
}

const CONTRAST =
  /\b(?:not [^.;]{2,60}[,;:] (?:but|it)\b|not [^.;]{2,40}[:;] an? \w|rather than|instead of|whereas|(?:more|less|fewer|better|worse|cheaper|longer|stronger|faster) (?:[a-z]+ ){0,3}than|looks? [^.;]{2,60}\b(?:but|and)\b|does not [^.;]{2,80}\b(?:does|but)\b|, not (?:(?:an?|the|at|from|in|with|by|on|to|for)\b|\w+[.,;]))/i

const ENUMERATES =
  /\b(?:two|three|four|five|six|seven|eight|nine|ten|several|\d+) (?:[a-z-]+ )?(?:places|things|ways|answers|reasons|kinds|sorts|steps|rules|parts|questions|options|methods|signs|points|lessons|mistakes|stages|causes|types)\b/i

/** Whether a sentence promises a count of things that must follow it: "in three places only." */
export function promisesList(text: string): boolean {
  return /[:]$/.test(text) || (ENUMERATES.test(text) && !/:\s/.test(text))
}

/** Whether a sentence begins with "the" and a thing that was named before it, other than a superlative. */
export function opensOnKnown(tokens: readonly Token[]): boolean {
  const [first, second] = tokens
  return (
    first?.lower === 'the' &&
    second !== undefined &&
    !/^(?:most|best|worst|least|only|one|[a-z]{3,}est)$/.test(second.lower)
  )
}

/** Words by which a writer says that something is not as one would think. */
const SURPRISE =
  /\b(?:surpris(?:e|es|ed|ing|ingly)|turn(?:s|ed) out|oddly|strangely|curiously|unexpectedly|contrary to|not because|even (?:though|when|if)|the opposite|of all things|(?:is|are|was|were) wrong|nobody (?:tells|told|believes|believed|expects|expected|notices|noticed)|(?:most )?people (?:think|believe|assume|expect))\b/i

/** Whether a sentence sets one thing against another. */
export function isContrast(text: string): boolean {
  return CONTRAST.test(text)
}

/** Whether a sentence says what something is: "A scarf is …". */
export function isDefinition(tokens: readonly Token[]): boolean {
  const words = tokens.filter(isWord)
  const verb = words.findIndex((t) => t.lower === 'is' || t.lower === 'means' || t.lower === 'are')
  if (verb < 1 || verb > 5) return false
  const subject = words.slice(0, verb)
  const next = words[verb + 1]
  const named =
    subject.every((t) => isNoun(t) || t.pos === 'ADJ' || /^(a|an|the)$/.test(t.lower)) && subject.some(isNoun)
  return named && next !== undefined && (/^(a|an)$/.test(next.lower) || words[verb]?.lower === 'means')
}

/** Whether every quotation mark and bracket that opens in a text also closes in it. */
export function isBalanced(text: string): boolean {
  const count = (pattern: RegExp): number => text.match(pattern)?.length ?? 0
  return (
    count(/“/g) === count(/”/g) &&
    count(/\(/g) === count(/\)/g) &&
    count(/\[/g) === count(/\]/g) &&
    count(/"/g) % 2 === 0
  )
}

const OPENER = /^(?:okay|ok|well|right|um+|uh+|erm?|yeah|yes|no)$/

/** A sentence without the "Okay," or "Well," that only opens it, so that what follows counts as its first word. */
export function withoutOpener(tokens: readonly Token[]): readonly Token[] {
  let from = 0
  while (OPENER.test(tokens[from]?.lower ?? '') && /^[,.…]$/.test(tokens[from + 1]?.text ?? '')) from += 2
  return from ? tokens.slice(from) : tokens
}

/** Whether a sentence says that something is not as one would think. */
export function isSurprise(text: string): boolean {
  return SURPRISE.test(text)
}
