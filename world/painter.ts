import { Resvg } from '@resvg/resvg-js'
import type { FastifyInstance, FastifyReply } from 'fastify'
import { z } from 'zod'
import { drawScene, LIGHTS, SUBJECTS } from './drawing'
import { rect } from './drawing/shapes'
import { hash } from './hash'
import { SERVICE_KEY } from './services'

/** How long a picture is being painted, in milliseconds of real time. */
const SLOWNESS = 1_500
/** What can befall an order. By itself every seventh fails and every fifth gets letters. */
const MISHAPS = ['fails', 'letters', 'lost'] as const
type Mishap = (typeof MISHAPS)[number]

const Order = z.object({
  prompt: z.string().min(1).max(4000),
  width: z.int().min(64).max(2048),
  height: z.int().min(64).max(2048),
})
type Order = z.infer<typeof Order>

/** What is painted of an order: the subject that most of its words name, in the light that it names, else as chance has it. */
export function paintingOf({ prompt, width, height }: Order, letters: boolean): string {
  const words = [...prompt.toLowerCase().matchAll(/[a-z]+/g)].map(([word]) => word)
  const chance = hash(prompt) >>> 0
  const worth = (s: (typeof SUBJECTS)[number]): number =>
    words.filter((w) => s.words.some((t) => t === w || `${t}s` === w || t === `${w}s`)).length
  const best = Math.max(...SUBJECTS.map(worth))
  const fitting = SUBJECTS.filter((s) => worth(s) === best)
  const subject = fitting[chance % fitting.length] as (typeof SUBJECTS)[number]
  const named = LIGHTS.findIndex((l) => words.includes(l.words.split(' ').at(-1) ?? ''))
  const scene = drawScene(subject, named >= 0 ? named : chance % LIGHTS.length)
  const inner = scene.replace(/^<svg[^>]*>|<\/svg>$/g, '')
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1200 800" preserveAspectRatio="xMidYMid slice" width="${width}" height="${height}">${inner}${letters ? LETTERS : ''}</svg>`
}

/** Something like the letters H, E and L, painted where nobody asked for them. */
const LETTERS = `<g transform="translate(420 80)">${[
  [0, 0, 18, 110],
  [54, 0, 18, 110],
  [0, 46, 72, 18],
  [110, 0, 18, 110],
  [110, 0, 66, 18],
  [110, 46, 54, 18],
  [110, 92, 66, 18],
  [214, 0, 18, 110],
  [214, 92, 66, 18],
]
  .map(([x = 0, y = 0, w = 0, h = 0]) => rect(x, y, w, h, '#ffffff', 'stroke="#222" stroke-width="3"'))
  .join('')}</g>`

/**
 * A stand-in of a service that makes pictures to order: it takes words and a size, paints slowly, sometimes fails, and sometimes
 * paints letters that it was told to leave out. Orders are forgotten when the world ends.
 */
export function painterRoutes(app: FastifyInstance, { origin }: { origin: string }): void {
  const orders = new Map<string, { order: Order; at: number; mishap: Mishap | null }>()
  let mishaps: Mishap[] = []
  let taken = 0
  const refuse = (reply: FastifyReply, status: number, reason: string): FastifyReply =>
    reply.status(status).send({ error: { reason } })
  const knows = (authorization: string | undefined): boolean => authorization === `Bearer ${SERVICE_KEY}`

  app.post('/painter/v1/pictures', (request, reply) => {
    if (!knows(request.headers.authorization)) return refuse(reply, 401, 'The key is not known here.')
    const order = Order.safeParse(request.body)
    if (!order.success) return refuse(reply, 400, 'Send a prompt, a width and a height of 64 to 2048.')
    taken++
    const id = `painting-${taken}`
    const bySelf = taken % 7 === 0 ? 'fails' : taken % 5 === 0 ? 'letters' : null
    const mishap = mishaps.shift() ?? bySelf
    if (mishap !== 'lost') orders.set(id, { order: order.data, at: Date.now(), mishap })
    return reply.status(202).send({ id })
  })

  app.get<{ Params: { id: string } }>('/painter/v1/pictures/:id', (request, reply) => {
    if (!knows(request.headers.authorization)) return refuse(reply, 401, 'The key is not known here.')
    const { id } = request.params
    const found = orders.get(id)
    if (!found) return refuse(reply, 404, 'There is no such order.')
    if (Date.now() - found.at < SLOWNESS) return reply.send({ id, state: 'waiting' })
    if (found.mishap === 'fails')
      return reply.send({ id, state: 'failed', reason: 'The paint ran. Order it again.' })
    return reply.send({ id, state: 'ready', url: `${origin}/painter/${id}.png` })
  })

  app.get<{ Params: { name: string } }>('/painter/:name', (request, reply) => {
    const found = orders.get(request.params.name.replace(/\.png$/, ''))
    if (!found || found.mishap === 'fails') return refuse(reply, 404, 'There is no such painting.')
    const png = new Resvg(paintingOf(found.order, found.mishap === 'letters')).render().asPng()
    return reply.header('content-type', 'image/png').send(Buffer.from(png))
  })

  app.post('/control/painter', (request, reply) => {
    const { mishap, count } = z
      .object({ mishap: z.enum(MISHAPS), count: z.coerce.number().int().min(0).max(100).default(1) })
      .parse(request.body)
    mishaps = Array.from({ length: count }, () => mishap)
    return (request.headers['content-type'] ?? '').includes('form')
      ? reply.redirect('/', 303)
      : reply.send({ mishaps })
  })
}
