import { z } from 'zod'
import { LocalTime, Weekday } from './primitives'

/** A weekly time at which an account may post: an exact time, or a window with both ends inclusive. */
export const Slot = z.union([
  z.strictObject({ weekday: Weekday, at: LocalTime }),
  z
    .strictObject({ weekday: Weekday, from: LocalTime, to: LocalTime })
    .refine((s) => s.from <= s.to, { error: 'a window ends before it begins' }),
])
export type Slot = z.infer<typeof Slot>
