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
  lemmas: ReadonlySet<string>
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

const PEOPLE =
  /^(?:man|woman|person|student|owner|child|friend|teacher|doctor|wife|husband|mother|father|judge|player|beginner|merchant|somebody|someone|nobody|everybody|everyone|anyone|people)$/

/** Whether somebody is named whom "he", "she" or "they" can mean. */
function namesPeople(list: readonly Token[]): boolean {
  return list.some(
    (t, i) =>
      // "Warm air": a capital at the beginning, before a common noun, is no name.
      (t.pos === 'PROPN' && !(list[i + 1]?.pos === 'NOUN' && /^(?:[.!?]|)$/.test(list[i - 1]?.text ?? ''))) ||
      PEOPLE.test(t.lemma) ||
      /^(?:boat|ship|hull)$/.test(t.lemma),
  )
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

/** What was named before each token of a sentence. */
function namedIn(tokens: readonly Token[], before: readonly Token[]): Named[] {
  let singular = before.some((t) => isNoun(t) && !isPlural(t))
  let plural = before.some((t) => isNoun(t) && isPlural(t))
  const lemmas = new Set(before.map((t) => t.lemma))
  const order = isImperative(tokens) ? tokens.find(isWord) : null
  return tokens.map((token, i) => {
    const said: Named = {
      singular,
      plural,
      people: namesPeople([...before, ...tokens.slice(0, i)]),
      lemmas: new Set(lemmas),
    }
    const next = tokens[i + 1]
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
      lemmas.add(token.lemma)
    } else if (isNoun(token) && TIMES.has(token.lemma)) lemmas.add(token.lemma)
    if (/^(?:something|anything|everything|nothing|whatever)$/.test(token.lower)) singular = plural = true
    // "They" may be nobody or everyone, "it" may not.
    if (/^(?:somebody|someone|nobody|everybody|everyone|anyone|anybody|people|whoever)$/.test(token.lower))
      plural = true
    return said
  })
}

/** Whether a clause ends here. */
export const ends = (token: Token | undefined): boolean => token === undefined || token.pos === 'PUNCT'

/** A rule that is a pattern over the text; what matches, less space around it, are the words that lean. */
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
    finds: ({ text }) => (unless?.test(text) ? null : (pattern.exec(text)?.[0].trim() ?? null)),
    examples,
    counter,
  }
}
