import { Fault, type OccasionDay } from '../model'
import { CODES, MONTHS, occurrences, readDate, readDayRule, ruleWords, WEEKDAYS } from '../planning'
import { sunTurnNamed } from './sun'

/** Which weekday of a month, in words; the last is counted from its end. */
const PLACES: readonly (readonly [string, number])[] = [
  ['first', 1],
  ['second', 2],
  ['third', 3],
  ['fourth', 4],
  ['last', -1],
]

const NAMED_MONTH = `(${MONTHS.map((m) => `${m}|${m.slice(0, 3)}`).join('|')})`
const NAMED_DAY = `(${WEEKDAYS.map((d) => `${d}|${d.slice(0, 3)}`).join('|')})`
const IN_PLACE = new RegExp(
  `^(first|1st|second|2nd|third|3rd|fourth|4th|last) ${NAMED_DAY} (?:of|in) ${NAMED_MONTH}$`,
  'i',
)
const DAY_THEN_MONTH = new RegExp(`^(\\d{1,2})(?:st|nd|rd|th)?\\.? (?:of )?${NAMED_MONTH}$`, 'i')
const MONTH_THEN_DAY = new RegExp(`^${NAMED_MONTH}\\.? (\\d{1,2})(?:st|nd|rd|th)?$`, 'i')
const LAST_OF_MONTH = new RegExp(`^last day of ${NAMED_MONTH}$`, 'i')
const LENGTHS = [31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31]

/**
 * The days that words mean: "21 December", "12-21", "first Monday of April", "last day of February", "day 100 of the year",
 * "June solstice", "clocks forward", dates one by one, or a rule of RFC 5545, with "from" and a date where it counts from one.
 * Refuses (`bad-request`) with a sentence what is none of these.
 * @param today the local date, from whose year rules count that need no first day of their own
 * @param monthFirst whether dates with strokes, such as 4/12/2027, begin with the month
 */
export function readOccasionDay(written: string, today: string, monthFirst = false): OccasionDay {
  const text = written
    .trim()
    .replace(/\s+/g, ' ')
    .replace(/^(?:every year[, ]*)?(?:on )?(?:the )?/i, '')
  const from = `${today.slice(0, 4)}-01-01`
  const yearly = (parts: string): OccasionDay => ({ rule: `FREQ=YEARLY;${parts}`, from })
  if (text === '') throw unread(written)
  if (/FREQ=/i.test(text)) return ruleIn(text, from)
  const sun = sunTurnNamed(text)
  if (sun) return { sun }
  const clocks = /^(?:day )?(?:when )?(?:the )?clocks? ?(?:go|change)? (forward|back)s?$/i.exec(text)
  if (clocks) return { clocks: clocks[1]?.toLowerCase() === 'back' ? 'back' : 'forward' }
  const placed = IN_PLACE.exec(text)
  if (placed)
    return yearly(`BYMONTH=${monthOf(placed[3])};BYDAY=${placeOf(placed[1])}${weekdayOf(placed[2])}`)
  const last = LAST_OF_MONTH.exec(text)
  if (last) return yearly(`BYMONTH=${monthOf(last[1])};BYMONTHDAY=-1`)
  const counted = /^day (\d{1,3}) of the year$/i.exec(text)
  if (counted && Number(counted[1]) >= 1 && Number(counted[1]) <= 366)
    return yearly(`BYYEARDAY=${Number(counted[1])}`)
  const fixed = fixedDay(text)
  if (fixed) return yearly(`BYMONTH=${fixed.month};BYMONTHDAY=${fixed.day}`)
  const dates = datesIn(text, monthFirst)
  if (dates) return { dates }
  throw unread(written)
}

function unread(written: string): Fault {
  return new Fault(
    'bad-request',
    `“${written.trim().slice(0, 60)}” is no day that can be read. Write it like 21 December, first Monday of April, day 100 of the year, June solstice, clocks forward, or a date such as 2027-04-05.`,
  )
}

