import { randomBytes } from 'node:crypto'
import { z } from 'zod'
import { DOCUMENT_TYPES, writePublished } from '../../core/formats'
import { Fault, Publication, PublishedDocument } from '../../core/model'
import type { App, Context } from '../context'
import type { Database } from '../store/database'
import { typed } from './typed'
import { mustOwn } from './workspace'

const BODY = 12 * 1024 * 1024
const Key = z.object({ id: z.string().min(1).max(200) })
const Address = z.object({ id: z.string(), url: z.string() })

interface Row {
  id: string
  secret: string
  kind: PublishedDocument['kind']
  title: string
  home: string
  items: number
  publications: string
}

/**
 * What pipelines publish of their posts: feeds and archive sheets, each under an address that is minted here and
 * stays the same. A post that was handed over stands in them from the moment it goes out, also while the app is closed.
 */
export function documentRoutes(app: App, context: Context): void {
  const addressOf = ({ secret, kind }: Pick<Row, 'secret' | 'kind'>): string =>
    `${context.origin}/published/${secret}.${DOCUMENT_TYPES[kind].ending}`

  typed(app).get(
    '/api/documents',
    {
      schema: {
        summary: 'The addresses of everything that is published',
        response: { 200: z.object({ documents: z.array(Address) }) },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      const rows = await context.house().database.query<Row>(`select id, secret, kind from documents`)
      return { documents: rows.map((r) => ({ id: r.id, url: addressOf(r) })) }
    },
  )

  typed(app).put(
    '/api/documents/:id',
    {
      bodyLimit: BODY,
      schema: {
        summary: 'Publish posts as a feed or a sheet, in the place of what stood there',
        params: Key,
        body: PublishedDocument,
        response: { 200: Address },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      const { kind, title, home, items, publications } = request.body
      const [row] = await context.house().database.query<Row>(
        `insert into documents (id, secret, kind, title, home, items, publications) values ($1, $2, $3, $4, $5, $6, $7)
         on conflict (id) do update set kind = excluded.kind, title = excluded.title, home = excluded.home, items = excluded.items,
           publications = excluded.publications
         returning secret, kind`,
        [
          request.params.id,
          randomBytes(18).toString('base64url'),
          kind,
          title,
          home ?? context.origin,
          items,
          JSON.stringify(publications),
        ],
      )
      if (!row) throw new Fault('internal', 'The document could not be kept.')
      return { id: request.params.id, url: addressOf(row) }
    },
  )

  typed(app).delete(
    '/api/documents/:id',
    {
      schema: {
        summary: 'Publish it no more; its address answers no longer',
        params: Key,
        response: { 200: Key },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      await context.house().database.query(`delete from documents where id = $1`, [request.params.id])
      return { id: request.params.id }
    },
  )

  typed(app).get(
    '/published/:file',
    { schema: { summary: 'A feed or an archive sheet', params: z.object({ file: z.string().max(80) }) } },
    async (request, reply) => {
      const secret = request.params.file.replace(/\.[a-z]+$/, '')
      const { database } = context.house()
      const [row] = await database.query<Row>(`select * from documents where secret = $1`, [secret])
      if (!row)
        throw new Fault(
          'not-found',
          'There is nothing at this address any more. The pipeline that published it says its new one.',
        )
      const out = await whatIsOut(database, Publication.array().parse(JSON.parse(row.publications)))
      const now = new Date(context.clock.now()).toISOString()
      return reply
        .type(DOCUMENT_TYPES[row.kind].type)
        .header('cache-control', 'public, max-age=300')
        .send(writePublished(row, out, { url: addressOf(row), home: row.home, now }))
    },
  )
}

/** Publications that are out: those the app knows of, and what was handed over and has gone out since. */
async function whatIsOut(
  database: Database,
  publications: readonly Publication[],
): Promise<(Publication & { at: string })[]> {
  const open = publications.filter((p) => p.at === null).map((p) => p.post)
  const rows = open.length
    ? await database.query<{ post: string; published_at: string | number; public_url: string | null }>(
        `select post, published_at, public_url from deliveries
         where state = 'published' and published_at is not null
           and post in (select jsonb_array_elements_text(cast($1 as jsonb)))`,
        [JSON.stringify(open)],
      )
    : []
  const since = new Map(rows.map((r) => [r.post, r]))
  return publications.flatMap((p) => {
    if (p.at !== null) return [{ ...p, at: p.at }]
    const row = since.get(p.post)
    if (!row) return []
    return [{ ...p, at: new Date(Number(row.published_at)).toISOString(), publicUrl: row.public_url }]
  })
}
