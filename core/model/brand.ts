import { z } from 'zod'
import { Look } from './card'
import { Brief, HouseStyle, Leaning } from './house'
import { Hold, Id, Instant, Zone } from './primitives'
import { QuietDay } from './quiet'
import { Slot } from './slot'
import { Weights } from './weights'

/** One client or publication; everything else belongs to a brand. */
export const Brand = z.object({
  id: Id,
  name: z.string().min(1).max(80),
  zone: Zone,
  quiet: z.array(QuietDay),
  /** Slots that a new account of the brand may begin with; empty where each network's are proposed. */
  slots: z.array(Slot),
  /** What the soft rules of the planner count. */
  weights: Weights,
  houseStyle: HouseStyle,
  /** The briefs that a person changed; every other network goes by its profile. */
  briefs: z.array(Brief),
  /** What was learned from its results, and when that was last looked at; absent where nobody has. */
  learned: z.object({ at: Instant, leanings: z.array(Leaning) }).optional(),
  /** How its cards look. */
  look: Look,
  held: Hold.nullable(),
  endedAt: Instant.nullable(),
  createdAt: Instant,
})
export type Brand = z.infer<typeof Brand>
