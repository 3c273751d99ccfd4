import type { Queryable } from './database'
import { isSealed, type Secrets } from './secrets'

/** Words that the server keeps by name; those that prove something lie sealed. */
export class Settings {
  readonly #database: Queryable
  readonly #secrets: Secrets

  constructor(database: Queryable, secrets: Secrets) {
    this.#database = database
    this.#secrets = secrets
  }

  async read(name: string): Promise<string | null> {
    const [row] = await this.#database.query<{ value: string }>(`select value from settings where key = $1`, [
      name,
    ])
    return row?.value ?? null
  }

  async keep(name: string, value: string): Promise<void> {
    await this.#database.query(
      `insert into settings (key, value) values ($1, $2) on conflict (key) do update set value = excluded.value`,
      [name, value],
    )
  }

  /** Keeps a value where none is yet, or in place of it; gives the one that stands then. */
  async claim(name: string, value: string, takeOver: boolean): Promise<string> {
    const [row] = await this.#database.query<{ value: string }>(
      `insert into settings (key, value) values ($1, $2)
       on conflict (key) do update set value = case when $3 then excluded.value else settings.value end returning value`,
      [name, value, takeOver],
    )
    return row?.value ?? value
  }

  async forget(name: string): Promise<void> {
    await this.#database.query(`delete from settings where key = $1`, [name])
  }

  async readSealed(name: string): Promise<string | null> {
    const value = await this.read(name)
    return value === null || !isSealed(value) ? value : this.#secrets.open(value)
  }

  async keepSealed(name: string, value: string): Promise<void> {
    await this.keep(name, this.#secrets.seal(value))
  }
}
