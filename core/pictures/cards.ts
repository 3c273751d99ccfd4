import {
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
 * title. All words are those of the caption or the title, so that a card says nothing that was not judged.
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
    quoted(opening),
    listed(opening),
    ...(english ? argued(opening, sentences, wording.angle) : []),
    asked(opening, sentences),
    plain(opening, sentences),
    titled(piece.title),
  ]
  return told.flatMap((card) => (card && layouts.includes(card.layout) ? [card] : []))
}

/** What a card says, for those who cannot see it: its own words. */
export function cardAlt({ head, text, items, speaker }: Card): string {
  const said = [head, text, ...items].filter((part) => part !== '')
  const whole = said.map((part) => (/[.!?…:”"]$/u.test(part) ? part : `${part}.`)).join(' ')
  return speaker ? `“${whole}” — ${speaker}` : whole
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
function quoted(opening: string): Card | null {
  const [, text, speaker] = /^“([^“”]+)” — ([^\n]+)$/.exec(opening) ?? []
  if (!text || !speaker || text.length > CARD_MOST.text || speaker.length > CARD_MOST.speaker) return null
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
    const head = amountAt(tokens, i)
    if (
      head === null ||
      isNumber(tokens[i - 1]) ||
      /^(?:or|to|and|–|-|,|\.)$/.test(tokens[i - 1]?.text ?? '')
    )
      continue
    if (token.start > first.start + GLANCE || head.length > TERM) continue
    return { ...NONE, layout: 'number', head, text }
  }
  return null
}

const isNumber = (token: Token | undefined): boolean =>
  token !== undefined && (/^\d[\d.,]*$/.test(token.text) || NUMBER_WORDS[token.lower] !== undefined)

/** A number and its unit from a token on: "18 per cent", "400 miles", "£400"; null where there is none. */
function amountAt(tokens: readonly Token[], i: number): string | null {
  const token = tokens[i]
  if (!token) return null
  if (/^[£$€]$/.test(token.text) && isNumber(tokens[i + 1])) return `${token.text}${tokens[i + 1]?.text}`
  if (/^(?:[£$€]\d[\d.,]*|\d[\d.,]*%)$/.test(token.text)) return token.text
  if (!isNumber(token) || /^(?:once|first|second|one|a|half|zero)$/.test(token.lower)) return null
  const figure = /\d/.test(token.text) ? token.text : String(NUMBER_WORDS[token.lower])
  const [next, after] = [tokens[i + 1], tokens[i + 2]]
  if (next?.text === '%') return `${figure}%`
  if (next?.lower === 'per' && after?.lower === 'cent') return `${figure} per cent`
  if (!next || !isNoun(next) || next.pos !== 'NOUN' || isNumber(next)) return null
  // "Four planks" is an amount, "four plank ends" would be cut in two.
  return after && isNoun(after) ? null : `${figure} ${next.text}`
}

/** Two sentences that stand against each other. */
function opposed(opening: string, sentences: readonly SentenceTokens[]): Card | null {
  const items = sentences.map((s) => said(opening, s))
  const fits =
    items.length === 2 && items.every((item) => item.length <= CARD_MOST.item && /[.!]$/.test(item))
  return fits ? { ...NONE, layout: 'contrast', items } : null
}

/** A question that opens a caption. */
function asked(opening: string, [first]: readonly SentenceTokens[]): Card | null {
  const text = first ? said(opening, first) : ''
  return text.endsWith('?') && text.length <= QUESTION ? { ...NONE, layout: 'question', text } : null
}

/** As many sentences from the first on as are read at a glance; the last one must end and promise nothing. */
function plain(opening: string, sentences: readonly SentenceTokens[]): Card | null {
  if (opening.includes('\n')) return null
  const ends = sentences
    .map((s) => opening.slice(0, s.end).trim())
    .filter((text, i) => /[.!…]["”’)]?$/u.test(text) && text.length <= (i === 0 ? CARD_MOST.text : GLANCE))
  const text = ends.at(-1)
  return text ? { ...NONE, layout: 'words', text } : null
}

function titled(title: string): Card | null {
  const text = title.trim()
  return text !== '' && text.length <= TITLE ? { ...NONE, layout: 'title', text } : null
}
