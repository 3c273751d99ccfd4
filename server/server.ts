import { existsSync } from 'node:fs'
import { join } from 'node:path'
import helmet from '@fastify/helmet'
import rateLimit from '@fastify/rate-limit'
import fastifyStatic from '@fastify/static'
import swagger from '@fastify/swagger'
import Fastify, { type FastifyError, type FastifyRequest } from 'fastify'
import {
  hasZodFastifySchemaValidationErrors,
  jsonSchemaTransform,
  serializerCompiler,
  validatorCompiler,
  type ZodTypeProvider,
} from 'fastify-type-provider-zod'
import { asFault, Fault } from '../core/model'
import { SYSTEM_CLOCK } from './clock'
import type { App, Context, Parts, ServerOptions } from './context'
import { makeRegistry } from './networks/registry'
import { accountRoutes } from './routes/accounts'
import { ConnectedWriter } from './services/writer'
import { Accounts } from './store/accounts'
import { Authorisations } from './store/authorisations'
import { openDatabase } from './store/database'
import { Media } from './store/media'
import { resealAll } from './store/resealing'
import { keysOf, Secrets } from './store/secrets'
import { Calendars } from './store/calendars'
import { Documents } from './store/documents'
import { LinkPages } from './store/linkPages'
import { Sessions } from './store/sessions'
import { Settings } from './store/settings'
import { tellSetback } from './dispatch/setbacks'
import { Doubts } from './dispatch/doubts'
import { HealthWatch } from './dispatch/health'
import { Measuring } from './dispatch/measuring'
import { Followings } from './store/followings'
import { Readings } from './store/readings'
import { Spool } from './store/spool'
import { Trials } from './dispatch/trials'
import { Worker } from './dispatch/worker'
import { clockRoutes } from './routes/clock'
import { documentRoutes } from './routes/documents'
import { fontRoutes } from './routes/fonts'
import type { World } from './intake/addresses'
import { Watcher } from './intake/watch'
import { fetchText, intakeRoutes } from './routes/intake'
import { calendarRoutes } from './routes/calendars'
import { pageRoutes } from './routes/pages'
import { serviceRoutes } from './routes/services'
import { sessionRoutes } from './routes/session'
import { spoolRoutes } from './routes/spool'
import { metricRoutes } from './routes/metrics'
import { watchRoutes } from './routes/watch'
import { workspaceRoutes } from './routes/workspace'
import { Chat } from './services/chat'
import { PictureMaker } from './services/maker'
import { Shortener } from './services/shortener'
import { Stock } from './services/stock'
import { log } from './log'

/** How often test deliveries that were left standing are looked for, in real milliseconds. */
const SWEEP = 60_000
/** How often media are looked through for what nobody needs any more, in milliseconds. */
const HOUR = 3_600_000
const API_BODY = 2 * 1024 * 1024
/** What is taken as bytes, by its media type: what a post may show, and fonts. */
const BYTES = /^(?:image\/(?:png|jpeg|webp)|video\/(?:mp4|webm)|application\/pdf|font\/woff2)$/

/**
 * The server: listens at once, opens the spool behind that (503 with Retry-After until it is
 * there), and checks Origin, Host and content type on every route that changes or fetches anything.
 */
