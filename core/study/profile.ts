import {
  CLASS_OF,
  isImperative,
  isNoun,
  isPast,
  isVerb,
  leanOf,
  rarity,
  WORD_CLASSES,
  withoutOpener,
  type LeanKind,
  type Token,
} from '../language'
import type { Study, StudiedSentence } from './study'

/** The parts of speech that are counted. */
export const PARTS = [
  'NOUN',
  'PROPN',
  'VERB',
  'AUX',
  'ADJ',
  'ADV',
  'PRON',
  'DET',
  'ADP',
  'NUM',
  'CCONJ',
  'SCONJ',
  'PART',
]
const PART_NUMBER = new Map(PARTS.map((part, i) => [part, i]))
const CONTENT = new Set(['NOUN', 'VERB', 'ADJ', 'ADV'])
const OF_NAME = new Set(['ADJ', 'NUM', 'ADV', 'NOUN', 'PROPN'])

/** What is counted of a sentence in one pass over its tokens. */
export interface Profile {
  s: StudiedSentence
  study: Study
  tokens: readonly Token[]
  words: readonly Token[]
  n: number
  classes: Float64Array
  parts: Float64Array
  /** The classes of the first and the second word. */
  first: readonly number[]
  second: readonly number[]
  /** How rare each word is, and each word of content. */
  rareness: number[]
  rarities: number[]
  nouns: Token[]
  names: Token[]
  lean: LeanKind | null
  definite: Definite
  past: boolean
  imperative: boolean
  /** Places among the words of what may point out of the sentence. */
  pronouns: number[]
  taken: number[]
  pointed: number[]
  bare: number[]
  /** What may need what stands before it: in all, and in the first six words. */
  risks: number
  earlyRisks: number
}

/** Phrases with "the": how many, how many with nothing that says which, and what of them is known. */
interface Definite {
  all: number
  bare: number
  known: number
  fresh: number
  opens: boolean
  opensBare: boolean
  opensKnown: boolean
}

const SAYS_WHICH = /^(?:of|that|who|which|whose|where|for|in|on|with|between|from|you|we|i|they|to)$/

function definiteOf(s: StudiedSentence, study: Study): Definite {
  const d: Definite = {
    all: 0,
    bare: 0,
    known: 0,
    fresh: 0,
    opens: false,
    opensBare: false,
    opensKnown: false,
  }
  const { tokens } = s
  for (let i = 0; i < tokens.length; i++) {
    if (tokens[i]?.lower !== 'the') continue
    let end = i + 1
    while (end < tokens.length && OF_NAME.has(tokens[end]?.pos ?? '')) end++
    const head = tokens[end - 1]
    if (end === i + 1 || !head) continue
    const superlative = /(?:est|most|least|only|same|first|last)$/.test(tokens[i + 1]?.lower ?? '')
    const bare = !superlative && !SAYS_WHICH.test(tokens[end]?.lower ?? '')
    const seen = (study.lemmas.get(head.lemma)?.first ?? Infinity) < s.index
    d.all++
    if (bare) d.bare++
    if (seen) d.known++
    else d.fresh++
    if (i <= 1) {
      d.opens = true
      d.opensBare = bare
      d.opensKnown = seen
    }
  }
  return d
}

/** The places of the words that a test takes. */
function placesOf(
  words: readonly Token[],
  test: (t: Token, i: number, words: readonly Token[]) => boolean,
): number[] {
  const found: number[] = []
  for (let i = 0; i < words.length; i++) if (test(words[i] as Token, i, words)) found.push(i)
  return found
}

