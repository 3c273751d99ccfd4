import { z } from 'zod'
import { Hold, Id, Instant, Zone } from './primitives'
import { QuietDay } from './quiet'
import { Slot } from './slot'

/** Whether the network still lets us post, as last seen. */
export const AccountHealth = z.object({
  state: z.enum(['linked', 'expired', 'withdrawn']),
  since: Instant,
  message: z.string(),
})
export type AccountHealth = z.infer<typeof AccountHealth>

/** One login on one network. Its token lives on the server only. */
export const Account = z.object({
  id: Id,
  brand: Id,
  network: Id,
  remoteId: z.string(),
  handle: z.string(),
  name: z.string(),
  profileUrl: z.string(),
  zone: Zone,
  slots: z.array(Slot),
  quiet: z.array(QuietDay),
  maxPerDay: z.int().min(1),
  maxPerWeek: z.int().min(1),
  gapMinutes: z.int().min(0),
  health: AccountHealth,
  held: Hold.nullable(),
  linkedAt: Instant,
})
export type Account = z.infer<typeof Account>
