import { URL_PATTERN } from '../networks'
import { NUMBER_WORDS } from '../passages'

/** Something in a caption that the piece does not hold. */
export interface Ungrounded {
  kind: 'number' | 'name' | 'quotation'
  words: string
}

/**
 * Numbers, names and quotations of a caption that are not in the piece. Numbers are compared by
 * value, written in figures or in words; names by their form, capitals inside a sentence;
 * quotations letter by letter, apart from the form of quotation marks and spaces. `allowed` are
 * further texts whose names count as known, such as the brand's.
 */
export function ungrounded(caption: string, source: string, allowed: readonly string[] = []): Ungrounded[] {
  const text = caption
    .replace(URL_PATTERN, ' ')
    .replace(/#[\p{L}\p{N}_]+/gu, ' ')
    .replace(/^\d+[.)] /gm, '')
  const found: Ungrounded[] = []
  const known = numberValues(source)
  for (const { value, words } of numbers(text)) if (!known.has(value)) found.push({ kind: 'number', words })
  const sourceWords = new Set(
    [source, ...allowed]
      .join(' ')
      .toLowerCase()
      .match(/[\p{L}\p{N}]+/gu) ?? [],
  )
  for (const match of text.matchAll(
    /(?<=[\p{Ll}\p{N},;:]["”’)]? )\p{Lu}[\p{L}’'-]*(?: \p{Lu}[\p{L}’'-]*)*/gu,
  )) {
    const parts = match[0].replace(/[’']s\b/g, '').match(/[\p{L}\p{N}]+/gu) ?? []
    const afterColon = text.charAt(match.index - 2) === ':'
    if (afterColon && parts.length === 1) continue
    if (parts.some((p) => p !== 'I' && !sourceWords.has(p.toLowerCase())))
      found.push({ kind: 'name', words: match[0] })
  }
  const plainSource = plainQuotes(source)
  for (const match of text.matchAll(/“([^”]{8,})”|"([^"]{8,})"/g)) {
    const quoted = match[1] ?? match[2] ?? ''
    if (!plainSource.includes(plainQuotes(quoted).replace(/[.,!?…]+$/, '')))
      found.push({ kind: 'quotation', words: match[0] })
  }
  return found
}

function plainQuotes(text: string): string {
  return text
    .replace(/[“”„"]/g, '"')
    .replace(/[‘’]/g, "'")
    .replace(/\s+/g, ' ')
    .trim()
}

function numberValues(text: string): Set<number> {
  return new Set(numbers(text).map((n) => n.value))
}

function numbers(text: string): { value: number; words: string }[] {
  const found: { value: number; words: string }[] = []
  for (const match of text.matchAll(/\d{1,3}(?:,\d{3})+(?:\.\d+)?|\d+(?:\.\d+)?/g))
    found.push({ value: Number(match[0].replace(/,/g, '')), words: match[0] })
  for (const match of text.toLowerCase().matchAll(/[a-z]+/g)) {
    const value = NUMBER_WORDS[match[0]]
    if (value !== undefined && value > 2) found.push({ value, words: match[0] })
  }
  for (const match of text
    .toLowerCase()
    .matchAll(
      /\b(twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety)[- ](one|two|three|four|five|six|seven|eight|nine)\b/g,
    ))
    found.push({
      value: (NUMBER_WORDS[match[1] ?? ''] ?? 0) + (NUMBER_WORDS[match[2] ?? ''] ?? 0),
      words: match[0],
    })
  return found
}
