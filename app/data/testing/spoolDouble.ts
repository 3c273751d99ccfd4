import type { HandOver, HandOverAnswer, RecallAnswer, Receipt } from '../../../core/model'

/** What stands on a network's page, or stood there. */
export interface Publication {
  post: string
  generation: number
  text: string
  up: boolean
}

interface Delivery {
  entry: HandOver
  state: 'waiting' | 'sending' | 'recalled' | Receipt['outcome']
  receipt: Receipt | null
}

const LATEST = 2 * 3_600_000

/**
 * The server as the data layer knows it, without any of its code: a spool after its description in the
 * builders' guide, a clock that a test moves, a network that takes or refuses, and a connection that can lose
 * a request before it arrives or its answer on the way back.
 */
export class SpoolDouble {
  readonly publications: Publication[] = []
  readonly deliveries: Delivery[] = []
  readonly #receipts: { cursor: number; receipt: Receipt }[] = []
  readonly #random: () => number
  #cursor = 0
  #offset = 0
  /** What becomes of the next requests about the spool: the first of the list for the next; none means all is well. */
  readonly faults: ('request lost' | 'answer lost' | null)[] = []

  /** What a test does while a request is on its way. */
  underWay: (request: string) => Promise<void> = () => Promise.resolve()
  /** What was asked that it does not know: the test is not whole then. */
  readonly unknown: string[] = []

  constructor(random: () => number) {
    this.#random = random
  }

  now(): number {
    return Date.now() + this.#offset
  }

  advance(milliseconds: number): void {
    this.#offset += milliseconds
  }

  /** Takes up what is due; what is too late is put aside. */
  beginSending(): void {
    for (const d of this.deliveries) {
      const late = this.now() - Date.parse(d.entry.dueAt)
      if (d.state !== 'waiting' || late < 0) continue
      if (late > LATEST) this.#finish(d, 'late')
      else d.state = 'sending'
    }
  }

  /** What is being sent is taken by its network, or refused. */
  finishSending(taken: boolean): void {
    for (const d of this.deliveries) {
      if (d.state !== 'sending') continue
      if (taken)
        this.publications.push({
          post: d.entry.id,
          generation: d.entry.generation,
          text: d.entry.payload.text,
          up: true,
        })
      this.#finish(d, taken ? 'published' : 'failed')
    }
  }

  /** What the spool still has to send. */
  waiting(): HandOver[] {
    return this.deliveries.flatMap((d) => (d.state === 'waiting' || d.state === 'sending' ? [d.entry] : []))
  }

