import { z } from 'zod'

/** An opaque identifier, minted outside core and passed in. */
export const Id = z.string().min(1).max(200)
export type Id = z.infer<typeof Id>

/** A moment, ISO 8601 in UTC with milliseconds, so that text order is time order. */
export const Instant = z.iso.datetime({ precision: 3 })
export type Instant = z.infer<typeof Instant>

/** A day of the calendar, `2026-11-24`, in whichever zone the field's owner keeps. */
export const LocalDate = z.iso.date()
export type LocalDate = z.infer<typeof LocalDate>

/** A time of day, `09:30`. */
export const LocalTime = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'a time of day looks like 09:30')
export type LocalTime = z.infer<typeof LocalTime>

/** Monday is 1, Sunday is 7 (ISO 8601). */
export const Weekday = z.int().min(1).max(7)
export type Weekday = z.infer<typeof Weekday>

/** Whether the runtime knows a time zone by this name. */
export function isZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name })
    return true
  } catch {
    return false
  }
}

/** An IANA time zone name such as `Europe/Lisbon`. */
export const Zone = z.string().refine(isZone, {
  error: (issue) =>
    `${String(issue.input)} is not a time zone this system knows; write one like Europe/Lisbon`,
})

/** A half-open range of UTF-16 offsets into a text: `text.slice(start, end)`. */
export const Place = z.object({ start: z.int().min(0), end: z.int().min(0) })
export type Place = z.infer<typeof Place>

/** Why something is kept from going out, and since when. */
export const Hold = z.object({ reason: z.string(), since: Instant })
export type Hold = z.infer<typeof Hold>

/** When the page a link leads to was looked at, and what was wrong with it; null where nothing was. */
export const LinkCheck = z.object({ at: Instant, trouble: z.string().nullable() })
export type LinkCheck = z.infer<typeof LinkCheck>
