import type { Token } from '../sentences'
import { isImperative, isNoun, isPlural, isVerb, isWord, TIMES, VERB_NOUNS } from '../verbs'
import { THIRD_PERSON } from '../words'

/** A sentence as the rules look at it. */
export interface Looked {
  tokens: readonly Token[]
  words: readonly Token[]
  text: string
  /** The tokens of the run that stand before it and may hold what it points to; none where it opens. */
  before: readonly Token[]
  opens: boolean
  /** What was named before each token, worked out when it is first asked for. */
  named(index: number): Named
}

/** What a pronoun may mean: which things and people were named before it. */
export interface Named {
  singular: boolean
  plural: boolean
  people: boolean
  /** Whether a boat was, which is a "she" as well. */
  boats: boolean
  /** Whether a thing was named, by its lemma. */
  has(lemma: string): boolean
}

/** What kind of thing a rule finds, from which it can be seen how a sentence leans. */
export type LeanKind = 'joins' | 'pronoun' | 'points' | 'left out' | 'elsewhere'

/** One way in which a sentence leans on something outside of it. */
export interface Rule {
  name: string
  kind: LeanKind
  /** Whether it is looked for only in the sentence that opens a run. */
  opening: boolean
  /** The words that lean, or null. */
  finds: (s: Looked) => string | null
  /** Sentences that lean by this rule, with the words that do. */
  examples: readonly (readonly [string, string])[]
  /** Sentences that look alike and do not lean by it. */
  counter: readonly string[]
}

/** Who can be meant by "he", "she" or "they". */
const PEOPLE = new Set(
  'man woman person student owner child friend teacher doctor wife husband mother father judge player beginner merchant somebody someone nobody everybody everyone anyone people'.split(
    ' ',
  ),
)

const BOATS = new Set(['boat', 'ship', 'hull'])

/** What somebody does or is, by its ending: "an anaesthetist", "a librarian", "a plumber". */
const TRADE =
  /(?:...(?:ist|ian|eer|man|woman|wife)|(?:keep|mak|work|teach|driv|farm|bak|paint|writ|read|play|own|manag|offic|train|run|rid|build|tun|garden|plumb|walk|climb|sing|design|photograph|research|custom|borrow|memb|lead|sell|hold|own|found|lawy)er)$/

/** Whether a token of a run names somebody whom "he", "she" or "they" can mean. */
function namesPerson(token: Token, previous: Token | undefined, next: Token | undefined): boolean {
  // "Warm air": a capital at the beginning, before a common noun, is no name.
  if (token.pos === 'PROPN') return !(next?.pos === 'NOUN' && /^(?:[.!?]|)$/.test(previous?.text ?? ''))
  return isNoun(token) && (PEOPLE.has(token.lemma) || TRADE.test(token.lemma))
}

/** Looks at a sentence; `before` are the tokens of the run that precede it. */
export function look(tokens: readonly Token[], text: string, before: readonly Token[]): Looked {
  let found: Named[] | null = null
  return {
    tokens,
    words: tokens.filter(isWord),
    text,
    before,
    opens: before.length === 0,
    named: (index) => (found ??= namedIn(tokens, before))[index] as Named,
  }
}

