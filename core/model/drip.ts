import { z } from 'zod'
import { Hold, Id, Instant, LocalDate } from './primitives'
import { Rhythm } from './rhythm'

/** The sequence of posts made from one piece. */
export const Drip = z.object({
  id: Id,
  brand: Id,
  piece: Id,
  revision: z.int().min(1),
  pipeline: Id.nullable(),
  /** The row of the pipeline's release that it follows; null where none does. */
  row: Id.nullable(),
  /** How often the pipeline had dripped its piece by that row before. */
  time: z.int().min(0),
  rhythm: Rhythm,
  startDay: LocalDate,
  accounts: z.array(Id).min(1),
  /** The day of each beat, counted from the start day. */
  days: z.array(z.int().min(0)),
  /** Beats for which an account has no caption, and why. */
  missing: z.array(z.object({ beat: z.int().min(0), account: Id, message: z.string() })),
  seed: z.int(),
  /** The last day on which a post of it may go out; null where nothing bounds it. */
  until: LocalDate.nullable(),
  /** What of its pipeline's follows was done as it began and once it was over. */
  followed: z.array(z.string()),
  held: Hold.nullable(),
  endedAt: Instant.nullable(),
  createdAt: Instant,
})
export type Drip = z.infer<typeof Drip>
