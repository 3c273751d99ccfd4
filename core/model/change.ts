import { z } from 'zod'
import { Id, Instant } from './primitives'

/** One person's action, with what every record was before and after it. */
export const Change = z.object({
  id: Id,
  brand: Id,
  at: Instant,
  label: z.string(),
  undone: z.boolean(),
  entries: z.array(
    z.object({
      store: z.string(),
      id: Id,
      before: z.unknown().nullable(),
      after: z.unknown().nullable(),
    }),
  ),
})
export type Change = z.infer<typeof Change>
