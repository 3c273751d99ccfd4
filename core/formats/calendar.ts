import ICAL from 'ical.js'
import { Fault, type CalendarEntry, type QuietDay } from '../model'

/** A day that a calendar names, as a quiet day. */
export interface NamedQuietDay {
  day: QuietDay
  name: string
}

/** How far ahead days that come again are worked out one by one where no yearly rule says them. */
const AHEAD_YEARS = 2
const MOST_OCCURRENCES = 400

/**
 * The all-day events of an iCalendar file (RFC 5545) as quiet days: one day, a range, or a day of
 * every year; other recurrences are worked out for two years from `today`. What is over, and what
 * has a time of day, is left, each with the reason. Refuses (`bad-file`) what is no calendar.
 */
export function readQuietDays(
  text: string,
  today: string,
): { days: NamedQuietDay[]; left: { name: string; why: string }[] } {
  const days: NamedQuietDay[] = []
  const left: { name: string; why: string }[] = []
  for (const event of eventsOf(text)) {
    const name = event.summary || 'An event without a name'
    const start = event.startDate
    if (!start?.isDate) {
      left.push({ name, why: start ? 'It has a time of day, so it is not a whole day.' : 'It has no start.' })
      continue
    }
    const length = lengthOf(event)
    const found = event.isRecurring() ? recurring(event, length, today) : [spanOf(dateOf(start), length)]
    const ahead = found.filter((d) => lastOf(d) >= today)
    if (ahead.length === 0) left.push({ name, why: 'It is over.' })
    days.push(...ahead.map((day) => ({ day, name })))
  }
  return { days, left }
}

function eventsOf(text: string): ICAL.Event[] {
  let parsed: unknown
  try {
    parsed = ICAL.parse(text.replace(/^\uFEFF/, '').trim())
  } catch (error) {
    throw new Fault(
      'bad-file',
      `This is not an iCalendar file (${error instanceof Error ? error.message : 'it cannot be read'}). Export the calendar as .ics and try again.`,
    )
  }
  const roots = (Array.isArray((parsed as unknown[])[0]) ? parsed : [parsed]) as unknown[][]
  const calendars = roots.filter((r) => r[0] === 'vcalendar')
  if (calendars.length === 0)
    throw new Fault(
      'bad-file',
      'There is no calendar in this file. Export the calendar as .ics and try again.',
    )
  return calendars.flatMap((root) =>
    new ICAL.Component(root as never)
      .getAllSubcomponents('vevent')
      // Exceptions of a recurring event belong to it and are no events of their own.
      .filter((c) => !c.hasProperty('recurrence-id'))
      .map((c) => new ICAL.Event(c)),
  )
}

/** How many days an all-day event lasts; its end is exclusive (RFC 5545, 3.6.1). */
function lengthOf(event: ICAL.Event): number {
  const days = Math.round(event.duration.toSeconds() / 86_400)
  return Math.max(1, days)
}

function recurring(event: ICAL.Event, length: number, today: string): QuietDay[] {
  const rule = event.component.getFirstPropertyValue('rrule') as ICAL.Recur | null
  const start = event.startDate
  const plain =
    rule !== null &&
    rule.freq === 'YEARLY' &&
    rule.interval === 1 &&
    !rule.until &&
    !rule.count &&
    Object.keys(rule.parts).every((part) => part === 'BYMONTH' || part === 'BYMONTHDAY') &&
    !event.component.hasProperty('exdate')
  if (plain && length === 1) return [{ yearly: dateOf(start).slice(5) }]
  const end = `${Number(today.slice(0, 4)) + AHEAD_YEARS}${today.slice(4)}`
  const found: QuietDay[] = []
  const iterator = event.iterator()
  for (let i = 0; i < MOST_OCCURRENCES * 10 && found.length < MOST_OCCURRENCES; i++) {
    const next = iterator.next() as ICAL.Time | null
    if (!next || dateOf(next) > end) break
    const span = spanOf(dateOf(next), length)
    if (lastOf(span) >= today) found.push(span)
  }
  return found
}

function spanOf(from: string, length: number): QuietDay {
  if (length === 1) return { date: from }
  const to = new Date(Date.parse(`${from}T00:00:00Z`) + (length - 1) * 86_400_000).toISOString().slice(0, 10)
  return { from, to }
}

function lastOf(day: QuietDay): string {
  return 'date' in day ? day.date : 'to' in day ? day.to : '9999-12-31'
}

function dateOf(time: ICAL.Time): string {
  return `${String(time.year).padStart(4, '0')}-${String(time.month).padStart(2, '0')}-${String(time.day).padStart(2, '0')}`
}

/** How long an entry is shown, in minutes; a post itself takes no time. */
const SHOWN_MINUTES = 15

/**
 * Posts as an iCalendar file (RFC 5545), one event a post, in UTC; `now` is the stamp. An entry
 * keeps its id from one writing to the next, so that calendar programs move it rather than double it.
 */
export function writeCalendar(name: string, entries: readonly CalendarEntry[], now: string): string {
  const calendar = new ICAL.Component('vcalendar')
  calendar.updatePropertyWithValue('version', '2.0')
  calendar.updatePropertyWithValue('prodid', '-//Dripline//Horizon//EN')
  // A property outside the standard has no type by which it would be escaped.
  const title = plain(name)
    .replace(/\s+/g, ' ')
    .replace(/[\\;,]/g, '\\$&')
  calendar.updatePropertyWithValue('x-wr-calname', title)
  calendar.updatePropertyWithValue('refresh-interval', 'PT1H')
  calendar.getFirstProperty('refresh-interval')?.setParameter('value', 'duration')
  for (const entry of [...entries].sort((a, b) =>
    a.at < b.at ? -1 : a.at > b.at ? 1 : a.id < b.id ? -1 : 1,
  )) {
    const component = new ICAL.Component('vevent')
    component.updatePropertyWithValue('uid', `${entry.id}@dripline`)
    component.updatePropertyWithValue('dtstamp', utc(now))
    component.updatePropertyWithValue('dtstart', utc(entry.at))
    component.updatePropertyWithValue('duration', `PT${SHOWN_MINUTES}M`)
    component.updatePropertyWithValue('summary', plain(entry.title))
    component.updatePropertyWithValue('description', plain(entry.text))
    if (entry.url) component.updatePropertyWithValue('url', entry.url)
    component.updatePropertyWithValue('status', entry.certain ? 'CONFIRMED' : 'TENTATIVE')
    component.updatePropertyWithValue('transp', 'TRANSPARENT')
    calendar.addSubcomponent(component)
  }
  return `${calendar.toString()}\r\n`
}

/** A text without the signs of control that no line may hold (RFC 5545, section 3.1); its lines end one way. */
function plain(text: string): string {
  return text.replace(/\r\n?/g, '\n').replace(/(?![\n\t])\p{Cc}/gu, '')
}

function utc(at: string): ICAL.Time {
  return ICAL.Time.fromJSDate(new Date(at), true)
}
