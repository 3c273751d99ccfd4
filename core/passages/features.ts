import { leanOf } from './leans'
import { ageingWords, type ReadSentence, type Token } from '../reading'
import {
  CONNECTIVES,
  IRREGULAR_PAST,
  NUMBER_WORDS,
  PLURAL_PRONOUNS,
  POINTING,
  STOP_WORDS,
  STRONG_VERBS,
  THIRD_PERSON,
} from './words'

const isNoun = (t: Token): boolean => t.pos === 'NOUN' || t.pos === 'PROPN'
const isVerb = (t: Token): boolean => t.pos === 'VERB' || t.pos === 'AUX'
const isWord = (t: Token): boolean => t.word

/** The words of a sentence that carry its subject, as lemmas. */
export function contentLemmas(tokens: readonly Token[]): string[] {
  return tokens
    .filter((t) => isWord(t) && !STOP_WORDS.has(t.lower) && !STOP_WORDS.has(t.lemma))
    .map((t) => t.lemma)
}

/**
 * What in a sentence points out of it, as the words themselves, or null when it stands alone.
 * `before` are the tokens of the run that precede it and may hold what it points to.
 *
 * Rules: no opening connective; a third-person pronoun needs a noun of its number before it; a
 * demonstrative needs its noun before it; no elliptical subject ("The second is…"); nothing that
 * points at the page. A rough stand-in for coreference resolution, for which there is no parser.
 */
