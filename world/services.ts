import type { FastifyInstance, FastifyReply } from 'fastify'
import { z } from 'zod'
import type { WorldClock } from './clock'
import { VICES, type Store, type Vice } from './state'

/** The key that the stand-in services take. */
export const SERVICE_KEY = 'workshop-key'
const MODEL = 'workshop-1'
/** Longer than anybody waits. */
const SLOW = 25_000

const Question = z.object({
  model: z.string(),
  messages: z.array(z.object({ role: z.string(), content: z.string() })).min(1),
})

/**
 * The services of the stand-in world that are no network: a writer that speaks the
 * chat-completions form, and a shortener that counts clicks.
 */
export function serviceRoutes(
  app: FastifyInstance,
  {
    store,
    clock,
    origin,
    clicksOn,
  }: {
    store: Store
    clock: WorldClock
    origin: string
    /** How often readers of the networks followed each of some short links. */
    clicksOn: (shorts: readonly string[]) => Promise<ReadonlyMap<string, number>>
  },
): void {
  const refuse = (reply: FastifyReply, status: number, message: string): FastifyReply =>
    reply.status(status).send({ error: { message, type: 'refused' } })
  const knows = (authorization: string | undefined): boolean => authorization === `Bearer ${SERVICE_KEY}`

  app.post('/writer/v1/chat/completions', async (request, reply) => {
    if (!knows(request.headers.authorization)) return refuse(reply, 401, 'The key is not known here.')
    const question = Question.safeParse(request.body)
    if (!question.success) return refuse(reply, 400, 'Send a model and messages.')
    if (question.data.model !== MODEL)
      return refuse(reply, 404, `There is no model “${question.data.model}”; there is ${MODEL}.`)
    const vice = store.takeVice()
    if (vice === 'too many requests') {
      void reply.header('retry-after', '1')
      return refuse(reply, 429, 'Too many requests; wait a second.')
    }
    if (vice === 'slow') await new Promise((resolve) => setTimeout(resolve, SLOW))
    const content = written(question.data.messages, vice)
    return {
      id: `answer-${store.state.answers}`,
      object: 'chat.completion',
      created: Math.floor((await clock.now()) / 1000),
      model: MODEL,
      choices: [{ index: 0, message: { role: 'assistant', content }, finish_reason: 'stop' }],
    }
  })

  app.post('/control/vice', async (request, reply) => {
    const { vice, count } = z
      .object({ vice: z.enum(VICES), count: z.coerce.number().int().min(0).max(1000).default(1) })
      .parse(request.body)
    store.giveVice(vice, count)
    return (request.headers['content-type'] ?? '').includes('form')
      ? reply.redirect('/', 303)
      : { vices: store.state.vices }
  })

  app.post('/links', async (request, reply) => {
    if (!knows(request.headers.authorization)) return refuse(reply, 401, 'The key is not known here.')
    const { links } = z
      .object({
        links: z
          .array(z.object({ url: z.url(), key: z.string() }))
          .min(1)
          .max(200),
      })
      .parse(request.body)
    return { links: links.map(({ url, key }) => shown(store.shorten(url, key))) }
  })

  app.get<{ Querystring: { short?: string | string[] } }>('/links', async (request, reply) => {
    if (!knows(request.headers.authorization)) return refuse(reply, 401, 'The key is not known here.')
    const wanted = new Set([request.query.short ?? []].flat())
    const links = store.state.links.map(shown).filter((l) => wanted.has(l.short))
    const readers = await clicksOn(links.map((l) => l.short))
    return { links: links.map((l) => ({ ...l, clicks: l.clicks + (readers.get(l.short) ?? 0) })) }
  })

  app.get<{ Params: { code: string } }>('/s/:code', (request, reply) => {
    const link = store.state.links.find((l) => l.code === request.params.code)
    if (!link) return refuse(reply, 404, 'There is no such link.')
    link.clicks++
    store.save()
    return reply.redirect(link.url, 302)
  })

  const shown = ({ code, url, clicks }: { code: string; url: string; clicks: number }) => ({
    short: `${origin}/s/${code}`,
    url,
    clicks,
  })
}

/**
 * What the stand-in writer answers. Its way of writing: it likes to begin with a short sentence,
 * and to give each sentence a line of its own where there is room. Sent back with faults, it
 * begins elsewhere.
 */
