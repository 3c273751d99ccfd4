import { z } from 'zod'
import { decodeText } from '../../core/feeds'
import { Fault } from '../../core/model'
import type { App, Context } from '../server'
import type { World } from '../intake/addresses'
import { safeFetch } from '../intake/fetch'
import { typed } from './typed'

/** Fetching on behalf of sources, safely. */
export function intakeRoutes(app: App, context: Context): void {
  const url = context.options.worldUrl ? new URL(context.options.worldUrl) : null
  const world: World | null = url ? { host: url.hostname, port: Number(url.port || 80) } : null
  const limit = { rateLimit: { max: 1200, timeWindow: 60_000 } }

  typed(app).post(
    '/api/intake/fetch',
    {
      config: limit,
      schema: {
        summary: 'Fetch a feed or page as text',
        body: z.object({
          url: z.string().max(2000),
          etag: z.string().nullable().default(null),
          lastModified: z.string().nullable().default(null),
        }),
        response: {
          200: z.object({
            url: z.string(),
            status: z.int(),
            contentType: z.string(),
            etag: z.string().nullable(),
            lastModified: z.string().nullable(),
            unchanged: z.boolean(),
            text: z.string(),
          }),
        },
      },
    },
    async (request) => {
      const { etag, lastModified } = request.body
      const { bytes, ...answer } = await safeFetch(request.body.url, {
        world,
        etag,
        lastModified,
        accept:
          'application/rss+xml, application/atom+xml, application/feed+json, text/html;q=0.9, */*;q=0.5',
      })
      if (!answer.unchanged && (answer.status < 200 || answer.status > 299))
        throw new Fault(
          'bad-answer',
          `${new URL(answer.url).host} answered ${answer.status}${answer.status === 404 ? ': there is nothing at this address' : ''}. Check the address, or try again later.`,
          answer.url,
        )
      return { ...answer, text: decodeText(bytes, answer.contentType) }
    },
  )

  typed(app).post(
    '/api/intake/picture',
    { config: limit, schema: { summary: 'Fetch a picture', body: z.object({ url: z.string().max(2000) }) } },
    async (request, reply) => {
      const answer = await safeFetch(request.body.url, { world, accept: 'image/*' })
      if (answer.status !== 200 || !/^image\/(png|jpeg|webp|gif|avif)/.test(answer.contentType))
        throw new Fault(
          'bad-answer',
          `There is no picture at ${new URL(answer.url).host} under this address. Choose another one.`,
          answer.url,
        )
      return reply.header('content-type', answer.contentType).send(answer.bytes)
    },
  )
}
