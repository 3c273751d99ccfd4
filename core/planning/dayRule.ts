import { Fault } from '../model'

/*
 * Recurrence rules of RFC 5545 (section 3.3.10) that name days. Each period of the frequency (a day, a
 * week, a month, a year) is laid out as a set of days, to which every part of the rule is put as a test, as
 * the standard's table of expanding and limiting has it; BYSETPOS then counts through what is left. Nothing
 * else decides, so that no combination of parts has a way of its own, and every evaluation ends.
 */

export const FREQUENCIES = ['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY'] as const
type Frequency = (typeof FREQUENCIES)[number]

/** The days of a week as rules write them, Monday first. */
export const CODES = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const

/** A weekday of a rule, Monday is 0; `place` says which of the period, from its end where negative, 0 for every one. */
export interface RuleDay {
  weekday: number
  place: number
}

/** A rule that can be followed. */
export interface DayRule {
  frequency: Frequency
  interval: number
  count: number | null
  /** The last day, `2026-12-31`. */
  until: string | null
  weekStart: number
  months: readonly number[]
  monthDays: readonly number[]
  yearDays: readonly number[]
  days: readonly RuleDay[]
  places: readonly number[]
}

const DAY = 86_400_000
const dayNumber = (date: string): number => Math.floor(Date.parse(`${date}T00:00:00Z`) / DAY)
const dateOf = (day: number): string => new Date(day * DAY).toISOString().slice(0, 10)
/** Monday is 0; the first day of 1970 was a Thursday. */
const weekdayOf = (day: number): number => (((day + 3) % 7) + 7) % 7
const firstOf = (year: number, month: number): number => Date.UTC(year, month - 1, 1) / DAY

/** The last day that is ever looked at: dates of four digits. */
const LAST_DAY = dayNumber('9999-12-31')

/**
 * In so many periods a rule must name a day, or it is taken to name none. A leap day on one weekday comes every
 * 28 years, every 40 about a century that has none.
 */
const LOOKED: Readonly<Record<Frequency, number>> = {
  DAILY: 15_000,
  WEEKLY: 2_000,
  MONTHLY: 2_000,
  YEARLY: 200,
}

function fault(rule: string, why: string): Fault {
  return new Fault(
    'bad-request',
    `“${rule}” cannot be followed: ${why} A rule looks like FREQ=WEEKLY;BYDAY=MO,TH.`,
  )
}

const WITHIN_DAYS = new Set(['BYHOUR', 'BYMINUTE', 'BYSECOND'])
const PARTS = new Set(
  'FREQ INTERVAL COUNT UNTIL WKST BYMONTH BYMONTHDAY BYYEARDAY BYDAY BYSETPOS BYWEEKNO'.split(' '),
)

/** A rule's parts by their names; the rule is refused where a part is unknown, twice there, or empty. */
function partsOf(rule: string): Map<string, string> {
  const parts = new Map<string, string>()
  for (const part of rule
    .trim()
    .replace(/^RRULE:/i, '')
    .toUpperCase()
    .replace(/;$/, '')
    .split(';')) {
    const [name = '', value = ''] = part.split('=', 2)
    if (WITHIN_DAYS.has(name)) throw fault(rule, 'it names times of day; set the time beside it.')
    if (!PARTS.has(name)) throw fault(rule, `“${part}” is no part of a rule.`)
    if (parts.has(name)) throw fault(rule, `${name} stands in it twice.`)
    if (!value || part.split('=').length > 2) throw fault(rule, `${name} says nothing that can be read.`)
    parts.set(name, value)
  }
  return parts
}

