import {
  isBalanced,
  isDefinition,
  isEnglish,
  isNoun,
  NUMBER_WORDS,
  plainSentences,
  readSentences,
  upperFirst,
  type SentenceTokens,
  type Token,
} from '../language'
import { CARD_MOST, type Card, type Layout, type Wording } from '../model'
import { LINK_LINES } from '../setting'
import { withoutAddresses, withoutTags } from '../text'

/** How long the sentences of a card may be together, in characters, so that it is read at a glance. */
const GLANCE = 200
/** How long a term, a question and a title may be. */
const TERM = 30
const QUESTION = 140
const TITLE = 120

/**
 * The cards that can be made of a post's own words, the one that says them best first: a layout that shows how they
 * argue (somebody is quoted, things are listed, a number is given), then the words as they stand, then the piece's
 * title. All words are those of the caption or the title, so that a card says nothing that was not judged. The first amount
 * that sentences in English give stands out.
 */
export function cardsFor(
  wording: Pick<Wording, 'text' | 'angle' | 'closing'>,
  piece: { title: string; language: string | null },
  layouts: readonly Layout[],
): Card[] {
  const body = bodyOf(wording)
  const english = isEnglish(piece.language)
  const [opening = ''] = body
  const sentences = english ? readSentences(opening) : plainSentences(opening, piece.language ?? '')
  const told = [
    quoted(opening, (text) => (english ? readSentences(text) : plainSentences(text, piece.language ?? ''))),
    listed(opening),
    ...(english ? argued(opening, sentences, wording.angle) : []),
    asked(opening, sentences),
    plain(opening, sentences),
    titled(piece.title),
  ]
  return told.flatMap((card) =>
    card && layouts.includes(card.layout) ? [english ? marked(set(card)) : card] : [],
  )
}

/** A card with the quotation marks and apostrophes that a typesetter would put, as English has them. */
function set(card: Card): Card {
  const { head, text, items, speaker } = card
  return { ...card, head: curly(head), text: curly(text), items: items.map(curly), speaker: curly(speaker) }
}

