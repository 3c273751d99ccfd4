import { Resvg } from '@resvg/resvg-js'
import type { FastifyInstance, FastifyReply } from 'fastify'
import { z } from 'zod'
import { drawScene, LIGHTS, SUBJECTS } from './drawing'
import { escape, page } from './html'
import { SERVICE_KEY } from './services'

/** How many searches a minute are answered. */
const A_MINUTE = 60
/** The most pictures of one page of results. */
const MOST = 40
const WIDTH = 1200

const DRAWERS = ['Petra Holm', 'Jonas Wieck', 'Amina Tal', 'Bruno Sel', 'Lotte Varga', 'Isak Noor'] as const
/** On what terms a picture may be used. */
const LICENCES = {
  free: { name: 'Drawer Free 1.0', attribution: false },
  named: { name: 'Drawer Named 1.0', attribution: true },
} as const

/** A picture of the stock, as it is found and told. */
interface StockPicture {
  id: string
  title: string
  tags: readonly string[]
  author: string
  licence: keyof typeof LICENCES
  svg: () => string
}

/** All pictures of the stock: each subject in each light. */
export const STOCK: readonly StockPicture[] = SUBJECTS.flatMap((subject, s) =>
  LIGHTS.map((light, l): StockPicture => ({
    id: `${subject.words[0]}-${l + 1}`,
    title: `${subject.title} ${light.words}`,
    tags: [...subject.words, ...light.words.split(' ').slice(-1)],
    author: DRAWERS[(s * 3 + l * 5) % DRAWERS.length] as string,
    licence: (s + l) % 3 === 0 ? 'free' : 'named',
    svg: () => drawScene(subject, l),
  })),
)

/** The pictures that a search finds, those first that more of its words name. */
export function searchStock(query: string): StockPicture[] {
  const words = query.toLowerCase().match(/[a-z]+/g) ?? []
  const worth = ({ title, tags }: StockPicture): number =>
    words.filter((w) => tags.some((t) => t === w || `${t}s` === w || t === `${w}s`)).length * 2 +
    words.filter((w) => title.toLowerCase().split(/\W+/).includes(w)).length
  const found = STOCK.map((picture) => ({ picture, worth: worth(picture) }))
  return found
    .filter((f) => words.length === 0 || f.worth > 0)
    .sort((a, b) => b.worth - a.worth)
    .map((f) => f.picture)
}

const painted = new Map<string, Buffer>()
function png(picture: StockPicture, width: number): Buffer {
  const key = `${picture.id} ${width}`
  const known = painted.get(key)
  if (known) return known
  const made = Buffer.from(
    new Resvg(picture.svg(), { fitTo: { mode: 'width', value: width } }).render().asPng(),
  )
  painted.set(key, made)
  return made
}

/** A stand-in of a stock of pictures: searched page by page, so often a minute, with an author and a licence to each. */
export function stockRoutes(app: FastifyInstance, { origin }: { origin: string }): void {
  const refuse = (reply: FastifyReply, status: number, reason: string): FastifyReply =>
    reply.status(status).send({ error: { reason } })
  /** When the last searches were answered. */
  let answered: number[] = []

  app.get('/stock/v1/search', (request, reply) => {
    if (request.headers.authorization !== `Bearer ${SERVICE_KEY}`)
      return refuse(reply, 401, 'The key is not known here.')
    const asked = z
      .object({
        query: z.string().max(200).default(''),
        page: z.coerce.number().int().min(1).default(1),
        per_page: z.coerce.number().int().min(1).max(MOST).default(20),
      })
      .safeParse(request.query)
    if (!asked.success) return refuse(reply, 400, `Ask for a page of at most ${MOST} pictures.`)
    const now = Date.now()
    answered = answered.filter((at) => now - at < 60_000)
    void reply
      .header('ratelimit-limit', A_MINUTE)
      .header('ratelimit-remaining', Math.max(0, A_MINUTE - answered.length - 1))
    if (answered.length >= A_MINUTE) {
      void reply.header('retry-after', Math.ceil((60_000 - (now - (answered[0] ?? now))) / 1000))
      return refuse(reply, 429, 'That is too many searches for one minute.')
    }
    answered.push(now)
    const { query, page: at, per_page: each } = asked.data
    const found = searchStock(query)
    return {
      total: found.length,
      page: at,
      pages: Math.ceil(found.length / each),
      results: found.slice((at - 1) * each, at * each).map((p) => told(p, origin)),
    }
  })

  app.get<{ Params: { name: string }; Querystring: { w?: string } }>(
    '/stock/pictures/:name',
    (request, reply) => {
      const picture = STOCK.find((p) => `${p.id}.png` === request.params.name)
      if (!picture) return refuse(reply, 404, 'There is no such picture.')
      const width = request.query.w === '320' ? 320 : WIDTH
      return reply.header('content-type', 'image/png').send(png(picture, width))
    },
  )

  app.get<{ Params: { id: string } }>('/stock/:id', (request, reply) => {
    const picture = STOCK.find((p) => p.id === request.params.id)
    if (!picture) return refuse(reply, 404, 'There is no such picture.')
    const { name, attribution } = LICENCES[picture.licence]
    return reply
      .header('content-type', 'text/html; charset=utf-8')
      .send(
        page(
          picture.title,
          `<header>The Drawer</header><main><h1>${escape(picture.title)}</h1><img src="/stock/pictures/${picture.id}.png" alt="${escape(picture.title)}" width="600"><p>By ${escape(picture.author)}. ${name}: ${attribution ? 'show it where you like, and name who drew it' : 'show it where you like'}.</p></main>`,
        ),
      )
  })
}

function told({ id, title, tags, author, licence }: StockPicture, origin: string) {
  const { name, attribution } = LICENCES[licence]
  return {
    id,
    title,
    tags,
    width: WIDTH,
    height: 800,
    preview: `${origin}/stock/pictures/${id}.png?w=320`,
    file: `${origin}/stock/pictures/${id}.png`,
    page: `${origin}/stock/${id}`,
    author: { name: author },
    licence: { name, attribution },
    collection: 'The Drawer',
  }
}
