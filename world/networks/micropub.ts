import { randomUUID } from 'node:crypto'
import type { FastifyInstance, FastifyReply } from 'fastify'
import { z } from 'zod'
import type { ServedNetwork } from '../../core/networks'
import { page } from '../html'
import type { Draft, WorldPost } from '../posts'
import { lookOf } from './looks'
import { publicUrl } from './pages'
import { html, type NetworkParts } from './parts'
import type { Permissions } from './permissions'
import { measure, publish, takeMedia } from './publishing'

const Values = z.record(z.string(), z.array(z.unknown()))
const Create = z.object({ type: z.tuple([z.literal('h-entry')]), properties: Values })
const Change = z.object({
  action: z.enum(['update', 'delete', 'undelete']),
  url: z.string(),
  replace: Values.default({}),
  add: Values.default({}),
})

/** The links by which a page says where it takes posts. */
export function micropubLinks(profile: ServedNetwork, origin: string): { link: string } {
  const base = `${origin}${profile.service.path}`
  return {
    link: [
      `<${base}/micropub>; rel="micropub"`,
      `<${base}/authorize>; rel="authorization_endpoint"`,
      `<${base}/token>; rel="token_endpoint"`,
    ].join(', '),
  }
}

/** A stand-in site that takes posts by Micropub (W3C Recommendation 2017) under a permission by IndieAuth with PKCE. */
export function micropubRoutes(
  app: FastifyInstance,
  profile: ServedNetwork,
  parts: NetworkParts,
  permissions: Permissions,
): void {
  const { store, origin } = parts
  const base = profile.service.path
  const urlOf = (post: WorldPost): string => `${origin}${base}/posts/${post.id}/page`
  const refuse = (reply: FastifyReply, status: number, error: string, description: string): FastifyReply =>
    reply.status(status).send({ error, error_description: description })

  app.get(`${base}/`, (_request, reply) =>
    html(
      reply.headers(micropubLinks(profile, origin)),
      page(
        profile.name,
        `<header>${profile.name}</header><main><h1>${profile.name}</h1><p>Letters and articles, each under its own name.</p></main>`,
        lookOf(profile.id),
      ),
    ),
  )

  app.post(`${base}/token`, async (request, reply) => {
    const { code, code_verifier: verifier } = z
      .object({ code: z.string(), code_verifier: z.string().default('') })
      .parse(request.body)
    const granted = await permissions.exchange(code, verifier)
    if (!granted)
      return refuse(reply, 400, 'invalid_grant', 'The code is unknown, was used, or its proof is wrong.')
    const { account, token, expiresAt } = granted
    return {
      access_token: token,
      token_type: 'Bearer',
      scope: 'create update delete media profile',
      me: publicUrl(profile, account, origin),
      expires_in: Math.floor((expiresAt - (await parts.clock.now())) / 1000),
      profile: { name: account.name },
    }
  })

  app.post(`${base}/media`, { bodyLimit: profile.media.maxBytes + 4096 }, async (request, reply) => {
    if (!(await permissions.bearer(request, reply))) return reply
    const type = request.headers['content-type'] ?? ''
    if (!Buffer.isBuffer(request.body) || !type.startsWith('multipart/form-data'))
      return refuse(reply, 400, 'invalid_request', 'Send a file as multipart/form-data.')
    const form = await new Response(new Uint8Array(request.body), {
      headers: { 'content-type': type },
    }).formData()
    const file = form.get('file')
    const taken =
      file instanceof Blob
        ? await takeMedia(profile, parts, Buffer.from(await file.arrayBuffer()), file.type)
        : null
    return taken
      ? reply.status(201).header('location', `${origin}${base}/media/${taken.id}`).send()
      : refuse(reply, 400, 'invalid_request', 'There is no picture in the field “file”.')
  })

  app.get(`${base}/micropub`, async (request, reply) => {
    const known = await permissions.bearer(request, reply)
    if (!known) return reply
    const {
      q,
      url,
      limit,
      'properties[]': wanted,
    } = z
      .object({
        q: z.string(),
        url: z.string().optional(),
        'properties[]': z
          .string()
          .transform((one) => [one])
          .or(z.array(z.string()))
          .optional(),
        limit: z.coerce.number().int().min(1).default(20),
      })
      .parse(request.query)
    const targets = known.account.targets.map(({ id, name }) => ({ uid: id, name }))
    if (q === 'config') return { 'media-endpoint': `${origin}${base}/media`, 'syndicate-to': targets }
    if (q === 'syndicate-to') return { 'syndicate-to': targets }
    if (q !== 'source') return refuse(reply, 400, 'invalid_request', `There is no query ${q}.`)
    const mine = store.posts.of(known.account.id).filter((p) => !p.gone)
    if (url === undefined)
      return {
        items: mine
          .slice(-limit)
          .reverse()
          .map((p) => ({ type: ['h-entry'], properties: entryOf(p, urlOf(p)) })),
      }
    const post = mine.find((p) => urlOf(p) === url)
    if (!post) return refuse(reply, 404, 'invalid_request', 'There is no such post.')
    if (!wanted) return { type: ['h-entry'], properties: entryOf(post, urlOf(post)) }
    // Counts are no property of the standard; as an experiment their names begin with x- (microformats2).
    const counts = Object.entries(await measure(post, known.account, profile, parts))
    const all = {
      ...entryOf(post, urlOf(post)),
      ...Object.fromEntries(counts.map(([name, n]) => [`x-${name}`, [n]])),
    }
    return { properties: Object.fromEntries(Object.entries(all).filter(([name]) => wanted.includes(name))) }
  })

  app.post(`${base}/micropub`, async (request, reply) => {
    const known = await permissions.bearer(request, reply)
    if (!known) return reply
    const change = Change.safeParse(request.body)
    if (change.success) {
      const { action, url, replace, add } = change.data
      const post = store.posts.of(known.account.id).find((p) => urlOf(p) === url)
      if (!post) return refuse(reply, 404, 'invalid_request', 'There is no such post.')
      if (action === 'update') {
        const draft = draftOf({ ...entryOf(post, urlOf(post)), ...replace })
        const tags = [...draft.tags, ...texts(add['category'])]
        store.posts.change(post, { ...draft, tags, media: post.media })
      } else store.posts.change(post, { gone: action === 'delete' })
      return reply.status(204).send()
    }
    const made = Create.safeParse(fromForm(request.body))
    if (!made.success) return refuse(reply, 400, 'invalid_request', 'Send an h-entry with its properties.')
    const { properties } = made.data
    const key = text(properties['uid']) ?? randomUUID()
    const came = await publish(profile, parts, known.account, key, draftOf(properties))
    if (!came.ok) {
      if (came.retryAfter !== undefined) void reply.header('retry-after', String(came.retryAfter))
      return refuse(reply, came.status === 422 ? 400 : came.status, 'invalid_request', came.reason)
    }
    if (came.drop) {
      request.raw.socket.destroy()
      return reply
    }
    return reply.status(201).header('location', urlOf(came.post)).send()
  })
}

