import type { OccasionDay } from '../model'
import { addDays, occurrences, startOfDay, toWall } from '../planning'
import { sunTurn } from './sun'

const DAY = 86_400_000
/** So many years ahead the next day of an occasion is looked for: leap days come every eight years at the worst. */
const LOOKED_YEARS = 8

/** The days of an occasion between two local dates, both included, in order, as clocks of the zone show them. */
export function daysOfOccasion(on: OccasionDay, zone: string, from: string, to: string): string[] {
  if ('rule' in on) return occurrences(on.rule, on.from, addDays(from, -1), to)
  const days =
    'dates' in on
      ? [...new Set(on.dates)].sort()
      : 'sun' in on
        ? yearsOf(from, to).map((year) => toWall(sunTurn(on.sun, year), zone).date)
        : clockChanges(on.clocks, zone, from, to)
  return days.filter((day) => from <= day && day <= to)
}

/** The first day of an occasion from a local date on; null where there is none in the next eight years. */
export function nextDayOf(on: OccasionDay, zone: string, from: string): string | null {
  for (let year = 0; year < LOOKED_YEARS; year++) {
    const start = year === 0 ? from : addDays(from, year * 366)
    const [day] = daysOfOccasion(on, zone, start, addDays(start, 365))
    if (day !== undefined) return day
  }
  return null
}

function yearsOf(from: string, to: string): number[] {
  const [first, last] = [Number(from.slice(0, 4)), Number(to.slice(0, 4))]
  return Array.from({ length: last - first + 1 }, (_, i) => first + i)
}

/** The days that are shorter than others because the clocks go forward in them, or longer because they go back. */
function clockChanges(way: 'forward' | 'back', zone: string, from: string, to: string): string[] {
  const days: string[] = []
  // Months that begin as far from the next as their days say have no change in them.
  for (let month = `${from.slice(0, 7)}-01`; month <= to;) {
    const next = `${addDays(month, 32).slice(0, 7)}-01`
    const long = (Date.parse(next) - Date.parse(month)) / DAY
    if (startOfDay(next, zone) - startOfDay(month, zone) !== long * DAY)
      for (let day = month; day < next; day = addDays(day, 1)) {
        const length = startOfDay(addDays(day, 1), zone) - startOfDay(day, zone)
        if (way === 'forward' ? length < DAY : length > DAY) days.push(day)
      }
    month = next
  }
  return days
}
