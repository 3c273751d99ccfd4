import { MONTHS } from './names'

/** Zones of places that write the month first. */
const MONTH_FIRST =
  /^(?:America\/(?:New_York|Chicago|Denver|Los_Angeles|Phoenix|Anchorage|Detroit|Boise|Juneau|Nome|Sitka|Adak|Menominee|Indiana\/.+|Kentucky\/.+|North_Dakota\/.+|Puerto_Rico)|Pacific\/(?:Honolulu|Guam|Pago_Pago)|US\/.+)$/

/** Which way round the dates with strokes of a sheet are, and why nobody can know where that is so. */
export interface StrokeOrder {
  /** Null where no date has strokes, or where a person has to choose. */
  monthFirst: boolean | null
  /** Why the rows leave it open, with what to do; null where they do not. */
  doubt: string | null
}

/**
 * Which way round dates such as 4/12 are, from all there is to know: where a row's date is known already
 * (`known`, in the order of the rows), what that date is; else which numbers can be no month; else how the
 * place of a time zone writes. Where rows speak against each other, or a few against the place, it is left open.
 */
export function strokeOrder(
  dates: readonly string[],
  { zone, known = [] }: { zone: string | null; known?: readonly (string | null)[] },
): StrokeOrder {
  const rows = dates.flatMap((text, i) => {
    const m = /^\s*(\d{1,2})\/(\d{1,2})\/\d{2,4}/.exec(text)
    return m
      ? [{ text: text.trim(), first: Number(m[1]), second: Number(m[2]), known: known[i] ?? null }]
      : []
  })
  if (rows.length === 0) return { monthFirst: null, doubt: null }
  const open = rows.filter((r) => r.first <= 12 && r.second <= 12 && r.first !== r.second)
  const stands = (monthFirst: boolean): number =>
    open.filter((r) => r.known !== null && readDate(r.text, monthFirst) === r.known).length
  const [dayKnown, monthKnown] = [stands(false), stands(true)]
  if (dayKnown !== monthKnown) return { monthFirst: monthKnown > dayKnown, doubt: null }
  const day = rows.find((r) => r.first > 12)
  const months = rows.filter((r) => r.second > 12)
  const [month] = months
  const american = MONTH_FIRST.test(zone ?? '')
  const doubt = (one: string, other: string): StrokeOrder => ({
    monthFirst: null,
    doubt: `“${one}” and “${other}” cannot be written the same way round, or one is a slip. Choose whether the day or the month comes first, or write dates like 2026-12-04.`,
  })
  if (day && month) return doubt(day.text, month.text)
  if (day) return { monthFirst: false, doubt: null }
  if (month && !american && months.length < open.length) return doubt(month.text, open[0]?.text ?? '')
  return { monthFirst: month !== undefined || american, doubt: null }
}

/**
 * A local date of what people and spreadsheets write, or null: 2026-12-04, 4.12.2026, 4/12/26,
 * 4 December 2026, Dec 4th, 2026, or the number of days that a spreadsheet keeps it as. What
 * follows after a space or a T is left.
 */
export function readDate(text: string, american: boolean): string | null {
  const iso = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T ].*)?$/.exec(text)
  if (iso) return dateOf(Number(iso[1]), Number(iso[2]), Number(iso[3]))
  const short = /^(\d{1,2})([/.-])(\d{1,2})\2(\d{2}|\d{4})(?:[T ,].*)?$/.exec(text)
  if (short) {
    const [first, second] = [Number(short[1]), Number(short[3])]
    const turned = short[2] === '/' && american
    return dateOf(fullYear(short[4]), turned ? first : second, turned ? second : first)
  }
  const named =
    /^(?:\p{L}+,?\s+)?(\d{1,2})(?:st|nd|rd|th)?[.\s-]*(\p{L}{3,9})\.?[,\s-]+(\d{2}|\d{4})(?:[T ,].*)?$/iu.exec(
      text,
    )
  if (named) return dateOf(fullYear(named[3]), monthOf(named[2]), Number(named[1]))
  const monthFirst =
    /^(?:\p{L}+,\s+)?(\p{L}{3,9})\.?\s+(\d{1,2})(?:st|nd|rd|th)?,?\s+(\d{4})(?:[T ,].*)?$/iu.exec(text)
  if (monthFirst) return dateOf(Number(monthFirst[3]), monthOf(monthFirst[1]), Number(monthFirst[2]))
  if (/^\d{5}(?:\.\d+)?$/.test(text))
    return new Date(EPOCH + Math.floor(Number(text)) * DAY).toISOString().slice(0, 10)
  return null
}

const DAY = 86_400_000
/** Day 0 of spreadsheets, which hold 1900 for a leap year. */
const EPOCH = Date.UTC(1899, 11, 30)

function monthOf(name: string | undefined): number {
  const start = (name ?? '').toLowerCase().slice(0, 3)
  return MONTHS.findIndex((m) => m.toLowerCase().startsWith(start)) + 1
}

function fullYear(year: string | undefined): number {
  return Number(year) < 100 ? 2000 + Number(year) : Number(year)
}

function dateOf(year: number, month: number, day: number): string | null {
  const date = new Date(Date.UTC(year, month - 1, day))
  const real = date.getUTCMonth() === month - 1 && date.getUTCDate() === day
  return real ? date.toISOString().slice(0, 10) : null
}

/** A time of day of what people and spreadsheets write, or null: 9:05, 09.05, 9:05 pm, 9 am, 0905. */
export function readClock(text: string): string | null {
  const m =
    /^(\d{1,2})(?:[:.h](\d{2})(?::\d{2})?)?\s*(?:([ap])\.?m\.?)?$/i.exec(text) ??
    /^(\d{2})(\d{2})$/.exec(text)
  if (!m || (m[2] === undefined && m[3] === undefined)) return null
  let hour = Number(m[1])
  if (m[3]) {
    if (hour < 1 || hour > 12) return null
    hour = (hour % 12) + (m[3].toLowerCase() === 'p' ? 12 : 0)
  }
  const minutes = m[2] ?? '00'
  if (hour > 23 || Number(minutes) > 59) return null
  return `${String(hour).padStart(2, '0')}:${minutes}`
}
