import { SPANS, type Counts, type Counted, type Piece, type SieveRule, type WordList } from '../model'
import { toWall, wholeDate } from '../planning'
import { inWords } from '../text'
import { firstNumber, matchingWords } from './words'

/** What a sieve needs to know of a piece; its text only where a rule asks for it. */
export type Sieved = Pick<
  Piece,
  | 'title'
  | 'url'
  | 'author'
  | 'source'
  | 'kind'
  | 'categories'
  | 'words'
  | 'publishedAt'
  | 'takenAt'
  | 'language'
  | 'images'
  | 'keeps'
  | 'counts'
  | 'fields'
> & { text: string }

/** What is around a piece while it is sieved. */
export interface SieveContext {
  now: string
  /** In which days are counted. */
  zone: string
  lists: readonly WordList[]
  /** The counts of the other pieces of its source, for "the top tenth". */
  ofSource: (source: string) => readonly Counts[]
  sourceName: (source: string) => string
}

/** What a sieve says of a piece: which rule caught it, in words, and by which words of the piece. */
export interface SieveResult {
  passed: boolean
  /** Index of the rule that caught it, or null. */
  rule: number | null
  reason: string
  words: string[]
}

const DAY = 86_400_000

/** Whether any rule of a sieve looks into the text. */
export function readsText(rules: readonly SieveRule[]): boolean {
  return rules.some((r) => r.kind === 'words' && r.where === 'the title and the text')
}

/** Holds a piece against the rules in their order; the first that it breaks catches it. */
export function sieve(piece: Sieved, rules: readonly SieveRule[], context: SieveContext): SieveResult {
  for (const [index, rule] of rules.entries()) {
    const caught = caughtBy(piece, rule, context)
    if (caught) return { passed: false, rule: index, reason: caught.reason, words: caught.words ?? [] }
  }
  return {
    passed: true,
    rule: null,
    reason: rules.length ? 'It keeps every rule.' : 'There is no rule.',
    words: [],
  }
}

interface Caught {
  reason: string
  words?: string[]
}

function caughtBy(piece: Sieved, rule: SieveRule, context: SieveContext): Caught | null {
  switch (rule.kind) {
    case 'words':
      return byWords(piece, rule, context)
    case 'source':
      return takeOrLeave(
        rule.take,
        rule.sources.includes(piece.source),
        `It comes from ${context.sourceName(piece.source)}`,
        rule.sources.length,
      )
    case 'domain': {
      const host = hostOf(piece.url)
      const within = rule.domains.some((d) => {
        const wanted = d
          .toLowerCase()
          .trim()
          .replace(/^(?:https?:\/\/)?(?:www\.)?/, '')
          .replace(/[/:].*$/, '')
        return wanted !== '' && (host === wanted || host.endsWith(`.${wanted}`))
      })
      return takeOrLeave(rule.take, within, `It stands at ${host || 'no address'}`, rule.domains.length)
    }
    case 'kind':
      return rule.kinds.length === 0 || rule.kinds.includes(piece.kind)
        ? null
        : { reason: `It is ${piece.kind === 'article' ? 'an' : 'a'} ${piece.kind}.` }
    case 'tags': {
      const own = piece.categories.map((c) => c.toLowerCase())
      const found = rule.tags.filter((t) => own.includes(t.toLowerCase().trim()))
      if (rule.tags.length === 0) return null
      if (rule.take && found.length === 0)
        return { reason: `It has none of the tags ${listed(rule.tags, 'or')}.` }
      return !rule.take && found.length
        ? { reason: `It is tagged ${listed(found, 'and')}.`, words: found }
        : null
    }
    case 'length':
      if (rule.least !== null && piece.words < rule.least)
        return { reason: `It has ${piece.words} words, fewer than ${rule.least}.` }
      return rule.most !== null && piece.words > rule.most
        ? { reason: `It has ${piece.words} words, more than ${rule.most}.` }
        : null
    case 'age': {
      const days = Math.floor(
        (Date.parse(context.now) - Date.parse(piece.publishedAt ?? piece.takenAt)) / DAY,
      )
      return days > rule.mostDays ? { reason: `It is ${days} days old, more than ${rule.mostDays}.` } : null
    }
    case 'date': {
      const day = toWall(Date.parse(piece.publishedAt ?? piece.takenAt), context.zone).date
      if (rule.from !== null && day < rule.from)
        return { reason: `It is of ${wholeDate(day)}, before ${wholeDate(rule.from)}.` }
      return rule.until !== null && day > rule.until
        ? { reason: `It is of ${wholeDate(day)}, after ${wholeDate(rule.until)}.` }
        : null
    }
    case 'keeps':
      return SPANS.indexOf(piece.keeps.span) > SPANS.indexOf(rule.atLeast)
        ? {
            reason:
              piece.keeps.span === 'past'
                ? 'What it speaks of is past.'
                : `It keeps ${spanInWords(piece.keeps.span)} only.`,
          }
        : null
    case 'language': {
      const own = piece.language?.toLowerCase().slice(0, 2) ?? null
      return rule.languages.length === 0 || own === null || rule.languages.includes(own)
        ? null
        : { reason: `It is written in ${languageName(own)}.` }
    }
    case 'picture':
      return piece.images.length === 0 ? { reason: 'It has no picture.' } : null
    case 'popularity':
      return byPopularity(piece, rule, context)
    case 'field': {
      const name = rule.name.trim().toLowerCase()
      if (!name) return null
      const entry = fieldOf(piece.fields, name)
      if (entry === null) return { reason: `It has no field called ${rule.name}.` }
      const value = firstNumber(entry)
      if (value === null) return { reason: `Its ${rule.name}, “${entry}”, is no number.` }
      if (rule.least !== null && value < rule.least)
        return { reason: `Its ${rule.name} is ${value}, less than ${rule.least}.` }
      return rule.most !== null && value > rule.most
        ? { reason: `Its ${rule.name} is ${value}, more than ${rule.most}.` }
        : null
    }
  }
}

