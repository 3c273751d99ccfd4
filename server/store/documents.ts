import { Publication, type PublishedDocument } from '../../core/model'
import type { Database } from './database'

/** A feed or a sheet as it is kept: under which secret it answers, and what stands in it. */
export interface KeptDocument {
  id: string
  secret: string
  kind: PublishedDocument['kind']
  title: string
  home: string
  items: number
  publications: Publication[]
}
type Row = Omit<KeptDocument, 'publications'> & { publications: string }
/** What its address is made of. */
export type Addressed = Pick<KeptDocument, 'id' | 'secret' | 'kind'>

/** What pipelines publish of their posts. */
export class Documents {
  readonly #database: Database

  constructor(database: Database) {
    this.#database = database
  }

  async all(): Promise<Addressed[]> {
    return this.#database.query<Addressed>(`select id, secret, kind from documents`)
  }

  /** Keeps a document in the place of what stood there; one that is known keeps its secret. */
  async keep(document: KeptDocument): Promise<Addressed> {
    const { id, secret, kind, title, home, items, publications } = document
    const [row] = await this.#database.query<Addressed>(
      `insert into documents (id, secret, kind, title, home, items, publications) values ($1, $2, $3, $4, $5, $6, $7)
       on conflict (id) do update set kind = excluded.kind, title = excluded.title, home = excluded.home, items = excluded.items,
         publications = excluded.publications
       returning id, secret, kind`,
      [id, secret, kind, title, home, items, JSON.stringify(publications)],
    )
    return row ?? document
  }

  async under(secret: string): Promise<KeptDocument | null> {
    const [row] = await this.#database.query<Row>(`select * from documents where secret = $1`, [secret])
    return row ? { ...row, publications: Publication.array().parse(JSON.parse(row.publications)) } : null
  }

  async end(id: string): Promise<void> {
    await this.#database.query(`delete from documents where id = $1`, [id])
  }
}
