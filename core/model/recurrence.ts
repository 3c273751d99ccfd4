import { z } from 'zod'
import { Credit } from './picture'
import { Hold, Id, Instant, LocalDate, LocalTime } from './primitives'

/** What a person writes by hand, before accounts and times make posts of it. */
export const HandWords = z.object({
  title: z.string().nullable(),
  text: z.string(),
  link: z.string().nullable(),
  picture: z.object({ url: z.string(), alt: z.string(), credit: Credit.optional() }).nullable(),
})
export type HandWords = z.infer<typeof HandWords>

/** A post that comes again by a rule, written once; its posts are made some weeks ahead. */
export const Recurrence = z.object({
  id: Id,
  brand: Id,
  words: HandWords,
  accounts: z.array(Id).min(1),
  /** A recurrence rule of RFC 5545, section 3.3.10, without its start: `FREQ=WEEKLY;BYDAY=MO`. */
  rule: z.string().min(1),
  /** The first day, from which the rule counts. */
  from: LocalDate,
  /** The time of day on each account's own clock; null for whichever slot of the day suits. */
  time: LocalTime.nullable(),
  /** The last day for which posts were made; null before the first. */
  madeUntil: LocalDate.nullable(),
  held: Hold.nullable(),
  endedAt: Instant.nullable(),
  createdAt: Instant,
})
export type Recurrence = z.infer<typeof Recurrence>