/** Whether a token that the tagger takes for a noun or number is a thing that a pronoun can mean. */
function isThing(tokens: readonly Token[], i: number): boolean {
  const token = tokens[i] as Token
  const next = tokens[i + 1]
  const previous = tokens[i - 1]
  if (isNoun(token)) {
    if (TIMES.has(token.lemma)) return false
    // "Iron nails rot in it": the first noun only says which, and what follows a plural is its verb.
    if (next && isNoun(next) && (token.pos === 'NOUN' || i === 0) && isPlural(next)) return false
    if (previous && isNoun(previous) && isPlural(previous) && token.lower === token.lemma) return false
    // "Walk up, show it the cheese": a verb that the tagger took for a noun.
    if (/^(?:,|and|then)$/.test(previous?.lower ?? '') && next !== undefined && THIRD_PERSON.has(next.lower))
      return false
    // What follows a subject pronoun is its verb, whatever the tagger says: "it rains on them".
    if (/^(?:i|you|he|she|it|we|they)$/.test(previous?.lower ?? '')) return false
    // "They cut straighter with it": a comparative that the tagger takes for a noun.
    if (/[a-z]{3}er$/.test(token.lower) && previous !== undefined && isVerb(previous) && next?.pos === 'ADP')
      return false
    // So is what follows a plural at the beginning: "Beginners cut straighter with it".
    if (i === 1 && VERB_NOUNS.has(token.lower) && isNoun(tokens[0] as Token) && isPlural(tokens[0] as Token))
      return false
    return true
  }
  if (token.pos !== 'NUM') return false
  // "Two of us" are no two things, nor are "three winters".
  if (next?.lower === 'of' && /^(?:us|you|it)$/.test(tokens[i + 2]?.lower ?? '')) return false
  return !TIMES.has(next?.lemma ?? '')
}

const THING = new Set(['something', 'anything', 'everything', 'nothing', 'whatever'])
/** "They" may be nobody or everyone, "it" may not. */
const ANYBODY = new Set('somebody someone nobody everybody everyone anyone anybody people whoever'.split(' '))

/** What was named before each token of a sentence. */
function namedIn(tokens: readonly Token[], before: readonly Token[]): Named[] {
  let singular = before.some((t) => isNoun(t) && !isPlural(t))
  let plural = before.some((t) => isNoun(t) && isPlural(t))
  let people = before.some((t, i) => namesPerson(t, before[i - 1], before[i + 1] ?? tokens[0]))
  let boats = before.some((t) => BOATS.has(t.lemma))
  /** Where each thing was named first; −1 in what stands before the sentence. */
  const first = new Map(before.map((t) => [t.lemma, -1]))
  const name = (lemma: string, i: number): unknown => first.has(lemma) || first.set(lemma, i)
  const order = isImperative(tokens) ? tokens.find(isWord) : null
  return tokens.map((token, i) => {
    const said: Named = {
      singular,
      plural,
      people,
      boats,
      has: (lemma) => (first.get(lemma) ?? Infinity) < i,
    }
    const next = tokens[i + 1]
    boats ||= BOATS.has(token.lemma)
    people ||= namesPerson(token, tokens[i - 1] ?? before[before.length - 1], next)
    if (token === order) return said
    if (isThing(tokens, i)) {
      // "Beginners cut": a plural that the tagger takes for a name.
      const many =
        i === 0 &&
        token.pos === 'PROPN' &&
        /[^s]s$/.test(token.lower) &&
        next !== undefined &&
        isVerb(next) &&
        next.lower === next.lemma
      if (isPlural(token) || many || token.pos === 'NUM') plural = true
      else singular = true
      name(token.lemma, i)
    } else if (isNoun(token) && TIMES.has(token.lemma)) name(token.lemma, i)
    if (THING.has(token.lower)) singular = plural = true
    if (ANYBODY.has(token.lower)) plural = true
    return said
  })
}

/** Whether a clause ends here. */
export const ends = (token: Token | undefined): boolean => token === undefined || token.pos === 'PUNCT'

/**
 * A rule that is a pattern over the text; what matches, less space around it, are the words that lean,
 * or what the one of its named groups holds that matches.
 */
export function phrase(
  name: string,
  kind: LeanKind,
  pattern: RegExp,
  examples: Rule['examples'],
  counter: readonly string[] = [],
  { unless, opening = true }: { unless?: RegExp; opening?: boolean } = {},
): Rule {
  return {
    name,
    kind,
    opening,
    finds: ({ text }) => {
      if (unless?.test(text)) return null
      const match = pattern.exec(text)
      return (Object.values(match?.groups ?? {}).find(Boolean) ?? match?.[0])?.trim() ?? null
    },
    examples,
    counter,
  }
}
