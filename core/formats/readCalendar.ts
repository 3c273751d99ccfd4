import ICAL from 'ical.js'
import { asFault, Fault, type OccasionDay, type QuietDay } from '../model'
import { nextDayOf, type OccasionGiven } from '../occasions'
import { occurrences, readDayRule } from '../planning'

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
 * every year; other recurrences are worked out for two years from `today`, with the days that were taken
 * out, added or moved. What is over, cancelled or has a time of day is left, each with the reason. Refuses
 * (`bad-file`) what is no calendar.
 */
export function readQuietDays(
  text: string,
  today: string,
): { days: NamedQuietDay[]; left: { name: string; why: string }[] } {
  const days: NamedQuietDay[] = []
  const left: { name: string; why: string }[] = []
  for (const event of readEvents(text, today))
    if ('why' in event) left.push(event)
    else if (event.days.length === 0) left.push({ name: event.name, why: OVER })
    else days.push(...event.days.map((day) => ({ day, name: event.name })))
  return { days, left }
}

/** An event with its days to come. */
interface EventDays {
  event: ICAL.Component
  name: string
  days: QuietDay[]
  /** Whether some of its days stand elsewhere than its rule says. */
  moved: boolean
}

const isMoved = (event: ICAL.Component, changed: ReadonlySet<string>): boolean =>
  [...changed].some((c) => c.startsWith(`${wordsIn(event, 'uid')} `))

/** Why an event is left that has no day to come. */
const OVER = `It is over, or has no day in the next ${AHEAD_YEARS} years.`

/** The events of a calendar in its order: with their days to come, or why they have none. */
function readEvents(text: string, today: string): (EventDays | { name: string; why: string })[] {
  const events = eventsOf(text)
  const changed = new Set(
    events.flatMap((e) => (e.hasProperty('recurrence-id') ? [instanceOf(e, dayIn(e, 'recurrence-id'))] : [])),
  )
  return events.map((event) => {
    const name = wordsIn(event, 'summary') || 'An event without a name'
    const found = daysOfEvent(event, changed, today)
    if ('why' in found) return { name, why: found.why }
    const days = found.days.filter((d) => lastOf(d) >= today)
    return { event, name, days, moved: isMoved(event, changed) }
  })
}

/**
 * The all-day events of an iCalendar file (RFC 5545) as occasions: a yearly rule stays one, whatever else comes again is worked
 * out day by day for two years from `today`, and events of one name, such as those of a feast that moves, become one. Of several
 * days the first counts. What is over, cancelled or has a time of day is left, each with the reason. Refuses (`bad-file`)
 * what is no calendar.
 */
export function readOccasionCalendar(
  text: string,
  today: string,
): { occasions: OccasionGiven[]; left: { name: string; why: string }[] } {
  const left: { name: string; why: string }[] = []
  const byName = new Map<string, Set<string>>()
  const rules: OccasionGiven[] = []
  const given = (name: string, on: OccasionDay): OccasionGiven => ({ name, on, theme: [], lines: [] })
  for (const found of readEvents(text, today)) {
    if ('why' in found) {
      left.push(found)
      continue
    }
    const { event, name, days, moved } = found
    const yearly = moved ? null : yearlyRule(event, today)
    if (yearly && nextDayOf(yearly, 'UTC', today) !== null) rules.push(given(name, yearly))
    else if (days.length === 0) left.push({ name, why: OVER })
    else
      for (const day of days) {
        const dates = byName.get(name) ?? new Set()
        byName.set(name, dates.add('date' in day ? day.date : 'from' in day ? day.from : ''))
      }
  }
  const dated = [...byName].map(([name, dates]) => given(name, { dates: [...dates].sort() }))
  return { occasions: [...rules, ...dated], left }
}

/** The rule by which an event comes every year, with its day said in it; null where no one rule says all of its days. */
function yearlyRule(event: ICAL.Component, today: string): OccasionDay | null {
  const [rule, second] = event.getAllProperties('rrule').map((p) => String(p.getFirstValue()))
  const start = dayIn(event, 'dtstart')
  if (
    !rule ||
    second !== undefined ||
    start === null ||
    event.hasProperty('exdate') ||
    event.hasProperty('rdate')
  )
    return null
  const { frequency, interval, count, until, months, monthDays, yearDays, days } = readDayRule(rule)
  if (frequency !== 'YEARLY') return null
  const bare = !months.length && !monthDays.length && !yearDays.length && !days.length
  const whole = bare
    ? `${rule};BYMONTH=${Number(start.slice(5, 7))};BYMONTHDAY=${Number(start.slice(8))}`
    : rule
  // Where the rule says the whole day, nothing hangs on when it began; it is not counted through from long ago.
  const said = bare || yearDays.length > 0 || (months.length > 0 && (monthDays.length > 0 || days.length > 0))
  const free = interval === 1 && count === null && until === null && said
  const year = `${today.slice(0, 4)}-01-01`
  return { rule: whole, from: free && start < year ? year : start }
}

