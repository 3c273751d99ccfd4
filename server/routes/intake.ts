import { z } from 'zod'
import { decodeText } from '../../core/feeds'
import { asFault, Counts, Fault, FetchAnswer } from '../../core/model'
import type { App, Context } from '../context'
import type { World } from '../intake/addresses'
import { safeFetch, type Fetched } from '../intake/fetch'
import { filmPart } from '../intake/film'
import { shareCounts } from '../services/counts'
import { mindRobots } from '../intake/robots'
import { typed } from './typed'

const ACCEPT = {
  feed: 'application/rss+xml, application/atom+xml, application/feed+json, text/html;q=0.9, */*;q=0.5',
  page: 'text/html, application/xhtml+xml, */*;q=0.5',
  file: 'text/vtt, application/json, text/plain, text/csv, */*;q=0.5',
}

/** What a site's refusal means, in words a person can act on. */
function troubleOf({
  url,
  status,
  retryAfter,
}: Omit<Fetched, 'bytes' | 'link' | 'contentRange'>): FetchAnswer['trouble'] {
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

/** Answers to HEAD that say only that HEAD is not liked. */
const NO_HEAD = new Set([400, 403, 405, 406, 501])

/** What is wrong with a page that a link leads to, or null. A site that is away for now is no broken link. */
async function linkTrouble(url: string, world: World | null): Promise<string | null> {
  try {
    let answer = await safeFetch(url, { world, method: 'HEAD' })
    if (NO_HEAD.has(answer.status)) answer = await safeFetch(url, { world, accept: ACCEPT.page })
    return answer.status === 404 || answer.status === 410 ? (troubleOf(answer)?.message ?? null) : null
  } catch (error) {
    const fault = asFault(error)
    return fault.code === 'bad-answer' || fault.code === 'bad-request' ? fault.message : null
  }
}

/** A feed, a page or a file as text, with what stands in the way as a sentence. Pages are read only where robots.txt lets programs read them. */
export async function fetchText(
  {
    url,
    etag,
    lastModified,
    as,
  }: { url: string; etag: string | null; lastModified: string | null; as: keyof typeof ACCEPT },
  world: World | null,
): Promise<FetchAnswer> {
  const {
    bytes,
    link: _,
    contentRange: __,
    ...answer
  } = await safeFetch(url, {
    world,
    etag,
    lastModified,
    accept: ACCEPT[as],
    ...(as === 'page' ? { mayRead: (address: string) => mindRobots(address, world) } : {}),
  })
  const trouble = answer.unchanged || (answer.status >= 200 && answer.status < 300) ? null : troubleOf(answer)
  return { ...answer, trouble, text: trouble ? '' : decodeText(bytes, answer.contentType) }
}

/** Fetching on behalf of sources, safely. */
export function intakeRoutes(app: App, context: Context): void {
  const { world } = context
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
          as: z.enum(['feed', 'page', 'file']).default('feed'),
        }),
        response: { 200: FetchAnswer },
      },
    },
    (request) => fetchText(request.body, world),
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
    async (request) => ({ counts: await shareCounts(context.options.countsUrl, request.body.urls) }),
  )

  typed(app).post(
    '/api/intake/links',
    {
      config: limit,
      schema: {
        summary: 'Whether pages can be read by those who follow a link to them: null, or what is wrong',
        body: z.object({ urls: z.array(z.string().max(2000)).min(1).max(50) }),
        response: { 200: z.object({ troubles: z.array(z.string().nullable()) }) },
      },
    },
    async (request) => ({
      troubles: await Promise.all(request.body.urls.map((url) => linkTrouble(url, world))),
    }),
  )

  typed(app).get(
    '/api/intake/film',
    {
      config: limit,
      schema: {
        summary: 'Some bytes of a film, as a Range header asks for them, 4 MB at most',
        querystring: z.object({ url: z.string().max(2000) }),
      },
    },
    async (request, reply) => {
      const [, from = '0', to = ''] = /^bytes=(\d+)-(\d*)$/.exec(request.headers.range ?? '') ?? []
      const part = await filmPart(request.query.url, Number(from), to === '' ? null : Number(to), world)
      return reply
        .status(206)
        .header('content-type', part.type)
        .header('accept-ranges', 'bytes')
        .header('content-range', `bytes ${part.from}-${part.to}/${part.size}`)
        .send(part.bytes)
    },
  )

  typed(app).post(
    '/api/intake/picture',
    { config: limit, schema: { summary: 'Fetch a picture', body: z.object({ url: z.string().max(2000) }) } },
    async (request, reply) => {
      const answer = await safeFetch(request.body.url, { world, accept: 'image/*' })
      // What may be otherwise tomorrow says nothing of the picture.
      if (answer.status === 429 || answer.status >= 500)
        throw new Fault('unreachable', troubleOf(answer)?.message ?? '', answer.url)
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
