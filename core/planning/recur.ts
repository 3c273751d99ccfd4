import { inWords } from '../text'
import { CODES, daysOf, readDayRule, type RuleDay } from './dayRule'
import { MONTHS, WEEKDAYS } from './names'

/**
 * The days that a recurrence rule (RFC 5545, section 3.3.10) names, counted from `start`, after one
 * day and up to another, both local dates. COUNT counts from the start. Refuses (`bad-request`) what
 * is no rule of days, and what names none.
 *
 * @example occurrences('FREQ=WEEKLY;BYDAY=MO', '2026-11-23', null, '2026-12-07')
 *   // ['2026-11-23', '2026-11-30', '2026-12-07']
 */
export function occurrences(rule: string, start: string, after: string | null, to: string): string[] {
  return [...daysOf(rule, start, to)].filter((day) => after === null || day > after)
}

const UNITS: Readonly<Record<string, string>> = {
  DAILY: 'day',
  WEEKLY: 'week',
  MONTHLY: 'month',
  YEARLY: 'year',
}

/** A rule in words: "every second week on Monday and Thursday, ten times". Refuses what is no rule of days. */
export function ruleWords(rule: string): string {
  const { frequency, interval, count, until, days, monthDays, months, yearDays, places } = readDayRule(rule)
  const unit = UNITS[frequency] ?? 'day'
  const said = [interval === 1 ? `every ${unit}` : `every ${interval} ${unit}s`]
  if (days.length) said.push(`on ${inWords(days.map(weekdayWords))}`)
  if (months.length) said.push(`in ${inWords(months.map((m) => MONTHS[m - 1] ?? ''))}`)
  if (monthDays.length)
    said.push(
      `on ${inWords(monthDays.map((d) => (d < 0 ? `${placeWords(d)} day` : placeWords(d))))} of the month`,
    )
  if (yearDays.length)
    said.push(`on ${inWords(yearDays.map((d) => (d < 0 ? `${placeWords(d)} day` : `day ${d}`)))} of the year`)
  if (places.length) said.push(`of these ${inWords(places.map(placeWords))}`)
  const end =
    count !== null ? `, ${count} ${count === 1 ? 'time' : 'times'}` : until !== null ? `, until ${until}` : ''
  return `${said.join(' ')}${end}`
}

function weekdayWords({ weekday, place }: RuleDay): string {
  const name = WEEKDAYS[weekday] ?? ''
  return place === 0 ? name : `${placeWords(place)} ${name}`
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
