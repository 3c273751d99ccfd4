import type { Token } from './sentences'
import { IRREGULAR_PAST } from './words'

export const isNoun = (t: Token): boolean => t.pos === 'NOUN' || t.pos === 'PROPN'
export const isVerb = (t: Token): boolean => t.pos === 'VERB' || t.pos === 'AUX'
export const isWord = (t: Token): boolean => t.word

/** Nouns of time, which no pronoun points back to: "In June it fell" is not about June. */
export const TIMES = new Set(
  'second minute hour day night morning evening afternoon week weekend month year season spring summer autumn winter january february march april may june july august september october november december monday tuesday wednesday thursday friday saturday sunday time moment first'.split(
    ' ',
  ),
)

export function isPlural(token: Token): boolean {
  return token.lower !== token.lemma && /s$|men$|people$|children$|feet$|teeth$/.test(token.lower)
}

/** Whether a sentence has a finite verb or is an instruction; "Never in the house." has not. */
export function hasVerb(tokens: readonly Token[]): boolean {
  const verb = tokens.findIndex(isVerb)
  // "Keel, stem, frames, and the plank the anchor hits": a list whose verb belongs to its last item.
  if (verb > 0 && tokens.slice(0, verb).filter((t) => t.text === ',').length >= 3) return false
  return hasMainVerb(tokens) || isImperative(tokens)
}

/** What stands where there is no token. */
const none: Token = { text: '', lower: '', lemma: '', pos: '', start: 0, end: 0, word: false }

const SUBJECTS = /^(?:i|you|we|they|he|she|it|nobody|everybody|somebody|anybody|everyone|someone)$/

/** Words after which a verb belongs to a clause inside the sentence. */
const SUBORDINATES =
  /^(?:where|who|which|whose|when|if|because|while|until|unless|although|though|whenever|wherever|as|than|after|before)$/

/**
 * Whether a finite verb stands outside of every clause that a conjunction or relative pronoun
 * opens. A noun after a noun may be a verb that the tagger took for one, "a cup cracks where its
 * handle was joined", and gets the benefit of the doubt where the sentence has another verb.
 */
