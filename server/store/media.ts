import { Fault, type Payload } from '../../core/model'
import type { MediaFile } from '../networks/connector'
import type { Database, Queryable } from './database'

/** In milliseconds. */
const DAY = 86_400_000

/** The pictures and clips of posts, each once, by the SHA-256 of its bytes; and what accounts uploaded of them. */
export class Media {
  readonly #database: Database

  constructor(database: Database) {
    this.#database = database
  }

  /** Keeps a picture or a clip, once; `now` in real milliseconds. */
  async keep(hash: string, type: string, bytes: Uint8Array, now = Date.now()): Promise<void> {
    await this.#database.query(
      `insert into media (hash, type, bytes, kept_at) values ($1, $2, $3, $4)
       on conflict (hash) do update set kept_at = excluded.kept_at`,
      [hash, type, bytes, now],
    )
  }

  /**
   * Forgets what no post needs any more that is still to be sent or taken down, and what accounts uploaded of it. What came
   * less than a day before `now` (real milliseconds) stays, since its post may be on its way. Gives how much was forgotten.
   */
  async clear(now: number): Promise<number> {
    const gone = await this.#database.query<{ hash: string }>(
      `delete from media where kept_at < $1 and hash not in (
         select m ->> 'hash' from deliveries d, jsonb_array_elements(d.payload::jsonb -> 'media') m
           where d.state in ('waiting', 'sending')
         union select m ->> 'hash' from trials t, jsonb_array_elements(t.payload::jsonb -> 'media') m)
       returning hash`,
      [now - DAY],
    )
    await this.#database.query(`delete from uploads where hash not in (select hash from media)`)
    return gone.length
  }

  /** The pictures of a payload, in their order. Throws `bad-request` where one is not here. */
  async of(payload: Payload): Promise<MediaFile[]> {
    const files: MediaFile[] = []
    for (const { hash, alt } of payload.media) {
      const [row] = await this.#database.query<{ type: string; bytes: Uint8Array }>(
        `select type, bytes from media where hash = $1`,
        [hash],
      )
      if (!row) throw new Fault('bad-request', 'Its picture did not arrive. Try it again.', hash)
      files.push({ hash, bytes: row.bytes, type: row.type, alt })
    }
    return files
  }

  /** What an account uploaded of its pictures, by the network's ids; networks forget what is not used within a day. */
  uploads(account: string, now: number) {
    return {
      known: async (hash: string): Promise<string | null> => {
        const [row] = await this.#database.query<{ remote_id: string }>(
          `select remote_id from uploads where account = $1 and hash = $2 and at > $3`,
          [account, hash, now - DAY],
        )
        return row?.remote_id ?? null
      },
      keep: async (hash: string, remoteId: string): Promise<void> => {
        await this.#database.query(
          `insert into uploads (account, hash, remote_id, at) values ($1, $2, $3, $4)
           on conflict (account, hash) do update set remote_id = excluded.remote_id, at = excluded.at`,
          [account, hash, remoteId, now],
        )
      },
    }
  }
}

/** Whether a picture is here. */
export async function hasMedia(on: Queryable, hash: string): Promise<boolean> {
  return (await on.query(`select 1 from media where hash = $1`, [hash])).length > 0
}
