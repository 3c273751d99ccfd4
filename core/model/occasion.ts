import { z } from 'zod'
import { Angle } from './angle'
import { Reader } from './house'
import { Id, Instant, LocalDate } from './primitives'

/** The turns of the sun's year, named by month, since seasons are turned round on the other half of the earth. */
export const SUN_TURNS = ['March equinox', 'June solstice', 'September equinox', 'December solstice'] as const
export type SunTurn = (typeof SUN_TURNS)[number]

/** On which days of which years an occasion is. */
export const OccasionDay = z.union([
  /** A recurrence rule of RFC 5545 that names days, counted from a first one. */
  z.strictObject({ rule: z.string().min(1), from: LocalDate }),
  /** Days one by one, such as those of a feast that moves. */
  z.strictObject({ dates: z.array(LocalDate).min(1) }),
  /** A turn of the sun, on the day that the brand's clock shows. */
  z.strictObject({ sun: z.enum(SUN_TURNS) }),
  /** The day on which the clocks of the brand's zone change. */
  z.strictObject({ clocks: z.enum(['forward', 'back']) }),
])
export type OccasionDay = z.infer<typeof OccasionDay>

/** How the captions of an occasion are written. */
export const OccasionMake = z.object({
  accounts: z.array(Id),
  /** The angle of every caption; null for whichever suits. */
  angle: Angle.nullable(),
  /** Whom the captions are for; null for as each network's brief says. */
  reader: Reader.nullable(),
})
export type OccasionMake = z.infer<typeof OccasionMake>

/** A day of the year worth a post. */
export const Occasion = z.object({
  id: Id,
  brand: Id,
  name: z.string().trim().min(1).max(120),
  on: OccasionDay,
  /** Words and phrases; a passage that says one of them is near the occasion. Empty for the words of its name. */
  theme: z.array(z.string().trim().min(1).max(80)),
  /** Lines of the brand's own that name the day: posts close with them, another on each account of a network and each year. */
  lines: z.array(z.string().trim().min(1).max(300)),
  /** How its captions were last written; null where none were. */
  make: OccasionMake.nullable(),
  /** Whether captions are written again each year, some weeks ahead. */
  again: z.boolean(),
  /** Accounts that have no caption for a day, and why. */
  missing: z.array(z.object({ day: LocalDate, account: Id, message: z.string() })),
  createdAt: Instant,
})
export type Occasion = z.infer<typeof Occasion>