export async function createServer(
  options: ServerOptions,
): Promise<{ app: App; ready: Promise<void>; close: () => Promise<void> }> {
  const here = `http://localhost:${options.port}`
  const origin = options.publicUrl ? new URL(options.publicUrl).origin : here
  let parts: Parts | null = null
  let failure: Fault | null = null
  const current = (): Parts => {
    if (failure) throw failure
    if (!parts) throw new Fault('not-ready', 'The server is still starting. Try again in a moment.')
    return parts
  }
  const demo = options.worldUrl ? await import('./demo') : null
  const movable = demo ? new demo.MovableClock(() => current().settings) : null
  const clock = movable ?? SYSTEM_CLOCK
  const registry = makeRegistry({ now: () => clock.now(), origin, world: options.worldUrl })
  const context: Context = {
    options,
    clock,
    registry,
    world: worldOf(options.worldUrl),
    parts: current,
    isReady: () => parts !== null,
    origin,
  }

  const app = Fastify({
    bodyLimit: API_BODY,
    trustProxy: false,
    requestTimeout: 60_000,
  }).withTypeProvider<ZodTypeProvider>()
  app.setValidatorCompiler(validatorCompiler)
  app.setSerializerCompiler(serializerCompiler)
  const world = options.worldUrl ? [options.worldUrl, options.worldUrl.replace('//', '//*.')] : []
  await app.register(helmet, {
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        // The letters of cards are set by WebAssembly.
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        workerSrc: ["'self'", 'blob:'],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:', 'https:', ...world],
        // Films that were chosen from files are played from memory.
        mediaSrc: ["'self'", 'blob:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        formAction: ["'self'"],
        upgradeInsecureRequests: null,
      },
    },
    strictTransportSecurity: false,
  })
  await app.register(rateLimit, {
    max: 12_000,
    timeWindow: 60_000,
    // A caller that hung up before its turn has no address any more.
    keyGenerator: ({ ip }: { ip: string | undefined }) => ip ?? 'gone',
    errorResponseBuilder: () =>
      new Fault('too-many', 'Too many requests in one minute. Wait a moment and try again.'),
  })
  await app.register(swagger, {
    openapi: {
      info: {
        title: 'Dripline server',
        version: '0.1.0',
        description:
          'What goes on while the browser is closed: deliveries, receipts, links, and fetching on behalf of sources.',
      },
    },
    transform: jsonSchemaTransform,
  })
  app.addContentTypeParser(BYTES, { parseAs: 'buffer', bodyLimit: 9 * 1024 * 1024 }, (_request, body, done) =>
    done(null, body),
  )
  app.setErrorHandler((error: FastifyError | Fault, request, reply) => {
    const fault = toFault(error)
    if (fault.code === 'internal')
      log.error({ err: error, route: routeOf(request) }, 'A request met a fault of the server’s own.')
    if (fault.code === 'not-ready') void reply.header('retry-after', '1')
    void reply.status(fault.status).send(fault.toJSON())
  })
  app.addHook('onResponse', (request, reply, done) => {
    const { method } = request
    log.info(
      {
        method,
        route: routeOf(request),
        status: reply.statusCode,
        milliseconds: Math.round(reply.elapsedTime),
      },
      'A request was answered.',
    )
    done()
  })
  const origins = new Set([here, origin, ...(options.origins ?? [])])
  const hosts = new Set([...origins].map((o) => new URL(o).host))
  app.addHook('onRequest', async (request, reply) => {
    const host = request.headers.host ?? ''
    // Whether the server is up may be asked at any of its names; a page of another host learns nothing by it.
    const health = request.url === '/api/health'
    if (!hosts.has(host) && !health) {
      // Only a browser on this machine is sent to this machine's own name.
      const near = options.publicUrl !== undefined || /^(?:127\.0\.0\.1|\[::1\])(?::\d+)?$/.test(host)
      if (near && request.method === 'GET' && !request.url.startsWith('/api/'))
        return reply.redirect(`${origin}${request.url}`, 308)
      throw new Fault('wrong-origin', `This server answers at ${origin} only.`, 'host')
    }
    if (request.method === 'GET' || request.method === 'HEAD') return
    if (!origins.has(request.headers.origin ?? ''))
      throw new Fault('wrong-origin', 'The request does not come from the application.', 'origin')
    if (request.url !== '/session') checkContentType(request)
  })
  if (options.password) sessionRoutes(app, context, options.password)

  app.get('/api/docs.json', { schema: { hide: true } }, () => app.swagger())
  workspaceRoutes(app, context)
  clockRoutes(app, context)
  accountRoutes(app, context)
  spoolRoutes(app, context)
  intakeRoutes(app, context)
  serviceRoutes(app, context)
  pageRoutes(app, context)
  calendarRoutes(app, context)
  documentRoutes(app, context)
  watchRoutes(app, context)
  fontRoutes(app)
  metricRoutes(app, context)
  if (demo && movable && options.worldUrl) demo.demo(app, context, options.worldUrl, movable)
  await serveApp(app, options.appDir)

  let opening: Promise<void> | null = null
  let sweeping: NodeJS.Timeout | undefined
  let clearing: NodeJS.Timeout | undefined
  const open = async (): Promise<void> => {
    try {
      const database = await openDatabase({ url: options.databaseUrl, folder: options.dataDir })
      const secrets = new Secrets(keysOf(options.dataDir, options.key))
      await resealAll(database, secrets)
      const kept = new Settings(database, secrets)
      const accounts = new Accounts(database, secrets, (id) => registry.capabilities(id))
      const media = new Media(database)
      const spool = new Spool(database)
      const services = {
        writer: new ConnectedWriter(database, kept, () => clock.now(), options.patience),
        shortener: new Shortener(kept),
        stock: new Stock(kept),
        maker: new PictureMaker(database, kept, () => clock.now()),
        chat: new Chat(database, kept, () => clock.now()),
      }
      const worker = new Worker({
        database,
        spool,
        accounts,
        media,
        clock,
        registry,
        onSetback: (claim, setback, now) => tellSetback(services.chat, accounts, claim, setback, now),
      })
      const readings = new Readings(database)
      const measuring = new Measuring({
        readings,
        accounts,
        registry,
        shortener: services.shortener,
        now: () => clock.now(),
      })
      const trials = new Trials({ database, accounts, media, registry, now: () => clock.now() })
      const watcher = new Watcher({
        database,
        now: () => clock.now(),
        fetch: (url, known) => fetchText({ url, ...known, as: 'feed' }, context.world),
      })
      const authorisations = new Authorisations(database)
      const doubts = new Doubts({ spool, accounts, registry, now: () => clock.now() })
      const followings = new Followings(database, accounts)
      const health = new HealthWatch({
        accounts,
        registry,
        chat: services.chat,
        followings,
        now: () => clock.now(),
      })
      parts = {
        database,
        accounts,
        authorisations,
        media,
        sessions: new Sessions(database),
        settings: kept,
        calendars: new Calendars(database),
        documents: new Documents(database),
        linkPages: new LinkPages(database),
        spool,
        doubts,
        worker,
        trials,
        health,
        readings,
        followings,
        measuring,
        watcher,
        services,
      }
      await movable?.load()
      await worker.start()
      services.chat.start()
      watcher.start()
      health.start()
      measuring.start()
      sweeping = setInterval(() => void trials.sweep().catch(() => undefined), SWEEP)
      clearing = setInterval(() => void media.clear(Date.now()).catch(() => undefined), HOUR)
    } catch (error) {
      failure = asFault(error)
      parts = null
      throw error
    }
  }
  opening = open()
  opening.catch(() => undefined)
  return {
    app,
    ready: opening,
    close: async () => {
      await opening.catch(() => undefined)
      clearInterval(sweeping)
      clearInterval(clearing)
      parts?.watcher.stop()
      parts?.health.stop()
      await parts?.measuring.stop()
      await parts?.worker.stop()
      await parts?.services.chat.stop()
      await app.close()
      await parts?.database.close()
    },
  }
}

