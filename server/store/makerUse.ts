import type { Database } from './database'

/** How many pictures were ordered, by days. */
export class MakerUse {
  readonly #database: Database

  constructor(database: Database) {
    this.#database = database
  }

  async of(day: string): Promise<number> {
    const [use] = await this.#database.query<{ pictures: number }>(
      `select pictures from maker_use where day = $1`,
      [day],
    )
    return Number(use?.pictures ?? 0)
  }

  /** Counts one more order, where the day's orders have not reached a number; false where they have. */
  async take(day: string, most: number): Promise<boolean> {
    if (most < 1) return false
    const taken = await this.#database.query<{ pictures: number }>(
      `insert into maker_use (day, pictures) values ($1, 1)
       on conflict (day) do update set pictures = maker_use.pictures + 1 where maker_use.pictures < $2
       returning pictures`,
      [day, most],
    )
    return taken.length > 0
  }
}