/** A rule with the date that it counts from, where one is said. */
function ruleIn(text: string, usual: string): OccasionDay {
  const [rule = '', start] = text.split(/ from /i)
  const from = start === undefined ? usual : readDate(start.trim(), false)
  if (from === null)
    throw new Fault(
      'bad-request',
      `“${start}” is not a date from which a rule counts. Write it like 2027-01-01.`,
    )
  // A rule that can be read may still name no day, such as the 30th of February.
  occurrences(rule, from, null, from)
  return { rule: rule.trim().toUpperCase(), from }
}

/** A day of a month that is the same each year. */
function fixedDay(text: string): { month: number; day: number } | null {
  const [, day, month] = DAY_THEN_MONTH.exec(text) ?? []
  const [, first, second] = MONTH_THEN_DAY.exec(text) ?? []
  const numbers = /^-{0,2}(\d{1,2})-(\d{1,2})$/.exec(text)
  const found = day
    ? { month: monthOf(month), day: Number(day) }
    : second
      ? { month: monthOf(first), day: Number(second) }
      : numbers
        ? { month: Number(numbers[1]), day: Number(numbers[2]) }
        : null
  return found && found.day >= 1 && found.day <= (LENGTHS[found.month - 1] ?? 0) ? found : null
}

/** Dates one by one; null where some part of the text is none. */
function datesIn(text: string, monthFirst: boolean): string[] | null {
  const dates = text.split(/[\s,;]+/).map((t) => readDate(t, monthFirst))
  if (dates.every((d) => d !== null)) return [...new Set(dates)].sort()
  const whole = readDate(text, monthFirst)
  return whole === null ? null : [whole]
}

function monthOf(name: string | undefined): number {
  const start = (name ?? '').slice(0, 3).toLowerCase()
  return MONTHS.findIndex((m) => m.toLowerCase().startsWith(start)) + 1
}

function weekdayOf(name: string | undefined): string {
  return CODES.find((code) => name?.toUpperCase().startsWith(code)) ?? 'MO'
}

function placeOf(word: string | undefined): number {
  const said = (word ?? '').toLowerCase()
  return PLACES.find(([name, place]) => name === said || said.startsWith(String(place)))?.[1] ?? 1
}

/** The days of an occasion in words for people. */
export function occasionWords(on: OccasionDay): string {
  if ('sun' in on) return on.sun
  if ('clocks' in on) return `clocks ${on.clocks}`
  if ('dates' in on) return on.dates.join(', ')
  return plainWords(on.rule) ?? ruleWords(on.rule)
}

/** The same in words that `readOccasionDay` reads again. */
export function occasionText(on: OccasionDay): string {
  if (!('rule' in on)) return occasionWords(on)
  return plainWords(on.rule) ?? `${on.rule} from ${on.from}`
}

/** The words of a rule that names one day of every year; null of any other. */
function plainWords(written: string): string | null {
  const { frequency, interval, count, until, months, monthDays, yearDays, days, places } =
    readDayRule(written)
  if (frequency !== 'YEARLY' || interval !== 1 || count !== null || until !== null || places.length)
    return null
  if (months.length === 0 && days.length === 0 && monthDays.length === 0) {
    const [day = 0] = yearDays
    return yearDays.length === 1 && day > 0 ? `day ${day} of the year` : null
  }
  const [month] = months
  if (month === undefined || months.length > 1 || yearDays.length) return null
  const name = MONTHS[month - 1] ?? ''
  const [weekday] = days
  if (weekday) {
    const place = PLACES.find(([, p]) => p === weekday.place)?.[0]
    const alone = days.length === 1 && monthDays.length === 0
    return alone && place ? `${place} ${WEEKDAYS[weekday.weekday] ?? ''} of ${name}` : null
  }
  const [day] = monthDays
  if (day === undefined || monthDays.length > 1 || (day < 0 && day !== -1)) return null
  return day === -1 ? `last day of ${name}` : `${day} ${name}`
}
