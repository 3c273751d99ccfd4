import type { Snapshot, Watched } from '../../core/model'
import type { Database } from './database'

/** So many snapshots of a feed are kept, the newest. */
const KEPT = 40

/** A feed that is visited while the app is closed. */
export interface WatchedFeed {
  source: string
  url: string
  everyMinutes: number
  etag: string | null
  lastModified: string | null
  /** Of what it said last; empty before the first visit. */
  hash: string
  nextAt: number
  /** How many visits failed since the last one that did not. */
  failures: number
}

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

function feedOf(row: Row): WatchedFeed {
  return {
    source: row.source,
    url: row.url,
    everyMinutes: Number(row.every_minutes),
    etag: row.etag,
    lastModified: row.last_modified,
    hash: row.hash,
    nextAt: Number(row.next_at),
    failures: Number(row.failures),
  }
}

/** The feeds that the app watches, and what each said while the app was closed. */
export class WatchedFeeds {
  readonly #database: Database

  constructor(database: Database) {
    this.#database = database
  }

  /** These feeds and no others from now on. Snapshots of feeds that are watched no more go. */
  async replace(feeds: readonly Watched[]): Promise<void> {
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

  /** The feeds whose visit was due by a moment, the longest due first. */
  async due(by: number): Promise<WatchedFeed[]> {
    const rows = await this.#database.query<Row>(
      `select * from watched where next_at <= $1 order by next_at`,
      [by],
    )
    return rows.map(feedOf)
  }

  /** Takes a visit, where several servers share the work; null where another one has it. */
  async take({ source, nextAt }: WatchedFeed, next: number): Promise<WatchedFeed | null> {
    const [row] = await this.#database.query<Row>(
      `update watched set next_at = $3 where source = $1 and next_at = $2 returning *`,
      [source, nextAt, next],
    )
    return row ? feedOf(row) : null
  }

  async failed(source: string, next: number): Promise<void> {
    await this.#database.query(`update watched set failures = failures + 1, next_at = $2 where source = $1`, [
      source,
      next,
    ])
  }

  /** Writes down a visit that was answered. */
  async visited({ source, hash, etag, lastModified }: WatchedFeed): Promise<void> {
    await this.#database.query(
      `update watched set failures = 0, hash = $2, etag = $3, last_modified = $4 where source = $1`,
      [source, hash, etag, lastModified],
    )
  }

  /** Keeps what a feed said; of many only the newest. */
  async addSnapshot(source: string, at: number, text: string): Promise<void> {
    await this.#database.query(`insert into snapshots (source, at, text) values ($1, $2, $3)`, [
      source,
      at,
      text,
    ])
    await this.#database.query(
      `delete from snapshots where source = $1 and id not in (
         select id from snapshots where source = $1 order by id desc limit ${KEPT}
       )`,
      [source],
    )
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
}
