import { createHash } from 'node:crypto'
import type { FetchAnswer, Snapshot, Watched } from '../../core/model'
import type { Database } from '../store/database'

/** How long after its moment a visit of the app is waited for, in milliseconds of the shared clock: while it is open it comes by itself. */
const GRACE = 5 * 60_000
/** How often is looked for what is due, in real milliseconds. */
const TICK = 15_000
/** So many snapshots of a feed are kept, the newest. */
const KEPT = 40
const MINUTE = 60_000
/** A feed that fails is asked at most so many times slower. */
const SLOWEST = 8

interface Row {
  source: string
  url: string
  every_minutes: number
  etag: string | null
  last_modified: string | null
  hash: string
  next_at: string | number
  failures: number
}

/** Fetches a feed as text; a site that does not answer is thrown or told as trouble. */
export type FetchFeed = (
  url: string,
  known: { etag: string | null; lastModified: string | null },
) => Promise<FetchAnswer>

/**
 * Goes on visiting the feeds that the app watches, while the app is closed: what a feed said is kept as it was, each
 * time it says something else, and the app reads all of it in order at its next visit. So no item of a feed that shows
 * only its last few is lost.
 */
export class Watcher {
  readonly #database: Database
  readonly #now: () => number
  readonly #fetch: FetchFeed
  #timer: NodeJS.Timeout | null = null
  #stopped = false

  constructor(parts: { database: Database; now: () => number; fetch: FetchFeed }) {
    this.#database = parts.database
    this.#now = parts.now
    this.#fetch = parts.fetch
  }

  start(): void {
    const tick = async (): Promise<void> => {
      await this.visitDue().catch((error: unknown) => {
        if (!this.#stopped) process.stderr.write(`The watched feeds could not be read: ${String(error)}\n`)
      })
      if (!this.#stopped) this.#timer = setTimeout(() => void tick(), TICK)
    }
    this.#timer = setTimeout(() => void tick(), TICK)
  }

  stop(): void {
    this.#stopped = true
    if (this.#timer) clearTimeout(this.#timer)
  }

  /** Watches these feeds and no others from now on. Snapshots of feeds that are watched no more go. */
  async watch(feeds: readonly Watched[]): Promise<void> {
    await this.#database.transaction(async (tx) => {
      const rows = await tx.query<Row>(`select * from watched`)
      const wanted = new Set(feeds.map((f) => f.source))
      for (const { source } of rows.filter((r) => !wanted.has(r.source))) {
        await tx.query(`delete from watched where source = $1`, [source])
        await tx.query(`delete from snapshots where source = $1`, [source])
      }
      for (const feed of feeds) {
        const known = rows.find((r) => r.source === feed.source)
        const same = known?.url === feed.url
        await tx.query(
          `insert into watched (source, url, every_minutes, etag, last_modified, hash, next_at, failures)
           values ($1, $2, $3, $4, $5, $6, $7, 0)
           on conflict (source) do update set url = excluded.url, every_minutes = excluded.every_minutes,
             etag = excluded.etag, last_modified = excluded.last_modified, hash = excluded.hash,
             next_at = excluded.next_at, failures = 0`,
          [
            feed.source,
            feed.url,
            feed.everyMinutes,
            feed.etag,
            feed.lastModified,
            same ? (known?.hash ?? '') : '',
            Date.parse(feed.nextAt),
          ],
        )
      }
    })
  }

  /** What the feed of a source said while the app was closed, the oldest first. */
  async snapshots(source: string): Promise<Snapshot[]> {
    const rows = await this.#database.query<{ id: string | number; at: string | number; text: string }>(
      `select id, at, text from snapshots where source = $1 order by id`,
      [source],
    )
    return rows.map((r) => ({ id: Number(r.id), at: new Date(Number(r.at)).toISOString(), text: r.text }))
  }

  /** Forgets the snapshots of a source up to one, once they were read. */
  async forget(source: string, upTo: number): Promise<void> {
    await this.#database.query(`delete from snapshots where source = $1 and id <= $2`, [source, upTo])
  }

  /** Visits what is due, one feed after the other. */
  async visitDue(): Promise<void> {
    const rows = await this.#database.query<Row>(
      `select * from watched where next_at <= $1 order by next_at`,
      [this.#now() - GRACE],
    )
    for (const row of rows) {
      if (this.#stopped) return
      // Where several servers share the work, one of them takes the visit.
      const [mine] = await this.#database.query<Row>(
        `update watched set next_at = $3 where source = $1 and next_at = $2 returning *`,
        [row.source, Number(row.next_at), this.#now() + Number(row.every_minutes) * MINUTE],
      )
      if (mine) await this.#visit(mine)
    }
  }

  async #visit(row: Row): Promise<void> {
    const answer = await this.#fetch(row.url, { etag: row.etag, lastModified: row.last_modified }).catch(
      () => null,
    )
    if (!answer || answer.trouble) {
      const slower = Math.min(SLOWEST, 2 ** row.failures)
      const asked = (answer?.trouble?.waitSeconds ?? 0) * 1000
      const wait = Math.max(asked, row.every_minutes * MINUTE * slower)
      await this.#database.query(
        `update watched set failures = failures + 1, next_at = $2 where source = $1`,
        [row.source, this.#now() + wait],
      )
      return
    }
    const hash = answer.unchanged ? row.hash : createHash('sha256').update(answer.text).digest('hex')
    if (!answer.unchanged && hash !== row.hash) {
      await this.#database.query(`insert into snapshots (source, at, text) values ($1, $2, $3)`, [
        row.source,
        this.#now(),
        answer.text,
      ])
      await this.#database.query(
        `delete from snapshots where source = $1 and id not in (
           select id from snapshots where source = $1 order by id desc limit ${KEPT}
         )`,
        [row.source],
      )
    }
    await this.#database.query(
      `update watched set failures = 0, hash = $2, etag = $3, last_modified = $4 where source = $1`,
      [row.source, hash, answer.etag, answer.lastModified],
    )
  }
}