/** Reads a rule; refuses (`bad-request`) with a sentence what is no rule of days, or cannot be followed. */
export function readDayRule(rule: string): DayRule {
  const parts = partsOf(rule)
  const frequency = FREQUENCIES.find((f) => f === parts.get('FREQ'))
  if (!frequency) throw fault(rule, 'it names times within a day, or no frequency.')
  if (parts.has('BYWEEKNO'))
    throw fault(rule, 'weeks counted through the year are not followed; name a month or a day of the year.')
  const whole = (name: string, value: string, most: number, below: boolean): number => {
    const number = /^[+-]?\d{1,5}$/.test(value) ? Number(value) : Number.NaN
    const size = below ? Math.abs(number) : number
    if (!(size >= 1 && size <= most))
      throw fault(
        rule,
        `${name} takes whole numbers from 1 to ${most}${below ? ', or counted from the end with a minus' : ''}, not “${value}”.`,
      )
    return number
  }
  const list = (name: string, most: number, below = true): number[] => [
    ...new Set((parts.get(name)?.split(',') ?? []).map((v) => whole(name, v, most, below))),
  ]
  const one = (name: string, most: number): number | null => {
    const value = parts.get(name)
    return value === undefined ? null : whole(name, value, most, false)
  }
  const read: DayRule = {
    frequency,
    interval: one('INTERVAL', 1000) ?? 1,
    count: one('COUNT', 10_000),
    until: untilOf(rule, parts.get('UNTIL')),
    weekStart: weekStartOf(rule, parts.get('WKST')),
    months: list('BYMONTH', 12, false),
    monthDays: list('BYMONTHDAY', 31),
    yearDays: list('BYYEARDAY', 366),
    days: (parts.get('BYDAY')?.split(',') ?? []).map((value) => ruleDay(rule, value)),
    places: list('BYSETPOS', 366),
  }
  const refused = contradiction(read)
  if (refused) throw fault(rule, refused)
  return read
}

/** What the standard forbids a rule to say at once, or null. */
function contradiction(rule: DayRule): string | null {
  const { frequency, count, until, monthDays, yearDays, days, months, places } = rule
  if (count !== null && until !== null) return 'it ends twice, by COUNT and by UNTIL; keep one of them.'
  if (frequency === 'WEEKLY' && monthDays.length)
    return 'a week has no days of the month; use FREQ=MONTHLY with BYMONTHDAY.'
  if (frequency !== 'YEARLY' && yearDays.length) return 'BYYEARDAY goes with FREQ=YEARLY only.'
  if (days.some((d) => d.place !== 0)) {
    if (frequency === 'DAILY' || frequency === 'WEEKLY')
      return 'which weekday of a month, such as 1MO, goes with FREQ=MONTHLY or FREQ=YEARLY only.'
    const most = frequency === 'MONTHLY' || months.length ? 5 : 53
    if (days.some((d) => Math.abs(d.place) > most)) return `there are at most ${most} of a weekday in it.`
  }
  if (places.length && !(monthDays.length || yearDays.length || days.length || months.length))
    return 'BYSETPOS counts through what another part names; add BYDAY or BYMONTHDAY.'
  return null
}

function untilOf(rule: string, value: string | undefined): string | null {
  if (value === undefined) return null
  const [, y, m, d] = /^(\d{4})(\d\d)(\d\d)(?:T\d{6}Z?)?$/.exec(value) ?? []
  const date = `${y}-${m}-${d}`
  if (!y || Number.isNaN(Date.parse(`${date}T00:00:00Z`)) || dateOf(dayNumber(date)) !== date)
    throw fault(rule, `UNTIL takes a day such as 20261231, not “${value}”.`)
  return date
}

function weekStartOf(rule: string, value: string | undefined): number {
  const at = value === undefined ? 0 : CODES.indexOf(value as (typeof CODES)[number])
  if (at < 0) throw fault(rule, `WKST takes a weekday such as MO, not “${value}”.`)
  return at
}

function ruleDay(rule: string, value: string): RuleDay {
  const [, place, code] = /^([+-]?\d{1,2})?([A-Z]{2})$/.exec(value) ?? []
  const weekday = CODES.indexOf(code as (typeof CODES)[number])
  if (weekday < 0 || (place !== undefined && Number(place) === 0))
    throw fault(rule, `BYDAY takes weekdays such as MO or -1FR, not “${value}”.`)
  return { weekday, place: Number(place ?? 0) }
}

/** A day with what the tests look at; places are counted from 1, from the end with a minus. */
interface Day {
  day: number
  month: number
  ofMonth: number
  monthLength: number
  ofYear: number
  yearLength: number
  weekday: number
}

