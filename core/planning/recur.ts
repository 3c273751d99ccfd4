import ICAL from 'ical.js'
import { Fault } from '../model'
import { MONTHS, WEEKDAYS } from './names'

/** Parts of a rule that would name times of day; a recurring post has one of its own. */
const WITHIN_DAYS = ['BYHOUR', 'BYMINUTE', 'BYSECOND']
const DAILY_OR_MORE = ['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY']
/** A rule that names no day in so many tries names none at all. */
const TRIES = 20_000

/**
 * The days that a recurrence rule (RFC 5545, section 3.3.10) names, counted from `start`, after one
 * day and up to another, both local dates. COUNT counts from the start. Refuses (`bad-request`) what
 * is no rule of days.
 *
 * @example occurrences('FREQ=WEEKLY;BYDAY=MO', '2026-11-23', null, '2026-12-07')
 *   // ['2026-11-23', '2026-11-30', '2026-12-07']
 */
export function occurrences(rule: string, start: string, after: string | null, to: string): string[] {
  const days: string[] = []
  const iterator = readRule(rule).iterator(ICAL.Time.fromDateString(start))
  for (let i = 0; i < TRIES; i++) {
    const next = iterator.next() as ICAL.Time | null
    if (!next) break
    const day = next.toString().slice(0, 10)
    if (day > to) break
    if (day >= start && (after === null || day > after)) days.push(day)
  }
  return days
}

/** A rule that can be followed, or a fault with what is wrong with it. */
function readRule(rule: string): ICAL.Recur {
  const wrong = (why: string): Fault =>
    new Fault(
      'bad-request',
      `“${rule}” cannot be followed: ${why} A rule looks like FREQ=WEEKLY;BYDAY=MO,TH.`,
    )
  let read: ICAL.Recur
  try {
    read = ICAL.Recur.fromString(rule.trim().replace(/^RRULE:/i, ''))
  } catch (error) {
    const said = error instanceof Error ? error.message.replace(/\.$/, '') : 'it is no rule'
    throw wrong(`${said}.`)
  }
  if (!DAILY_OR_MORE.includes(read.freq)) throw wrong('it names times within a day, or no frequency.')
  if (Object.keys(read.parts).some((part) => WITHIN_DAYS.includes(part)))
    throw wrong('it names times of day; set the time beside it.')
  // The library reads these as every such weekday of the year (held against the RFC's own examples).
  const numbered = (read.parts['BYDAY'] as string[] | undefined)?.some((day) => /\d/.test(day))
  const throughYear = read.freq === 'YEARLY' && numbered && !read.parts['BYMONTH']
  if (read.parts['BYWEEKNO'] || throughYear)
    throw wrong(
      'weeks that are counted through the year are not followed; name a month or a day of the year.',
    )
  return read
}

/** The days of a week as rules write them, Monday first. */
const CODES = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']
const UNITS: Readonly<Record<string, string>> = {
  DAILY: 'day',
  WEEKLY: 'week',
  MONTHLY: 'month',
  YEARLY: 'year',
}

/** A rule in words: "every second week on Monday and Thursday, ten times"; parts that have no words are quoted. */
export function ruleWords(rule: string): string {
  const read = readRule(rule)
  const unit = UNITS[read.freq] ?? 'day'
  const every = read.interval === 1 ? `every ${unit}` : `every ${read.interval} ${unit}s`
  const on = Object.entries(read.parts).map(([part, values]) => {
    const list = (values as (string | number)[]).map(String)
    if (part === 'BYDAY') return `on ${listed(list.map(weekdayWords))}`
    if (part === 'BYMONTHDAY')
      return `on ${listed(list.map((d) => (Number(d) < 0 ? `${placeWords(Number(d))} day` : placeWords(Number(d)))))} of the month`
    if (part === 'BYMONTH') return `in ${listed(list.map((m) => MONTHS[Number(m) - 1] ?? m))}`
    if (part === 'BYYEARDAY') return `on day ${listed(list)} of the year`
    if (part === 'BYSETPOS') return `of these ${listed(list.map((p) => placeWords(Number(p))))}`
    return `${part} ${list.join(', ')}`
  })
  const end = read.count
    ? `, ${read.count} ${read.count === 1 ? 'time' : 'times'}`
    : read.until
      ? `, until ${read.until.toString().slice(0, 10)}`
      : ''
  return `${[every, ...on].join(' ')}${end}`
}