export function danglingWords(
  tokens: readonly Token[],
  text: string,
  before: readonly Token[] = [],
): string | null {
  const words = tokens.filter(isWord)
  const first = words[0]
  const second = words[1]
  if (!first) return 'nothing'
  const pointing = POINTING.exec(text)
  if (pointing) return pointing[0]
  const opens = before.length === 0
  if (opens && CONNECTIVES.has(first.lower)) return first.text
  // "No. Age has little to do with it" answers.
  const answer = opens ? /^(?:yes|no)[.,;:–]/i.exec(text) : null
  if (answer) return answer[0]
  if (
    opens &&
    /^(this|that|these|those|such|ours|theirs|mine|another|neither|either|both|there)$/.test(first.lower) &&
    !isNow(first, second)
  ) {
    const existential =
      first.lower === 'there' && second !== undefined && /^(is|are|was|were)$/.test(second.lower)
    const whole =
      (first.lower === 'both' || first.lower === 'neither' || first.lower === 'either') &&
      second !== undefined &&
      isNoun(second)
    if (!existential && !whole) return first.text
  }
  if (opens && second && first.lower === 'the') {
    const third = words[2]
    const elliptical =
      second.lower === 'same' ||
      third?.lower === 'one' ||
      third?.lower === 'ones' ||
      (/^(others?|rest|latter|former)$/.test(second.lower) && !(third !== undefined && isNoun(third))) ||
      (/^(second|third|last|next|first|answer|result|difference|alternative|trick|reason|problem|exception)$/.test(
        second.lower,
      ) &&
        !(third !== undefined && (isNoun(third) || third.pos === 'NUM' || third.lower === 'of'))) ||
      ((second.pos === 'ADJ' || second.pos === 'NUM') && third !== undefined && isVerb(third))
    if (elliptical) return `${first.text} ${second.text}`
  }
  if (
    opens &&
    second &&
    /^(one|two|three|four|five|six|seven|eight|nine|ten|most|some|many|few|all|none|each|half|several)$/.test(
      first.lower,
    )
  ) {
    const ofPronoun = second.lower === 'of' && words[2] !== undefined && THIRD_PERSON.has(words[2].lower)
    const bare = isVerb(second) && !(first.lower === 'most' || first.lower === 'all')
    if (ofPronoun || bare) return first.text
  }
  if (opens && second && /^(more|less|fewer|enough)$/.test(first.lower) && isVerb(second)) return first.text
  if (opens && first.lower === 'none' && second?.lower !== 'of') return first.text
  if (opens) {
    const lean = leanOf(text)
    if (lean) return lean
    const cut = ellipsis(tokens) ?? pronounThat(tokens) ?? pointsThere(tokens)
    if (cut) return cut
    const inside = pointsPastObject(tokens)
    if (inside) return inside
  }
  if (opens) {
    const last = words[words.length - 1]
    const tail = words.slice(-6, -1)
    // "Ice that slides off the land does.": the verb is in the sentence before.
    if (
      last &&
      words.length > 3 &&
      /^(?:does|do|did|is|are|was|were|has|have|can|will|would|should)$/.test(last.lower) &&
      !/, (?:and|but|or) /.test(text) &&
      !tail.some((t) => /^(?:what|who|how|where|as|than|that|which|when|why|whatever|if)$/.test(t.lower))
    )
      return last.text
    const eachOne = /\b(?:each|every) one\b(?! of)/i.exec(text)
    if (eachOne && !/[a-z]{3,}s\b/i.test(text.slice(0, eachOne.index))) return eachOne[0]
    // "Put two on a card": two of what?
    if (
      isImperative(tokens) &&
      tokens[1]?.pos === 'NUM' &&
      /^(?:ADP|PUNCT)$/.test(tokens[2]?.pos ?? '') &&
      tokens[2]?.lower !== 'of' &&
      !/^\d/.test(tokens[1].text)
    )
      return tokens[1].text
  }
  if (opens && words.length > 2) {
    const other = /\b(?:every|any|no|some)(?:thing|body|one) else\b/i.exec(text)
    if (other && !/\bthan\b/.test(text)) return other[0]
    const ordinal = /\bthe (?:second|third|fourth|fifth|latter|former|other|others)\b/i.exec(text)
    if (ordinal && !/\b(?:one|first|both|two)\b/i.test(text.slice(0, ordinal.index))) return ordinal[0]
    const counted =
      /\b(?:first|all|other|last|these|those) (?:two|three|four|five|six|seven|eight|nine|ten|twelve)(?= (?:are|is|were|was|do|did|have|had|came|come|cost|go|went|take|took)\b|[.,;])/i.exec(
        text,
      )
    if (counted) return counted[0]
    const unitless = /(?<![\d.:]) (\d+(?:\.\d+)?)(?:[.!]?$| (?:as|and|or|than|in)\b)/.exec(text)
    if (unitless && !/^(?:19|20)\d\d$/.test(unitless[1] ?? '')) return unitless[1] ?? text
  }
  const allOf = /\ball (?:two|three|four|five|six|seven|eight|nine|ten)\b(?! (?:of|[a-z]+s)\b)/i.exec(text)
  if (allOf) return allOf[0]
  const nouns = {
    singular: before.some((t) => isNoun(t) && !isPlural(t)),
    plural: before.some((t) => isNoun(t) && isPlural(t)),
  }
  const people = (list: readonly Token[]): boolean =>
    list.some(
      (t, i) =>
        // "Warm air": a capital at the beginning, before a common noun, is no name.
        (t.pos === 'PROPN' &&
          !(list[i + 1]?.pos === 'NOUN' && /^(?:[.!?]|)$/.test(list[i - 1]?.text ?? ''))) ||
        /^(man|woman|person|student|owner|child|friend|teacher|doctor|wife|husband|mother|father|judge|player|beginner|merchant|somebody|someone|nobody|everybody|everyone|anyone|people)$/.test(
          t.lemma,
        ),
    )
  const lemmas = new Set(before.map((t) => t.lemma))
  const order = isImperative(tokens) ? first : null
  for (let i = 0; i < tokens.length; i++) {
    const token = tokens[i] as Token
    const next = tokens[i + 1]
    if (token === order) continue
    if (isBarePronoun(tokens, i) && !(token.lower === 'one' ? nouns.singular : nouns.plural))
      return token.text
    const rate = /^an?$/.test(next?.lower ?? '') && TIMES.has(tokens[i + 2]?.lemma ?? '')
    if (opens && token.pos === 'NUM' && rate && !nouns.plural) return token.text
    if (isNoun(token) && TIMES.has(token.lemma)) {
      lemmas.add(token.lemma)
      continue
    }
    // "Walk up, show it the cheese": a verb that the tagger took for a noun.
    if (
      isNoun(token) &&
      /^(?:,|and|then)$/.test(tokens[i - 1]?.lower ?? '') &&
      next !== undefined &&
      THIRD_PERSON.has(next.lower)
    )
      continue
    // What follows a subject pronoun is its verb, whatever the tagger says: "it rains on them".
    if (isNoun(token) && /^(?:i|you|he|she|it|we|they)$/.test(tokens[i - 1]?.lower ?? '')) continue
    // "They cut straighter with it": a comparative that the tagger takes for a noun.
    if (
      isNoun(token) &&
      /[a-z]{3}er$/.test(token.lower) &&
      isVerb(tokens[i - 1] ?? token) &&
      tokens[i - 1] !== undefined &&
      next?.pos === 'ADP'
    )
      continue
    // So is what follows a plural at the beginning: "Beginners cut straighter with it".
    if (i === 1 && VERB_NOUNS.has(token.lower) && isNoun(tokens[0] as Token) && isPlural(tokens[0] as Token))
      continue
    // "Two of us" are no two things.
    if (token.pos === 'NUM' && next?.lower === 'of' && /^(?:us|you|it)$/.test(tokens[i + 2]?.lower ?? ''))
      continue
    // "Three winters": a stretch of time is no thing either.
    if (token.pos === 'NUM' && TIMES.has(next?.lemma ?? '')) continue
    if (isNoun(token) || token.pos === 'NUM') {
      // "Beginners cut": a plural that the tagger takes for a name.
      const many =
        i === 0 &&
        token.pos === 'PROPN' &&
        /[^s]s$/.test(token.lower) &&
        next !== undefined &&
        isVerb(next) &&
        next.lower === next.lemma
      if (isPlural(token) || many || token.pos === 'NUM') nouns.plural = true
      else nouns.singular = true
      if (/^(somebody|someone|nobody|everybody|everyone|anyone|people)$/.test(token.lower))
        nouns.plural = true
      lemmas.add(token.lemma)
      continue
    }
    if (/^(?:something|anything|everything|nothing|whatever)$/.test(token.lower)) {
      nouns.singular = true
      nouns.plural = true
      continue
    }
    // "They" may be nobody or everyone, "it" may not.
    if (/^(?:somebody|someone|nobody|everybody|everyone|anyone|anybody|people|whoever)$/.test(token.lower)) {
      nouns.plural = true
      continue
    }
    if (THIRD_PERSON.has(token.lower)) {
      if (isExpletive(tokens, i)) continue
      if (opens && afterFrontedPhrase(tokens, i)) return token.text
      if (PLURAL_PRONOUNS.has(token.lower)) {
        const said = [...before, ...tokens.slice(0, i)]
        if (!nouns.plural && !coordinated(said) && !people(said)) return token.text
      } else if (/^(he|she|him|his|her|hers|himself|herself)$/.test(token.lower)) {
        const named =
          people([...before, ...tokens.slice(0, i)]) ||
          [...before, ...tokens.slice(0, i)].some((t) => /^(boat|ship|hull)$/.test(t.lemma))
        if (!named) return token.text
      } else if (!nouns.singular) return token.text
    }
    if (/^(this|these|those)$/.test(token.lower) && opens && !isNow(token, next)) {
      const known = next !== undefined && isNoun(next) && lemmas.has(next.lemma)
      const relative =
        token.lower === 'those' && next !== undefined && /^(who|that|which|of|in|with)$/.test(next.lower)
      if (!known && !relative) return next && isNoun(next) ? `${token.text} ${next.text}` : token.text
    }
    if (token.lower === 'that' && opens && next !== undefined && isNoun(next) && !isPlural(next)) {
      const previous = tokens[i - 1]
      const demonstrative =
        previous === undefined ||
        previous.pos === 'ADP' ||
        previous.pos === 'PUNCT' ||
        (previous.pos === 'VERB' && !CLAUSAL.has(previous.lemma))
      if (demonstrative && !lemmas.has(next.lemma)) return `${token.text} ${next.text}`
    }
  }
  return null
}

