import { randomUUID } from 'node:crypto'
import { Fault, type LinkedAccount } from '../../core/model'
import type { Database } from '../database'
import type { Grant } from './connector'

interface Row {
  account: string
  network: string
  remote_id: string
  handle: string
  name: string
  zone: string
  profile_url: string
  token: string
  state: LinkedAccount['state']
  message: string
  since: string | number
  expires_at: string | number | null
}

/** The accounts this server may post to, with their tokens. Tokens never leave the server. */
export class Links {
  readonly #database: Database

  constructor(database: Database) {
    this.#database = database
  }

  /** Keeps a grant. Linking the same login again keeps its id and renews the token. */
  async keep(network: string, grant: Grant, now: number, id?: string): Promise<LinkedAccount> {
    const [known] = await this.#database.query<Row>(
      `select * from links where network = $1 and remote_id = $2`,
      [network, grant.remoteId],
    )
    const account = known?.account ?? id ?? randomUUID()
    await this.#database.query(
      `insert into links (account, network, remote_id, handle, name, zone, profile_url, token, state, message, since, expires_at)
       values ($1, $2, $3, $4, $5, $6, $7, $8, 'linked', 'Linked.', $9, $10)
       on conflict (account) do update set handle = excluded.handle, name = excluded.name, profile_url = excluded.profile_url,
         token = excluded.token, state = 'linked', message = 'Linked.', since = excluded.since, expires_at = excluded.expires_at`,
      [
        account,
        network,
        grant.remoteId,
        grant.handle,
        grant.name,
        grant.zone,
        grant.profileUrl,
        grant.token,
        now,
        grant.expiresAt,
      ],
    )
    return this.one(account)
  }

  async one(account: string): Promise<LinkedAccount> {
    const found = (await this.all()).find((a) => a.id === account)
    if (!found)
      throw new Fault('not-linked', 'This account is not linked on this server. Link it again.', account)
    return found
  }

  async all(): Promise<LinkedAccount[]> {
    const rows = await this.#database.query<Row>(`select * from links order by network, handle`)
    return rows.map((r) => ({
      id: r.account,
      network: r.network,
      remoteId: r.remote_id,
      handle: r.handle,
      name: r.name,
      zone: r.zone,
      profileUrl: r.profile_url,
      state: r.state,
      message: r.message,
      since: new Date(Number(r.since)).toISOString(),
      expiresAt: r.expires_at === null ? null : new Date(Number(r.expires_at)).toISOString(),
    }))
  }

  async token(account: string): Promise<{ network: string; token: string }> {
    const [row] = await this.#database.query<Row>(`select * from links where account = $1`, [account])
    if (!row)
      throw new Fault('not-linked', 'This account is not linked on this server. Link it again.', account)
    return { network: row.network, token: row.token }
  }

  /** Forgets an account with its token. */
  async forget(account: string): Promise<void> {
    await this.#database.query(`delete from links where account = $1`, [account])
  }
}
