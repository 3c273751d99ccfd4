import { z } from 'zod'
import { AccountState, ConnectorId, Target } from './linked'
import { Hold, Id, Instant, LocalDate, Zone } from './primitives'
import { QuietDay } from './quiet'
import { HourTrials, Slot, type HourTrial } from './slot'

/** Whether the network still lets us post, as last seen. */
export const AccountHealth = z.object({
  state: AccountState,
  since: Instant,
  message: z.string(),
  /** When the permission ends, where the network says so. */
  endsAt: Instant.nullable(),
})
export type AccountHealth = z.infer<typeof AccountHealth>

/** Posts a day that an account may make until it is so many days old. */
export const WarmUpStep = z.object({ days: z.int().positive(), postsPerDay: z.int().positive() })
export type WarmUpStep = z.infer<typeof WarmUpStep>

/** One login on one network, or one of the places that a login has. Its secret lives on the server only. */
export const Account = z.object({
  id: Id,
  brand: Id,
  network: Id,
  connector: ConnectorId,
  /** The login at the network; several accounts may share one, each with a target of its own. */
  remoteId: z.string(),
  target: Target.nullable(),
  handle: z.string(),
  name: z.string(),
  profileUrl: z.string(),
  /** Names under which several accounts are chosen at once. */
  groups: z.array(z.string().min(1).max(60)),
  zone: Zone,
  slots: z.array(Slot),
  /** How it tries other hours; absent where it does not. */
  hourTrials: HourTrials.optional(),
  quiet: z.array(QuietDay),
  maxPerDay: z.int().min(1),
  maxPerWeek: z.int().min(1),
  gapMinutes: z.int().min(0),
  /** The day it was opened at the network, from which its warm-up counts; null once it is old enough. */
  openedOn: LocalDate.nullable(),
  /** Its own warm-up, youngest step first; null where the network's holds. */
  warmUp: z.array(WarmUpStep).nullable(),
  health: AccountHealth,
  held: Hold.nullable(),
  endedAt: Instant.nullable(),
  linkedAt: Instant,
})
export type Account = z.infer<typeof Account>

/** The trial of another hour that a post of an account is, by the local day and time at which it stands; undefined where it is none. */
export function hourTrialAt(
  { hourTrials }: Pick<Account, 'hourTrials'>,
  date: string,
  time: string,
): HourTrial | undefined {
  return hourTrials?.days.find((t) => t.date === date && t.at === time)
}