function hasMainVerb(tokens: readonly Token[]): boolean {
  if (isReducedAnswer(tokens)) return false
  let inside = false
  let closed = false
  let doubtful = false
  let some = false
  const fronted = tokens[0]?.pos === 'ADP'
  for (let i = 0; i < tokens.length; i++) {
    const token = tokens[i] as Token
    const next = tokens[i + 1]
    if (/^[,;:–—]$/.test(token.text)) inside = closed = false
    if (SUBORDINATES.test(token.lower) && i > 0) inside = true
    // "In an account that you can empty": after a fronted phrase "that" belongs to its noun.
    if (fronted && token.lower === 'that' && isNoun(tokens[i - 1] ?? token)) inside = true
    // "A road with a tower at the end of it that gets no nearer": after a noun "that" opens its clause.
    if (token.lower === 'that' && i > 0 && next !== undefined && isVerb(next)) {
      const before = tokens[i - 1] as Token
      if (isNoun(before) || before.pos === 'PRON') inside = true
    }
    // "A choir that is afraid stops": after its clause a plural may be the verb, whatever the tagger says.
    if (
      closed &&
      token.pos === 'NOUN' &&
      isPlural(token) &&
      /^(?:ADJ|NOUN|PROPN)$/.test(tokens[i - 1]?.pos ?? '')
    )
      doubtful = true
    // "Because the nights are cold and the days are hot": what is joined to such a clause is in it too.
    if (closed && /^(?:and|or|but)$/.test(token.lower)) inside = true
    if (!inside && isNoun(token) && next !== undefined && isNoun(next)) {
      doubtful ||= i > 0 || token.pos === 'NOUN'
      // "The court charges a fee", "people ring me".
      if (
        /^(?:DET|NUM)$/.test(tokens[i + 2]?.pos ?? '') ||
        /^(?:me|us|it|them|him|her|you|nothing|something)$/.test(tokens[i + 2]?.lower ?? '')
      )
        return true
    }
    // "Nobody looks at it": after such a subject stands its verb, whatever the tagger says.
    if (!inside && SUBJECTS.test(token.lower) && next?.pos === 'NOUN') return true
    if (!isVerb(token) || /ing$/.test(token.lower)) continue
    // "Ten metres of rope, clipped to a harness": a participle after a comma is no finite verb.
    if (token.pos === 'VERB' && /ed$/.test(token.lower) && tokens[i - 1]?.text === ',') continue
    // "Broken stone in the gaps": a participle before its noun is none either.
    if (i === 0 && /(?:ed|en)$/.test(token.lower) && token.lower !== token.lemma && next?.pos === 'NOUN')
      continue
    if (!inside) return true
    some = true
    // The first verb after such a word is its clause's; the next one may be the sentence's.
    // "was lost" and "people live" are one, "sank was" are two.
    while (isVerb(tokens[i + 1] ?? none) && !(tokens[i]?.pos === 'VERB' && tokens[i + 1]?.pos === 'AUX')) i++
    // So is "does not get".
    if (
      tokens[i]?.pos === 'AUX' &&
      /^n(?:o|['’])t$/.test(tokens[i + 1]?.lower ?? '') &&
      isVerb(tokens[i + 2] ?? none)
    )
      i += 2
    inside = false
    closed = true
  }
  return doubtful && some
}

/**
 * "From a variety you like, yes", "From the moment the truss has set, once a week": a phrase with a
 * clause of its own that breaks off at its verb, and no verb after it: the answer to a question.
 */
function isReducedAnswer(tokens: readonly Token[]): boolean {
  if (tokens[0]?.pos !== 'ADP') return false
  // "In an account that you can empty and that is not …": one noun with two clauses, and nothing said of it.
  const paired = tokens.some((t, i) => t.lower === 'that' && /^(?:and|or)$/.test(tokens[i - 1]?.lower ?? ''))
  if (paired && !tokens.some((t) => t.text === ',')) return true
  const comma = tokens.findIndex((t) => t.text === ',')
  const before = tokens[comma - 1]
  return (
    comma > 2 &&
    before !== undefined &&
    isVerb(before) &&
    tokens.slice(0, comma - 1).some((t, i) => i > 1 && (isNoun(t) || SUBJECTS.test(t.lower))) &&
    !hasMainVerb(tokens.slice(comma + 1)) &&
    !isImperative(tokens.slice(comma + 1))
  )
}

const OBJECT_OPENERS = /^(the|a|an|your|both|every|each|all|one|two|it|them|what|yourself|any|no)$/

/** Whether a sentence tells the reader what to do: a base verb first, also after "do not" or "never". */
export function isImperative(tokens: readonly Token[]): boolean {
  const words = tokens.filter(isWord)
  const [first, second] = words
  if (!first) return false
  if (/^(do|don’t|don't|never|always|please|then|just)$/.test(first.lower) && second) {
    const negated = second.lower === 'not' || second.lower === 'n’t' || second.lower === "n't"
    const told = negated ? words[2] : second
    return (
      told !== undefined &&
      told.lower === told.lemma &&
      (told.pos === 'VERB' || told.pos === 'AUX' || told.pos === 'NOUN') &&
      !/^(if|when|have|had|the|a)$/.test(told.lower)
    )
  }
  if (/^(i|you|we|they|he|she|it|let)$/.test(first.lower))
    return first.lower === 'let' && second?.lower !== 'us'
  if (first.lower !== first.lemma || STOP_AS_VERB.test(first.lower)) return false
  // "Set beside the barometer, the knee is right": a participle, and the subject comes later.
  const comma = tokens.findIndex((t) => t.text === ',')
  if (
    /^(?:set|put|cut|shut|read|left|kept|held|made|seen|taken|built|given|compared)$/.test(first.lower) &&
    second?.pos === 'ADP' &&
    comma > 0 &&
    hasMainVerb(tokens.slice(comma + 1)) &&
    /^(?:the|a|an|it|they|he|she|this|that)$/.test(tokens[comma + 1]?.lower ?? '')
  )
    return false
  if (VERB_NOUNS.has(first.lower) && second?.pos === 'ADP') {
    // "Paint on the deck is dry": what looks like an order is the subject of a verb to come.
    const finite = tokens.findIndex((t) => /^(?:is|are|was|were|has)$/.test(t.lower))
    if (
      finite > 0 &&
      !tokens.slice(1, finite).some((t) => SUBORDINATES.test(t.lower) || t.text === ',' || t.lower === 'that')
    )
      return false
  }
  if (first.pos === 'VERB') return second === undefined || !isVerb(second)
  if (first.pos !== 'NOUN' && first.pos !== 'ADJ' && first.pos !== 'PROPN') return false
  if (second === undefined) return false
  // "Walk up, show it the cheese": a noun with a particle is a verb; "Week two, in the garden" is not.
  if (/^(?:up|down|out|off|back|away)$/.test(second.lower)) return tokens[2]?.text === ','
  if (
    VERB_NOUNS.has(first.lower) &&
    (/^(?:ADP|SCONJ)$/.test(second.pos) || /^(?:when|if|,)$/.test(tokens[1]?.text ?? ''))
  ) {
    // "Press on the knob" tells; "Paint on the deck is dry" does not.
    const rest = tokens.slice(1)
    const finite = rest.find((t) => isVerb(t) && !/ing$/.test(t.lower))
    if (!hasMainVerb(tokens) || finite?.lower === finite?.lemma) return true
  }
  if (/^(?:one|two)$/.test(second.lower) && !/^[\p{L}]/u.test(tokens[2]?.text ?? '')) return false
  return OBJECT_OPENERS.test(second.lower)
}

/** Nouns that are as often an order at the beginning of a sentence; the tagger takes them for nouns. */
export const VERB_NOUNS = new Set(
  'answer ask bake bend boil book breathe brush call check clamp clean click cook cool copy count cover cut dig drain drill drop dry dust feed file fold fry glue grill guess hammer heat hold hum lift list log look mark measure mix move name nail note oil pack paint park phone pick place plan plant point pour press print prune pull push rake reach read rest rinse roast roll rub run sand save saw screw season serve set share shift sing sit soak stack stand start step stir stop stretch strip swap switch talk tape taste test text try turn type use wait walk wash watch water weed whip work wrap write'.split(
    ' ',
  ),
)

const STOP_AS_VERB =
  /^(half|such|quite|be|is|are|was|have|has|had|will|would|can|could|may|might|must|should|shall|do|does|did|if|when|what|how|why|where|who)$/

/** Whether a sentence tells of something that happened: past verbs and somebody they happened to. */
export function isPast(tokens: readonly Token[]): boolean {
  const verbs = tokens.filter(isVerb)
  const past = verbs.filter(
    (t) => IRREGULAR_PAST.has(t.lower) || (/ed$/.test(t.lower) && t.lower !== t.lemma),
  )
  const present = verbs.filter(
    (t) =>
      (t.lower === t.lemma &&
        !IRREGULAR_PAST.has(t.lower) &&
        /^(i|we|you|they)$/.test(tokens[tokens.indexOf(t) - 1]?.lower ?? '')) ||
      /^(is|are|am|has|have|do|does|will|can|may|should|must)$/.test(t.lower) ||
      (t.pos === 'VERB' && /s$/.test(t.lower) && t.lower !== t.lemma),
  )
  return past.length > present.length
}