/** Verbs that a clause with "that" may follow: "he said that water floats". */
const CLAUSAL = new Set(
  'say know think believe mean show tell find hope learn see hear feel notice remember forget understand prove claim note decide suppose guess suggest insist swear agree explain teach discover realise realize expect ensure check warn promise admit wish argue assume imagine conclude reckon report require ask demand be'.split(
    ' ',
  ),
)

/** Nouns of time, which no pronoun points back to: "In June it fell" is not about June. */
const TIMES = new Set(
  'second minute hour day night morning evening afternoon week weekend month year season spring summer autumn winter january february march april may june july august september october november december monday tuesday wednesday thursday friday saturday sunday time moment first'.split(
    ' ',
  ),
)

/** Two things named together, "a saw and a plane", which "them" may mean; not two things of two clauses. */
function coordinated(tokens: readonly Token[]): boolean {
  return tokens.some(
    (t, i) =>
      /^(?:and|or|nor)$/.test(t.lower) &&
      tokens.slice(Math.max(0, i - 3), i).some(isNoun) &&
      tokens.slice(i + 1, i + 5).some(isNoun) &&
      !tokens.slice(i + 1, i + 3).some((n) => isVerb(n) || n.pos === 'PRON'),
  )
}

/** "This year", "this Monday": it points at the day of writing, not at words before; it ages instead. */
function isNow(token: Token, next: Token | undefined): boolean {
  return (
    token.lower === 'this' &&
    next !== undefined &&
    TIMES.has(next.lemma) &&
    !/^(second|minute|hour|day|time|moment|first)$/.test(next.lemma)
  )
}

