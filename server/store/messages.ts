import type { Database } from './database'

/** A message that a chat has not taken yet. */
export interface WaitingMessage {
  key: string
  text: string
  /** How often it was tried, this time counted. */
  tries: number
  /** When it was said, in milliseconds since 1970. */
  at: number
}

/** What is said in the team chat: one key once, in the order in which it was said. */
export class Messages {
  readonly #database: Database

  constructor(database: Database) {
    this.#database = database
  }

  /** Those that wait, the oldest first, as why they do; empty for no trouble so far. */
  async waiting(): Promise<string[]> {
    const rows = await this.#database.query<{ reason: string }>(
      `select reason from messages where done_at is null order by at`,
    )
    return rows.map((r) => r.reason)
  }

  async add(lines: readonly { key: string; text: string }[], now: number): Promise<void> {
    for (const [i, { key, text }] of lines.entries())
      await this.#database.query(
        `insert into messages (key, text, at, next_try_at) values ($1, $2, $3, 0) on conflict (key) do nothing`,
        [key, text, now + i],
      )
  }

  /** Takes the next one that is due. Its next try is put off until then, so that no second server takes it meanwhile. */
  async take(now: number, until: number): Promise<WaitingMessage | null> {
    const [row] = await this.#database.query<WaitingMessage & { at: string | number }>(
      `update messages set tries = tries + 1, next_try_at = $1 where key = (
         select key from messages where done_at is null and next_try_at <= $2 order by at, key limit 1
       ) and next_try_at <= $2 returning key, text, tries, at`,
      [until, now],
    )
    return row ? { ...row, tries: Number(row.tries), at: Number(row.at) } : null
  }

  /** Nothing more is done with it: it was taken, or `reason` says why not. */
  async done(key: string, now: number, reason: string): Promise<void> {
    await this.#database.query(`update messages set done_at = $2, reason = $3 where key = $1`, [
      key,
      now,
      reason,
    ])
  }

  async later(key: string, at: number, reason: string): Promise<void> {
    await this.#database.query(`update messages set next_try_at = $2, reason = $3 where key = $1`, [
      key,
      at,
      reason,
    ])
  }

  /** What waits is tried again at once. */
  async hasten(): Promise<void> {
    await this.#database.query(`update messages set next_try_at = 0 where done_at is null`)
  }

  /** What waits is sent no more. */
  async giveUp(now: number): Promise<void> {
    await this.#database.query(`update messages set done_at = $1 where done_at is null`, [now])
  }

  /** Forgets what was done before a moment, and with it that its keys were said. */
  async forget(before: number): Promise<void> {
    await this.#database.query(`delete from messages where done_at < $1`, [before])
  }
}
