import { randomUUID } from 'node:crypto'
import {
  Fault,
  Target,
  type AccountState,
  type Capabilities,
  type ConnectorId,
  type LinkedAccount,
} from '../../core/model'
import type { Grant, Health, Login } from '../networks/connector'
import type { Database, Queryable } from './database'
import type { Secrets } from './secrets'

interface Row {
  account: string
  network: string
  connector: ConnectorId
  remote_id: string
  target: string | null
  targets: string
  handle: string
  name: string
  zone: string
  profile_url: string
  secret: string
  settings: string
  state: AccountState
  message: string
  since: string | number
  expires_at: string | number | null
}

/** Ends an update of `accounts a`: all accounts of the login of the account $1. */
const SHARING = `from accounts b
  where b.account = $1 and a.network = b.network and a.connector = b.connector and a.remote_id = b.remote_id`

/**
 * The accounts this server may post to, with their secrets, which are sealed and never leave it. A login with several
 * places has an account for each that was chosen; what happens to its permission happens to all of them.
 */
export class Accounts {
  readonly #database: Database
  readonly #secrets: Secrets
  readonly #capabilities: (connector: ConnectorId) => Capabilities

  constructor(database: Database, secrets: Secrets, capabilities: (connector: ConnectorId) => Capabilities) {
    this.#database = database
    this.#secrets = secrets
    this.#capabilities = capabilities
  }