  #finish(d: Delivery, outcome: Receipt['outcome']): void {
    const at = new Date(this.now()).toISOString()
    const { id, generation, revision, account, dueAt } = d.entry
    d.state = outcome
    d.receipt = {
      id: `${id}:${generation}:${outcome}`,
      post: id,
      generation,
      revision,
      account,
      outcome,
      reason: `It is ${outcome}.`,
      dueAt,
      finishedAt: at,
      publicUrl: outcome === 'published' ? `http://murmur.localhost/${id}` : null,
      visibility: outcome === 'published' ? 'visible' : outcome === 'gone' ? 'gone' : null,
      attempts: [],
    }
    this.#receipts.push({ cursor: ++this.#cursor, receipt: d.receipt })
  }

  /** What `fetch` is in the test: answers, after a while, or loses something on the way. */
  readonly fetch = async (path: string, init: RequestInit = {}): Promise<Response> => {
    const fault = path.startsWith('/api/spool/') ? this.faults.shift() : undefined
    await this.#while()
    await this.underWay(`${init.method ?? 'GET'} ${path}`)
    if (fault === 'request lost') throw new TypeError('fetch failed')
    const answer = this.#answer(init.method ?? 'GET', path, init.body ? JSON.parse(init.body as string) : {})
    await this.#while()
    if (fault === 'answer lost') throw new TypeError('fetch failed')
    return new Response(JSON.stringify(answer), { status: 200 })
  }

  /** Some turns of the event loop, so that what runs beside comes in between. */
  async #while(): Promise<void> {
    const most = this.#random() < 0.25 ? 60 : 4
    for (let turns = Math.floor(this.#random() * most); turns > 0; turns--)
      await new Promise((resolve) => setImmediate(resolve))
  }

  #answer(method: string, path: string, body: unknown): unknown {
    const url = new URL(path, 'http://localhost')
    const asked = body as { posts: never[]; cursor: number; urls: string[] }
    const post = /^\/api\/spool\/posts\/([^/]+)(\/takedown)?$/.exec(url.pathname)
    if (post) {
      const id = decodeURIComponent(post[1] ?? '')
      return post[2] ? this.#takeDown(id) : this.#recall(id)
    }
    switch (`${method} ${url.pathname}`) {
      case 'GET /api/clock':
        return {
          now: new Date(this.now()).toISOString(),
          offsetMilliseconds: this.#offset,
          demo: false,
          worldUrl: null,
        }
      case 'GET /api/accounts':
        return {
          accounts: [{ id: 'account', state: 'linked', since: SINCE, message: 'Linked.', expiresAt: null }],
        }
      case 'POST /api/spool/posts':
        return { answers: (asked.posts as HandOver[]).map((entry) => this.#put(entry)) }
      case 'POST /api/spool/held': {
        const there = new Set(this.waiting().map((e) => e.id))
        return { held: (asked.posts as string[]).filter((id) => there.has(id)) }
      }
      case 'GET /api/spool/receipts': {
        const after = Number(url.searchParams.get('after'))
        const page = this.#receipts.filter((r) => r.cursor > after).slice(0, 3)
        return { cursor: page[page.length - 1]?.cursor ?? after, receipts: page.map((r) => r.receipt) }
      }
      case 'POST /api/spool/receipts/acknowledge':
        while ((this.#receipts[0]?.cursor ?? Infinity) <= asked.cursor) this.#receipts.shift()
        return {}
      case 'GET /api/spool/readings':
        return { cursor: 0, readings: [] }
      case 'GET /api/spool/followings':
        return { cursor: 0, followings: [] }
      case 'GET /api/calendars/brand':
        return { url: null }
      case 'PUT /api/pages/brand':
        return {}
      case 'PUT /api/chat/notices':
        return { kinds: [] }
      case 'PUT /api/watch':
        return { feeds: 0 }
      case 'GET /api/documents':
        return { documents: [] }
      case 'POST /api/intake/links':
        return { troubles: asked.urls.map(() => null) }
      default:
        this.unknown.push(`${method} ${path}`)
        throw new Error(`The double was asked ${method} ${path}, which it does not know.`)
    }
  }

  #newest(id: string): Delivery | undefined {
    return this.deliveries
      .filter((d) => d.entry.id === id)
      .sort((a, b) => b.entry.generation - a.entry.generation)[0]
  }

  #put(entry: HandOver): HandOverAnswer {
    const answer = (
      result: HandOverAnswer['result'],
      receipt: Receipt | null = null,
      standing: HandOverAnswer['standing'] = null,
    ): HandOverAnswer => ({ id: entry.id, result, message: result, receipt, standing })
    const there = this.#newest(entry.id)
    if (there && there.entry.generation >= entry.generation) {
      if (there.state === 'sending') return answer('already sending')
      if (there.state === 'published' || there.state === 'failed' || there.state === 'gone')
        return answer('finished', there.receipt)
      const { generation, revision } = there.entry
      if (generation > entry.generation || revision > entry.revision)
        return answer('older revision', null, { generation, revision })
      Object.assign(there, { entry, state: 'waiting', receipt: null })
    } else this.deliveries.push({ entry, state: 'waiting', receipt: null })
    return answer('taken')
  }

  #recall(id: string): RecallAnswer {
    const there = this.#newest(id)
    if (!there) return { id, result: 'unknown', receipt: null }
    if (there.state === 'sending') return { id, result: 'already sending', receipt: null }
    if (there.state === 'published' || there.state === 'failed' || there.state === 'gone')
      return { id, result: 'finished', receipt: there.receipt }
    there.state = 'recalled'
    return { id, result: 'recalled', receipt: null }
  }

  #takeDown(id: string): unknown {
    const there = this.#newest(id)
    if (there?.state === 'published') {
      for (const p of this.publications) if (p.post === id) p.up = false
      this.#finish(there, 'gone')
    }
    return { id }
  }
}

const SINCE = '2026-01-01T00:00:00.000Z'