export function written(messages: readonly { role: string; content: string }[], vice: Vice | null): string {
  const asked = messages.map((m) => m.content).join('\n')
  const [passage = '', around = ''] = [...asked.matchAll(/"""\n([\s\S]*?)\n"""/g)].map((m) => m[1] ?? '')
  if (!passage) return 'Yes, I am ready.'
  if (vice === 'refusal') return 'I’m sorry, but I can’t help with that request.'
  if (vice === 'nonsense')
    return 'Blue ideas sleep furiously beside the humming marmalade, and seven owls agree.'
  if (asked.includes('"passages"')) return fenced({ passages: chosen(passage) }, vice)
  if (asked.includes('"posts"')) return fenced({ posts: allPosts(asked, passage, vice) }, vice)
  const [, least = 0] = (/between (\d+) and (\d+) characters/.exec(asked) ?? []).map(Number)
  const enough = passage.length >= least ? passage : around.slice(Math.max(0, around.indexOf(passage)))
  const again = messages.filter((m) => m.role === 'assistant').length
  const taken = new Set(
    (/open otherwise:\n((?:- .*\n?)*)/.exec(asked)?.[1] ?? '').match(/[^\n]+/g)?.map((l) => l.slice(2)),
  )
  return fenced(onePost(asked, enough, again, taken, vice), vice)
}

/** One caption from a stretch of text, as `asked` wants it; which sentence it begins with hangs on what is taken. */
function onePost(
  asked: string,
  from: string,
  again: number,
  taken: ReadonlySet<string>,
  vice: Vice | null,
): { text: string; title?: string } {
  const [, , most = 280] = (/between (\d+) and (\d+) characters/.exec(asked) ?? []).map(Number)
  const sentences = (from.match(/[^.!?]+[.!?]+["”’)]*/g) ?? [from]).map((s) => s.trim())
  const start = startOf(sentences, again, taken)
  const kept: string[] = []
  let length = 0
  for (const sentence of [...sentences.slice(start), ...(vice === 'too long' ? sentences : [])]) {
    if (vice !== 'too long' && kept.length > 0 && length + sentence.length > most) break
    kept.push(sentence)
    length += sentence.length + 1
  }
  while (vice === 'too long' && kept.join(' ').length < most * 2) kept.push(...sentences)
  if (vice === 'invented number') kept.push('In 87 of 100 cases it works the first time.')
  const text = kept.join(most > 600 ? '\n\n' : ' ')
  return /The title has at most|"title"/.test(asked)
    ? { text, title: (sentences[start] ?? '').replace(/[.!?]+$/, '') }
    : { text }
}

const fenced = (answer: object, vice: Vice | null): string =>
  vice === 'markup fence'
    ? `Sure! Here is your caption:\n\n\`\`\`json\n${JSON.stringify(answer)}\n\`\`\``
    : JSON.stringify(answer)

/** The numbered sentences of an article, by their numbers. */
function numberedIn(article: string): Map<number, string> {
  return new Map(
    [...article.matchAll(/\[(\d+)\] ([\s\S]*?)(?=\s*(?:\[\d+\]|\n\n|$))/g)].map((m) => [
      Number(m[1]),
      m[2] ?? '',
    ]),
  )
}

/** Every fourth sentence of some length: the stand-in has no taste. */
function chosen(article: string): [number, number][] {
  return [...numberedIn(article)]
    .filter(([, words]) => words.length > 60)
    .filter((_, i) => i % 4 === 0)
    .slice(0, 8)
    .map(([n]) => [n, n])
}

/** An answer for each post of a drip: from its own sentences and, where it wants more, those that follow them. */
function allPosts(asked: string, article: string, vice: Vice | null): object[] {
  const sentences = numberedIn(article)
  const taken = new Set<string>()
  return asked.split(/\n\n(?=Post \d+, from )/).flatMap((part) => {
    const [, post, first, last] = /^Post (\d+), from sentences? (\d+)(?:–(\d+))?/.exec(part) ?? []
    if (!post) return []
    const [, least = 0] = (/between (\d+) and (\d+) characters/.exec(part) ?? []).map(Number)
    const numbers: number[] = []
    let length = 0
    for (let n = Number(first); sentences.has(n) && (n <= Number(last ?? first) || length < least); n++) {
      numbers.push(n)
      length += sentences.get(n)?.length ?? 0
    }
    const words = numbers.map((n) => sentences.get(n)).join(' ')
    const made = onePost(part, words, 0, taken, vice)
    taken.add(opens(made.text))
    return [{ post: Number(post), ...made }]
  })
}

const opens = (s: string): string =>
  (s.toLowerCase().match(/[\p{L}\p{N}]+(?:[’'-][\p{L}\p{N}]+)*/gu) ?? []).slice(0, 4).join(' ')

/** The first short sentence that leans on nothing; a later one each time it is asked again. */
function startOf(sentences: readonly string[], again: number, taken: ReadonlySet<string>): number {
  const free = sentences.flatMap((s, i) =>
    s.length <= 110 &&
    !taken.has(opens(s)) &&
    !/^(?:it|they|he|she|this|that|these|those|but|and|so|then)\b/i.test(s)
      ? [i]
      : [],
  )
  return free[again] ?? free[0] ?? 0
}
