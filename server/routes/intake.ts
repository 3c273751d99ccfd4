import { z } from 'zod'
import { decodeText } from '../../core/feeds'
import { Counts, Fault, FetchAnswer } from '../../core/model'
import type { App, Context } from '../server'
import type { World } from '../intake/addresses'
import { safeFetch, type Fetched } from '../intake/fetch'
import { mindRobots } from '../intake/robots'
import { typed } from './typed'

const ACCEPT = {
  feed: 'application/rss+xml, application/atom+xml, application/feed+json, text/html;q=0.9, */*;q=0.5',
  page: 'text/html, application/xhtml+xml, */*;q=0.5',
  file: 'text/vtt, application/json, text/plain, text/csv, */*;q=0.5',
}

/** What a site's refusal means, in words a person can act on. */
function troubleOf({ url, status, retryAfter }: Omit<Fetched, 'bytes'>): FetchAnswer['trouble'] {
  const { host } = new URL(url)
  const say = (message: string, gone = false) => ({ message, gone, waitSeconds: retryAfter })
  if (status === 410)
    return say(`${host} says that this is gone for good. Remove it, or give its new address.`, true)
  if (status === 404)
    return say(`There is nothing at this address at ${host} any more (404). Check the address.`)
  if (status === 401 || status === 403)
    return say(`${host} does not let us read this (${status}). Check that it is public.`)
  if (status === 429) return say(`${host} asks us to come less often (429). The next visit waits.`)
  if (status >= 500) return say(`${host} is in trouble (${status}). It is tried again later.`)
  return say(`${host} answered ${status}. Check the address, or try again later.`)
}

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
        summary: 'Fetch a feed, a page or a file as text',
        body: z.object({
          url: z.string().max(2000),
          etag: z.string().nullable().default(null),
          lastModified: z.string().nullable().default(null),
          /** Pages are read only where the site's robots.txt lets programs read them. */
          as: z.enum(['feed', 'page', 'file']).default('feed'),
        }),
        response: { 200: FetchAnswer },
      },
    },
    async (request) => {
      const { etag, lastModified, as, url } = request.body
      const { bytes, ...answer } = await safeFetch(url, {
        world,
        etag,
        lastModified,
        accept: ACCEPT[as],
        ...(as === 'page' ? { mayRead: (address: string) => mindRobots(address, world) } : {}),
      })
      const trouble =
        answer.unchanged || (answer.status >= 200 && answer.status < 300) ? null : troubleOf(answer)
      return { ...answer, trouble, text: trouble ? '' : decodeText(bytes, answer.contentType) }
    },
  )

  typed(app).post(
    '/api/intake/counts',
    {
      config: limit,
      schema: {
        summary: 'How often addresses were shared, by the share-count service',
        body: z.object({ urls: z.array(z.string().max(2000)).max(200) }),
        response: { 200: z.object({ counts: z.array(Counts.nullable()) }) },
      },
    },
    async (request) => {
      const service = context.options.worldUrl
      if (!service) return { counts: request.body.urls.map(() => null) }
      const answer = await fetch(`${service}/counts`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ urls: request.body.urls }),
        signal: AbortSignal.timeout(10_000),
      }).catch(() => null)
      if (!answer?.ok)
        throw new Fault(
          'unreachable',
          'The share-count service does not answer. Its counts stay as they were.',
        )
      return z.object({ counts: z.array(Counts.nullable()) }).parse(await answer.json())
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
