import { PageLink } from '../../core/model'
import type { Database } from './database'

/** The pages of links that brands publish. */
export class LinkPages {
  readonly #database: Database

  constructor(database: Database) {
    this.#database = database
  }

  async publish(brand: string, name: string, links: readonly PageLink[]): Promise<void> {
    await this.#database.query(
      `insert into link_pages (brand, name, links) values ($1, $2, $3)
       on conflict (brand) do update set name = excluded.name, links = excluded.links`,
      [brand, name, JSON.stringify(links)],
    )
  }

  async of(brand: string): Promise<{ name: string; links: PageLink[] } | null> {
    const [row] = await this.#database.query<{ name: string; links: string }>(
      `select name, links from link_pages where brand = $1`,
      [brand],
    )
    return row ? { name: row.name, links: PageLink.array().parse(JSON.parse(row.links)) } : null
  }

  async end(brand: string): Promise<void> {
    await this.#database.query(`delete from link_pages where brand = $1`, [brand])
  }
}
