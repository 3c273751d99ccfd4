import { createHash } from 'node:crypto'
import type { FetchAnswer } from '../../core/model'
import type { Database } from '../store/database'
import { WatchedFeeds, type WatchedFeed } from '../store/watched'
import { log } from '../log'

/** How long after its moment a visit of the app is waited for, in milliseconds of the shared clock: while it is open it comes by itself. */
const GRACE = 5 * 60_000
/** How often is looked for what is due, in real milliseconds. */
const TICK = 15_000
const MINUTE = 60_000
/** A feed that fails is asked at most so many times slower. */
const SLOWEST = 8

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
  readonly feeds: WatchedFeeds
  readonly #now: () => number
  readonly #fetch: FetchFeed
  #timer: NodeJS.Timeout | null = null
  #stopped = false

  constructor(parts: { database: Database; now: () => number; fetch: FetchFeed }) {
    this.feeds = new WatchedFeeds(parts.database)
    this.#now = parts.now
    this.#fetch = parts.fetch
  }

  start(): void {
    const tick = async (): Promise<void> => {
      await this.visitDue().catch((error: unknown) => {
        if (!this.#stopped) log.error({ err: error }, 'The watched feeds could not be read.')
      })
      if (!this.#stopped) this.#timer = setTimeout(() => void tick(), TICK)
    }
    this.#timer = setTimeout(() => void tick(), TICK)
  }

  stop(): void {
    this.#stopped = true
    if (this.#timer) clearTimeout(this.#timer)
  }

  /** Visits what is due, one feed after the other. */
  async visitDue(): Promise<void> {
    for (const feed of await this.feeds.due(this.#now() - GRACE)) {
      if (this.#stopped) return
      const mine = await this.feeds.take(feed, this.#now() + feed.everyMinutes * MINUTE)
      if (mine) await this.#visit(mine)
    }
  }

  async #visit(feed: WatchedFeed): Promise<void> {
    const { source, url, etag, lastModified } = feed
    const answer = await this.#fetch(url, { etag, lastModified }).catch(() => null)
    if (!answer || answer.trouble) {
      const slower = Math.min(SLOWEST, 2 ** feed.failures)
      const asked = (answer?.trouble?.waitSeconds ?? 0) * 1000
      const wait = Math.max(asked, feed.everyMinutes * MINUTE * slower)
      await this.feeds.failed(source, this.#now() + wait)
      return
    }
    const hash = answer.unchanged ? feed.hash : createHash('sha256').update(answer.text).digest('hex')
    if (hash !== feed.hash) await this.feeds.addSnapshot(source, this.#now(), answer.text)
    await this.feeds.visited({ ...feed, hash, etag: answer.etag, lastModified: answer.lastModified })
  }
}
