import { randomUUID } from 'node:crypto'
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import { imageSize } from 'image-size'
import { z } from 'zod'
import { payloadFaults, SERVED, type ServedNetwork } from '../../core/networks'
import { bareWords } from '../../core/text'
import type { WorldClock } from '../clock'
import { hash } from '../hash'
import { escape, page } from '../html'
import type { Store, WorldAccount, WorldPost } from '../state'

const ACCENTS = ['#3b6ea5', '#6b4f2a', '#2f7d4f', '#7a4b8a']
const DAY = 86_400_000
const TOKEN_LIFE = 400 * DAY

export interface NetworkParts {
  store: Store
  clock: WorldClock
  accounts: readonly WorldAccount[]
  origin: string
}

const Draft = z.object({
  text: z.string(),
  parts: z.array(z.string()).default([]),
  poll: z.array(z.string()).default([]),
  firstComment: z.string().nullable().default(null),
  link: z.string().nullable().default(null),
  media: z.array(z.object({ id: z.string(), alt: z.string().default('') })).default([]),
})

/** The stand-in networks' HTTP interface and public pages, one set of routes for every profile. */
export function networkRoutes(app: FastifyInstance, parts: NetworkParts): void {
  for (const [index, profile] of SERVED.entries())
    oneNetwork(app, profile, ACCENTS[index % ACCENTS.length] as string, parts)
}

