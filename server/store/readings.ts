import { Reading, type Age, type NextReading, type ReadingPage } from '../../core/model'
import type { Database } from './database'
import { SKEW, written } from './deliveries'
import { Outbox } from './outbox'

/** So long before a reading's time is over, in milliseconds, it is the last chance to take it. */
const SOON = 600_000
/** How long a claimed reading belongs to its server, in real milliseconds. */
const LEASE = 120_000

/** A reading that is due: of which post, and where the network has it. */
export interface DueReading {
  post: string
  generation: number
  account: string
  remoteId: string
  publishedAt: number
  age: Age
  /** Its own short link; null for none. */
  shortLink: string | null
}

/** What comes of a due reading: readings to keep, and when which is taken next; null for none. */
export interface Taken {
  due: DueReading
  readings: readonly Reading[]
  next: NextReading | null
}

/** What is read of published posts, kept until the app has it; what is due next stands at each delivery. */
export class Readings {
  readonly #database: Database
  readonly #outbox: Outbox<typeof Reading>

  constructor(database: Database) {
    this.#database = database
    this.#outbox = new Outbox(database, 'readings', Reading)
  }

  /** Claims readings that are due on linked accounts, the longest due first. */
  async claim(now: number, realNow: number, limit: number): Promise<DueReading[]> {
    const rows = await this.#database.query<{
      post: string
      generation: number
      account: string
      remote_id: string
      published_at: string | number
      reading_age: Age
      short_link: string | null
    }>(
      `update deliveries d set reading_lease = $3
       from (select r.post, r.generation from deliveries r join accounts a on a.account = r.account
             where a.state = 'linked' and r.reading_at <= $1
               and (r.reading_lease <= $2 or r.reading_lease > $2::bigint + ${SKEW})
             order by r.reading_at limit $4 for update of r skip locked) due
       where d.post = due.post and d.generation = due.generation
       returning d.post, d.generation, d.account, d.remote_id, d.published_at, d.reading_age, d.short_link`,
      [now, realNow, realNow + LEASE, limit],
    )
    return rows.map((r) => ({
      post: r.post,
      generation: r.generation,
      account: r.account,
      remoteId: r.remote_id,
      publishedAt: Number(r.published_at),
      age: r.reading_age,
      shortLink: r.short_link,
    }))
  }

  /** Keeps what was read, and when the next reading of each is. */
  async keep(taken: readonly Taken[]): Promise<void> {
    await this.#database.transaction(async (tx) => {
      const readings = taken.flatMap((t) => t.readings)
      if (readings.length > 0)
        await tx.query(
          `insert into readings (body) select r.body from json_to_recordset($1::json) as r(body text)`,
          [written(readings.map((reading) => ({ body: written(reading) })))],
        )
      await tx.query(
        `update deliveries d set reading_lease = 0, reading_at = r.reading_at, reading_until = r.reading_until,
           reading_age = r.reading_age
         from json_to_recordset($1::json) as r(post text, generation int, reading_at bigint, reading_until bigint,
           reading_age text)
         where d.post = r.post and d.generation = r.generation and d.state = 'published'`,
        [
          written(
            taken.map(({ due: { post, generation }, next }) => ({
              post,
              generation,
              reading_at: next?.at ?? null,
              reading_until: next?.until ?? null,
              reading_age: next?.age ?? null,
            })),
          ),
        ],
      )
    })
  }

  /** The next moment after `now` at which a reading may still be taken and soon no longer, or null. */
  async lastChance(now: number): Promise<number | null> {
    const [row] = await this.#database.query<{ next: string | number | null }>(
      `select min(d.reading_until) - $2::bigint as next from deliveries d join accounts a on a.account = d.account
       where a.state = 'linked' and d.reading_at is not null and d.reading_until - $2::bigint > $1`,
      [now, SOON],
    )
    return row?.next == null ? null : Number(row.next)
  }

  /** Readings after a cursor, oldest first. */
  async page(after: number, limit = 500): Promise<ReadingPage> {
    const { cursor, items: readings } = await this.#outbox.after(after, limit)
    return { cursor, readings }
  }

  /** Forgets readings up to a cursor: the app has them. */
  acknowledge(cursor: number): Promise<void> {
    return this.#outbox.acknowledge(cursor)
  }
}
