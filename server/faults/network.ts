import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import { once } from 'node:events'

/** What can befall a publication here, each in another way that a real service has. */
export const TROUBLES = ['500', '503', '429', 'slow', 'lost before', 'lost after', 'nonsense after'] as const
type Trouble = (typeof TROUBLES)[number]

/** A post as it was taken, in the order of taking. */
export interface Taken {
  key: string
  account: string
  text: string
}

/**
 * A network for the fault tests that does one thing: it counts what arrived. It speaks the stand-in networks' interface,
 * written anew from its description, and shares nothing with the stand-in world, whose rules would be in the way here.
 */
export class CountingNetwork {
  readonly taken: Taken[] = []
  /** How often each kind of trouble befell a publication. */
  readonly troubles: Record<string, number> = {}
  /** Whether it answers at all. */
  down = false
  readonly #ids = new Map<string, string>()
  readonly #befallen = new Set<string>()
  readonly #expired = new Set<string>()
  readonly #share: number
  readonly #chance: () => number
  readonly #kinds: readonly Trouble[]
  #server: Server | null = null

  /** `share` of the publications meet trouble, each once; `chance` gives numbers from 0 to 1. */
  constructor(share = 0, chance: () => number = Math.random, kinds: readonly Trouble[] = TROUBLES) {
    this.#kinds = kinds
    this.#share = share
    this.#chance = chance
  }

  async listen(port: number): Promise<void> {
    this.#server = createServer((request, response) => void this.#answer(request, response))
    this.#server.keepAliveTimeout = 60_000
    this.#server.listen(port, '127.0.0.1')
    await once(this.#server, 'listening')
  }

  async close(): Promise<void> {
    this.#server?.closeAllConnections()
    await new Promise((resolve) => this.#server?.close(resolve))
  }

  /** Lets the token of an account run out until it is granted anew. */
  expire(account: string): void {
    this.#expired.add(account)
  }

  async #answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const { pathname, searchParams } = new URL(request.url ?? '/', 'http://here')
    const body = await read(request)
    if (this.down) return void request.socket.destroy()
    const account = /^Bearer (.+)$/.exec(request.headers.authorization ?? '')?.[1] ?? ''
    const asked = `${request.method} ${pathname.replace(/^\/networks\/[^/]+/, '')}`
    if (asked === 'POST /demo-code') return send(response, 200, { code: body['account'] })
    if (asked === 'POST /token') {
      const id = String(body['code'])
      this.#expired.delete(id)
      return send(response, 200, {
        accessToken: id,
        expiresAt: null,
        account: { id, handle: id, name: id, zone: 'UTC', url: `http://here/@${id}` },
      })
    }
    if (asked.startsWith('GET /control/next')) return send(response, 200, { at: null })
    if (asked === 'POST /control/clock') return send(response, 200, {})
    if (this.#expired.has(account)) return send(response, 401, { error: 'expired', reason: 'Expired.' })
    if (asked === 'GET /account') return send(response, 200, { expiresAt: null })
    if (asked === 'GET /posts') {
      const id = this.#ids.get(`${account} ${searchParams.get('key') ?? ''}`)
      return id
        ? send(response, 200, standing(id))
        : send(response, 404, { error: 'gone', reason: 'Nothing.' })
    }
    if (asked === 'POST /posts')
      return this.#publish(request, response, account, String(request.headers['idempotency-key']), body)
    return send(response, 404, { error: 'gone', reason: 'There is nothing here.' })
  }

  async #publish(
    request: IncomingMessage,
    response: ServerResponse,
    account: string,
    key: string,
    body: Record<string, unknown>,
  ): Promise<void> {
    const trouble = this.#troubleOf(key)
    if (trouble === '500' || trouble === '503')
      return send(response, Number(trouble), { error: 'unavailable', reason: 'Not now.' })
    if (trouble === '429')
      return send(response, 429, { error: 'rate', reason: 'Too many.' }, { 'retry-after': '90' })
    if (trouble === 'lost before') return void request.socket.destroy()
    if (trouble === 'slow') await new Promise((resolve) => setTimeout(resolve, 1500))
    const known = this.#ids.get(`${account} ${key}`)
    const id = known ?? `post-${this.taken.length}`
    if (known === undefined) {
      this.#ids.set(`${account} ${key}`, id)
      this.taken.push({ key, account, text: String(body['text']) })
    }
    if (trouble === 'lost after') return void request.socket.destroy()
    if (trouble === 'nonsense after') return void response.writeHead(502).end('<html>Bad gateway</html>')
    return send(response, known ? 200 : 201, standing(id))
  }

  #troubleOf(key: string): Trouble | null {
    if (this.#befallen.has(key) || this.#chance() >= this.#share) return null
    this.#befallen.add(key)
    const trouble = this.#kinds[Math.floor(this.#chance() * this.#kinds.length)] as Trouble
    this.troubles[trouble] = (this.troubles[trouble] ?? 0) + 1
    return trouble
  }
}

async function read(request: IncomingMessage): Promise<Record<string, unknown>> {
  let text = ''
  for await (const chunk of request) text += String(chunk)
  return text.startsWith('{') ? (JSON.parse(text) as Record<string, unknown>) : {}
}

function standing(id: string) {
  return { id, url: `http://here/${id}`, visibility: 'visible' }
}

function send(
  response: ServerResponse,
  status: number,
  body: unknown,
  headers: Record<string, string> = {},
): void {
  response.writeHead(status, { 'content-type': 'application/json', ...headers }).end(JSON.stringify(body))
}