/** An instance of an event that comes again, by the event's id and its own first day. */
const instanceOf = (event: ICAL.Component, day: string | null): string => `${wordsIn(event, 'uid')} ${day}`

function daysOfEvent(
  event: ICAL.Component,
  changed: ReadonlySet<string>,
  today: string,
): { days: QuietDay[] } | { why: string } {
  if (wordsIn(event, 'status').toUpperCase() === 'CANCELLED') return { why: 'It is cancelled.' }
  const time = event.getFirstPropertyValue('dtstart')
  if (!(time instanceof ICAL.Time)) return { why: 'It has no start that can be read.' }
  if (!time.isDate) return { why: 'It has a time of day, so it is not a whole day.' }
  const start = dayIn(event, 'dtstart')
  if (start === null) return { why: 'Its start is no day of the calendar.' }
  const length = lengthOf(event, start)
  const rules = event.getAllProperties('rrule').map((p) => String(p.getFirstValue()))
  if (event.hasProperty('recurrence-id') || (rules.length === 0 && !event.hasProperty('rdate')))
    return { days: [spanOf(start, length)] }
  const without = new Set([...daysIn(event, 'exdate')])
  const kept = (day: string): boolean => !without.has(day) && !changed.has(instanceOf(event, day))
  const yearly =
    length === 1 && rules.length === 1 && kept(start) ? yearlyDay(event, rules[0] ?? '', start) : null
  if (yearly !== null && !isMoved(event, changed)) return { days: [{ yearly }] }
  const end = `${Number(today.slice(0, 4)) + AHEAD_YEARS}${today.slice(4)}`
  const before = dayAfter(today, -length)
  try {
    const named = rules.flatMap((rule) => occurrences(rule, start, before, end))
    // The first day belongs to an event whatever its rule says (RFC 5545, 3.8.5.3).
    const all = new Set([start, ...daysIn(event, 'rdate'), ...named])
    return {
      days: [...all]
        .filter((day) => day > before && kept(day))
        .sort()
        .slice(0, MOST_OCCURRENCES)
        .map((day) => spanOf(day, length)),
    }
  } catch (error) {
    return { why: asFault(error).message }
  }
}

/** The day of every year that a rule names, `03-01`, where it names that one and nothing else; else null. */
function yearlyDay(event: ICAL.Component, rule: string, start: string): string | null {
  if (event.hasProperty('exdate') || event.hasProperty('rdate')) return null
  const { frequency, interval, count, until, months, monthDays, yearDays, days, places } = readDayRule(rule)
  const endless = frequency === 'YEARLY' && interval === 1 && count === null && until === null
  if (!endless || yearDays.length || days.length || places.length) return null
  const month = months[0] ?? Number(start.slice(5, 7))
  const day = monthDays[0] ?? Number(start.slice(8))
  const one = months.length <= 1 && monthDays.length <= 1 && day > 0
  // The days of a month without a month are those of every month.
  if (!one || (monthDays.length && !months.length)) return null
  return `${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`
}

function eventsOf(text: string): ICAL.Component[] {
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
  return calendars.flatMap((root) => new ICAL.Component(root as never).getAllSubcomponents('vevent'))
}

const wordsIn = (event: ICAL.Component, name: string): string =>
  String(event.getFirstPropertyValue(name) ?? '')

/** The days that a property names, each that is a day of the calendar; times count by their day. */
function daysIn(event: ICAL.Component, name: string): string[] {
  // As the file writes them: the reader would roll a day that does not exist over into the next month.
  return event
    .getAllProperties(name)
    .flatMap((p) => (p.toJSON() as unknown[]).slice(3))
    .flatMap((value) => {
      const date = String(value).slice(0, 10)
      const at = new Date(`${date}T00:00:00Z`)
      return Number.isNaN(at.getTime()) || at.toISOString().slice(0, 10) !== date ? [] : [date]
    })
}

const dayIn = (event: ICAL.Component, name: string): string | null => daysIn(event, name)[0] ?? null

/** How many days an all-day event lasts; its end is exclusive (RFC 5545, 3.6.1). */
function lengthOf(event: ICAL.Component, start: string): number {
  const end = dayIn(event, 'dtend')
  const duration = event.getFirstPropertyValue('duration')
  const days =
    end !== null
      ? (Date.parse(end) - Date.parse(start)) / 86_400_000
      : duration instanceof ICAL.Duration
        ? duration.toSeconds() / 86_400
        : 1
  return Math.max(1, Math.round(days))
}

const dayAfter = (day: string, days: number): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10)

function spanOf(from: string, length: number): QuietDay {
  if (length === 1) return { date: from }
  return { from, to: dayAfter(from, length - 1) }
}

function lastOf(day: QuietDay): string {
  return 'date' in day ? day.date : 'to' in day ? day.to : '9999-12-31'
}
