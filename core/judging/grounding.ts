import type { PieceContent } from '../model'
import { NUMBER_WORDS, readSentences, stem, STOP_WORDS } from '../language'
import { withoutAddresses, withoutTags } from '../text'

/** Something in a caption that the piece does not hold. */
export interface Ungrounded {
  kind: 'number' | 'name' | 'quotation' | 'superlative' | 'word'
  words: string
}

/** What is known of a text that captions are held against. */
interface Source {
  numbers: Quantity[]
  /** Every word in lower case, and every stem. */
  words: ReadonlySet<string>
  stems: ReadonlySet<string>
  quotable: string
}

/** A number with the word or sign after it that says of what; `unit` is a stem, or null. */
interface Quantity {
  value: number
  unit: string | null
  words: string
  /** The text that follows it, as far as a unit may reach. */
  after: string
}

const sources = new Map<string, Source>()

function sourceOf(text: string): Source {
  const known = sources.get(text)
  if (known) return known
  const words = new Set(wordsOf(text))
  const source: Source = {
    numbers: quantitiesIn(text),
    words,
    stems: new Set([...words].map(stem)),
    quotable: plainQuotes(text),
  }
  if (sources.size >= 24) sources.clear()
  sources.set(text, source)
  return source
}

const WORD = /[\p{L}\p{N}]+/gu
const wordsOf = (text: string): string[] => text.toLowerCase().match(WORD) ?? []

/**
 * Numbers, names, quotations, superlatives and words of substance of a caption that are not in the
 * piece. Numbers are compared by value, in figures or in words, and where both name a unit, by
 * unit; names by their form, capitals inside a sentence; quotations letter by letter, apart from
 * the form of quotation marks and spaces; words by their stem, in either spelling. `allowed` are
 * further texts whose words count as known: the brand's name, its closing lines, frames.
 */
