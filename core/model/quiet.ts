import { z } from 'zod'
import { LocalDate, Weekday } from './primitives'

/** A day on which nothing is posted: by weekday, once, every year, or a range (`to` is inclusive). */
export const QuietDay = z.union([
  z.strictObject({ weekday: Weekday }),
  z.strictObject({ date: LocalDate }),
  z.strictObject({
    yearly: z.string().regex(/^(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, 'a yearly day looks like 12-25'),
  }),
  z
    .strictObject({ from: LocalDate, to: LocalDate })
    .refine((r) => r.from <= r.to, { error: 'a quiet range ends before it begins' }),
])
export type QuietDay = z.infer<typeof QuietDay>