function curly(text: string): string {
  return text
    .replace(/(?<=[\p{L}\p{N}])'(?=\p{L}|[\s.,;:!?)]|$)/gu, '’')
    .replace(/(^|[\s([—–-])"(?=\S)/g, '$1“')
    .replace(/"/g, '”')
}

/** A card of sentences with its first amount standing out, if it has one. */
function marked(card: Card): Card {
  if (card.layout !== 'words' && card.layout !== 'quotation') return card
  for (const { tokens } of readSentences(card.text))
    for (const [i, token] of tokens.entries()) {
      const amount = followsNumber(tokens, i) ? null : amountAt(tokens, i)
      if (amount) return { ...card, marked: [card.text.slice(token.start, amount.end)] }
    }
  return card
}

const NONE = { head: '', text: '', items: [], speaker: '' }

/** The paragraphs of a caption that are its own words: without links, tags, closing line, and the line that tells of a link. */
function bodyOf({ text, closing }: Pick<Wording, 'text' | 'closing'>): string[] {
  const told: readonly string[] = closing === null ? LINK_LINES : [...LINK_LINES, closing]
  return text
    .split(/\n{2,}/)
    .map((part) =>
      withoutTags(withoutAddresses(part))
        .replace(/[ \t]+/g, ' ')
        .trim(),
    )
    .filter((part) => /[\p{L}\p{N}]/u.test(part) && !told.includes(part))
}

/** What somebody says, with the name. */
function quoted(opening: string, readAs: (text: string) => readonly SentenceTokens[]): Card | null {
  const [, words, speaker] = /^“([^“”]+)” — ([^\n]+)$/.exec(opening) ?? []
  const text = words && whole(words, readAs(words))
  if (!text || !speaker || speaker.length > CARD_MOST.speaker) return null
  return { ...NONE, layout: 'quotation', text, speaker }
}

/** A list with what leads into it; nothing of it may be missing. */
function listed(opening: string): Card | null {
  const [lead = '', ...lines] = opening.split('\n')
  const items = lines.map((l) => /^(?:–|\d+\.) (.+)$/.exec(l)?.[1] ?? '')
  const head = lead.replace(/[:.]$/, '')
  const fits =
    items.length >= 2 &&
    items.length <= CARD_MOST.items &&
    head.length <= CARD_MOST.head &&
    items.every((item) => item !== '' && item.length <= CARD_MOST.item)
  if (!fits) return null
  return { ...NONE, layout: /^\d/.test(lines[0] ?? '') ? 'steps' : 'list', head, items }
}

/** What shows how a caption in English argues. */
function argued(
  opening: string,
  sentences: readonly SentenceTokens[],
  angle: Wording['angle'],
): (Card | null)[] {
  const [first] = sentences
  if (!first) return []
  return [
    angle === 'definition' ? defined(opening, first) : null,
    angle === 'number' ? counted(opening, first) : null,
    angle === 'contrast' ? opposed(opening, sentences) : null,
  ]
}

const said = (text: string, { start, end }: SentenceTokens): string => text.slice(start, end).trim()

/** A term and the sentence that says what it is. */
function defined(opening: string, first: SentenceTokens): Card | null {
  if (!isDefinition(first.tokens)) return null
  const words = first.tokens.filter((t) => t.word)
  const verb = words.findIndex((t) => /^(?:is|are|means)$/.test(t.lower))
  const subject = words.slice(/^(?:an?|the)$/.test(words[0]?.lower ?? '') ? 1 : 0, verb)
  const [from, to] = [subject[0], subject.at(-1)]
  if (!from || !to) return null
  const head = upperFirst(opening.slice(from.start, to.end))
  const text = said(opening, first)
  if (head.length > TERM || text.length > CARD_MOST.text) return null
  return { ...NONE, layout: 'definition', head, text }
}

/** The first number with its unit, in digits, and the sentence that it stands in. */
function counted(opening: string, first: SentenceTokens): Card | null {
  const text = said(opening, first)
  if (text.length > CARD_MOST.text) return null
  const { tokens } = first
  for (const [i, token] of tokens.entries()) {
    const { head } = (followsNumber(tokens, i) ? null : amountAt(tokens, i)) ?? { head: '' }
    if (head === '' || head.length > TERM || token.start > first.start + GLANCE) continue
    return { ...NONE, layout: 'number', head, text }
  }
  return null
}

const isNumber = (token: Token | undefined): boolean =>
  token !== undefined && (/^\d[\d.,]*$/.test(token.text) || NUMBER_WORDS[token.lower] !== undefined)

/** Whether a token may be the end of a number, or of a span between two. */
const followsNumber = (tokens: readonly Token[], i: number): boolean =>
  isNumber(tokens[i - 1]) || /^(?:or|to|and|–|-|,|\.)$/.test(tokens[i - 1]?.text ?? '')

/**
 * A number and its unit from a token on, in digits, and where it ends in its text: "18 per cent", "400 miles", "£400"; null
 * where there is none.
 */
function amountAt(tokens: readonly Token[], i: number): { head: string; end: number } | null {
  const token = tokens[i]
  if (!token) return null
  const [next, after] = [tokens[i + 1], tokens[i + 2]]
  if (/^[£$€]$/.test(token.text) && next && isNumber(next))
    return { head: `${token.text}${next.text}`, end: next.end }
  if (/^(?:[£$€]\d[\d.,]*|\d[\d.,]*%)$/.test(token.text)) return { head: token.text, end: token.end }
  if (!isNumber(token) || /^(?:once|first|second|one|a|half|zero)$/.test(token.lower)) return null
  // A year is no amount.
  if (/^(?:1[5-9]|20)\d\d$/.test(token.text)) return null
  const figure = /\d/.test(token.text) ? token.text : String(NUMBER_WORDS[token.lower])
  if (next?.text === '%') return { head: `${figure}%`, end: next.end }
  if (next?.lower === 'per' && after?.lower === 'cent') return { head: `${figure} per cent`, end: after.end }
  if (!next || next.pos !== 'NOUN' || isNumber(next)) return null
  // "Four hours" is an amount, "four hour shifts" would be cut in two.
  if (after && isNoun(after)) return null
  const isWorthIt = UNITS.test(next.lower) || Number(figure.replace(/,/g, '')) >= 100
  return isWorthIt ? { head: `${figure} ${next.text}`, end: next.end } : null
}

/** What is measured; of other things only many are worth a card. */
const UNITS =
  /^(?:seconds?|minutes?|hours?|days?|nights?|weeks?|months?|years?|decades?|centuries|(?:milli|centi|kilo)?(?:metres?|meters?|grams?|grammes?)|kilos?|tonnes?|tons?|pounds?|ounces?|litres?|liters?|gallons?|pints?|cups?|inch(?:es)?|feet|foot|yards?|miles?|knots|degrees?|watts?|kilowatts?|volts?|euros?|dollars?|pence|cents?|crowns|percent|points|acres?|hectares?|calories)$/

/** Two sentences that stand against each other. */
function opposed(opening: string, sentences: readonly SentenceTokens[]): Card | null {
  const items = sentences.map((s) => said(opening, s))
  const fits =
    items.length === 2 && items.every((item) => item.length <= CARD_MOST.item && /[.!]$/.test(item))
  const [a, b] = sentences.map(subjectsOf)
  // What is set against each other is told in the same words, up to where it differs.
  const shared = [...(a ?? [])].filter((word) => b?.has(word))
  return fits && shared.length >= 2 ? { ...NONE, layout: 'contrast', items } : null
}

/** The words of a sentence that name and tell, by their plain forms. */
function subjectsOf({ tokens }: SentenceTokens): Set<string> {
  return new Set(tokens.filter((t) => t.word && /^(?:NOUN|PROPN|VERB|ADJ)$/.test(t.pos)).map((t) => t.lemma))
}

/** A question that opens a caption. */
function asked(opening: string, [first]: readonly SentenceTokens[]): Card | null {
  const text = first ? said(opening, first) : ''
  return text.endsWith('?') && text.length <= QUESTION ? { ...NONE, layout: 'question', text } : null
}

/** As many sentences from the first on as are read at a glance; the last one must end and promise nothing. */
function plain(opening: string, sentences: readonly SentenceTokens[]): Card | null {
  // What opens with a quotation mark is somebody else's, and goes out with the name or not at all.
  if (opening.includes('\n') || opening.startsWith('“')) return null
  const text = whole(opening, sentences)
  return text ? { ...NONE, layout: 'words', text } : null
}

/** The longest beginning of a text that is read at a glance and ends where a sentence does; null where there is none. */
function whole(text: string, sentences: readonly SentenceTokens[]): string | null {
  const ends = sentences
    .map((s) => text.slice(0, s.end).trim())
    .filter(
      (part, i) =>
        /[.!…]["”’)]?$/u.test(part) && isBalanced(part) && part.length <= (i === 0 ? CARD_MOST.text : GLANCE),
    )
  return ends.at(-1) ?? null
}

function titled(title: string): Card | null {
  const text = title.trim()
  return text !== '' && text.length <= TITLE ? { ...NONE, layout: 'title', text } : null
}