  /** Keeps a grant. Linking the same login again keeps its accounts and renews their secret. */
  async keep(
    network: string,
    connector: ConnectorId,
    grant: Grant,
    now: number,
    id?: string,
  ): Promise<LinkedAccount> {
    const said = [
      network,
      connector,
      grant.remoteId,
      grant.handle,
      grant.name,
      grant.profileUrl,
      this.#secrets.seal(grant.secret),
      JSON.stringify(grant.settings),
      JSON.stringify(grant.targets),
      now,
      grant.expiresAt,
    ]
    const account = await this.#database.transaction(async (tx) => {
      const known = await tx.query<Row>(
        `update accounts set handle = $4, name = $5, profile_url = $6, secret = $7, settings = $8, targets = $9,
           state = 'linked', message = 'Linked.', since = $10, expires_at = $11, checked_at = $10, warned_at = 0
         where network = $1 and connector = $2 and remote_id = $3 returning account`,
        said,
      )
      const [first] = known.map((row) => row.account).sort()
      if (first !== undefined) return first
      const fresh = id ?? randomUUID()
      await tx.query(
        `insert into accounts (network, connector, remote_id, handle, name, profile_url, secret, settings, targets,
           since, expires_at, checked_at, state, message, zone, account)
         values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $10, 'linked', 'Linked.', $12, $13)`,
        [...said, grant.zone, fresh],
      )
      return fresh
    })
    return this.one(account)
  }

  /**
   * Gives a login an account for each of some of its places: the account that is named takes the first where it has
   * none yet, the others are added, under ids of their own where `own` names them. Places that have an account keep it.
   * Gives the accounts of those places.
   */
  async chooseTargets(
    account: string,
    ids: readonly string[],
    own: ReadonlyMap<string, string> = new Map(),
  ): Promise<LinkedAccount[]> {
    const { network, connector, remoteId, targets, capabilities } = await this.one(account)
    const unknown = ids.find((id) => !targets.some((t) => t.id === id))
    if (unknown !== undefined)
      throw new Fault('bad-request', 'This place is not among those of the account. Link it again.', unknown)
    await this.#database.transaction(async (tx) => {
      const rows = await tx.query<Row>(
        `select * from accounts where network = $1 and connector = $2 and remote_id = $3 order by account for update`,
        [network, connector, remoteId],
      )
      const taken = new Set(rows.map((r) => r.target))
      // Where a post may go to no place, the account without one stays.
      let free = capabilities.targets === 'required' ? rows.filter((r) => r.target === null) : []
      for (const id of ids.filter((t) => !taken.has(t))) {
        const [row] = free
        free = free.slice(1)
        if (row) await tx.query(`update accounts set target = $2 where account = $1`, [row.account, id])
        else
          await tx.query(
            `insert into accounts (account, network, connector, remote_id, handle, name, zone, profile_url, secret,
               settings, targets, target, state, message, since, expires_at, checked_at)
             select $2, network, connector, remote_id, handle, name, zone, profile_url, secret, settings, targets, $3,
               state, message, since, expires_at, checked_at from accounts where account = $1`,
            [account, own.get(id) ?? randomUUID(), id],
          )
      }
    })
    return (await this.all()).filter(
      (a) =>
        a.network === network &&
        a.connector === connector &&
        a.remoteId === remoteId &&
        a.target !== null &&
        ids.includes(a.target.id),
    )
  }

  async one(account: string): Promise<LinkedAccount> {
    const found = (await this.all()).find((a) => a.id === account)
    if (!found) throw notLinked(account)
    return found
  }

  async all(): Promise<LinkedAccount[]> {
    const rows = await this.#database.query<Row>(`select * from accounts order by network, handle, account`)
    return rows.map((r) => {
      const targets = targetsOf(r)
      return {
        id: r.account,
        network: r.network,
        connector: r.connector,
        capabilities: this.#capabilities(r.connector),
        remoteId: r.remote_id,
        handle: r.handle,
        name: r.name,
        zone: r.zone,
        profileUrl: r.profile_url,
        target: targets.find((t) => t.id === r.target) ?? null,
        targets,
        state: r.state,
        message: r.message,
        since: new Date(Number(r.since)).toISOString(),
        expiresAt: r.expires_at === null ? null : new Date(Number(r.expires_at)).toISOString(),
      }
    })
  }

  /** What a connector needs to act for an account. Throws `not-linked`. */
  async login(account: string): Promise<Login> {
    const [row] = await this.#database.query<Row>(`select * from accounts where account = $1`, [account])
    if (!row) throw notLinked(account)
    return {
      account: row.account,
      network: row.network,
      connector: row.connector,
      remoteId: row.remote_id,
      target: row.target,
      secret: this.#secrets.open(row.secret),
      settings: JSON.parse(row.settings) as Record<string, string>,
    }
  }

  /** Writes down how a login is, for all accounts that share it. */
  async setState(account: string, state: AccountState, message: string, now: number): Promise<void> {
    await setState(this.#database, account, state, message, now)
  }

  /** The accounts whose login was not looked at since after a moment, one of each login. */
  async unchecked(before: number): Promise<string[]> {
    const rows = await this.#database.query<{ account: string }>(
      `select min(account) as account from accounts where state = 'linked' and checked_at <= $1
       group by network, connector, remote_id`,
      [before],
    )
    return rows.map((r) => r.account)
  }

  /** When the linked login was looked at that was so the longest ago; null where none is linked. */
  async firstChecked(): Promise<number | null> {
    const [row] = await this.#database.query<{ at: string | number | null }>(
      `select min(checked_at) as at from accounts where state = 'linked'`,
    )
    return row?.at == null ? null : Number(row.at)
  }

  /** Those of some accounts that are linked and were not looked at since a moment, one of each login. */
  async uncheckedAmong(accounts: readonly string[], before: number): Promise<string[]> {
    const rows = await this.#database.query<{ account: string }>(
      `select min(account) as account from accounts
       where state = 'linked' and checked_at < $1 and account in (select json_array_elements_text($2::json))
       group by network, connector, remote_id`,
      [before, JSON.stringify(accounts)],
    )
    return rows.map((r) => r.account)
  }

  /** Writes down what a look at a login brought; null where nobody could say how it is. */
  async checked(account: string, health: Health, now: number): Promise<void> {
    await this.#database.query(`update accounts a set checked_at = $2 ${SHARING}`, [account, now])
    if (health === null) return
    if (health.expiresAt !== undefined)
      await this.#database.query(`update accounts a set expires_at = $2 ${SHARING}`, [
        account,
        health.expiresAt,
      ])
    if (health.secret !== undefined)
      await this.#database.query(`update accounts a set secret = $2, warned_at = 0 ${SHARING}`, [
        account,
        this.#secrets.seal(health.secret),
      ])
    if (health.state !== 'linked') await this.setState(account, health.state, health.message, now)
  }

  /** The accounts whose permission ends before a moment and of which nobody was told; they count as told from now on. */
  async endingSoon(before: number, now: number): Promise<string[]> {
    const rows = await this.#database.query<{ account: string }>(
      `update accounts set warned_at = $2 where state = 'linked' and warned_at = 0 and expires_at < $1 returning account`,
      [before, now],
    )
    return rows.map((r) => r.account)
  }

  /** Forgets an account with its secret; other places of the same login stay. */
  async forget(account: string): Promise<void> {
    await this.#database.query(`delete from accounts where account = $1`, [account])
    await this.#database.query(`delete from uploads where account = $1`, [account])
  }
}

/** Writes down how a login is, for all accounts that share it, within a transaction or not. */
export async function setState(
  on: Queryable,
  account: string,
  state: AccountState,
  message: string,
  now: number,
): Promise<void> {
  await on.query(`update accounts a set state = $2, message = $3, since = $4 ${SHARING}`, [
    account,
    state,
    message,
    now,
  ])
}

function targetsOf(row: Pick<Row, 'targets'>): Target[] {
  return Target.array().parse(JSON.parse(row.targets))
}

function notLinked(account: string): Fault {
  return new Fault('not-linked', 'This account is not linked on this server. Link it again.', account)
}