/** What is counted of one sentence of a piece. */
export function profileOf(study: Study, s: StudiedSentence): Profile {
  const classes = new Float64Array(WORD_CLASSES.length)
  const parts = new Float64Array(PARTS.length)
  const rareness: number[] = []
  const rarities: number[] = []
  const nouns: Token[] = []
  const names: Token[] = []
  for (const t of s.words) {
    for (const c of CLASS_OF.get(t.lower) ?? []) classes[c] = (classes[c] ?? 0) + 1
    const p = PART_NUMBER.get(t.pos)
    if (p !== undefined) parts[p] = (parts[p] ?? 0) + 1
    if (isNoun(t)) nouns.push(t)
    if (t.pos === 'PROPN') names.push(t)
    const rare = rarity(t.lower)
    rareness.push(rare)
    if (CONTENT.has(t.pos)) rarities.push(rare)
  }
  const opened = withoutOpener(s.tokens)
  const profile: Profile = {
    s,
    study,
    tokens: s.tokens,
    words: s.words,
    n: Math.max(1, s.words.length),
    classes,
    parts,
    first: CLASS_OF.get(s.words[0]?.lower ?? '') ?? [],
    second: CLASS_OF.get(s.words[1]?.lower ?? '') ?? [],
    rareness,
    rarities,
    nouns,
    names,
    lean: leanOf(opened, s.text)?.kind ?? null,
    definite: definiteOf(s, study),
    past: isPast(s.tokens),
    imperative: isImperative(s.tokens),
    pronouns: placesOf(s.words, (t) => PRONOUN.has(t.lower)),
    taken: placesOf(s.words, takesUp),
    pointed: placesOf(s.words, isThatSaid),
    bare: bareOutsideTitle(s.words, study.titleLemmas),
    risks: 0,
    earlyRisks: 0,
  }
  profile.risks = risks(profile)
  profile.earlyRisks = risks(profile, 6)
  return profile
}

const PRONOUN = new Set(
  'it its they them their theirs he she him her his hers itself themselves himself herself'.split(' '),
)

const TAKES_UP = new Set(
  'also too either else instead then such same again otherwise likewise similarly thus therefore hence still yet even neither nor rest another other others former latter'.split(
    ' ',
  ),
)

/** Whether a word takes up something said before: "also", "instead", "there" where it is a place. */
function takesUp(t: Token, i: number, words: readonly Token[]): boolean {
  if (TAKES_UP.has(t.lower)) return true
  if (i === 0) return false
  const next = words[i + 1]
  if (t.lower === 'there') return !/^(?:is|are|was|were|will|’s|'s|has|have)$/.test(next?.lower ?? '')
  return t.lower === 'so' && next?.pos !== 'ADJ' && next?.pos !== 'ADV'
}

/** Whether "that", "this" or "these" stands for a thing that was said, not before a noun of its own clause. */
function isThatSaid(t: Token, i: number, words: readonly Token[]): boolean {
  if (t.lower === 'this' || t.lower === 'these' || t.lower === 'those') return true
  if (t.lower !== 'that') return false
  const next = words[i + 1]
  const before = words[i - 1]
  if (next === undefined || before === undefined) return true
  return (
    before.pos === 'ADP' ||
    (isVerb(next) && !isNoun(before) && !isVerb(before)) ||
    (isVerb(before) && next.pos === 'ADP')
  )
}

/** The places of "the" before a thing that is not in the title and of which nothing says which it is. */
function bareOutsideTitle(words: readonly Token[], title: ReadonlySet<string>): number[] {
  return placesOf(words, (t, i) => {
    const next = words[i + 1]
    if (t.lower !== 'the' || !next) return false
    let end = i + 1
    while (
      /^(?:NOUN|PROPN)$/.test(words[end + 1]?.pos ?? '') &&
      /^(?:ADJ|NOUN|NUM|PROPN)$/.test(words[end]?.pos ?? '')
    )
      end++
    const head = words[end] as Token
    const superlative = /(?:est|most|least|only|same|first|last)$/.test(next.lower)
    return !superlative && !SAYS_WHICH.test(words[end + 1]?.lower ?? '') && !title.has(head.lemma)
  })
}

/** How many things in a sentence may need what stands before it, in its first words or in all. */
function risks(p: Profile, within = Infinity): number {
  const opening = p.words[0]?.lower ?? ''
  const early = (places: readonly number[]): number =>
    within === Infinity ? places.length : places.filter((i) => i < within).length
  const ones = p.words.filter((t, i) => i > 0 && i < within && (t.lower === 'one' || t.lower === 'ones'))
  const met = p.words.filter(
    (t, i) => i < within && t.pos === 'PROPN' && (p.study.names.get(t.lower) ?? Infinity) < p.s.index,
  )
  return (
    early(p.pronouns) +
    early(p.bare) +
    early(p.pointed) +
    early(p.taken) +
    ones.length +
    met.length +
    Number(/^(?:and|but|or|so|because|which|then|yes|no|now|well)$/.test(opening)) +
    Number(p.n < 4) +
    Number(p.lean !== null)
  )
}
