import type { ConnectorId } from '../../core/model'
import type { Database } from './database'

/** A linking that was begun: who comes back with its state is led to the end of it. */
export interface Begun {
  connector: ConnectorId
  network: string
  brand: string
  /** Where in the app the person goes afterwards. */
  back: string
  kept: Readonly<Record<string, string>>
}

/** How long a person may take on the network's page, in real milliseconds. */
const LIFE = 15 * 60_000

/** Linkings under way. They lie in the database, since another server may be the one that the person comes back to. */
export class Authorisations {
  readonly #database: Database

  constructor(database: Database) {
    this.#database = database
  }

  async begin(state: string, begun: Begun): Promise<void> {
    await this.#database.query(`delete from authorisations where until < $1`, [Date.now()])
    await this.#database.query(
      `insert into authorisations (state, connector, network, brand, back, kept, until) values ($1, $2, $3, $4, $5, $6, $7)`,
      [
        state,
        begun.connector,
        begun.network,
        begun.brand,
        begun.back,
        JSON.stringify(begun.kept),
        Date.now() + LIFE,
      ],
    )
  }

  /** Takes a linking by its state, once; null where it was not begun here, or too long ago. */
  async take(state: string): Promise<Begun | null> {
    const [row] = await this.#database.query<Omit<Begun, 'kept'> & { kept: string }>(
      `delete from authorisations where state = $1 and until >= $2 returning connector, network, brand, back, kept`,
      [state, Date.now()],
    )
    return row ? { ...row, kept: JSON.parse(row.kept) as Record<string, string> } : null
  }
}
