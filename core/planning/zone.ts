import { tzOffset } from '@date-fns/tz'

const MINUTE = 60_000
const DAY = 86_400_000

/** A date and time as a clock on the wall shows them. Month and weekday count from 1 (Monday is 1). */
export interface WallTime {
  date: string
  time: string
  weekday: number
}

/** The offset of a zone from UTC at a moment, in milliseconds. */
function offset(zone: string, at: number): number {
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
  const wall = Date.parse(`${date}T${time}:00.000Z`)
  const candidates = [offset(zone, wall - DAY), offset(zone, wall + DAY)]
    .map((o) => wall - o)
    .filter((at) => at + offset(zone, at) === wall)
  return candidates.length ? Math.min(...candidates) : null
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
  return new Date(`${date}T00:00:00.000Z`).getUTCDay() || 7
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