function weekdayWords(day: string): string {
  const [, place = '', code = ''] = /^([+-]?\d+)?([A-Z]{2})$/.exec(day) ?? []
  const name = WEEKDAYS[CODES.indexOf(code)] ?? day
  if (!place) return name
  return `${placeWords(Number(place))} ${name}`
}

/** "the 3rd", or counted from the end "the last", "the 2nd last". */
function placeWords(place: number): string {
  if (place >= 0) return `the ${ordinal(place)}`
  return place === -1 ? 'the last' : `the ${ordinal(-place)} last`
}

function ordinal(n: number): string {
  const tail = n % 100 >= 11 && n % 100 <= 13 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th')
  return `${n}${tail}`
}

function listed(words: readonly string[]): string {
  return words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1) ?? ''}`
}

/** A recurrence as a form asks for it. */
export interface Recurring {
  unit: 'DAILY' | 'WEEKLY' | 'MONTHLY' | 'YEARLY'
  /** Every how many of them. */
  interval: number
  /** Weekdays of a weekly one, Monday is 1; none takes that of the first day. */
  weekdays: readonly number[]
  /** Whether a monthly one keeps the day of the month, or the place of its weekday in the month. */
  monthly: 'day' | 'weekday'
  /** How often in all, or up to which day; null without end. */
  end: { count: number } | { until: string } | null
}

/** The rule of RFC 5545 that a form's recurrence comes to, counted from a first day. */
export function ruleOf(recurring: Recurring, from: string): string {
  const weekday = CODES[(new Date(`${from}T00:00:00Z`).getUTCDay() + 6) % 7] ?? 'MO'
  const dayOfMonth = Number(from.slice(8))
  const parts = [`FREQ=${recurring.unit}`]
  if (recurring.interval > 1) parts.push(`INTERVAL=${recurring.interval}`)
  if (recurring.unit === 'WEEKLY')
    parts.push(
      `BYDAY=${
        [...recurring.weekdays]
          .sort((a, b) => a - b)
          .map((d) => CODES[d - 1])
          .join(',') || weekday
      }`,
    )
  if (recurring.unit === 'MONTHLY')
    parts.push(
      recurring.monthly === 'weekday'
        ? `BYDAY=${dayOfMonth > 28 ? -1 : Math.ceil(dayOfMonth / 7)}${weekday}`
        : `BYMONTHDAY=${dayOfMonth}`,
    )
  if (recurring.end)
    parts.push(
      'count' in recurring.end
        ? `COUNT=${recurring.end.count}`
        : `UNTIL=${recurring.end.until.replaceAll('-', '')}`,
    )
  return parts.join(';')
}

/** What a form would have asked for, had it made this rule; null where no form makes it. */
export function recurringOf(rule: string, from: string): Recurring | null {
  const parts = new Map(rule.split(';').map((part) => part.split('=', 2) as [string, string]))
  const by = (parts.get('BYDAY') ?? '').split(',')
  const until = parts.get('UNTIL')
  const times = parts.get('COUNT')
  const recurring: Recurring = {
    unit: parts.get('FREQ') as Recurring['unit'],
    interval: Number(parts.get('INTERVAL') ?? 1),
    weekdays: CODES.flatMap((code, i) => (by.includes(code) ? [i + 1] : [])),
    monthly: parts.has('BYDAY') ? 'weekday' : 'day',
    end: times
      ? { count: Number(times) }
      : until
        ? { until: until.replace(/^(\d{4})(\d\d)(\d\d)$/, '$1-$2-$3') }
        : null,
  }
  return ruleOf(recurring, from) === rule ? recurring : null
}
