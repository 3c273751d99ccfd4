import type { z } from 'zod'
import type { Database } from './database'

type OutboxTable = 'receipts' | 'readings' | 'followings'

/** What waits for the app in the order in which it came about, until the app says that it has it. */
export class Outbox<T extends z.ZodType> {
  readonly #database: Database
  readonly #table: OutboxTable
  readonly #schema: T

  constructor(database: Database, table: OutboxTable, schema: T) {
    this.#database = database
    this.#table = table
    this.#schema = schema
  }

  /** At most `limit` after a cursor, oldest first, and the cursor of the last. */
  async after(cursor: number, limit: number): Promise<{ cursor: number; items: z.output<T>[] }> {
    const rows = await this.#database.query<{ cursor: string | number; body: string }>(
      `select cursor, body from ${this.#table} where cursor > $1 order by cursor limit $2`,
      [cursor, limit],
    )
    return {
      cursor: Number(rows.at(-1)?.cursor ?? cursor),
      items: rows.map((r) => this.#schema.parse(JSON.parse(r.body))),
    }
  }

  /** Forgets what came up to a cursor: the app has it. */
  async acknowledge(cursor: number): Promise<void> {
    await this.#database.query(`delete from ${this.#table} where cursor <= $1`, [cursor])
  }
}
