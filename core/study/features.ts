import {
  hasVerb,
  isContrast,
  isDefinition,
  isNoun,
  isPlural,
  isSurprise,
  isVerb,
  numbersIn,
  rarity,
  STRONG_VERBS,
  WORD_CLASSES,
} from '../language'
import { PARTS, profileOf, type Profile } from './profile'
import {
  overlap,
  repeated,
  parallel,
  generic,
  halfCompared,
  bareNumbers,
  indefinite,
  unknownCapitals,
  firstNames,
  topical,
  namesSubject,
  sinceNamed,
} from './traits'
import type { Study, StudiedSentence } from './study'

const sum = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0)
const bit = (value: boolean): number => (value ? 1 : 0)
const log = (n: number): number => Math.log1p(Math.max(0, n))
const matches = (pattern: RegExp, text: string): number => text.match(pattern)?.length ?? 0

/** What a feature looks at: its group is what is taken away to see what it is worth. */
export const GROUPS = [
  'length',
  'marks',
  'parts of speech',
  'word classes',
  'opening',
  'reference',
  'given and new',
  'neighbours',
  'place',
  'distinctiveness',
  'form',
] as const
type FeatureGroup = (typeof GROUPS)[number]

/** One number that is told of a sentence. */
interface Feature {
  name: string
  group: FeatureGroup
  of: (p: Profile, all: readonly Profile[]) => number
}

const feature = (group: FeatureGroup, name: string, of: Feature['of']): Feature => ({ group, name, of })
const classNumber = new Map(WORD_CLASSES.map((name, i) => [name, i]))

const NEXT_LEANS = /^(?:it|they|he|she|this|that|these|those|but|and|so|or|because|then|which)$/

const other = (p: Profile, all: readonly Profile[], by: number): Profile | undefined => all[p.s.index + by]
const inBlock = (p: Profile, all: readonly Profile[], by: number): Profile | undefined => {
  const q = other(p, all, by)
  return q?.s.block === p.s.block ? q : undefined
}

