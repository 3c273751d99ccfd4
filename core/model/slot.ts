import { z } from 'zod'
import { LocalDate, LocalTime, Weekday } from './primitives'

/** A weekly time at which an account may post: an exact time, or a window with both ends inclusive. */
export const Slot = z.union([
  z.strictObject({ weekday: Weekday, at: LocalTime }),
  z
    .strictObject({ weekday: Weekday, from: LocalTime, to: LocalTime })
    .refine((s) => s.from <= s.to, { error: 'a window ends before it begins' }),
])
export type Slot = z.infer<typeof Slot>

/** A slot that stands at another time on one day, so that another hour is tried. */
export const HourTrial = z.object({ date: LocalDate, slot: Slot, at: LocalTime })
export type HourTrial = z.infer<typeof HourTrial>

/** How an account tries other hours than those of its slots. */
export const HourTrials = z.object({
  /** The share of its slots that is given to it. */
  share: z.number().min(0.05).max(0.2),
  /** The last day for which trials were drawn; null before the first. */
  until: LocalDate.nullable(),
  days: z.array(HourTrial),
})
export type HourTrials = z.infer<typeof HourTrials>
