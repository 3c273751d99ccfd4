import type { Capabilities } from '../../core/model'
import type { Before, Grant, Login } from '../networks/connector'
import { Accounts } from '../store/accounts'
import type { Database } from '../store/database'
import { Secrets } from '../store/secrets'

/** Everything can be done. */
export const CAPABILITIES: Capabilities = {
  publishes: true,
  reads: true,
  takesDown: true,
  measures: true,
  tagFigures: true,
  targets: 'required',
}

/** What a network granted, for tests. */
export function aGrant(change: Partial<Grant> = {}): Grant {
  return {
    remoteId: 'r',
    handle: 'h',
    name: 'N',
    zone: 'UTC',
    profileUrl: 'http://x',
    secret: 't',
    settings: {},
    targets: [],
    expiresAt: null,
    ...change,
  }
}

export function aLogin(change: Partial<Login> = {}): Login {
  return {
    account: 'acc',
    network: 'murmur',
    connector: 'stand-in',
    remoteId: 'r',
    target: null,
    secret: 'token-1',
    settings: {},
    ...change,
  }
}

/** Accounts of a database, sealed under a key of tests. */
export function accountsOf(database: Database): Accounts {
  return new Accounts(database, new Secrets([Buffer.alloc(32, 7)]), () => CAPABILITIES)
}

/** Nothing is in doubt and nothing was uploaded before. */
export const FIRST: Before = {
  doubt: false,
  known: () => Promise.resolve(null),
  keep: () => Promise.resolve(),
}
