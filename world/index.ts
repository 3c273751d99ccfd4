import { randomUUID } from 'node:crypto'
import formbody from '@fastify/formbody'
import Fastify, { type FastifyInstance } from 'fastify'
import { z } from 'zod'
import { asFault } from '../core/model'
import { SERVED } from '../core/networks'
import { WorldClock } from './clock'
import { escape, page } from './html'
import { networkRoutes } from './networks'
import { clicksOn } from './networks/publishing'
import { countRoutes } from './counts'
import { chatRoutes } from './chat'
import { webhookRoutes } from './webhook'
import { painterRoutes } from './painter'
import { SERVICE_KEY, serviceRoutes } from './services'
import { STOCK, stockRoutes } from './stock'
import { appearsAt, momentsOf, siteRoutes, type Site } from './sites/site'
import { Store, TROUBLES, VICES, WorldAccount, type State, type WorldLogin } from './state'
import type { WorldPost } from './posts'

export * from './drawing'
export { baseOf, FEED_PATHS, feedOf, pageOf, recordingsOf, type Site, type SiteArticle } from './sites/site'
export { sharesOf } from './counts'
export {
  captionsOf,
  channelFeed,
  endingOf,
  webvtt,
  type Caption,
  type Recording,
  type SiteFilm,
} from './sites/films'
export { audienceOf, followersAt, measuresOf, type Audience } from './audience'
export type { WorldLogin } from './state'
export type { WorldPost } from './posts'

export interface WorldOptions {
  port: number
  serverUrl: string
  dataDir: string
  sites: readonly Site[]
  accounts: readonly WorldLogin[]
  /** The demo's workspace as a bundle, made for a seed id and a moment, and what its accounts have out by then. */
  seed: (seed: string, bornAt: number, now: number) => Promise<{ bundle: Uint8Array; out: WorldPost[] }>
}

/** How long a made seed may stand before it is made again for the present. */
const SEED_AGE = 10 * 60_000

/**
 * The stand-in world: sites under host names of their own, and networks that answer as real
 * services do. It keeps no clock; it reads the server's.
 */