function dayAt(day: number): Day {
  const at = new Date(day * DAY)
  const year = at.getUTCFullYear()
  const month = at.getUTCMonth() + 1
  const monthStart = firstOf(year, month)
  const yearStart = firstOf(year, 1)
  return {
    day,
    month,
    ofMonth: day - monthStart + 1,
    monthLength: firstOf(year, month + 1) - monthStart,
    ofYear: day - yearStart + 1,
    yearLength: firstOf(year + 1, 1) - yearStart,
    weekday: weekdayOf(day),
  }
}

const among = (places: readonly number[], at: number, length: number): boolean =>
  places.includes(at) || places.includes(at - length - 1)

/** Whether a weekday's place in a stretch of days is the one that is asked for. */
const hasPlace = (place: number, at: number, length: number): boolean =>
  place === 0 || place === Math.ceil(at / 7) || place === -Math.ceil((length - at + 1) / 7)

/** Whether a rule names a day, by all of its parts but BYSETPOS. What no part says is taken from the first day. */
function names(rule: DayRule, first: Day): (d: Day) => boolean {
  const { frequency, months, monthDays, yearDays, days } = rule
  const bare = !monthDays.length && !yearDays.length && !days.length
  const ofMonth = frequency === 'MONTHLY' || months.length > 0
  return (d) => {
    if (months.length && !months.includes(d.month)) return false
    if (monthDays.length && !among(monthDays, d.ofMonth, d.monthLength)) return false
    if (yearDays.length && !among(yearDays, d.ofYear, d.yearLength)) return false
    if (days.length) {
      const [at, length] = ofMonth ? [d.ofMonth, d.monthLength] : [d.ofYear, d.yearLength]
      if (!days.some((r) => r.weekday === d.weekday && hasPlace(r.place, at, length))) return false
    }
    if (!bare || frequency === 'DAILY') return true
    if (frequency === 'WEEKLY') return d.weekday === first.weekday
    if (d.ofMonth !== first.ofMonth) return false
    return frequency === 'MONTHLY' || months.length > 0 || d.month === first.month
  }
}

/** The first day of a period and one past its last, counted from the period that holds the first day. */
function periodAt({ frequency, interval, weekStart }: DayRule, first: Day, index: number): [number, number] {
  const step = index * interval
  if (frequency === 'DAILY') return [first.day + step, first.day + step + 1]
  if (frequency === 'WEEKLY') {
    const start = first.day - ((first.weekday - weekStart + 7) % 7) + step * 7
    return [start, start + 7]
  }
  const at = new Date(first.day * DAY)
  const [year, month] = [at.getUTCFullYear(), at.getUTCMonth() + 1]
  if (frequency === 'MONTHLY') return [firstOf(year, month + step), firstOf(year, month + step + 1)]
  return [firstOf(year + step, 1), firstOf(year + step + 1, 1)]
}

/**
 * The days that a rule names, in order, from `start` on (a local date, from which it counts) up to `to`.
 * Throws (`bad-request`) where it names no day at all.
 */
export function* daysOf(written: string, start: string, to: string): Generator<string> {
  const rule = readDayRule(written)
  const first = dayAt(dayNumber(start))
  const named = names(rule, first)
  const end = Math.min(LAST_DAY, rule.until === null ? LAST_DAY : dayNumber(rule.until))
  const last = Math.min(end, dayNumber(to))
  let count = 0
  for (let index = 0; ; index++) {
    const [from, past] = periodAt(rule, first, index)
    if (from > end || (count > 0 && from > last)) break
    if (count === 0 && index >= LOOKED[rule.frequency]) break
    for (const day of setOf(rule, named, from, past)) {
      if (day < first.day || day > end) continue
      count++
      if (day <= last) yield dateOf(day)
      if (count === rule.count) return
    }
  }
  if (count === 0) throw fault(written, `it names no day from ${start} on.`)
}

/** The days of a period that a rule names, in order; BYSETPOS counts through them. */
function setOf({ places }: DayRule, named: (d: Day) => boolean, from: number, past: number): number[] {
  const set: number[] = []
  for (let day = from; day < past; day++) if (named(dayAt(day))) set.push(day)
  return places.length ? set.filter((_, i) => among(places, i + 1, set.length)) : set
}