const ends = (token: Token | undefined): boolean => token === undefined || token.pos === 'PUNCT'

/** A verb left out because the sentence before had it: "Water does not, and …", "Slow checkouts are." */
function ellipsis(tokens: readonly Token[]): string | null {
  for (let i = 1; i < tokens.length; i++) {
    const token = tokens[i] as Token
    const relative = token.lower === 'that' && /^(?:do|does|did|is|are)$/.test(tokens[i + 1]?.lower ?? '')
    if (relative) continue
    if (token.pos === 'VERB' || /^(what|how|who|where|which|that|than|as|when|whatever)$/.test(token.lower))
      return null
    if (!/^(is|are|was|were|do|does|did|have|has|had|can|could|will|would|should)$/.test(token.lower))
      continue
    const negated = /^n?o?[’']?t$/.test(tokens[i + 1]?.lower ?? '') || tokens[i + 1]?.lower === 'not'
    // "A dog that does not has to stay on a lead": the verb is in the sentence before.
    if (negated && /^(?:has|is|was|must|will|can)$/.test(tokens[i + 2]?.lower ?? ''))
      return `${token.text} ${tokens[i + 1]?.text ?? ''}`
    if (ends(tokens[negated ? i + 2 : i + 1])) return `${tokens[i - 1]?.text ?? ''} ${token.text}`.trim()
  }
  return null
}

/** "Without that, …", "we cannot prove that with a graph", "on most days that gives us": a thing said before. */
function pronounThat(tokens: readonly Token[]): string | null {
  for (let i = 1; i < tokens.length; i++) {
    if (tokens[i]?.lower !== 'that') continue
    const before = tokens[i - 1] as Token
    const next = tokens[i + 1]
    // "On Saturday that means you can drive in": never "the sign that means danger", which has its noun first.
    if (next?.lower === 'means' && tokens[0]?.pos === 'ADP' && isNoun(before)) return `${before.text} that`
    const rest = tokens.slice(i + 1)
    const clause = rest.slice(
      0,
      Math.max(
        0,
        rest.findIndex((t) => t.pos === 'PUNCT'),
      ),
    )
    const relative = rest.findIndex((t) => /^(who|which|that|whose)$/.test(t.lower))
    const main = rest.slice(1, relative < 0 ? undefined : relative).some(isVerb)
    const alone =
      (tokens[0]?.pos === 'ADP' && isNoun(before) && next !== undefined && isVerb(next) && !main) ||
      (/^(what|how|why|where|when|if|because)$/.test(before.lower) && next !== undefined && isVerb(next)) ||
      (before.pos === 'ADP' && i === 1 && /^(?:you|we|i|he|she|they|it)$/.test(next?.lower ?? '')) ||
      (before.pos === 'ADP' && (ends(next) || (next !== undefined && isVerb(next)))) ||
      (isVerb(before) && (ends(next) || (next?.pos === 'ADP' && !clause.some(isVerb)))) ||
      (/^(?:do|does|did|done|doing)$/.test(before.lower) &&
        (next === undefined || next.pos === 'ADP' || next.pos === 'CCONJ' || next.pos === 'SCONJ')) ||
      (isNoun(before) && isPlural(before) && next !== undefined && isVerb(next) && /[^s]s$/.test(next.lower))
    if (alone) return `${before.text} that`
  }
  return null
}

/** "A pound there feels like five": a place said before; "there is" and "from there" are none. */
function pointsThere(tokens: readonly Token[]): string | null {
  const at = tokens.findIndex((t, i) => t.lower === 'there' && i > 0 && tokens[i - 1]?.pos === 'NOUN')
  const next = tokens[at + 1]
  return at > 0 &&
    next !== undefined &&
    next.pos !== 'PUNCT' &&
    !/^(is|are|was|were|will|’s|'s)$/.test(next.lower)
    ? 'there'
    : null
}

/** "Read both, …", "if you pick one out": a pronoun for things that must have been named. */
function isBarePronoun(tokens: readonly Token[], index: number): boolean {
  const token = tokens[index]
  const next = tokens[index + 1]
  const before = tokens[index - 1]
  if (token?.lower === 'both') return ends(next)
  return (
    token?.lower === 'one' &&
    before !== undefined &&
    isVerb(before) &&
    (ends(next) || next?.pos === 'ADP' || /^(out|up|down|off|away|in|on|back|over)$/.test(next?.lower ?? ''))
  )
}

/** "At a whisper it fades": a subject pronoun right after a fronted phrase, whose noun it cannot mean. */
function afterFrontedPhrase(tokens: readonly Token[], index: number): boolean {
  const next = tokens[index + 1]
  const before = tokens.slice(0, index)
  return (
    /^(it|they|he|she)$/.test(tokens[index]?.lower ?? '') &&
    before[0]?.pos === 'ADP' &&
    before.length <= 7 &&
    !before.some(isVerb) &&
    next !== undefined &&
    isVerb(next)
  )
}

/**
 * "Lay a round in it", "We stopped writing labels for them": an order, or a clause of ours, whose only
 * noun is the object that the pronoun stands beside and so cannot mean. "Four hundred of them" too.
 */
function pointsPastObject(tokens: readonly Token[]): string | null {
  const [first] = tokens
  const at = tokens.findIndex((t) => /^(?:it|them)$/.test(t.lower))
  const pronoun = tokens[at]
  const before = tokens[at - 1]
  if (first === undefined || pronoun === undefined || at < 2 || before?.pos !== 'ADP') return null
  const subject = tokens.slice(0, at - 1).filter(isNoun)
  const clause = tokens.slice(0, at - 1)
  // "Snow lies on it": what stands in the same clause as its subject is another thing.
  if (
    at <= 8 &&
    subject.length === 1 &&
    clause.some(isVerb) &&
    clause.every((t) => /^(?:DET|ADJ|NOUN|PROPN|VERB|AUX|ADV)$/.test(t.pos))
  )
    return pronoun.text
  const counted = before.lower === 'of' && tokens[at - 2]?.pos === 'NUM'
  if (counted && !tokens.slice(0, at - 2).some((t) => isNoun(t) && isPlural(t))) return pronoun.text
  if (!isImperative(tokens) && !/^(?:i|we|you)$/.test(first.lower)) return null
  if (at > 8) return null
  const between = tokens.slice(1, at - 1)
  const verbs = between.filter(isVerb).length
  const plain = between.every((t) => /^(?:DET|ADJ|NOUN|NUM|PROPN|VERB|AUX|ADV|PART)$/.test(t.pos))
  const nouns = between.filter(isNoun).length
  return plain && nouns === 1 && (isImperative(tokens) ? verbs === 0 : verbs > 0) ? pronoun.text : null
}

/** "It is raining", "it takes an hour to…", "it is rain that…": a subject that points at nothing. */
function isExpletive(tokens: readonly Token[], index: number): boolean {
  if (tokens[index]?.lower !== 'it') return false
  const rest = tokens.slice(index + 1, index + 9).map((t) => t.lower)
  if (/^(rain|rains|rained|snow|snows|snowed)$/.test(rest[0] ?? '')) return true
  if (/^(?:what|how|who|where)$/.test(tokens[index - 1]?.lower ?? '') && /^(?:is|was)$/.test(rest[0] ?? ''))
    return true
  if (rest[0] === 'takes' || rest[0] === 'took') return rest.includes('to')
  if (rest[0] !== 'is' && rest[0] !== 'was') return false
  return (
    (!/^an?$/.test(rest[1] ?? '') && rest.slice(1).includes('that')) ||
    (tokens[index + 2]?.pos === 'ADJ' && rest[2] === 'to' && tokens[index + 4]?.pos === 'VERB')
  )
}

function isPlural(token: Token): boolean {
  return token.lower !== token.lemma && /s$|men$|people$|children$|feet$|teeth$/.test(token.lower)
}

/** Whether a sentence has a finite verb or is an instruction; "Never in the house." has not. */
export function hasVerb(tokens: readonly Token[]): boolean {
  const verb = tokens.findIndex(isVerb)
  // "Keel, stem, frames, and the plank the anchor hits": a list whose verb belongs to its last item.
  if (verb > 0 && tokens.slice(0, verb).filter((t) => t.text === ',').length >= 3) return false
  return hasMainVerb(tokens) || isImperative(tokens)
}

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
    while (next !== undefined && i + 1 < tokens.length && isVerb(tokens[i + 1] as Token)) i++
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
const VERB_NOUNS = new Set(
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
function withoutOpener(tokens: readonly Token[]): readonly Token[] {
  let from = 0
  while (OPENER.test(tokens[from]?.lower ?? '') && /^[,.…]$/.test(tokens[from + 1]?.text ?? '')) from += 2
  return from ? tokens.slice(from) : tokens
}

/** What is known of each sentence of a piece before runs are formed. */
export interface SentenceFeatures {
  sentence: ReadSentence
  dangling: string | null
  verb: boolean
  imperative: boolean
  past: boolean
  numbers: number
  names: number
  contrast: boolean
  definition: boolean
  question: boolean
  surprise: boolean
  strongVerb: boolean
  ageing: string | null
  lemmas: string[]
}

/** What is known of a sentence; `writtenAt` (ISO 8601, or null) decides which dates in it age. */
export function sentenceFeatures(sentence: ReadSentence, writtenAt: string | null = null): SentenceFeatures {
  const { text } = sentence
  const tokens = withoutOpener(sentence.tokens)
  return {
    sentence,
    dangling: danglingWords(tokens, text),
    verb: hasVerb(tokens),
    imperative: isImperative(tokens),
    past: isPast(tokens),
    numbers: numbersIn(tokens).length,
    names: tokens.filter((t, i) => i > 0 && t.pos === 'PROPN').length,
    contrast: isContrast(text),
    definition: isDefinition(tokens),
    question: text.endsWith('?'),
    surprise: SURPRISE.test(text),
    strongVerb: tokens.some((t) => t.pos === 'VERB' && STRONG_VERBS.has(t.lemma)),
    ageing: ageingWords(text, writtenAt),
    lemmas: contentLemmas(tokens),
  }
}
