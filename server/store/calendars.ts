import { CalendarEntry } from '../../core/model'
import type { Database } from './database'

/** The calendars of brands that have an address, with what they show. */
export class Calendars {
  readonly #database: Database

  constructor(database: Database) {
    this.#database = database
  }

  /** The secret of a brand's address, or null where it has none. */
  async secretOf(brand: string): Promise<string | null> {
    const [row] = await this.#database.query<{ secret: string }>(
      `select secret from calendars where brand = $1`,
      [brand],
    )
    return row?.secret ?? null
  }

  /** Gives a brand's calendar a secret; one that it had is over. */
  async give(brand: string, secret: string): Promise<void> {
    await this.#database.query(
      `insert into calendars (brand, secret, name, entries) values ($1, $2, '', '[]')
       on conflict (brand) do update set secret = excluded.secret`,
      [brand, secret],
    )
  }

  /** Puts what a calendar shows in the place of what it showed, where the brand has one; gives its secret. */
  async show(brand: string, name: string, entries: readonly CalendarEntry[]): Promise<string | null> {
    const [row] = await this.#database.query<{ secret: string }>(
      `update calendars set name = $2, entries = $3 where brand = $1 returning secret`,
      [brand, name, JSON.stringify(entries)],
    )
    return row?.secret ?? null
  }

  /** The calendar under a secret. */
  async under(secret: string): Promise<{ name: string; entries: CalendarEntry[] } | null> {
    const [row] = await this.#database.query<{ name: string; entries: string }>(
      `select name, entries from calendars where secret = $1`,
      [secret],
    )
    return row ? { name: row.name, entries: CalendarEntry.array().parse(JSON.parse(row.entries)) } : null
  }

  async end(brand: string): Promise<void> {
    await this.#database.query(`delete from calendars where brand = $1`, [brand])
  }
}
