import type {
  AccountState,
  Attempt,
  Capabilities,
  ConnectorId,
  Measures,
  Payload,
  Receipt,
  ShownPost,
  TagFigures,
  Target,
} from '../../core/model'

/** What a connector is given to act for an account. */
export interface Login {
  account: string
  network: string
  connector: ConnectorId
  remoteId: string
  /** The place on it, by the network's id. */
  target: string | null
  /** The token, or whatever proves that we may. */
  secret: string
  /** What else the connector keeps of it: addresses, mostly. */
  settings: Readonly<Record<string, string>>
}

/** What a network grants when a person allows an account. */
export interface Grant {
  remoteId: string
  handle: string
  name: string
  zone: string
  profileUrl: string
  secret: string
  settings: Readonly<Record<string, string>>
  targets: readonly Target[]
  /** Milliseconds since 1970; null where it holds until it is withdrawn. */
  expiresAt: number | null
}

/** A picture's bytes with what it shows in words. */
export interface MediaFile {
  hash: string
  bytes: Uint8Array
  type: string
  alt: string
}

/** What came of carrying a delivery out. */
export type Outcome =
  | { kind: 'published'; remoteId: string; publicUrl: string | null; visibility: Receipt['visibility'] }
  /** It breaks a rule; `field` is the part of the post that does. */
  | { kind: 'refused'; reason: string; field?: string | undefined }
  | { kind: 'later'; reason: string; afterMilliseconds: number }
  | { kind: 'unlinked'; reason: string; state: Exclude<AccountState, 'linked'> }
  /** No answer came and the network cannot be asked: it may be public. */
  | { kind: 'unsure'; reason: string }
  /** A person has to publish it now. */
  | { kind: 'by hand'; reason: string }

/** What a call came to that was no success. */
export type NotDone = Extract<Outcome, { kind: 'refused' | 'later' | 'unlinked' }>

/** What came of asking for a post's measures; `gone` where there is no such post. */
export type Measured = { kind: 'read'; measures: Measures } | { kind: 'gone' } | NotDone

/** A post that stands at a network. */
export type Found = Extract<Outcome, { kind: 'published' }>

/** An outcome with every request that led to it. */
export interface Sent {
  outcome: Outcome
  attempts: readonly Attempt[]
}

/** How many follow a login, and each of its places by the network's id; null and left out where it does not say. */
export interface Followers {
  own: number | null
  places: Readonly<Record<string, number>>
}

/** How a login is; null where nobody could say. */
export type Health = {
  state: AccountState
  message: string
  /** Until when, null for as long as it is not withdrawn; left out where it is as before. */
  expiresAt?: number | null
  /** A renewed secret, where the check brought one. */
  secret?: string
  /** How many follow it; left out where the network does not say. */
  followers?: Followers
} | null

/** What a delivery has behind it. */
export interface Before {
  /** It was tried before, and nobody knows whether the network took it. */
  doubt: boolean
  /** Uploads that the account made, so that a retry sends a picture once. */
  known(hash: string): Promise<string | null>
  keep(hash: string, remoteId: string): Promise<void>
}

/** Where a person is sent to allow an account, and what is kept until they are back. */
export interface Authorisation {
  address: string
  kept: Readonly<Record<string, string>>
}

/**
 * One way of speaking to networks. Every connector passes the same contract test (contract.test.ts); what it cannot do its
 * capabilities say, and those methods then throw `bad-request`.
 */
export interface Connector {
  readonly id: ConnectorId
  readonly capabilities: Capabilities
  /** Begins linking on a page of the network's own. `site` is the address a person gave, where one is asked for. */
  authorise(ask: {
    network: string
    redirect: string
    state: string
    site: string | null
  }): Promise<Authorisation>
  /** Ends it with what came back. Throws `bad-answer` where nothing was granted. */
  grant(answer: {
    network: string
    redirect: string
    code: string
    kept: Readonly<Record<string, string>>
  }): Promise<Grant>
  check(login: Login): Promise<Health>
  /** Publishes under an idempotency key: asked again under it, the same post stands once. */
  publish(
    login: Login,
    key: string,
    payload: Payload,
    media: readonly MediaFile[],
    before: Before,
  ): Promise<Sent>
  /**
   * Looks for a post under its key, without sending it: what stands, null for nothing, undefined where it cannot be
   * known.
   */
  find(login: Login, key: string): Promise<{ found: Found | null | undefined; attempt: Attempt | null }>
  /** A post as the network has it; `shown` is null where it has none, or gives no answer that is understood. */
  read(login: Login, remoteId: string): Promise<{ shown: ShownPost | null; attempt: Attempt }>
  /** What readers did with a post so far. */
  measures(login: Login, remoteId: string): Promise<Measured>
  /** Takes a post down. Throws `bad-answer` where the network did not. */
  takeDown(login: Login, remoteId: string): Promise<Attempt>
  /** How often tags were posted with in the last seven days. */
  tagFigures(login: Login, tags: readonly string[]): Promise<TagFigures>
}
