import { gerund, isImperative, readSentences, STOP_WORDS, type Token } from '../language'
import type { PieceContent } from '../model'
import { analyse } from '../reading'

/** What a piece may be called inside a sentence that is not its own; null where grammar gives no such form. */
export interface Topic {
  /** As a headline that a colon follows: "Barley flatbread", "Why ice floats". */
  label: string | null
  /** After a preposition: "a sprained ankle", "barley flatbread", "tomatoes". */
  noun: string | null
  /** The same, as a field of knowledge: plural or without an article. */
  field: string | null
  /** As something one does, after a preposition: "cleaning a bicycle chain". */
  doing: string | null
  /** The lemmas by which a text is seen to be about it. */
  lemmas: ReadonlySet<string>
}

const cache = new WeakMap<PieceContent, Topic>()

/**
 * The names of a piece, from its title. A noun phrase needs its own article, a plural, or a noun
 * that the piece itself uses without one; titles in capitals are put into lower case except for
 * the words that the piece writes with a capital inside its sentences.
 */
export function topicOf(piece: PieceContent): Topic {
  const known = cache.get(piece)
  if (known) return known
  const topic = find(piece)
  cache.set(piece, topic)
  return topic
}

/** Where a title's first part ends: at a mark, or before the words that go on about circumstances. */
const TAIL = /[:,;?!–—(“"]| - | without | so that | because | and (?:how|what|why|when|which) /
const LONGEST = 7

function find(piece: PieceContent): Topic {
  const title = piece.title.trim()
  const lemmas = new Set(
    readSentences(title)
      .flatMap((s) => s.tokens)
      .filter((t) => t.word && !STOP_WORDS.has(t.lower) && t.lower.length > 2)
      .map((t) => t.lemma),
  )
  const none: Topic = { label: null, noun: null, field: null, doing: null, lemmas }
  if (!title || /^[“"]/.test(title)) return none
  const cut = TAIL.exec(title)
  const head = (cut ? title.slice(0, cut.index) : title).trim()
  const words = head.split(/\s+/)
  const plain = inSentence(words, piece)
  const tokens = readSentences(plain.join(' ')).flatMap((s) => s.tokens)
  const first = plain[0]?.toLowerCase() ?? ''
  const doing = doingOf(plain, tokens)
  // "Write the label" is about labels, not about one; "What we learned from losing orders" about neither.
  const asks = /^(?:what|why|how|when|where|who)$/.test(first)
  const about = asks ? plain.slice(plain.findIndex((w) => /^(?:with|about)$/.test(w)) + 1) : plain
  const lost = asks && about.length === plain.length && !/^(?:how)$/.test(first)
  // "How a village got its potholes filled" is about potholes, if about any thing.
  const told = first === 'how' && plain[1] !== 'to' && tokens.some((t, i) => i > 2 && t.pos === 'VERB')
  const noun = isImperative(tokens) || lost || told ? null : nounOf(about, piece)
  const field = noun !== null && !/^(?:the|an?) /.test(noun) ? noun : null
  const asked = title.includes('?')
  const labelled =
    !asked &&
    plain.length <= LONGEST &&
    !/^\p{Ll}/u.test(head) &&
    !/^(in|on|dear|if|when|stop|do|don[’']t|is|are|can|should|\d+|ten|five|seven|three|two|four|six|eight|nine|twelve)$/.test(
      first,
    ) &&
    (/^(?:your|our|my)$/.test(first) ||
      doing !== null ||
      noun !== null ||
      /^(how|why|what)$/.test(first) ||
      namesSomething(tokens))
  return { label: labelled ? head : null, noun, field, doing, lemmas }
}

/** Whether a headline is a noun phrase: it holds no finite verb and tells nobody to do anything. */
function namesSomething(tokens: readonly Token[]): boolean {
  return (
    tokens.some((t) => t.pos === 'NOUN' || t.pos === 'PROPN') &&
    !tokens.some((t) => t.pos === 'VERB' || t.pos === 'AUX' || t.pos === 'PRON')
  )
}

/** A title's words as they would stand inside a sentence. */
function inSentence(words: readonly string[], piece: PieceContent): string[] {
  return words.map((word) => {
    const bare = word.replace(/[^\p{L}\p{N}’'-]/gu, '')
    if (!/^\p{Lu}/u.test(bare) || /^\p{Lu}{2,}/u.test(bare)) return word
    const escaped = bare.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
    const named = new RegExp(`[\\p{Ll},;] ${escaped}(?![\\p{L}])`, 'u').test(piece.text)
    return named ? word : word.charAt(0).toLowerCase() + word.slice(1)
  })
}

const BREAKS =
  /^(for|from|with|about|when|if|that|which|who|while|before|after|into|as|than|but|is|are|was|were|should|can|will|does|do|by)$/

function doingOf(words: readonly string[], tokens: readonly Token[]): string | null {
  const [first, second] = words
  if (!first) return null
  let phrase: string[] | null = null
  if (/^how$/i.test(first) && second === 'to') {
    const verb = words[2]
    if (verb && /^[a-z]+$/.test(verb)) phrase = [gerund(verb), ...words.slice(3)]
  } else if (
    /^[a-z]{2,}ing$/.test(first) &&
    !/^(thing|something|nothing|everything|spring|string|king|ring|morning|evening|wing)$/.test(first)
  ) {
    const token = tokens[0]
    if (token && token.pos !== 'ADJ') phrase = [...words]
  }
  if (!phrase || phrase.length < 2 || /^(it|them|this|that)$/.test(phrase[1] ?? '')) return null
  const end = phrase.findIndex((w, i) => i > 1 && BREAKS.test(w))
  const kept = end < 0 ? phrase : phrase.slice(0, end)
  if (kept.length < 2 || kept.length > LONGEST) return null
  if (/^(the|a|an|your|our|my|of|to|in|on|no)$/.test(kept[kept.length - 1] ?? '')) return null
  return kept.join(' ')
}

const DETERMINER = /^(the|a|an)$/

/** The first noun phrase of a headline that may follow a preposition, with an "of" that belongs to it. */
function nounOf(words: readonly string[], piece: PieceContent): string | null {
  const text = words.join(' ')
  const tokens = readSentences(text).flatMap((s) => s.tokens)
  for (let i = 0; i < tokens.length; i++) {
    const start = tokens[i]
    if (!start) break
    const determined = DETERMINER.test(start.lower)
    // "Your deposit" speaks to one reader: it names, and does not follow a preposition.
    if (/^(?:your|our|my|their|his|her)$/.test(start.lower)) return null
    if (!determined && !NOMINAL.test(start.pos)) continue
    const end = phraseEnd(tokens, determined ? i + 1 : i, determined)
    const head = tokens[end - 1]
    if (!head || !/^(NOUN|PROPN)$/.test(head.pos) || (head === start && determined)) continue
    const counted = tokens[i - 1]?.pos === 'NUM'
    // What the piece counts is not what it is about: "ten questions about tomatoes", "three kinds of jacket".
    if ((counted || GENERAL_HEADS.test(head.lower)) && /^(about|of|on)$/.test(tokens[end]?.lower ?? '')) {
      i = end
      continue
    }
    const plural = head.lower !== head.lemma && /s$/.test(head.lower)
    const owns = /^[’']s?$/.test(tokens[end]?.text ?? '') || tokens[end + 1]?.text === '-'
    if (counted || owns || (!determined && !plural && !isMass(head, piece))) return null
    const of = tokens[end]?.lower === 'of' && DETERMINER.test(tokens[end + 1]?.lower ?? '')
    const last = of ? phraseEnd(tokens, end + 2, true) : end
    const kept = tokens.slice(i, last)
    return kept.filter((t) => t.word).length > 6 || (of && last === end + 2)
      ? null
      : text.slice(start.start, kept[kept.length - 1]?.end)
  }
  return null
}

const NOMINAL = /^(ADJ|NOUN|PROPN)$/

/** Where a noun phrase ends that begins at a token; a participle may stand after its article. */
function phraseEnd(tokens: readonly Token[], from: number, determined: boolean): number {
  let end = from
  while (end < tokens.length) {
    const token = tokens[end] as Token
    const joint = token.text === '-' && end > from
    const participle =
      determined &&
      token.pos === 'VERB' &&
      /(?:ed|en|ing)$/.test(token.lower) &&
      tokens[end + 1]?.pos === 'NOUN'
    if (!NOMINAL.test(token.pos) && !joint && !participle) break
    end++
  }
  return end
}

const GENERAL_HEADS =
  /^(way|ways|thing|things|question|questions|reason|reasons|kind|kinds|step|steps|rule|rules|tip|tips|part|parts|mistake|mistakes|praise|case|guide|mess|order|use|person|life|year|years)$/

/** Whether the piece itself uses a noun in the singular without an article, as one does "barley". */
function isMass(head: Token, piece: PieceContent): boolean {
  for (const sentence of analyse(piece))
    for (let i = 1; i < sentence.tokens.length; i++) {
      const token = sentence.tokens[i]
      if (token?.lower !== head.lower || token.pos !== 'NOUN') continue
      const before = sentence.tokens[i - 1]
      const after = sentence.tokens[i + 1]
      if (before && /^(ADP|VERB|CCONJ|SCONJ)$/.test(before.pos) && after?.pos !== 'NOUN') return true
    }
  return false
}