/** A request's route as it is described: without what stands in its place, which may be a secret. */
function routeOf(request: FastifyRequest): string {
  return request.routeOptions.url ?? 'none'
}

function checkContentType(request: FastifyRequest): void {
  const type = request.headers['content-type']
  const hasBody =
    Number(request.headers['content-length'] ?? 0) > 0 || request.headers['transfer-encoding'] !== undefined
  if (!hasBody) return
  if (type && (/^application\/json\b/.test(type) || BYTES.test(type))) return
  throw new Fault(
    'wrong-type',
    'Send JSON, or a picture as PNG, JPEG or WebP, a clip as MP4 or WebM, or a document as PDF.',
    'content-type',
  )
}

/** What PostgreSQL and Node say of values that they do not take: NUL in a text, numbers out of range, signs in headers. */
const UNKEPT = new Set(['22021', '22P05', '22003', '22P02', 'ERR_INVALID_CHAR'])

/** What PostgreSQL and Node say of a database that is away: stopped, starting, or not to be reached. */
const AWAY = new Set(['57P01', '57P02', '57P03', '08000', '08003', '08006', 'ECONNREFUSED', 'ECONNRESET'])

function toFault(error: FastifyError | Fault | Error): Fault {
  if (error instanceof Fault) return error
  if (hasZodFastifySchemaValidationErrors(error)) {
    const issue = error.validation[0]
    return new Fault(
      'bad-request',
      issue?.message ?? 'The request has the wrong shape.',
      issue?.instancePath.replaceAll('/', '.').replace(/^\./, '') || null,
    )
  }
  const code = (error as NodeJS.ErrnoException).code ?? ''
  if (UNKEPT.has(code))
    return new Fault(
      'bad-request',
      'A value in the request cannot be kept: a number is too large, or a text holds a sign that no text may.',
    )
  if (code === '53100' || code === 'ENOSPC')
    return new Fault(
      'no-space',
      'The server’s disk is full. Make room on it; what was handed over before is kept.',
    )
  if (AWAY.has(code) || error.message === 'Connection terminated unexpectedly')
    return new Fault('not-ready', 'The server’s database does not answer. Try again in a moment.')
  const status = 'statusCode' in error ? error.statusCode : undefined
  if (status === 413) return new Fault('too-large', 'The request is larger than this route takes.')
  if (status === 415) return new Fault('wrong-type', 'This kind of content is not taken here.')
  if (status === 429)
    return new Fault('too-many', 'Too many requests in one minute. Wait a moment and try again.')
  if (status !== undefined && status >= 400 && status < 500) return new Fault('bad-request', error.message)
  return new Fault('internal', 'Something went wrong on the server. Its log says what.')
}

async function serveApp(app: App, dir: string | undefined): Promise<void> {
  const has = dir !== undefined && existsSync(join(dir, 'index.html'))
  if (has)
    await app.register(fastifyStatic, {
      root: dir,
      index: false,
      cacheControl: false,
      // Names under assets/ carry a hash of their content; the page itself is asked for each time.
      setHeaders: (reply, path) =>
        void reply.setHeader(
          'cache-control',
          path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
        ),
      preCompressed: true,
    })
  // The folder itself has nothing to show to those who take no compressed answers.
  if (has) app.get('/', { schema: { hide: true } }, (_request, reply) => reply.sendFile('index.html'))
  app.setNotFoundHandler((request, reply) => {
    const page = request.method === 'GET' && !request.url.startsWith('/api/') && !request.url.includes('.')
    if (page && has) return reply.sendFile('index.html')
    const fault = new Fault('not-found', 'There is nothing at this address.', request.url)
    return reply.status(404).send(fault.toJSON())
  })
}

/** Where the stand-in world answers, which may be fetched from in the demo; null in a real run. */
function worldOf(worldUrl: string | null): World | null {
  const url = worldUrl ? new URL(worldUrl) : null
  return url ? { host: url.hostname, port: Number(url.port || 80) } : null
}