function byWords(
  piece: Sieved,
  rule: Extract<SieveRule, { kind: 'words' }>,
  context: SieveContext,
): Caught | null {
  const words = [
    ...rule.words,
    ...context.lists.filter((l) => rule.lists.includes(l.id)).flatMap((l) => l.words),
  ].filter((w) => w.trim())
  if (words.length === 0) return null
  const text =
    rule.where === 'the title'
      ? piece.title
      : rule.where === 'the tags'
        ? piece.categories.join(' · ')
        : rule.where === 'the author'
          ? (piece.author ?? '')
          : `${piece.title}\n${piece.text}`
  const found = matchingWords(text, words)
  if (rule.need === 'none')
    return found.length
      ? { reason: `There is ${listed(found, 'and')} in ${rule.where}.`, words: found }
      : null
  if (rule.need === 'any')
    return found.length ? null : { reason: `None of ${listed(words, 'and')} is in ${rule.where}.` }
  const missing = words.filter((w) => !found.includes(w))
  return missing.length
    ? { reason: `${listed(missing, 'and')} ${missing.length === 1 ? 'is' : 'are'} missing in ${rule.where}.` }
    : null
}

function byPopularity(
  piece: Sieved,
  rule: Extract<SieveRule, { kind: 'popularity' }>,
  context: SieveContext,
): Caught | null {
  const own = piece.counts[rule.measure]
  if (rule.least !== null) {
    if (own === undefined) return { reason: `Nothing is known of its ${rule.measure}.` }
    if (own < rule.least) return { reason: `It has ${own} ${rule.measure}, fewer than ${rule.least}.` }
  }
  if (rule.top !== null) {
    if (own === undefined) return { reason: `Nothing is known of its ${rule.measure}.` }
    const bound = topBound(context.ofSource(piece.source), rule.measure, rule.top)
    if (own < bound)
      return {
        reason: `It has ${own} ${rule.measure}; the top ${Math.round(rule.top * 100)} per cent of its source begin at ${bound}.`,
      }
  }
  return null
}

/** What a piece's field says, by its name or the last part of it (`price` of `shop:price`), without regard to case; null where there is none. */
export function fieldOf(fields: Piece['fields'], name: string): string | null {
  const wanted = name.trim().toLowerCase()
  const entry = Object.entries(fields).find(([key]) => {
    const own = key.toLowerCase()
    return own === wanted || own.endsWith(`:${wanted}`) || own.endsWith(`.${wanted}`)
  })
  return entry?.[1] ?? null
}

/** The least count that still lies in the top share of a source; 0 where nothing is known. */
export function topBound(counts: readonly Counts[], measure: Counted, share: number): number {
  const known = counts.flatMap((c) => c[measure] ?? []).sort((a, b) => b - a)
  return known[Math.max(0, Math.ceil(known.length * share) - 1)] ?? 0
}

function takeOrLeave(take: boolean, within: boolean, what: string, named: number): Caught | null {
  if (named === 0) return null
  if (take) return within ? null : { reason: `${what}, which is not among those taken.` }
  return within ? { reason: `${what}, which is left out.` } : null
}

function hostOf(url: string | null): string {
  try {
    return url ? new URL(url).hostname.toLowerCase().replace(/^www\./, '') : ''
  } catch {
    return ''
  }
}

/** Words in quotation marks, joined as a sentence joins them; long lists end in "and 4 more". */
const listed = (words: readonly string[], by: 'and' | 'or'): string =>
  inWords(
    words.map((w) => `“${w}”`),
    by,
    4,
  )

/** How long a span is, as it stands after "keeps". */
export function spanInWords(span: Piece['keeps']['span']): string {
  return span === 'evergreen' ? 'for ever' : span === 'about a year' ? 'about a year' : `some ${span}`
}

const LANGUAGES = new Intl.DisplayNames('en', { type: 'language', fallback: 'code' })

export function languageName(code: string): string {
  try {
    return LANGUAGES.of(code) ?? code
  } catch {
    return code
  }
}
