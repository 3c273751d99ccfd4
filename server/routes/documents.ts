import { randomBytes } from 'node:crypto'
import { z } from 'zod'
import { DOCUMENT_TYPES, writePublished } from '../../core/formats'
import type { Publication } from '../../core/model'
import { Fault, PublishedDocument } from '../../core/model'
import type { App, Context } from '../context'
import type { Addressed } from '../store/documents'
import type { Spool } from '../store/spool'
import { typed } from './typed'
import { mustOwn } from './workspace'

const BODY = 12 * 1024 * 1024
const Key = z.object({ id: z.string().min(1).max(200) })
const Address = z.object({ id: z.string(), url: z.string() })

/**
 * What pipelines publish of their posts: feeds and archive sheets, each under an address that is minted here and
 * stays the same. A post that was handed over stands in them from the moment it goes out, also while the app is closed.
 */
export function documentRoutes(app: App, context: Context): void {
  const addressOf = ({ secret, kind }: Addressed): string =>
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
      const rows = await context.parts().documents.all()
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
      const kept = await context.parts().documents.keep({
        id: request.params.id,
        secret: randomBytes(18).toString('base64url'),
        kind,
        title,
        home: home ?? context.origin,
        items,
        publications,
      })
      return { id: request.params.id, url: addressOf(kept) }
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
      await context.parts().documents.end(request.params.id)
      return { id: request.params.id }
    },
  )

  typed(app).get(
    '/published/:file',
    { schema: { summary: 'A feed or an archive sheet', params: z.object({ file: z.string().max(80) }) } },
    async (request, reply) => {
      const secret = request.params.file.replace(/\.[a-z]+$/, '')
      const { documents, spool } = context.parts()
      const row = await documents.under(secret)
      if (!row)
        throw new Fault(
          'not-found',
          'There is nothing at this address any more. The pipeline that published it says its new one.',
        )
      const out = await whatIsOut(spool, row.publications)
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
  spool: Spool,
  publications: readonly Publication[],
): Promise<(Publication & { at: string })[]> {
  const open = publications.filter((p) => p.at === null).map((p) => p.post)
  const since = await spool.out(open)
  return publications.flatMap((p) => {
    if (p.at !== null) return [{ ...p, at: p.at }]
    const row = since.get(p.post)
    if (!row) return []
    return [{ ...p, ...row }]
  })
}
