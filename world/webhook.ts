import { createHmac, timingSafeEqual } from 'node:crypto'
import type { FastifyInstance } from 'fastify'
import { z } from 'zod'
import type { WorldClock } from './clock'
import { escape, page } from './html'
import type { Store } from './state'

/** So old may a signed time be, in seconds. */
const OLD = 300

const Said = z.discriminatedUnion('event', [
  z.object({ event: z.literal('check') }),
  z.object({
    event: z.literal('publish'),
    key: z.string(),
    post: z.object({ text: z.string().max(5000), title: z.string().nullable(), media: z.array(z.unknown()) }),
  }),
  z.object({ event: z.literal('take down'), id: z.string() }),
])

/** A system that is fed by Dripline's signed webhook: it checks the signature, keeps each key once, and shows what it has. */
export function webhookRoutes(
  app: FastifyInstance,
  { store, clock }: { store: Store; clock: WorldClock },
): void {
  app.register((scope, _options, done) => {
    // The signature is over the bytes as they came.
    scope.removeContentTypeParser('application/json')
    scope.addContentTypeParser('application/json', { parseAs: 'string' }, (_request, body, then) =>
      then(null, body),
    )

    scope.post('/webhook', { bodyLimit: 20 * 1024 * 1024 }, async (request, reply) => {
      const at = String(request.headers['dripline-time'] ?? '')
      const given = Buffer.from(String(request.headers['dripline-signature'] ?? ''))
      const right = Buffer.from(
        `sha256=${createHmac('sha256', store.state.webhookSecret)
          .update(`${at}.${String(request.body)}`)
          .digest('hex')}`,
      )
      const now = (await clock.now()) / 1000
      if (given.length !== right.length || !timingSafeEqual(given, right))
        return reply.status(401).send({ reason: 'The signature is not right.' })
      if (Math.abs(now - Number(at)) > OLD) return reply.status(401).send({ reason: 'The time is too old.' })
      const said = Said.safeParse(JSON.parse(String(request.body)))
      if (!said.success)
        return reply.status(422).send({ reason: said.error.issues[0]?.message ?? 'Not understood.' })
      const { received } = store.state
      if (said.data.event === 'publish') {
        const { key, post } = said.data
        const trouble = store.takeTrouble('webhook', '')
        if (trouble === 'fail' || trouble === 'down') return reply.status(503).send({ reason: 'Not now.' })
        if (trouble === 'limit')
          return reply.header('retry-after', '120').status(429).send({ reason: 'Wait.' })
        if (!received.some((r) => r.key === key))
          received.push({ key, at: await clock.now(), text: post.text, pictures: post.media.length })
        store.save()
        if (trouble === 'drop') {
          request.raw.socket.destroy()
          return reply
        }
        return { id: key, url: null }
      }
      if (said.data.event === 'take down') {
        const { id } = said.data
        store.state.received = received.filter((r) => r.key !== id)
        store.save()
      }
      return { ok: true }
    })
    done()
  })

  app.get('/webhook', async (_request, reply) =>
    reply
      .header('content-type', 'text/html; charset=utf-8')
      .send(
        page(
          'A system fed by a webhook',
          `<header>A system fed by a webhook</header><main><h1>What came in</h1>${
            store.state.received
              .map(
                (r) =>
                  `<article><p>${escape(r.text)}</p><p class="small">${r.pictures} pictures</p></article>`,
              )
              .join('') || '<p>Nothing came in yet.</p>'
          }<form method="post" action="/control/webhook"><label>The secret that Dripline showed <input name="secret" size="50"></label><button>Keep it</button></form></main>`,
        ),
      ),
  )

  app.post('/control/webhook', async (request, reply) => {
    store.state.webhookSecret = z.object({ secret: z.string() }).parse(request.body).secret.trim()
    store.save()
    return (request.headers['content-type'] ?? '').includes('form')
      ? reply.redirect('/webhook', 303)
      : { ok: true }
  })
}
