import { tzOffset } from '@date-fns/tz'

const MINUTE = 60_000
const DAY = 86_400_000

/** A date and time as a clock on the wall shows them. Month and weekday count from 1 (Monday is 1). */
export interface WallTime {
  date: string
  time: string
  weekday: number
}

/** Offsets of a zone by day of UTC; a day in which the clocks change has two and is looked up anew. */
const known = new Map<string, Map<number, number | null>>()
let lastZone = ''
let lastDays = new Map<number, number | null>()

/** The offset of a zone from UTC at a moment, in milliseconds. */
function offset(zone: string, at: number): number {
  if (zone !== lastZone) {
    lastDays = known.get(zone) ?? new Map<number, number | null>()
    known.set(zone, lastDays)
    lastZone = zone
  }
  const day = Math.floor(at / DAY)
  let steady = lastDays.get(day)
  if (steady === undefined) {
    const first = lookUp(zone, day * DAY)
    steady = first === lookUp(zone, (day + 1) * DAY - 1) ? first : null
    lastDays.set(day, steady)
  }
  return steady ?? lookUp(zone, at)
}

function lookUp(zone: string, at: number): number {
  return Math.round(tzOffset(zone, new Date(at)) * MINUTE)
}

/** What a clock in `zone` shows at a moment (milliseconds since 1970 in UTC). */
export function toWall(at: number, zone: string): WallTime {
  const shifted = new Date(at + offset(zone, at))
  const iso = shifted.toISOString()
  return {
    date: iso.slice(0, 10),
    time: iso.slice(11, 16),
    weekday: shifted.getUTCDay() || 7,
  }
}

/**
 * The moment at which a clock in `zone` shows a local date and time. A time that summer time
 * skips gives null: it does not exist that day. A doubled hour gives the first of the two.
 */
export function fromWall(date: string, time: string, zone: string): number | null {
  return momentAt(dayNumber(date), clockMinutes(time), zone)
}

/** The same as an instant (ISO 8601 in UTC); a time that does not exist gives the beginning of its day. */
export function instantAt(date: string, time: string, zone: string): string {
  return new Date(fromWall(date, time, zone) ?? startOfDay(date, zone)).toISOString()
}

/** The same of a day's number and minutes since its midnight. */
export function momentAt(day: number, minutes: number, zone: string): number | null {
  const wall = day * DAY + minutes * MINUTE
  const first = wall - offset(zone, wall - DAY)
  const second = wall - offset(zone, wall + DAY)
  if (first === second) return first
  const shown = [first, second].filter((at) => at + offset(zone, at) === wall)
  return shown.length ? Math.min(...shown) : null
}

/** A calendar day as a count of days since 1970-01-01, for arithmetic; no zone involved. */
export function dayNumber(date: string): number {
  return Math.round(Date.parse(`${date}T00:00:00.000Z`) / DAY)
}

/** The calendar day of a day's number. */
export function dateOf(day: number): string {
  let date = dates.get(day)
  if (date === undefined) dates.set(day, (date = new Date(day * DAY).toISOString().slice(0, 10)))
  return date
}

const dates = new Map<number, string>()

/** The number of the local day that a moment falls on in `zone`. */
export function localDay(at: number, zone: string): number {
  return Math.floor((at + offset(zone, at)) / DAY)
}

/** Minutes since midnight that a clock in `zone` shows at a moment. */
export function localMinutes(at: number, zone: string): number {
  const wall = at + offset(zone, at)
  return Math.floor((wall - Math.floor(wall / DAY) * DAY) / MINUTE)
}

/** A count of weeks that begin on a Monday, of a day's number: the same for the days of one week. */
export function weekNumber(day: number): number {
  return Math.floor((day + 3) / 7)
}

/** The first moment of a local day in `zone`. */
export function startOfDay(date: string, zone: string): number {
  for (let minute = 0; minute < 24 * 60; minute += 15) {
    const at = fromWall(date, clockTime(minute), zone)
    if (at !== null) return at
  }
  return Date.parse(`${date}T00:00:00.000Z`)
}

/** A calendar day some days later (or earlier); pure calendar arithmetic, no zone involved. */
export function addDays(date: string, days: number): string {
  return new Date(Date.parse(`${date}T00:00:00.000Z`) + days * DAY).toISOString().slice(0, 10)
}

/** Whole calendar days from one local date to another. */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(`${to}T00:00:00.000Z`) - Date.parse(`${from}T00:00:00.000Z`)) / DAY)
}

/** The weekday of a calendar day, Monday 1 to Sunday 7. */
export function weekdayOf(date: string): number {
  return weekdayOfDay(dayNumber(date))
}

/** The same of a day's number. */
export function weekdayOfDay(day: number): number {
  return ((((day + 3) % 7) + 7) % 7) + 1
}

/** The Monday of the week a day lies in (ISO 8601). */
export function mondayOf(date: string): string {
  return addDays(date, 1 - weekdayOf(date))
}

/** Minutes since midnight as a time of day: 570 is `09:30`. */
export function clockTime(minutes: number): string {
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`
}

/** A time of day as minutes since midnight. */
export function clockMinutes(time: string): number {
  return Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5))
}
