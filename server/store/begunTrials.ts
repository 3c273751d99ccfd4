import { Payload } from '../../core/model'
import type { Database } from './database'

/** A test delivery that was begun and is not known to be gone again. */
export interface BegunTrial {
  id: string
  account: string
  payload: Payload
  /** Where it stands, once the network said so. */
  remoteId: string | null
}

/** Test deliveries that may stand at a network: written down before they are sent, forgotten once they are gone. */
export class BegunTrials {
  readonly #database: Database

  constructor(database: Database) {
    this.#database = database
  }

  async begin({ id, account, payload }: Omit<BegunTrial, 'remoteId'>, realNow: number): Promise<void> {
    await this.#database.query(
      `insert into trials (id, account, payload, begun_at) values ($1, $2, $3, $4)`,
      [id, account, JSON.stringify(payload), realNow],
    )
  }

  async stands(id: string, remoteId: string): Promise<void> {
    await this.#database.query(`update trials set remote_id = $2 where id = $1`, [id, remoteId])
  }

  /** Those begun before a moment (real milliseconds). */
  async before(moment: number): Promise<BegunTrial[]> {
    const rows = await this.#database.query<{
      id: string
      account: string
      payload: string
      remote_id: string | null
    }>(`select * from trials where begun_at < $1`, [moment])
    return rows.map(({ id, account, payload, remote_id: remoteId }) => ({
      id,
      account,
      payload: Payload.parse(JSON.parse(payload)),
      remoteId,
    }))
  }

  async forget(id: string): Promise<void> {
    await this.#database.query(`delete from trials where id = $1`, [id])
  }
}
