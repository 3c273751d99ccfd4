import type { FastifyInstance } from 'fastify'
import { z } from 'zod'
import type { WorldClock } from './clock'
import { escape, page } from './html'
import type { Store } from './state'

/** So many messages are kept. */
const KEPT = 500

/** The stand-in team chat: a secret address that takes `{ "text": … }`, and a page that shows what was said. */
export function chatRoutes(
  app: FastifyInstance,
  { store, clock }: { store: Store; clock: WorldClock },
): void {
  app.post<{ Params: { hook: string } }>('/chat/hooks/:hook', async (request, reply) => {
    if (request.params.hook !== 'workshop') return reply.status(404).send({ error: 'no_such_hook' })
    if (store.state.chatRefuses > 0) {
      store.state.chatRefuses--
      store.save()
      return reply.status(503).send({ error: 'away' })
    }
    const said = z.object({ text: z.string().trim().min(1).max(8000) }).safeParse(request.body)
    if (!said.success) return reply.status(400).send({ error: 'no_text' })
    store.state.said = [...store.state.said, { at: await clock.now(), text: said.data.text }].slice(-KEPT)
    store.save()
    return { ok: true }
  })

  app.get('/chat/messages', () => ({ messages: store.state.said }))

  app.post('/control/chat', async (request, reply) => {
    const { refuses } = z.object({ refuses: z.coerce.number().int().min(0).max(1000) }).parse(request.body)
    store.state.chatRefuses = refuses
    store.save()
    return (request.headers['content-type'] ?? '').includes('form')
      ? reply.redirect('/chat', 303)
      : { refuses }
  })

  app.get('/chat', (_request, reply) => {
    const said = [...store.state.said]
      .reverse()
      .map(
        ({ at, text }) =>
          `<article><p>${escape(text)}</p><div class="small">Dripline · ${new Date(at).toISOString().slice(0, 16).replace('T', ' ')} UTC</div></article>`,
      )
    return reply
      .type('text/html; charset=utf-8')
      .send(
        page(
          'Team chat',
          `<header>Team chat</header><main><h1># social</h1>${said.join('') || '<p>Nothing has been said yet.</p>'}<form method="post" action="/control/chat"><p class="small">The chat is away for the next <input name="refuses" value="${store.state.chatRefuses}" size="3" aria-label="How many messages it refuses"> messages <button>Set</button></p></form></main>`,
          { accent: '#5a6778', font: 'system-ui, sans-serif', posts: 'stream', ground: '#fbfaf7' },
        ),
      )
  })
}