export async function createWorld(options: WorldOptions): Promise<FastifyInstance> {
  const origin = `http://localhost:${options.port}`
  const clock = new WorldClock(options.serverUrl)
  const fresh = (): State => ({
    seed: randomUUID(),
    bornAt: Date.now(),
    codes: [],
    tokens: [],
    troubles: [],
    vices: [],
    answers: 0,
    links: [],
    said: [],
    received: [],
    webhookSecret: '',
    chatRefuses: 0,
    away: [],
  })
  const store = new Store(options.dataDir, fresh)
  const app = Fastify({
    rewriteUrl: (request) => {
      const site = /^([a-z0-9-]+)\.localhost(?::\d+)?$/.exec(request.headers.host ?? '')?.[1]
      return site ? `/sites/${site}${request.url ?? '/'}` : (request.url ?? '/')
    },
    bodyLimit: 10 * 1024 * 1024,
  })
  await app.register(formbody)
  app.addContentTypeParser(
    /^(?:image|video)\/|^application\/pdf|^multipart\/form-data/,
    { parseAs: 'buffer', bodyLimit: 12 * 1024 * 1024 },
    (_request, body, done) => done(null, body),
  )
  app.setErrorHandler((error, _request, reply) => {
    const status = (error as { statusCode?: number }).statusCode ?? (error instanceof z.ZodError ? 422 : 500)
    void reply
      .status(status)
      .send({ error: status === 413 ? 'too_large' : 'invalid', reason: asFault(error).message })
  })

  const accounts = WorldAccount.array().parse(options.accounts)
  networkRoutes(app, { store, clock, accounts, origin })
  for (const site of options.sites)
    siteRoutes(app, site, {
      clock,
      bornAt: () => store.state.bornAt,
      origin,
      isAway: (path) => store.state.away.includes(path),
    })
  serviceRoutes(app, {
    store,
    clock,
    origin,
    clicksOn: (shorts) => clicksOn(shorts, { store, clock, accounts }),
  })
  stockRoutes(app, { origin })
  painterRoutes(app, { origin })
  chatRoutes(app, { store, clock })
  webhookRoutes(app, { store, clock })
  countRoutes(app, {
    clock,
    publishedAt: (url) => {
      const { hostname, pathname } = new URL(url)
      const site = options.sites.find((s) => hostname === `${s.host}.localhost`)
      const slug = pathname.replace(/^\/(?:films\/)?/, '').replace(/\/$/, '')
      const thing = [...(site?.articles ?? []), ...(site?.films ?? [])].find((a) => a.slug === slug)
      return thing ? appearsAt(thing, store.state.bornAt) : null
    },
  })

  app.get('/', async (_request, reply) =>
    reply
      .header('content-type', 'text/html; charset=utf-8')
      .send(overview(options, origin, store, await clock.now())),
  )
  app.get('/demo', () => ({ seed: store.state.seed }))
  let made: { seed: string; at: number; bytes: Promise<Uint8Array> } | null = null
  const putOut = ({ bundle, out }: { bundle: Uint8Array; out: WorldPost[] }): Uint8Array => {
    for (const post of out) if (!store.posts.find(post.id)) store.posts.add(post)
    return bundle
  }
  const seedBytes = async (): Promise<Uint8Array> => {
    const now = await clock.now()
    const { seed, bornAt } = store.state
    if (made?.seed !== seed || Math.abs(now - made.at) > SEED_AGE)
      made = { seed, at: now, bytes: options.seed(seed, bornAt, now).then(putOut) }
    return made.bytes
  }
  app.addHook('onListen', () => {
    void seedBytes()
  })
  app.get('/demo/seed.zip', async (_request, reply) =>
    reply.header('content-type', 'application/zip').send(Buffer.from(await seedBytes())),
  )
  app.get('/control/next', async (request) => {
    const after = Date.parse(z.object({ after: z.string() }).parse(request.query).after)
    const moments = [
      ...options.sites.flatMap((s) => momentsOf(s, store.state.bornAt)),
      ...store.state.tokens.filter((t) => !t.withdrawn).map((t) => t.expiresAt),
    ].filter((m) => m > after)
    return { at: moments.length ? new Date(Math.min(...moments)).toISOString() : null }
  })
  app.post('/control/clock', async () => {
    await clock.refresh()
    return { now: new Date(await clock.now()).toISOString() }
  })
  app.post('/control/restart', async () => {
    store.replace(fresh())
    await clock.refresh()
    return { seed: store.state.seed }
  })
  app.post('/control/login', async (request) => {
    accounts.push(...WorldAccount.array().parse(request.body))
    return { accounts: accounts.length }
  })
  app.post('/control/page', async (request, reply) => {
    const { page, away } = z
      .object({ page: z.string(), away: z.enum(['yes', 'no']).default('yes') })
      .parse(request.body)
    store.state.away = [...store.state.away.filter((p) => p !== page), ...(away === 'yes' ? [page] : [])]
    store.save()
    return (request.headers['content-type'] ?? '').includes('form')
      ? reply.redirect('/', 303)
      : { away: store.state.away }
  })
  app.post('/control/trouble', async (request, reply) => {
    const body = z
      .object({
        network: z.string(),
        kind: z.enum([...TROUBLES, 'up', 'withdraw', 'expire']),
        count: z.coerce.number().int().min(1).default(1),
        account: z
          .string()
          .optional()
          .transform((a) => a || undefined),
      })
      .parse(request.body)
    if (body.kind === 'withdraw' || body.kind === 'expire') {
      const ids = new Set(
        accounts
          .filter((a) => a.network === body.network && (!body.account || a.id === body.account))
          .map((a) => a.id),
      )
      for (const token of store.state.tokens)
        if (ids.has(token.account)) {
          if (body.kind === 'withdraw') token.withdrawn = true
          else token.expiresAt = 0
        }
    } else if (body.kind === 'up')
      store.state.troubles = store.state.troubles.filter((t) => t.network !== body.network)
    else
      store.state.troubles.push({
        network: body.network,
        account: body.account ?? null,
        kind: body.kind,
        left: body.count,
      })
    store.save()
    return (request.headers['content-type'] ?? '').includes('form')
      ? reply.redirect('/', 303)
      : { troubles: store.state.troubles }
  })
  return app
}

