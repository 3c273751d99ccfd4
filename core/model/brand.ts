import { z } from 'zod'
import { Brief, HouseStyle } from './house'
import { Hold, Id, Instant, Zone } from './primitives'
import { QuietDay } from './quiet'

/** One client or publication; everything else belongs to a brand. */
export const Brand = z.object({
  id: Id,
  name: z.string().min(1).max(80),
  zone: Zone,
  quiet: z.array(QuietDay),
  houseStyle: HouseStyle,
  /** The briefs that a person changed; every other network goes by its profile. */
  briefs: z.array(Brief),
  held: Hold.nullable(),
  createdAt: Instant,
})
export type Brand = z.infer<typeof Brand>
