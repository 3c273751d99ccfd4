import type { Keeps, PieceContent, Place, Span } from '../model'
import { SPANS } from '../model'
import { IRREGULAR_PAST } from '../language'

/** A phrase that ties a text to a moment: where it stands, why it ages, and how fast. */
export interface AgeingPhrase extends Place {
  why: string
  span: Span
  /** The day it speaks of, where it names one. */
  day: string | null
  /** Whether it speaks of something one can come to or take up: an event, an offer. */
  bound: boolean
}

const DAY = 86_400_000
const MONTHS = 'january february march april may june july august september october november december'.split(
  ' ',
)
const MONTH = `(?:${MONTHS.map((m) => `${m.slice(0, 3)}(?:${m.slice(3)})?`).join('|')})`
const SEASON = 'season|spring|summer|autumn|fall|winter'
const WEEKDAY = 'monday|tuesday|wednesday|thursday|friday|saturday|sunday'

/** A year after these is the end of something that began or was over then. */
const SINCE = /\b(?:since|until|till|before|from|back in) $/i
/** Whether a sentence tells of something that happened. */
const isTold = (sentence: string): boolean =>
  (sentence.toLowerCase().match(/\p{L}+/gu) ?? []).some((w) => IRREGULAR_PAST.has(w) || /..ed$/.test(w))