export function ungrounded(caption: string, source: string, allowed: readonly string[] = []): Ungrounded[] {
  const text = withoutTags(withoutAddresses(caption, ' ')).replace(/^\d+[.)] /gm, '')
  const known = sourceOf(source)
  const house = sourceOf(allowed.join('\n'))
  const found: Ungrounded[] = []
  for (const quantity of quantitiesIn(text))
    if (!holds(known, quantity) && !holds(house, quantity))
      found.push({ kind: 'number', words: quantity.words })
  const has = (word: string): boolean => known.words.has(word) || house.words.has(word)
  const named = new Set<string>()
  for (const match of text.matchAll(
    /(?<=[\p{Ll}\p{N},;:]["”’)]? )\p{Lu}[\p{L}\p{N}’'-]*(?: \p{Lu}[\p{L}\p{N}’'-]*)*/gu,
  )) {
    const parts = match[0].replace(/[’']s\b/g, '').match(WORD) ?? []
    const afterColon = text.charAt(match.index - 2) === ':'
    if (afterColon && parts.length === 1) continue
    if (parts.some((p) => p !== 'I' && !has(p.toLowerCase()))) {
      found.push({ kind: 'name', words: match[0] })
      for (const part of parts) named.add(part.toLowerCase())
    }
  }
  for (const match of text.matchAll(/“([^”]{8,})”|"([^"]{8,})"/g)) {
    const quoted = plainQuotes(match[1] ?? match[2] ?? '').replace(/[.,!?…]+$/, '')
    if (!known.quotable.includes(quoted)) found.push({ kind: 'quotation', words: match[0] })
  }
  const foreign = foreignWords(text, known, house).filter((w) => !named.has(w.toLowerCase()))
  for (const word of foreign) found.push({ kind: isSuperlative(word) ? 'superlative' : 'word', words: word })
  const seen = new Set<string>()
  return found.filter(({ kind, words }) => {
    const key = `${kind} ${words.toLowerCase()}`
    return !seen.has(key) && seen.add(key)
  })
}

/** The different words of a text that may carry its substance, in lower case: no stop words, no numbers. */
export function substanceOf(text: string): Set<string> {
  return new Set(
    wordsOf(text).filter((w) => w.length >= 3 && !STOP_WORDS.has(w) && NUMBER_WORDS[w] === undefined),
  )
}

/** Words of substance, as written, whose stem neither the piece nor the house has. */
function foreignWords(text: string, known: Source, house: Source): string[] {
  const strange = (text.match(/[\p{L}][\p{L}\p{N}]*/gu) ?? []).filter((word) => {
    const lower = word.toLowerCase()
    if (lower.length < 3 || STOP_WORDS.has(lower) || NUMBER_WORDS[lower] !== undefined) return false
    return (
      !known.words.has(lower) &&
      !house.words.has(lower) &&
      !known.stems.has(stem(lower)) &&
      !house.stems.has(stem(lower))
    )
  })
  const superlatives = [...text.matchAll(/\b(?:the )?(most|least|best|worst)\b/gi)]
    .map((m) => m[1] ?? '')
    .filter((w) => !known.words.has(w.toLowerCase()) && !house.words.has(w.toLowerCase()))
  if (strange.length === 0) return superlatives
  // Only now is it worth knowing what kind of words they are.
  const substance = new Set(
    readSentences(text)
      .flatMap((s) => s.tokens)
      .filter((t) => /^(NOUN|PROPN|VERB|ADJ|ADV)$/.test(t.pos))
      .map((t) => t.lower),
  )
  return [...new Set([...superlatives, ...strange.filter((w) => substance.has(w.toLowerCase()))])]
}

const isSuperlative = (word: string): boolean =>
  /^(?:most|least|best|worst)$/i.test(word) ||
  (/[^aeiou]est$/i.test(word) &&
    word.length > 5 &&
    !/(?:forest|honest|modest|harvest|interest|protest|request|invest|suggest|digest|arrest|earnest|tempest|conquest)$/i.test(
      word,
    ))

function plainQuotes(text: string): string {
  return text
    .replace(/[“”„"]/g, '"')
    .replace(/[‘’]/g, "'")
    .replace(/\s+/g, ' ')
    .trim()
}

function holds(source: Source, { value, unit }: Quantity): boolean {
  return source.numbers.some(
    (n) => Math.abs(n.value - value) < 1e-9 && (unit === null || n.unit === null || n.unit === unit),
  )
}

const UNITS: Readonly<Record<string, string>> = {
  '%': 'percent',
  'per cent': 'percent',
  percent: 'percent',
  '°c': 'celsius',
  degrees: 'degree',
  km: 'kilometre',
  m: 'metre',
  cm: 'centimetre',
  mm: 'millimetre',
  kg: 'kilo',
  g: 'gram',
  ml: 'millilitre',
  l: 'litre',
  h: 'hour',
  min: 'minute',
}
/** Words after a number that are no unit of it. */
const NO_UNIT = new Set(
  'a an and or of in on at to for the that than as by with from is are was were per more less or when if until after before but who which up down out away further other else it times'.split(
    ' ',
  ),
)

const TENS = 'twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety'
const ONES = 'one|two|three|four|five|six|seven|eight|nine'
const FIGURE = /\d{1,3}(?:,\d{3})+(?:\.\d+)?|\d+(?:\.\d+)?/g
const COMPOUND = new RegExp(`\\b(${TENS})[- ](${ONES})\\b`, 'g')

/** The numbers of a text, in figures or in words from three upwards, by value and unit. */
export function quantitiesIn(text: string): Quantity[] {
  const found: Quantity[] = []
  const add = (value: number, start: number, length: number): void => {
    const after = text.slice(start + length, start + length + 24)
    const unit = unitAfter(after)
    found.push({
      value,
      unit,
      after,
      words:
        text.slice(start, start + length) +
        (unit && /^\s?[%°]/.test(after) ? (/^\s?[%°]\p{L}*/u.exec(after)?.[0] ?? '') : ''),
    })
  }
  for (const match of text.matchAll(FIGURE))
    add(Number(match[0].replace(/,/g, '')), match.index, match[0].length)
  const lower = text.toLowerCase()
  const compound = new Set<number>()
  for (const match of lower.matchAll(COMPOUND)) {
    add(
      (NUMBER_WORDS[match[1] ?? ''] ?? 0) + (NUMBER_WORDS[match[2] ?? ''] ?? 0),
      match.index,
      match[0].length,
    )
    compound.add(match.index).add(match.index + (match[1] ?? '').length + 1)
  }
  for (const match of lower.matchAll(/(?<![\p{L}])[a-z]+(?![\p{L}])/gu)) {
    const value = NUMBER_WORDS[match[0]]
    if (value === undefined || value <= 2 || compound.has(match.index)) continue
    add(value, match.index, match[0].length)
  }
  return found
}

/** The stem of the word or sign that follows a number and says of what it is, or null. */
function unitAfter(after: string): string | null {
  const sign = /^\s?(%|°C|per cent\b|percent\b|km\b|m\b|cm\b|mm\b|kg\b|g\b|ml\b|l\b|h\b|min\b)/i.exec(after)
  if (sign) return UNITS[(sign[1] ?? '').toLowerCase()] ?? null
  const word = /^[ -](\p{Ll}{2,})/u.exec(after)?.[1]
  if (!word || NO_UNIT.has(word) || NUMBER_WORDS[word] !== undefined || STOP_WORDS.has(word)) return null
  return UNITS[word] ?? stem(word)
}

/** All that a caption of a piece may draw on: its text with its title, author, categories and summary. */
export function sourceText(
  piece: Pick<PieceContent, 'title' | 'author' | 'categories' | 'text' | 'summary'>,
): string {
  return [piece.title, piece.author ?? '', piece.categories.join(', '), piece.summary, piece.text].join('\n')
}
