import type { FastifyInstance } from 'fastify'
import { z } from 'zod'
import type { ServedNetwork } from '../../core/networks'
import { hash } from '../hash'
import { Draft, type WorldPost } from '../posts'
import { describe } from './describe'
import { publicUrl } from './pages'
import { refuse, type NetworkParts } from './parts'
import type { Permissions } from './permissions'
import { followersOf, isShown, measure, publish, takeMedia } from './publishing'

/** The stand-in networks' own HTTP interface, as its OpenAPI description says; the same routes for every profile. */
export function standInRoutes(
  app: FastifyInstance,
  profile: ServedNetwork,
  parts: NetworkParts,
  permissions: Permissions,
): void {
  const { store, clock, origin } = parts
  const base = profile.service.path

  const answerOf = async (post: WorldPost) => ({
    id: post.id,
    url: `${origin}${base}/posts/${post.id}/page`,
    visibility: visibilityOf(post, await clock.now()),
  })

  app.get(`${base}/openapi.json`, () => describe(profile, origin))

  app.post(`${base}/token`, async (request, reply) => {
    const { code } = z.object({ code: z.string() }).parse(request.body)
    const granted = await permissions.exchange(code, null)
    if (!granted) return refuse(reply, 400, 'bad_code', 'This code is unknown or was used before.')
    const { account, token, expiresAt } = granted
    return {
      accessToken: token,
      expiresAt: new Date(expiresAt).toISOString(),
      account: {
        id: account.id,
        handle: account.handle,
        name: account.name,
        zone: account.zone,
        url: publicUrl(profile, account, origin),
        targets: account.targets,
      },
    }
  })

  app.get(`${base}/account`, async (request, reply) => {
    const known = await permissions.bearer(request, reply)
    if (!known) return reply
    const { id, handle, name } = known.account
    return {
      id,
      handle,
      name,
      ...(await followersOf(known.account, profile, parts)),
      expiresAt: new Date(known.expiresAt).toISOString(),
    }
  })

  app.get<{ Querystring: { name?: string | string[] } }>(`${base}/tags`, async (request, reply) => {
    if (!(await permissions.bearer(request, reply))) return reply
    const names = [request.query.name ?? []].flat().slice(0, 100)
    return { tags: Object.fromEntries(names.map((n) => [n, weeklyPosts(n, profile.id)])) }
  })

  app.post(`${base}/media`, { bodyLimit: profile.media.maxBytes + 1024 }, async (request, reply) => {
    if (!(await permissions.bearer(request, reply))) return reply
    const bytes = request.body
    const type = request.headers['content-type'] ?? ''
    const taken = Buffer.isBuffer(bytes) ? await takeMedia(profile, parts, bytes, type) : null
    return taken
      ? reply.status(201).send(taken)
      : refuse(
          reply,
          415,
          'media_type',
          `Send a picture as PNG, JPEG or WebP${profile.media.animated.includes('image/gif') ? ', or as GIF' : ''}, a clip as MP4 or WebM, or a document as PDF.`,
        )
  })

  app.post(`${base}/posts`, async (request, reply) => {
    const known = await permissions.bearer(request, reply)
    if (!known) return reply
    const key = request.headers['idempotency-key']
    if (typeof key !== 'string') return refuse(reply, 400, 'no_key', 'Send an Idempotency-Key.')
    const draft = Draft.safeParse(request.body)
    if (!draft.success) {
      const [issue] = draft.error.issues
      return refuse(
        reply,
        422,
        'invalid',
        issue?.message ?? 'The post has the wrong shape.',
        issue?.path.join('.'),
      )
    }
    const came = await publish(profile, parts, known.account, key, draft.data)
    if (!came.ok) {
      if (came.retryAfter !== undefined) void reply.header('retry-after', String(came.retryAfter))
      return refuse(reply, came.status, came.error, came.reason, came.field)
    }
    if (came.drop) {
      request.raw.socket.destroy()
      return reply
    }
    const { post, fresh } = came
    return reply.status(fresh ? 201 : 200).send(await answerOf(post))
  })

  app.get<{ Querystring: { key?: string } }>(`${base}/posts`, async (request, reply) => {
    const known = await permissions.bearer(request, reply)
    if (!known) return reply
    const post = store.posts.under(known.account.id, request.query.key ?? '')
    return post && !post.gone
      ? answerOf(post)
      : refuse(reply, 404, 'gone', 'There is no post under this key.')
  })

  app.get<{ Params: { id: string } }>(`${base}/posts/:id`, async (request, reply) => {
    if (!(await permissions.bearer(request, reply))) return reply
    const post = store.posts.find(request.params.id)
    return post && !post.gone
      ? {
          id: post.id,
          format: post.format,
          target: post.target,
          title: post.title,
          text: post.text,
          parts: post.parts,
          poll: post.poll,
          firstComment: post.firstComment,
          pictures: post.media.filter((m) => store.kindOf(m.id) === 'picture').length,
          clips: post.media.filter((m) => store.kindOf(m.id) === 'clip').length,
          documents: post.media.filter((m) => store.kindOf(m.id) === 'document').length,
          at: new Date(post.at).toISOString(),
          visibility: visibilityOf(post, await clock.now()),
        }
      : refuse(reply, 404, 'gone', 'There is no such post.')
  })

  app.get<{ Params: { id: string } }>(`${base}/posts/:id/measures`, async (request, reply) => {
    const known = await permissions.bearer(request, reply)
    if (!known) return reply
    if (store.isDown(profile.id, known.account.id))
      return refuse(reply, 503, 'unavailable', 'The service is not available right now.')
    const post = store.posts.find(request.params.id)
    return post?.account === known.account.id && !post.gone
      ? { measures: await measure(post, known.account, profile, parts) }
      : refuse(reply, 404, 'gone', 'There is no such post.')
  })

  app.delete<{ Params: { id: string } }>(`${base}/posts/:id`, async (request, reply) => {
    const known = await permissions.bearer(request, reply)
    if (!known) return reply
    const post = store.posts.find(request.params.id)
    if (post?.account !== known.account.id || post.gone)
      return refuse(reply, 404, 'gone', 'There is no such post.')
    store.posts.change(post, { gone: true })
    return reply.status(204).send()
  })
}

function visibilityOf(post: WorldPost, now: number): 'visible' | 'waiting for a moderator' | 'gone' {
  if (post.visibleFrom > now) return 'waiting for a moderator'
  return isShown(post, now) ? 'visible' : 'gone'
}

/**
 * How often a tag is posted with in a week: the same for the same tag in any case, a few tags very
 * often and most seldom, short ones more than long ones.
 */
export function weeklyPosts(tag: string, networkId: string): number {
  const unit = ((hash(`${networkId} ${tag.toLowerCase()}`) >>> 8) & 0xffff) / 0xffff
  return Math.round(10 ** (5 * unit) / Math.max(1, tag.length - 4))
}