/** What ages by its words alone, in the order in which it is looked for. */
const PHRASES: readonly { pattern: RegExp; why: string; span: Span; bound?: boolean }[] = [
  {
    pattern: new RegExp(
      `\\b(?:(?:this|last|next|the coming) (?:week|weekend|${WEEKDAY})|tonight|tomorrow|yesterday|today(?! (?:we|people|most|many))|right now|at the moment(?! (?:when|of|that|you|we|he|she|they|it)\\b)|just (?:now|announced|released|launched|opened|out)|(?:in|over|for|during) the (?:last|past) (?:few |couple of |[a-z]+ |\\d+ )?(?:days?|weeks?|months?))\\b`,
      'gi',
    ),
    why: 'speaks of a week',
    span: 'weeks',
  },
  {
    pattern: new RegExp(
      `\\b(?:(?:this|last|next|the coming) (?:month|quarter|${SEASON}|${MONTHS.join('|')})|(?:late|early) this (?:${SEASON}))\\b`,
      'gi',
    ),
    why: 'speaks of a season',
    span: 'months',
  },
  {
    pattern:
      /\b(?:latest|brand[- ]new|newest|recently|nowadays|currently|these days|so far|up to now|as of (?:\w+ )?\d+|still (?:available|open)|new (?:this|in) )\b/gi,
    why: 'claims to be new',
    span: 'months',
  },
  {
    pattern:
      /\b(?:(?:this|last|next|the coming|current) year|year's end|this decade|current (?:rules?|laws?|rates?|prices?|version|edition))\b/gi,
    why: 'speaks of a year',
    span: 'about a year',
  },
  {
    pattern:
      /\b(?:early[- ]bird|while (?:stocks?|places|it) lasts?|limited (?:time|offer|places)|(?:sale|offer|registration|booking) (?:ends|closes)|special offer|\d+ (?:per ?cent|%) off|discount code|last few places|places (?:are )?left|book (?:now|by|before)|register (?:now|by|before)|sign up by)\b/gi,
    why: 'an offer that ends',
    span: 'weeks',
    bound: true,
  },
  {
    pattern:
      /\b(?:join us (?:on|at|for)|doors open (?:at|from)|open (?:day|house|evening) (?:is|on|will)|save the date|we (?:will|are going to) (?:open|launch|hold|host)|takes place|see you (?:on|at|there)|rsvp|tickets? (?:are|cost|go|on sale))\b/gi,
    why: 'an event',
    span: 'weeks',
    bound: true,
  },
  {
    pattern: /\b(?:version|release|firmware|edition) \d+(?:\.\d+)*\b|\bv\d+\.\d+(?:\.\d+)?\b/gi,
    why: 'names a version',
    span: 'about a year',
  },
]

/** A price that is asked, not one that was paid once: beside words of offering, in the present. */
const PRICE =
  /(?:[€£$] ?\d(?:[\d.,]*\d)?|\b\d[\d.,]* ?(?:€|£|euros?\b|pounds?\b|dollars?\b|EUR\b|USD\b|GBP\b))/gi
const OFFERED =
  /\b(?:costs?|prices?|priced|fees?|from|per|a (?:head|person|night|day|term|month|year)|each|includ(?:es|ing)|tickets?|deposit|book|charge[sd]?|rates?|members?|children|adults?|concession)\b/i
const PAID = /\b(?:paid|spent|cost(?! of)|saved|earned|sold|bought|was|were|had|came to|used to)\b/i

const EVENT =
  /\b(?:join|come|open|doors|event|workshop|course|launch|day|talk|walk|meeting|sale|festival|exhibition|deadline|until|by|before|from|starts?|begins?|ends?|closes?|on|register|book)\b/i

/**
 * The phrases of a text that age it, in order, none overlapping another. `now` (ISO 8601) decides
 * about dates and years: those that lie more than eighteen months back are history, which does
 * not age. Without it every year counts.
 *
 * The words come from the temporal expressions of TimeML (Pustejovsky et al. 2003): deictic ones
 * ("last week") age with the text, absolute dates with the calendar, durations not at all.
 */
export function ageingPhrases(text: string, now: string | null): AgeingPhrase[] {
  const found: AgeingPhrase[] = [...datesIn(text, now)]
  for (const { pattern, why, span, bound } of PHRASES)
    for (const match of matchesOf(text, pattern))
      found.push({
        start: match.index,
        end: match.index + match[0].trimEnd().length,
        why,
        span,
        day: null,
        bound: bound ?? false,
      })
  for (const match of matchesOf(text, PRICE)) {
    const around = sentenceAround(text, match.index)
    if (OFFERED.test(around) && !PAID.test(around))
      found.push({
        start: match.index,
        end: match.index + match[0].length,
        why: 'a price',
        span: 'about a year',
        day: null,
        bound: false,
      })
  }
  found.sort((a, b) => a.start - b.start || b.end - a.end)
  return found.filter((p, i) => !found.slice(0, i).some((q) => q.end > p.start))
}

/** All matches of a global pattern; most texts have none, which a search tells much sooner. */
function matchesOf(text: string, pattern: RegExp): Iterable<RegExpExecArray> {
  return text.search(pattern) < 0 ? [] : text.matchAll(pattern)
}

/** Whether a phrase ages the sentence it stands in: a price and an event age the piece. */
export const agesSentence = ({ why }: AgeingPhrase): boolean => why !== 'a price' && why !== 'an event'

/**
 * The first phrase that ages a sentence or caption, as its words, or null; prices apart. With `now`
 * (ISO 8601) years and days long past are history, without it they count.
 */
export function ageingWords(text: string, now: string | null = null): string | null {
  const first = ageingPhrases(text, now).find(agesSentence)
  return first ? text.slice(first.start, first.end) : null
}

const WRITTEN_DATE = new RegExp(
  `\\b(?:(?:${WEEKDAY}),? (?:the )?)?(?:(\\d{1,2})(?:st|nd|rd|th)?(?: of)? (${MONTH})\\b|(${MONTH})\\.? (\\d{1,2})(?:st|nd|rd|th)?\\b(?! (?:people|per|times)))(?:,? ((?:19|20)\\d\\d))?|\\b((?:19|20)\\d\\d)-(\\d\\d)-(\\d\\d)\\b`,
  'gi',
)

function datesIn(text: string, now: string | null): AgeingPhrase[] {
  const found: AgeingPhrase[] = []
  if (!/\d/.test(text)) return found
  const today = now ? Date.parse(now) : null
  const taken: Place[] = []
  for (const match of text.matchAll(WRITTEN_DATE)) {
    const [whole, dayA, monthA, monthB, dayB, yearText, isoYear, isoMonth, isoDay] = match
    const month = isoMonth ? Number(isoMonth) - 1 : monthOf(monthA ?? monthB ?? '')
    const date = Number(isoDay ?? dayA ?? dayB)
    // "May 3 people come" and "march 4" in running text are caught by the capital letter.
    if (month < 0 || date < 1 || date > 31 || /^(?:may|march)\b/.test(whole)) continue
    const place = { start: match.index, end: match.index + whole.length }
    const year = Number(isoYear ?? yearText ?? (today === null ? NaN : nearestYear(today, month, date)))
    const bound = EVENT.test(sentenceAround(text, match.index))
    if (Number.isNaN(year) || today === null) {
      if (yearText ?? isoYear) taken.push(place)
      if (yearText ?? isoYear) found.push({ ...place, why: 'a date', span: 'about a year', day: null, bound })
      continue
    }
    taken.push(place)
    const time = Date.UTC(year, month, date)
    const far = (time - today) / DAY
    if (far < -550) continue
    found.push({
      ...place,
      why: far < -1 ? 'a date that has passed' : 'a date',
      span: far < -1 ? 'past' : far < 70 ? 'weeks' : far < 270 ? 'months' : 'about a year',
      day: new Date(time).toISOString().slice(0, 10),
      bound,
    })
  }
  for (const match of text.matchAll(
    /(?<![\d.,€£$-])\b((?:19|20)\d\d)\b(?![\d.,]*\d|-\d| (?:people|kilos|euros?|pounds|metres|words|years))/g,
  )) {
    const place = { start: match.index, end: match.index + 4 }
    if (taken.some((t) => t.start < place.end && t.end > place.start)) continue
    const year = Number(match[1])
    const current = today === null ? null : new Date(today).getUTCFullYear()
    // "In 2025, 118 outings brought …", "since 1954": what happened in a year stays true.
    const happened = SINCE.test(text.slice(0, match.index)) || isTold(sentenceAround(text, match.index))
    if (current !== null && (year < current - 1 || (year <= current && happened))) continue
    found.push({ ...place, why: 'names a year', span: 'about a year', day: null, bound: false })
  }
  return found
}

function monthOf(name: string): number {
  return MONTHS.findIndex((m) => m.startsWith(name.toLowerCase().slice(0, 3)))
}

/** The year in which a day and month lie nearest to now; a text seldom looks far back without saying so. */
function nearestYear(now: number, month: number, date: number): number {
  const year = new Date(now).getUTCFullYear()
  return [year - 1, year, year + 1].reduce((best, y) =>
    Math.abs(Date.UTC(y, month, date) - now) < Math.abs(Date.UTC(best, month, date) - now) ? y : best,
  )
}

function sentenceAround(text: string, at: number): string {
  const before = text.slice(Math.max(0, at - 160), at)
  const after = text.slice(at, at + 160)
  const from = Math.max(before.lastIndexOf('. '), before.lastIndexOf('\n'), before.lastIndexOf('? '))
  const to = /[.?!](?:\s|$)|\n/.exec(after)?.index ?? after.length
  return before.slice(from + 1) + after.slice(0, to)
}

/** Days a piece of each span is good for, from its publication. */
const GOOD_FOR: Record<Span, number | null> = {
  evergreen: null,
  'about a year': 365,
  months: 180,
  weeks: 42,
  past: 0,
}

/** Where in a piece a phrase speaks of the whole: its first characters. */
const OPENING = 400

/** Titles of lists of prices, and of news. */
const PRICE_LIST =
  /\b(?:prices?|price list|rates|fees|tariffs?|costs? (?:list|of courses)|what (?:we|it) charges?)\b/i
/** A title that says of something that it is new, or that somebody is about to change. */
const NEWS =
  /^(?:the |our |a )?new \w+|\b(?:announc\w+|introducing|launch(?:es|ed|ing)?|now available|release notes?|changelog|what(?:’|')s new|press release|we(?:’|')?re (?:moving|closing|hiring)|is (?:closing|moving|here)|newsletter)\b/i
/** What only passes by in a sentence, and is no matter of the piece however often it comes. */
const IN_PASSING =
  /^(?:today|right now|at the moment|these days|nowadays|currently|recently|so far|up to now|(?:this|last|next) (?:year|month|week|weekend|season|spring|summer|autumn|winter|\w+day)|just \w+|latest|newest|yesterday|tomorrow|tonight)\b/i

/** What a piece is about that ends: why, in one sentence, how fast, and the last day where it names one. */
interface Ending {
  because: string
  span: Span
  day: string | null
}

/**
 * How long a piece stays true. It ages as a whole only where its subject does: an event, an offer that
 * ends, a list of prices, news, a year in its title. What speaks of a time in passing touches its own
 * sentence alone; the passages around it are left out of long drips. `until` is the last day of the
 * event, else the span counted from the day of publication; `because` says it in one sentence.
 */
export function howLongItKeeps(
  piece: Pick<PieceContent, 'title' | 'text' | 'blocks' | 'sentences' | 'publishedAt'>,
  now: string,
): Keeps {
  const published = piece.publishedAt ?? now
  const furniture = piece.blocks.filter((b) => b.furniture !== null)
  const phrases = ageingPhrases(piece.text, published).filter(
    (p) => !furniture.some((b) => b.start <= p.start && b.end >= p.end),
  )
  const found = { phrases: phrases.map(({ start, end, why, span }) => ({ start, end, why, span })) }
  const ending = endingOf(piece, phrases, published)
  if (!ending) return { span: 'evergreen', until: null, ...found }
  const until =
    ending.day ??
    new Date(Date.parse(published) + (GOOD_FOR[ending.span] ?? 0) * DAY).toISOString().slice(0, 10)
  const past = until < now.slice(0, 10)
  return { span: past ? 'past' : ending.span, until, because: ending.because, ...found }
}

const fastest = (phrases: readonly AgeingPhrase[]): Span =>
  phrases.reduce<Span>(
    (worst, p) => (SPANS.indexOf(p.span) > SPANS.indexOf(worst) ? p.span : worst),
    'evergreen',
  )

function endingOf(
  piece: Pick<PieceContent, 'title' | 'text' | 'blocks' | 'sentences'>,
  phrases: readonly AgeingPhrase[],
  published: string,
): Ending | null {
  const title = ageingPhrases(piece.title, published)
  const first = piece.blocks.find((b) => b.furniture === null && b.kind !== 'heading')
  const opening = (first?.start ?? 0) + OPENING
  const words = (p: AgeingPhrase): string => piece.text.slice(p.start, p.end)
  const titled = title[0] ? piece.title.slice(title[0].start, title[0].end) : ''
  const bound = phrases.filter((p) => p.bound)
  // An event or offer makes the piece one only where it is the matter: in its title, early on, or several times.
  const early = bound.filter((p) => p.start < opening)
  const dense = bound.length >= 2 && bound.length * 12 >= piece.sentences.length
  const days = [...title, ...bound].flatMap((p) => p.day ?? []).sort()
  if (title.some((p) => p.bound) || early.length > 0 || dense) {
    const named = early[0] ?? bound[0]
    const offer = bound.some((p) => p.why === 'an offer that ends') && days.length === 0
    return {
      because: offer
        ? `It makes an offer that ends (“${named ? words(named) : titled}”).`
        : `It is about something that takes place (“${named ? words(named) : titled}”).`,
      span: fastest([...title, ...bound]),
      day: days[days.length - 1] ?? null,
    }
  }
  const prices = phrases.filter((p) => p.why === 'a price')
  if (prices.length >= 3 && (PRICE_LIST.test(piece.title) || prices.length * 3 >= piece.sentences.length))
    return { because: `It is a list of prices (${prices.length} of them).`, span: 'about a year', day: null }
  if (titled && fastest(title) !== 'evergreen')
    return {
      because: `Its title names a time (“${titled}”).`,
      span: fastest(title),
      day: days[days.length - 1] ?? null,
    }
  if (NEWS.test(piece.title)) return { because: 'It tells news, by its title.', span: 'months', day: null }
  // A year, a version, a day, again and again: the text is about its time.
  const firm = phrases.filter((p) => !IN_PASSING.test(words(p)) && p.why !== 'a price')
  if (firm.length >= 4 && firm.length * 6 >= piece.sentences.length)
    return {
      because: `It speaks of its time throughout (${firm
        .slice(0, 3)
        .map((p) => `“${words(p)}”`)
        .join(', ')}).`,
      span: 'about a year',
      day: null,
    }
  return null
}

/** What a person says of how long a piece keeps: for good, whatever was found; or again what was found. */
export function overruleKeeps(keeps: Keeps, forGood: boolean): Keeps {
  const { overruled, ...found } = keeps
  if (forGood)
    return {
      ...found,
      span: 'evergreen',
      until: null,
      overruled: overruled ?? { span: keeps.span, until: keeps.until },
    }
  return overruled ? { ...found, ...overruled } : keeps
}