function overview(options: WorldOptions, origin: string, store: Store, now: number): string {
  const { state } = store
  const sites = options.sites.map((s) => {
    const url = origin.replace('//', `//${s.host}.`)
    const films = s.films ? ` · <a href="${url}/films">films</a>` : ''
    const files = Object.keys(s.files ?? {}).map((path) => ` · <a href="${url}${path}">${path.slice(1)}</a>`)
    return `<li><a href="${url}/">${escape(s.title)}</a>${films}${files.join('')} · ${s.articles.filter((a) => appearsAt(a, state.bornAt) <= now).length} of ${s.articles.length} articles out</li>`
  })
  const networks = SERVED.map((n) => {
    const logins = options.accounts.filter((a) => a.network === n.id)
    const posts = logins.flatMap((a) => store.posts.of(a.id).filter((p) => !p.gone)).length
    const accounts = logins.map((a) => `<a href="${n.service.path}/@${a.handle}">@${escape(a.handle)}</a>`)
    return `<tr><td><b>${n.name}</b></td><td>${accounts.join(', ')}</td><td>${posts} posts</td><td>${n.service.connector === 'stand-in' ? `<a href="${n.service.path}/openapi.json">description</a>` : 'Micropub'}</td></tr>`
  })
  const choices = SERVED.map((n) => `<option value="${n.id}">${n.name}</option>`).join('')
  return page(
    'The stand-in world',
    `<header>The stand-in world</header><main><h1>Everything outside, played here</h1><p class="small">The time is ${new Date(now).toISOString().slice(0, 16).replace('T', ' ')} UTC.</p>
<h2>Sites</h2><ul>${sites.join('')}</ul><h2>Networks</h2><table>${networks.join('')}</table>
<h2>Trouble</h2><form method="post" action="/control/trouble"><select name="network" aria-label="Network">${choices}</select> <select name="account" aria-label="Account"><option value="">for all its accounts</option>${options.accounts.map((a) => `<option value="${a.id}">for @${escape(a.handle)}, ${a.network}</option>`).join('')}</select> <select name="kind" aria-label="Trouble"><option value="fail">is not available for the next post</option><option value="down">goes down until it is told to be up</option><option value="up">is up again, without any trouble</option><option value="drop">takes the next post but drops the line</option><option value="slow">answers the next post slowly</option><option value="limit">says: too many requests</option><option value="withdraw">withdraws its tokens</option><option value="expire">lets its tokens expire</option></select> <button>Switch on</button></form>
<form method="post" action="/control/page"><select name="page" aria-label="Page">${options.sites
      .flatMap((s) => s.articles.map((a) => `${s.host}/${a.slug}`))
      .map((p) => `<option>${p}</option>`)
      .join(
        '',
      )}</select> <select name="away" aria-label="Away"><option value="yes">is taken away</option><option value="no">comes back</option></select> <button>Do it</button>${state.away.length ? ` Away: ${state.away.join(', ')}` : ''}</form>
<h2>Services</h2><ul><li>A writer that speaks the chat-completions form at ${origin}/writer/v1, model workshop-1, key ${SERVICE_KEY}; ${state.answers} answers so far.</li><li>A shortener at ${origin}/links, key ${SERVICE_KEY}: ${state.links.length} links, ${state.links.reduce((n, l) => n + l.clicks, 0)} clicks.</li><li>A stock of ${STOCK.length} drawn pictures at ${origin}/stock/v1, key ${SERVICE_KEY}.</li><li>A painter that makes pictures to order at ${origin}/painter/v1, key ${SERVICE_KEY}.</li><li><a href="/chat">A team chat</a> that takes {“text”: …} at ${origin}/chat/hooks/workshop; ${state.said.length} messages so far.</li><li><a href="/webhook">A system fed by a webhook</a> at ${origin}/webhook; ${state.received.length} posts so far.</li></ul>
<form method="post" action="/control/vice"><select name="vice" aria-label="Vice of the writer">${VICES.map((v) => `<option>${v}</option>`).join('')}</select> for the next <input name="count" value="1" size="3" aria-label="How many answers"> answers <button>Switch on</button></form>
<ul>${state.vices
      .filter((v) => v.left > 0)
      .map((v) => `<li>${v.vice}: the next ${v.left}</li>`)
      .join('')}</ul></main>`,
  )
}