/** All features, in the order in which a model's weights name them. */
export const FEATURES: readonly Feature[] = [
  feature('length', 'words', (p) => p.n),
  feature('length', 'letters a word', (p) => sum(p.words.map((t) => t.text.length)) / p.n),
  feature('length', 'longest word', (p) => Math.max(0, ...p.words.map((t) => t.text.length))),

  feature('marks', 'commas', (p) => matches(/,/g, p.s.text)),
  feature('marks', 'colon inside', (p) => matches(/[:;]\s/g, p.s.text)),
  feature('marks', 'dash', (p) => matches(/\s[–—-]\s|—/g, p.s.text)),
  feature('marks', 'bracket', (p) => matches(/[()[\]]/g, p.s.text)),
  feature('marks', 'quotation', (p) => matches(/[“”"]/g, p.s.text)),
  feature('marks', 'opens with a quotation', (p) => bit(/^[“"‘']/.test(p.s.text))),
  feature('marks', 'question', (p) => bit(p.s.text.endsWith('?'))),
  feature('marks', 'exclamation', (p) => matches(/!/g, p.s.text)),
  feature('marks', 'leads on', (p) => bit(/[:…]$/.test(p.s.text))),
  feature('marks', 'no end', (p) => bit(!/[.!?…:]["”’)\]]*$/.test(p.s.text))),
  feature('marks', 'figures', (p) => p.words.filter((t) => /\d/.test(t.text)).length),
  feature('marks', 'money and per cent', (p) => matches(/[€£$%]|per ?cent\b/gi, p.s.text)),
  feature('marks', 'address or number to ring', (p) =>
    matches(/@|www\.|https?:|\.(?:com|org|net|example)\b|\b\d{3,}[ -]\d{3,}/g, p.s.text),
  ),
  feature(
    'marks',
    'capitals',
    (p) => p.words.filter((t, i) => i > 0 && /^\p{Lu}/u.test(t.text) && t.text !== 'I').length / p.n,
  ),
  feature('marks', 'all capitals', (p) => p.words.filter((t) => /^\p{Lu}{2,}$/u.test(t.text)).length),
  feature('marks', 'begins small', (p) => bit(/^\p{Ll}/u.test(p.s.text))),
  feature('marks', 'speaker', (p) => bit(/^\p{Lu}[\p{L}.'’ -]{1,30}:\s/u.test(p.s.text))),

  ...PARTS.map((part, i) => feature('parts of speech', part, (p) => (p.parts[i] ?? 0) / p.n)),
  feature('parts of speech', 'names', (p) => p.names.length),
  feature('parts of speech', 'nouns', (p) => p.nouns.length),

  ...WORD_CLASSES.map((name, i) => feature('word classes', name, (p) => p.classes[i] ?? 0)),

  ...PARTS.map((part) => feature('opening', `opens with ${part}`, (p) => bit(p.words[0]?.pos === part))),
  ...PARTS.map((part) => feature('opening', `second is ${part}`, (p) => bit(p.words[1]?.pos === part))),
  ...(
    [
      'it',
      'they',
      'he or she',
      'I',
      'we',
      'you',
      'this',
      'joining word',
      'connective',
      'not',
      'absolute',
      'article',
      'a',
      'asking',
      'condition',
      'against',
      'opening noise',
      'number word',
      'be',
      'now',
      'each',
    ] as const
  ).map((name) => {
    const number = classNumber.get(name) ?? -1
    return feature('opening', `opens with “${name}”`, (p) => bit(p.first.includes(number)))
  }),
  ...(['it', 'they', 'he or she', 'I', 'we', 'you', 'this', 'be', 'not', 'vague'] as const).map((name) => {
    const number = classNumber.get(name) ?? -1
    return feature('opening', `second is “${name}”`, (p) => bit(p.second.includes(number)))
  }),
  feature('opening', 'there is', (p) => bit(p.words[0]?.lower === 'there')),
  feature('opening', 'imperative', (p) => bit(p.imperative)),
  feature('opening', 'my or our', (p) => bit(/^(?:my|our)$/.test(p.words[0]?.lower ?? ''))),
  feature('opening', 'plural noun', (p) =>
    bit(p.words[0] !== undefined && isNoun(p.words[0]) && isPlural(p.words[0])),
  ),
  feature('opening', 'rarity of the first word', (p) => p.rareness[0] ?? rarity('')),
  feature('opening', 'words before the verb', (p) => {
    const at = p.words.findIndex(isVerb)
    return at < 0 ? 30 : at
  }),

  feature('reference', 'points out (rules)', (p) => bit(p.lean !== null)),
  ...(['joins', 'pronoun', 'points', 'left out', 'elsewhere'] as const).map((kind) =>
    feature('reference', `leans: ${kind}`, (p) => bit(p.lean === kind)),
  ),
  feature('reference', 'where the first pronoun stands', (p) => p.pronouns[0] ?? 40),
  feature('reference', 'pronoun before any noun', (p) => {
    const at = p.pronouns[0]
    return bit(at !== undefined && !p.words.slice(0, at).some(isNoun))
  }),
  feature('reference', 'third-person pronouns', (p) => p.pronouns.length),
  feature('reference', 'pronouns to nouns', (p) => p.pronouns.length / (1 + p.nouns.length)),
  feature('reference', '“the” without saying which', (p) => p.definite.bare),
  feature('reference', '“the” and a thing named before', (p) => p.definite.known),
  feature('reference', '“the” and a thing not named before', (p) => p.definite.fresh),
  feature('reference', 'opens with “the” and says which', (p) =>
    bit(p.definite.opens && !p.definite.opensBare),
  ),
  feature('reference', 'opens with a bare “the”', (p) => bit(p.definite.opensBare)),
  feature('reference', 'opens with “the” and a thing named before', (p) => bit(p.definite.opensKnown)),
  feature(
    'reference',
    '“one” for a thing',
    (p) =>
      p.words.filter((t) => /^(?:one|ones|another|other|others|both|latter|former)$/.test(t.lower)).length,
  ),
  feature('reference', 'words that take up what was said', (p) => p.taken.length),
  feature('reference', '“that” for a thing said', (p) => p.pointed.length),
  feature('reference', 'comparison without its second half', (p) => bit(halfCompared(p))),
  feature('reference', 'number without its thing', (p) => bareNumbers(p)),
  feature('reference', 'ends on an auxiliary', (p) =>
    bit(/^(?:AUX|PART)$/.test(p.words[p.n - 1]?.pos ?? '')),
  ),
  feature('reference', '“the” and a thing that is not in the title', (p) => p.bare.length),
  feature('reference', 'things with “a” or none', (p) => indefinite(p)),
  feature('reference', 'unknown capitals', (p) => unknownCapitals(p)),
  feature('reference', 'opens with an unknown capital', (p) =>
    bit((p.rareness[0] ?? 0) > 14.5 && p.words[0]?.pos === 'PROPN'),
  ),
  feature('reference', 'a first name alone', (p) => firstNames(p)),
  feature('reference', 'possessive of a thing or person', (p) => matches(/[’']s\b/g, p.s.text)),
  feature('reference', 'risks', (p) => p.risks),
  feature('reference', 'risks in the first six words', (p) => p.earlyRisks),
  feature('reference', 'no risk at all', (p) => bit(p.risks === 0)),
  feature('reference', 'has a main verb', (p) => bit(hasVerb(p.tokens))),

  feature(
    'given and new',
    'share named before',
    (p) =>
      p.s.lemmas.filter((l) => (p.study.lemmas.get(l)?.first ?? p.s.index) < p.s.index).length /
      Math.max(1, p.s.lemmas.length),
  ),
  feature(
    'given and new',
    'new words of content',
    (p) => p.s.lemmas.filter((l) => (p.study.lemmas.get(l)?.first ?? p.s.index) >= p.s.index).length,
  ),
  feature('given and new', 'share named in the sentence before', (p, all) => {
    const q = other(p, all, -1)
    return q ? overlap(p.s.lemmas, q.s.lemmas) : 0
  }),
  feature('given and new', 'share taken up by the next', (p, all) => {
    const q = other(p, all, 1)
    return q ? overlap(q.s.lemmas, p.s.lemmas) : 0
  }),
  feature('given and new', 'first noun named before', (p) => {
    const noun = p.nouns[0]
    return bit(noun !== undefined && (p.study.lemmas.get(noun.lemma)?.first ?? Infinity) < p.s.index)
  }),
  feature('given and new', 'first noun named in the three before', (p, all) => {
    const noun = p.nouns[0]
    return bit(noun !== undefined && [1, 2, 3].some((k) => other(p, all, -k)?.s.lemmas.includes(noun.lemma)))
  }),
  feature('given and new', 'first noun in the title', (p) =>
    bit(p.nouns[0] !== undefined && p.study.titleLemmas.has(p.nouns[0].lemma)),
  ),
  feature('given and new', 'share in the title', (p) => overlap(p.s.lemmas, p.study.titleLemmas)),
  feature('given and new', 'share in the heading', (p) => {
    const section = p.study.sections[p.s.section]
    return section ? overlap(p.s.lemmas, section.words) : 0
  }),
  feature(
    'given and new',
    'names met before',
    (p) => p.names.filter((t) => (p.study.names.get(t.lower) ?? Infinity) < p.s.index).length,
  ),
  feature(
    'given and new',
    'names first met here',
    (p) => p.names.filter((t) => (p.study.names.get(t.lower) ?? Infinity) >= p.s.index).length,
  ),
  feature('given and new', 'matter of the piece', (p) =>
    p.s.lemmas.length
      ? sum(p.s.lemmas.map((l) => log(p.study.lemmas.get(l)?.count ?? 1))) / p.s.lemmas.length
      : 0,
  ),

  feature('given and new', 'its most frequent word', (p) =>
    Math.max(0, ...p.s.lemmas.map((l) => p.study.lemmas.get(l)?.count ?? 0)),
  ),
  feature('given and new', 'words that make up the subject', (p) => topical(p)),
  feature('given and new', 'names the subject before its verb', (p) => bit(namesSubject(p))),
  feature('given and new', 'sentences since its first noun', (p, all) => sinceNamed(p, all)),

  feature('neighbours', 'before is a question', (p, all) =>
    bit(other(p, all, -1)?.s.text.endsWith('?') ?? false),
  ),
  feature('neighbours', 'before leads on', (p, all) => bit(/:$/.test(other(p, all, -1)?.s.text ?? ''))),
  feature('neighbours', 'before is a heading', (p, all) => bit(other(p, all, -1)?.s.kind === 'heading')),
  feature('neighbours', 'before leans', (p, all) => bit(Boolean(inBlock(p, all, -1)?.lean))),
  feature('neighbours', 'words before', (p, all) => inBlock(p, all, -1)?.n ?? 0),
  feature('neighbours', 'words after', (p, all) => inBlock(p, all, 1)?.n ?? 0),
  feature('neighbours', 'after leans', (p, all) => bit(Boolean(inBlock(p, all, 1)?.lean))),
  feature('neighbours', 'after takes it up', (p, all) =>
    bit(NEXT_LEANS.test(inBlock(p, all, 1)?.words[0]?.lower ?? '')),
  ),
  feature('neighbours', 'after says but', (p, all) =>
    bit(/^(?:but|except|unless|however|though|still)$/.test(other(p, all, 1)?.words[0]?.lower ?? '')),
  ),
  feature('neighbours', 'after is a heading', (p, all) => bit(other(p, all, 1)?.s.kind === 'heading')),
  feature('neighbours', 'after is a question', (p, all) =>
    bit(other(p, all, 1)?.s.text.endsWith('?') ?? false),
  ),
  feature('neighbours', 'offers around', (p, all) =>
    sum(
      [-2, -1, 1, 2].map((k) => {
        const q = other(p, all, k)
        return q ? (q.classes[classNumber.get('offer') ?? 0] ?? 0) / q.n : 0
      }),
    ),
  ),
  feature('neighbours', 'past around', (p, all) =>
    sum(
      [-2, -1, 1, 2].map((k) => {
        const q = other(p, all, k)
        return q ? bit((q.classes[classNumber.get('past be') ?? 0] ?? 0) > 0) : 0
      }),
    ),
  ),
  feature('neighbours', 'rules lean around', (p, all) =>
    sum([-2, -1, 1, 2].map((k) => bit(Boolean(other(p, all, k)?.lean)))),
  ),

  feature('place', 'share of the piece', (p, all) => p.s.index / Math.max(1, all.length - 1)),
  feature('place', 'from the beginning', (p) => log(p.s.index)),
  feature('place', 'from the end', (p, all) => log(all.length - 1 - p.s.index)),
  feature('place', 'in its paragraph', (p) => p.s.inBlock),
  feature('place', 'to its paragraph’s end', (p) => p.s.toBlockEnd),
  feature('place', 'sentences of its paragraph', (p) => p.s.inBlock + p.s.toBlockEnd + 1),
  feature('place', 'in its section', (p) => p.s.index - (p.study.sections[p.s.section]?.from ?? 0)),
  feature('place', 'to its section’s end', (p) => (p.study.sections[p.s.section]?.to ?? 0) - 1 - p.s.index),
  feature('place', 'section', (p) => p.s.section / Math.max(1, p.study.sections.length - 1)),
  feature('place', 'sections', (p) => p.study.sections.length),
  feature('place', 'last section', (p) => bit(p.s.section === p.study.sections.length - 1)),
  feature('place', 'heading', (p) => bit(p.s.kind === 'heading')),
  feature('place', 'item', (p) => bit(p.s.kind === 'item')),
  feature('place', 'quotation', (p) => bit(p.s.kind === 'quotation')),
  feature('place', 'furniture', (p) => bit(p.s.furniture)),
  feature('place', 'sentences of the piece', (_, all) => all.length),

  feature('distinctiveness', 'mean rarity', (p) =>
    p.rarities.length ? sum(p.rarities) / p.rarities.length : 0,
  ),
  feature('distinctiveness', 'rarest', (p) => Math.max(0, ...p.rarities)),
  feature('distinctiveness', 'second rarest', (p) => [...p.rarities].sort((a, b) => b - a)[1] ?? 0),
  feature('distinctiveness', 'least rare word of content', (p) => Math.min(16, ...p.rarities)),
  feature('distinctiveness', 'spread of rarity', (p) =>
    p.rarities.length ? Math.max(...p.rarities) - Math.min(...p.rarities) : 0,
  ),
  feature('distinctiveness', 'central', (p) => p.study.centrality[p.s.index] ?? 0),

  feature('form', 'contrast', (p) => bit(isContrast(p.s.text))),
  feature('form', 'definition', (p) => bit(isDefinition(p.tokens))),
  feature('form', 'surprise', (p) => bit(isSurprise(p.s.text))),
  feature(
    'form',
    'strong verb',
    (p) => p.tokens.filter((t) => t.pos === 'VERB' && STRONG_VERBS.has(t.lemma)).length,
  ),
  feature('form', 'past', (p) => bit(p.past)),
  feature('form', 'numbers', (p) => numbersIn(p.tokens).length),
  feature('form', 'ages', (p) => bit(p.s.ageing !== null)),
  feature('form', 'says a word twice', (p) => repeated(p)),
  feature('form', 'parallel halves', (p) => parallel(p)),
  feature('form', 'generic', (p) => bit(generic(p))),
  feature('form', 'simile', (p) =>
    matches(/\b(?:like an? |like the |as if |as though |as \w+ as )/gi, p.s.text),
  ),
  feature('form', 'not this but that', (p) =>
    matches(/\bnot\b[^.]*(?:\bbut\b|[,;:] it\b)|, not \b|\bisn[’']t\b[^.]*[,;:]/gi, p.s.text),
  ),
  feature('form', 'the more, the more', (p) =>
    matches(/\bthe (?:more|less|better|\w+er)\b[^,]*, the\b/gi, p.s.text),
  ),
  feature('form', 'if at the beginning', (p) => bit(/^(?:if|when|once|unless)\b/i.test(p.s.text))),
  feature('form', 'short after a colon', (p) => bit(/[:;] [^:;]{3,60}[.!]$/.test(p.s.text))),
  feature('form', 'short last clause', (p) => {
    const last = /, ([^,]{3,40})[.!]$/.exec(p.s.text)?.[1]
    return last ? last.split(' ').length : 0
  }),
  feature('form', 'verbs', (p) => p.tokens.filter(isVerb).length / p.n),
  feature('form', 'promises of the text', (p) =>
    matches(
      /\b(?:in this|this (?:post|article|guide|week|month|time)|we(?:’|')?ll (?:look|cover|show|go)|i(?:’|')?ll (?:show|explain|come|get)|let(?:’|')s|read on|more (?:on|about) (?:that|this))\b/gi,
      p.s.text,
    ),
  ),
]

const profilesOf = (study: Study): Profile[] => study.sentences.map((s) => profileOf(study, s))

/**
 * The features of the sentences of a piece, one row a sentence in the order of `FEATURES`; those that
 * `wanted` does not ask for have a row of zeros.
 */
export function featureRows(
  study: Study,
  wanted: (s: StudiedSentence) => boolean = () => true,
): Float32Array[] {
  const profiles = profilesOf(study)
  const rows = profiles.map(() => new Float32Array(FEATURES.length))
  // Feature by feature: a function that is called for all sentences in a row is much the quicker for it.
  FEATURES.forEach(({ of }, f) => {
    for (let i = 0; i < profiles.length; i++) {
      const p = profiles[i] as Profile
      if (wanted(p.s)) (rows[i] as Float32Array)[f] = of(p, profiles)
    }
  })
  return rows
}
