import winkNLP, { type Document, type ItsHelpers } from 'wink-nlp'
import model from 'wink-eng-lite-web-model'
import { STOP_WORDS } from './words'

/** A word, number or mark of a sentence, with its place in the whole text. */
export interface Token {
  text: string
  lower: string
  lemma: string
  /** Universal part-of-speech tag (Petrov, Das, McDonald 2012), as wink-nlp gives it. */
  pos: string
  start: number
  end: number
  /** Whether it is a word or number, not a mark. */
  word: boolean
}

/** A sentence of a stretch of text. */
export interface SentenceTokens {
  start: number
  end: number
  tokens: Token[]
}

const WORD = /[\p{L}\p{N}]/u
const nlp = winkNLP(model, ['sbd', 'pos'])
const its: ItsHelpers = nlp.its

/** Abbreviations after which a full stop does not end a sentence. */
const ABBREVIATION =
  /(?:^|[\s(])(?:Dr|Mr|Mrs|Ms|Prof|St|No|Nos|vs|e\.g|i\.e|approx|Fig|Jr|Sr|Capt|Sgt|Rev|Hon|Mt|ca|cf)\.$/
const INITIAL = /(?:^|[A-Z][\w’'.-]*\s)[A-Z]\.$/

/**
 * Splits a stretch of running text into sentences and tokens with parts of speech, by wink-nlp's
 * English model. Sentence ends after abbreviations and initials are mended; places are offsets
 * into `text` plus `offset`.
 */
export function readSentences(text: string, offset = 0): SentenceTokens[] {
  if (!text.trim()) return []
  const document: Document = nlp.readDoc(text)
  const values = document.tokens().out(its.value) as string[]
  const tags = document.tokens().out(its.pos) as string[]
  const lemmas = document.tokens().out(its.lemma as never) as unknown as string[]
  const tokens: Token[] = []
  let cursor = 0
  values.forEach((value, i) => {
    const start = text.indexOf(value, cursor)
    if (start < 0) return
    cursor = start + value.length
    tokens.push({
      text: value,
      lower: value.toLowerCase(),
      lemma: lemmas[i] ?? value.toLowerCase(),
      pos: tags[i] ?? 'X',
      start: start + offset,
      end: cursor + offset,
      word: WORD.test(value),
    })
  })
  const found: SentenceTokens[] = []
  let next = 0
  for (const [from, to] of document.sentences().out(its.span) as unknown as [number, number][]) {
    const mine = tokens.slice(next, next + to - from + 1)
    next += mine.length
    for (const part of splitLate(mine)) {
      const first = part[0]
      const last = part[part.length - 1]
      if (!first || !last) continue
      const before = found[found.length - 1]
      if (before && continues(text.slice(before.start - offset, before.end - offset), first, before.end)) {
        before.tokens.push(...part)
        before.end = last.end
      } else found.push({ start: first.start, end: last.end, tokens: part })
    }
  }
  return found
}

const KEPT_ABBREVIATION = /^(?:vs|e\.g|i\.e|approx|cf|ca|pp?|nos?|figs?|eds?|al|vol|ch|dr|mrs?|ms|prof|st)\.$/

/** Abbreviations that a number follows: "Sect. 4", "Tel. 555 0123". */
const BEFORE_NUMBER = /(?:^|[\s(])(?:Sect?|Tel|Ext|Art|Ch|Vol|Op|Para|Eq|Ref|Est|No|Nos|Fig|Figs|pp?)\.$/i

/** Whether a word with a capital opens a sentence for certain: "The", "It", "Nobody" are no names. */
const opensSentence = (token: Token | undefined): boolean =>
  token !== undefined && /^\p{Lu}/u.test(token.text) && STOP_WORDS.has(token.lower)

/**
 * Parts a sentence where a word was taken for an abbreviation or an initial: "goes in. Bare cotton …",
 * "5 °C. It froze", "Vitamin C. It helps", "10 p.m. Everyone sleeps".
 */
function splitLate(tokens: Token[]): Token[][] {
  const parts: Token[][] = [[]]
  tokens.forEach((token, i) => {
    parts[parts.length - 1]?.push(token)
    const next = tokens[i + 1]
    if (!next || !token.text.endsWith('.')) return
    const word = /^\p{Ll}{2,}\.$/u.test(token.text) && !KEPT_ABBREVIATION.test(token.text)
    const measured = /\d/.test(tokens[i - 1]?.text ?? '')
    if (word && !measured && /^["“‘(]?\p{Lu}/u.test(next.text)) parts.push([])
    else if (/^(?:°?\p{Lu}|[ap]\.m|etc|\d*°[CF])\.$/u.test(token.text) && opensSentence(next)) parts.push([])
    else if (
      token.text === '.' &&
      /^(?:\p{Lu}|°?[CF]|[ap]\.?m)$/u.test(tokens[i - 1]?.text ?? '') &&
      opensSentence(next)
    )
      parts.push([])
  })
  return parts.filter((part) => part.length)
}

/** Whether a sentence that ends at a place was split too early before the token that follows it. */
function continues(previous: string, first: Token, end: number): boolean {
  // "the files in ./bin", "each *.PL that it finds": no sentence ends where a path goes on.
  if (first.start === end && (/^[/\\]/.test(first.text) || /(?:^|[\s*/~\\])\.+$/.test(previous))) return true
  if (/^[)\]”’"]+$/.test(first.text)) return true
  if (/^\p{Ll}/u.test(first.text) && /(?:[.…]["”’)]*|[!?]["”’)]+)$/.test(previous)) return true
  if (/\bPh\.$/.test(previous) && first.text.startsWith('D')) return true
  if (/^\d/.test(first.text) && BEFORE_NUMBER.test(previous)) return true
  if (ABBREVIATION.test(previous)) return true
  return INITIAL.test(previous) && /^\p{Lu}/u.test(first.text) && !opensSentence(first)
}