function oneNetwork(
  app: FastifyInstance,
  profile: ServedNetwork,
  accent: string,
  { store, clock, accounts, origin }: NetworkParts,
): void {
  const base = profile.service.path
  const logins = (): WorldAccount[] => accounts.filter((a) => a.network === profile.id)
  const publicUrl = (account: WorldAccount): string => `${origin}${base}/@${account.handle}`
  const refuse = (
    reply: FastifyReply,
    status: number,
    error: string,
    reason: string,
    field?: string,
  ): FastifyReply => reply.status(status).send(field ? { error, field, reason } : { error, reason })

  app.get(`${base}/openapi.json`, () => describe(profile, origin))

  app.get(`${base}/authorize`, async (request, reply) => {
    const { redirect_uri: redirect, state } = z
      .object({ redirect_uri: z.string(), state: z.string() })
      .parse(request.query)
    const now = await clock.now()
    const allowed = (a: WorldAccount): boolean =>
      store.state.tokens.some((t) => t.account === a.id && !t.withdrawn && t.expiresAt > now)
    const proposed = logins().find((a) => !allowed(a)) ?? logins()[0]
    const choices = logins()
      .map(
        (a) =>
          `<label><input type="radio" name="account" value="${a.id}" ${a === proposed ? 'checked' : ''}> <b>${escape(a.name)}</b> @${escape(a.handle)}<br><span class="small">${escape(a.about)}${allowed(a) ? ' Dripline may post to it already.' : ''}</span></label>`,
      )
      .join('')
    return html(
      reply,
      page(
        `Allow Dripline on ${profile.name}`,
        `<header>${profile.name}</header><main><h1>Let Dripline post for you on ${profile.name}?</h1><p>You are signed in as Lantern &amp; Lathe. Choose the account it may post to. You can withdraw this at any time.</p>
<form method="post" action="${base}/authorize">${choices}<input type="hidden" name="redirect_uri" value="${escape(redirect)}"><input type="hidden" name="state" value="${escape(state)}">
<p><button class="yes" name="allow" value="yes">Allow</button> <button name="allow" value="no">Do not allow</button></p></form></main>`,
        accent,
      ),
    )
  })

  app.post(`${base}/authorize`, async (request, reply) => {
    const form = z
      .object({ account: z.string(), redirect_uri: z.string(), state: z.string(), allow: z.string() })
      .parse(request.body)
    const to = new URL(form.redirect_uri)
    to.searchParams.set('state', form.state)
    if (form.allow === 'yes' && logins().some((a) => a.id === form.account))
      to.searchParams.set('code', mint(form.account))
    else to.searchParams.set('error', 'declined')
    return reply.redirect(to.href, 303)
  })

  app.post(`${base}/demo-code`, async (request) => {
    const { account } = z.object({ account: z.string() }).parse(request.body)
    return { code: mint(account) }
  })

  function mint(account: string): string {
    const code = randomUUID()
    store.state.codes.push({ code, account })
    store.save()
    return code
  }

  app.post(`${base}/token`, async (request, reply) => {
    const { code } = z.object({ code: z.string() }).parse(request.body)
    const known = store.state.codes.find((c) => c.code === code)
    const account = logins().find((a) => a.id === known?.account)
    if (!known || !account) return refuse(reply, 400, 'bad_code', 'This code is unknown or was used before.')
    store.state.codes = store.state.codes.filter((c) => c !== known)
    const expiresAt = (await clock.now()) + TOKEN_LIFE
    const token = randomUUID()
    store.state.tokens.push({ token, account: account.id, expiresAt, withdrawn: false })
    store.save()
    return {
      accessToken: token,
      expiresAt: new Date(expiresAt).toISOString(),
      account: {
        id: account.id,
        handle: account.handle,
        name: account.name,
        zone: account.zone,
        url: publicUrl(account),
      },
    }
  })

  /** The account a request's token stands for, or null after the refusal was sent. */
  async function bearer(request: FastifyRequest, reply: FastifyReply): Promise<WorldAccount | null> {
    const token = /^Bearer (.+)$/.exec(request.headers.authorization ?? '')?.[1]
    const known = store.state.tokens.find((t) => t.token === token)
    const account = logins().find((a) => a.id === known?.account)
    if (!known || !account) {
      await refuse(reply, 401, 'unknown_token', 'The token is not known here.')
      return null
    }
    if (known.withdrawn) {
      await refuse(reply, 401, 'withdrawn', 'The permission was withdrawn.')
      return null
    }
    if (known.expiresAt < (await clock.now())) {
      await refuse(reply, 401, 'expired', 'The token has expired.')
      return null
    }
    return account
  }

  app.get(`${base}/account`, async (request, reply) => {
    const account = await bearer(request, reply)
    return account ? { id: account.id, handle: account.handle, name: account.name } : reply
  })

  app.get<{ Querystring: { name?: string | string[] } }>(`${base}/tags`, async (request, reply) => {
    if (!(await bearer(request, reply))) return reply
    const names = [request.query.name ?? []].flat().slice(0, 100)
    return { tags: Object.fromEntries(names.map((n) => [n, weeklyPosts(n, profile.id)])) }
  })

  app.post(`${base}/media`, { bodyLimit: profile.media.maxBytes + 1024 }, async (request, reply) => {
    if (!(await bearer(request, reply))) return reply
    const bytes = request.body
    if (!Buffer.isBuffer(bytes))
      return refuse(reply, 415, 'media_type', 'Send a picture as PNG, JPEG or WebP.')
    let size: { width: number; height: number }
    try {
      size = imageSize(bytes)
    } catch {
      return refuse(reply, 415, 'media_type', 'This is not a picture that can be read.')
    }
    const id = randomUUID()
    store.putMedia(id, bytes)
    store.state.media.push({
      id,
      network: profile.id,
      type: request.headers['content-type'] ?? 'image/png',
      width: size.width,
      height: size.height,
      bytes: bytes.length,
    })
    store.save()
    return reply.status(201).send({ id, width: size.width, height: size.height })
  })

  app.post(`${base}/posts`, async (request, reply) => {
    const account = await bearer(request, reply)
    if (!account) return reply
    const key = request.headers['idempotency-key']
    if (typeof key !== 'string') return refuse(reply, 400, 'no_key', 'Send an Idempotency-Key.')
    const answer = (post: WorldPost) => ({
      id: post.id,
      url: `${origin}${base}/posts/${post.id}/page`,
      visibility: 'visible',
    })
    const before = store.state.posts.find((p) => p.key === key && p.account === account.id)
    if (before) return reply.status(200).send(answer(before))
    const draft = Draft.safeParse(request.body)
    if (!draft.success)
      return refuse(
        reply,
        422,
        'invalid',
        draft.error.issues[0]?.message ?? 'The post has the wrong shape.',
        draft.error.issues[0]?.path.join('.'),
      )
    const trouble = store.state.troubles.find((t) => t.network === profile.id && t.left > 0)
    if (trouble) {
      trouble.left--
      store.save()
      if (trouble.kind === 'fail')
        return refuse(reply, 503, 'unavailable', 'The service is not available right now.')
      if (trouble.kind === 'limit')
        return reply
          .header('retry-after', '120')
          .status(429)
          .send({ error: 'rate', reason: 'Too many requests; wait two minutes.' })
      if (trouble.kind === 'slow') await new Promise((resolve) => setTimeout(resolve, 4000))
    }
    const now = await clock.now()
    const pictures = draft.data.media.map((m) =>
      store.state.media.find((x) => x.id === m.id && x.network === profile.id),
    )
    if (pictures.some((p) => p === undefined))
      return refuse(reply, 422, 'invalid', 'A picture was not uploaded here.', 'media')
    const fault = payloadFaults(profile, {
      text: draft.data.text,
      parts: draft.data.parts,
      poll: draft.data.poll,
      pictures: pictures.filter((p) => p !== undefined),
    })[0]
    if (fault) return refuse(reply, 422, 'invalid', fault.reason, fault.field)
    const recent = store.state.posts.filter((p) => p.network === profile.id && !p.gone)
    const today = recent.filter((p) => p.account === account.id && now - p.at < DAY)
    if (today.length >= profile.limits.postsPerDay)
      return reply
        .header('retry-after', '3600')
        .status(429)
        .send({ error: 'rate', reason: `At most ${profile.limits.postsPerDay} posts a day.` })
    const words = bareWords(draft.data.text)
    const doubled = recent.some(
      (p) =>
        p.account !== account.id &&
        now - p.at <= profile.limits.siblingDays * DAY &&
        bareWords(p.text) === words,
    )
    if (doubled && words)
      return refuse(reply, 422, 'seen', 'The same words were posted by another account this week.', 'text')
    // Between looking and writing nothing is awaited, so a doubled request cannot slip in.
    const twin = store.state.posts.find((p) => p.key === key && p.account === account.id)
    if (twin) return reply.status(200).send(answer(twin))
    const post: WorldPost = {
      id: randomUUID(),
      network: profile.id,
      account: account.id,
      key,
      ...draft.data,
      at: now,
      gone: false,
    }
    store.state.posts.push(post)
    store.save()
    if (trouble?.kind === 'drop') {
      request.raw.socket.destroy()
      return reply
    }
    return reply.status(201).send(answer(post))
  })

  app.get<{ Params: { id: string } }>(`${base}/posts/:id`, async (request, reply) => {
    if (!(await bearer(request, reply))) return reply
    const post = store.state.posts.find((p) => p.id === request.params.id && !p.gone)
    return post
      ? {
          id: post.id,
          text: post.text,
          parts: post.parts,
          poll: post.poll,
          firstComment: post.firstComment,
          pictures: post.media.length,
          at: new Date(post.at).toISOString(),
        }
      : refuse(reply, 404, 'gone', 'There is no such post.')
  })

  app.delete<{ Params: { id: string } }>(`${base}/posts/:id`, async (request, reply) => {
    const account = await bearer(request, reply)
    if (!account) return reply
    const post = store.state.posts.find((p) => p.id === request.params.id && p.account === account.id)
    if (!post || post.gone) return refuse(reply, 404, 'gone', 'There is no such post.')
    post.gone = true
    store.save()
    return reply.status(204).send()
  })

  app.get<{ Params: { id: string } }>(`${base}/media/:id`, async (request, reply) => {
    const media = store.state.media.find((m) => m.id === request.params.id)
    return media
      ? reply.header('content-type', media.type).send(store.getMedia(media.id))
      : refuse(reply, 404, 'gone', 'There is no such picture.')
  })

  const show = (post: WorldPost, account: WorldAccount): string =>
    `<article id="${post.id}"><b>${escape(account.name)}</b> <span class="small">@${escape(account.handle)} · <time>${new Date(post.at).toISOString().slice(0, 16).replace('T', ' ')} UTC</time></span>
${post.media.map((m) => `<img src="${base}/media/${m.id}" alt="${escape(m.alt)}">`).join('')}<p>${linked(post.text, profile)}</p>${post.parts.map((p) => `<p>${linked(p, profile)}</p>`).join('')}${post.poll.length ? `<ul>${post.poll.map((o) => `<li>${escape(o)}</li>`).join('')}</ul>` : ''}${post.firstComment ? `<p class="small">First comment: ${linked(post.firstComment, profile)}</p>` : ''}</article>`

  app.get<{ Params: { id: string } }>(`${base}/posts/:id/page`, async (request, reply) => {
    const post = store.state.posts.find((p) => p.id === request.params.id && !p.gone)
    const account = logins().find((a) => a.id === post?.account)
    if (!post || !account)
      return html(
        reply.status(404),
        page('Gone', `<header>${profile.name}</header><main><h1>This post is gone.</h1></main>`, accent),
      )
    return html(
      reply,
      page(
        `${account.name} on ${profile.name}`,
        `<header><a href="${publicUrl(account)}">${profile.name}</a></header><main>${show(post, account)}</main>`,
        accent,
      ),
    )
  })

  app.get<{ Params: { handle: string } }>(`${base}/@:handle`, async (request, reply) => {
    const account = logins().find((a) => a.handle === request.params.handle)
    if (!account)
      return html(
        reply.status(404),
        page(
          'Nobody',
          `<header>${profile.name}</header><main><h1>Nobody has this name here.</h1></main>`,
          accent,
        ),
      )
    const posts = store.state.posts
      .filter((p) => p.account === account.id && !p.gone)
      .sort((a, b) => b.at - a.at)
    return html(
      reply,
      page(
        `${account.name} on ${profile.name}`,
        `<header>${profile.name}</header><main><h1>${escape(account.name)} <span class="small">@${escape(account.handle)}</span></h1><p>${escape(account.about)}</p><p class="small">${posts.length} ${posts.length === 1 ? 'post' : 'posts'}</p>${posts.map((p) => show(p, account)).join('') || '<p>Nothing has been posted yet.</p>'}</main>`,
        accent,
      ),
    )
  })
}