/** A form's fields as an entry (3.1 of the recommendation): `h=entry`, then a property each, `name[]` for several. */
function fromForm(body: unknown): unknown {
  const form = z.record(z.string(), z.union([z.string(), z.array(z.string())])).safeParse(body)
  if (!form.success || form.data['h'] !== 'entry') return body
  const properties: Record<string, string[]> = {}
  for (const [name, value] of Object.entries(form.data))
    if (name !== 'h' && name !== 'access_token') properties[name.replace(/\[\]$/, '')] = [value].flat()
  return { type: ['h-entry'], properties }
}

function texts(values: readonly unknown[] | undefined): string[] {
  return (values ?? []).filter((v) => typeof v === 'string')
}

function text(values: readonly unknown[] | undefined): string | null {
  const [value] = values ?? []
  if (typeof value === 'string') return value
  const held = z.object({ html: z.string() }).safeParse(value)
  return held.success ? held.data.html.replace(/<[^>]+>/g, '') : null
}

/** A post from the properties of an entry; pictures are those of the media endpoint. */
function draftOf(properties: Readonly<Record<string, readonly unknown[]>>): Draft {
  const photo = z.string().or(z.object({ value: z.string(), alt: z.string().default('') }))
  return {
    format: 'article',
    target: text(properties['mp-syndicate-to']),
    title: text(properties['name']),
    summary: text(properties['summary']),
    tags: texts(properties['category']),
    text: text(properties['content']) ?? '',
    parts: [],
    poll: [],
    firstComment: null,
    link: text(properties['canonical']),
    media: (properties['photo'] ?? []).map((p) => {
      const given = photo.parse(p)
      const { value, alt } = typeof given === 'string' ? { value: given, alt: '' } : given
      return { id: value.split('/').pop() ?? '', alt }
    }),
  }
}

function entryOf(post: WorldPost, url: string): Record<string, unknown[]> {
  return {
    url: [url],
    uid: [post.key],
    content: [post.text],
    published: [new Date(post.at).toISOString()],
    ...(post.title ? { name: [post.title] } : {}),
    ...(post.summary ? { summary: [post.summary] } : {}),
    ...(post.tags.length ? { category: post.tags } : {}),
    ...(post.link ? { canonical: [post.link] } : {}),
    ...(post.media.length ? { photo: post.media.map((m) => m.id) } : {}),
  }
}
