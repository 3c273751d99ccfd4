import { z } from 'zod'
import { Id, Instant } from './primitives'

/** By what an account is reached: one connector on the server each. */
export const ConnectorId = z.enum(['stand-in', 'micropub', 'webhook', 'hand'])
export type ConnectorId = z.infer<typeof ConnectorId>

/** What can be done with an account, so that nobody has to know its network. */
export const Capabilities = z.object({
  /** The server publishes; where it does not, a person does by hand at the time. */
  publishes: z.boolean(),
  /** Published posts can be read back, and taken down. */
  reads: z.boolean(),
  takesDown: z.boolean(),
  /** It tells what readers did with a post, where the network's profile names measures. */
  measures: z.boolean(),
  /** It tells how often tags are posted with. */
  tagFigures: z.boolean(),
  /** Where a login has places: whether posts go to one of them always, or may go to none. */
  targets: z.enum(['optional', 'required']),
})
export type Capabilities = z.infer<typeof Capabilities>

/** A place on an account to which posts go: a page, a group, a rack, a person or an organisation. */
export const Target = z.object({ id: z.string(), name: z.string(), kind: z.string() })
export type Target = z.infer<typeof Target>

/** How an account is: it may be posted to, its permission ran out, or it was withdrawn. */
export const AccountState = z.enum(['linked', 'expired', 'withdrawn'])
export type AccountState = z.infer<typeof AccountState>

/** An account as the server knows it: all but its secret. */
export const LinkedAccount = z.object({
  id: Id,
  network: Id,
  connector: ConnectorId,
  capabilities: Capabilities,
  remoteId: z.string(),
  handle: z.string(),
  name: z.string(),
  zone: z.string(),
  profileUrl: z.string(),
  /** Where on it the posts go; null where it has no places, or none was chosen yet. */
  target: Target.nullable(),
  /** The places that its login has. */
  targets: z.array(Target),
  state: AccountState,
  message: z.string(),
  since: Instant,
  expiresAt: Instant.nullable(),
})
export type LinkedAccount = z.infer<typeof LinkedAccount>

/** What accounts can be linked on: a network's profile, and by what it is reached. */
export const Linkable = z.object({
  network: Id,
  connector: ConnectorId,
  /** The page at which a network's own Micropub begins. */
  site: z.string().nullable(),
})
export type Linkable = z.infer<typeof Linkable>

/** Linking without a page of the network's own: a system that is fed by a signed webhook, or a person's hands. */
export const PlainLink = z.object({
  connector: z.enum(['webhook', 'hand']),
  /** The network whose form its posts have. */
  network: Id,
  /** Under what name it is listed. */
  name: z.string().trim().min(1).max(80),
  zone: z.string(),
  /** Where the webhook is sent to; for an account by hand the page that shows its posts, or nothing. */
  address: z.string().max(2000),
})
export type PlainLink = z.infer<typeof PlainLink>