/**
 * How often a tag is posted with in a week: the same for the same tag in any case, a few tags very
 * often and most seldom, short ones more than long ones.
 */
export function weeklyPosts(tag: string, networkId: string): number {
  const unit = ((hash(`${networkId} ${tag.toLowerCase()}`) >>> 8) & 0xffff) / 0xffff
  return Math.round(10 ** (5 * unit) / Math.max(1, tag.length - 4))
}

function html(reply: FastifyReply, body: string): FastifyReply {
  return reply.header('content-type', 'text/html; charset=utf-8').send(body)
}

/** Links are live only where the profile says so. */
function linked(text: string, profile: ServedNetwork): string {
  const safe = escape(text)
  return !profile.link.live
    ? safe
    : safe.replace(/https?:\/\/[^\s<]+/g, (url) => `<a href="${url}">${url}</a>`)
}

/** The network's own OpenAPI description, made from its profile. */
function describe(profile: ServedNetwork, origin: string): unknown {
  const error = {
    description: 'Refused, with the reason',
    content: {
      'application/json': {
        schema: {
          type: 'object',
          properties: { error: { type: 'string' }, field: { type: 'string' }, reason: { type: 'string' } },
        },
      },
    },
  }
  const path = (method: string, summary: string, answers: Record<string, string>): unknown => ({
    [method]: {
      summary,
      responses: {
        ...Object.fromEntries(Object.entries(answers).map(([code, description]) => [code, { description }])),
        '401': error,
      },
    },
  })
  return {
    openapi: '3.1.0',
    info: { title: profile.name, version: '1', description: `A stand-in network: ${profile.kind}.` },
    servers: [{ url: `${origin}${profile.service.path}` }],
    paths: {
      '/authorize': path('get', 'The page on which a person allows an account', { '200': 'The page' }),
      '/token': path('post', 'Exchange a code for a token', { '200': 'Token and account' }),
      '/account': path('get', 'Check a token', { '200': 'The account' }),
      '/tags': path('get', 'How often tags (name, repeated) were posted with in the last seven days', {
        '200': 'The figures by tag',
      }),
      '/media': path('post', 'Upload a picture', {
        '201': 'Its id',
        '413': 'Too large',
        '415': 'Not a picture',
      }),
      '/posts': path(
        'post',
        `Publish, with an Idempotency-Key. Text up to ${profile.text.limit ?? 'any number of'} characters.`,
        {
          '201': 'The post',
          '200': 'The same post as before',
          '422': 'A rule is broken',
          '429': 'Too many; see Retry-After',
        },
      ),
      '/posts/{id}': {
        ...(path('get', 'Read a post', { '200': 'The post' }) as object),
        ...(path('delete', 'Take a post down', { '204': 'Gone' }) as object),
      },
    },
  }
}
