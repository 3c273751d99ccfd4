import { afterAll, beforeAll, expect, it } from 'vitest'
import { seededRandom } from '../core/planning'
import { handOver, openServers } from '../e2e/servers'
import { drawn, type Draw, type Schema } from './testing/drawn'

/*
 * Every route asked with what its own description says, and with what it does not: nothing is answered with a fault of the
 * server's own, no answer shows its insides, and the server is there afterwards. FUZZ=500 asks each route that often.
 */

const TIMES = Number(process.env['FUZZ'] ?? 40)
const SEED = Number(process.env['SEED'] ?? 20261129)
/** What would empty the demo or take it months ahead. */
const LEFT_OUT = /^\/api\/(?:demo\/restart|clock\/advance)$/

const NAMED = { account: ['murmur-one', 'guildhall-one'], network: ['murmur', 'guildhall'] }

interface Operation {
  parameters?: readonly { in: string; name: string; schema: Schema }[]
  requestBody?: { content: Record<string, { schema: Schema }> }
}

let servers: Awaited<ReturnType<typeof openServers>>
beforeAll(async () => {
  servers = await openServers()
})
afterAll(() => servers.close())

it('every route takes whatever comes', async () => {
  const soon = new Date(Date.now() + 9e7).toISOString()
  for (const id of ['p', 'q']) await servers.call('PUT', `/api/spool/posts/${id}`, handOver(id, soon))
  const known = [
    'p',
    'q',
    'murmur-one',
    'guildhall-one',
    'murmur',
    'ws',
    'brand',
    'oak',
    soon,
    servers.worldUrl,
  ]
  const { body: docs } = await servers.call<{ paths: Record<string, Record<string, Operation>> }>(
    'GET',
    '/api/docs.json',
  )
  const random = seededRandom(SEED)
  const wrong: string[] = []
  const statuses = new Map<number, number>()
  let unkept = 0
  for (const [path, methods] of Object.entries(docs.paths)) {
    if (LEFT_OUT.test(path)) continue
    for (const [method, operation] of Object.entries(methods))
      for (let i = 0; i < TIMES; i++) {
        const { address, body } = request(path, operation, {
          random,
          known,
          named: NAMED,
          wild: [0, 0.2, 1][i % 3] ?? 0,
        })
        const { status, body: said } = await servers.call<{ code?: string; message?: string } | string>(
          method.toUpperCase(),
          address,
          body,
        )
        statuses.set(status, (statuses.get(status) ?? 0) + 1)
        const text = typeof said === 'string' ? said : JSON.stringify(said)
        if (text.includes('cannot be kept')) unkept++
        const own = status >= 500 && !(typeof said === 'object' && OUTSIDE.has(said.code ?? ''))
        if (own || /\n\s+at |node_modules|\.ts:\d/.test(text))
          wrong.push(`${method} ${address} ${JSON.stringify(body)}: ${status} ${text.slice(0, 200)}`)
      }
  }
  expect(wrong).toEqual([])
  // It is no proof where nothing gets past the first check: many were taken, many came as far as the tables.
  expect(statuses.get(200) ?? 0).toBeGreaterThan(TIMES * 8)
  expect(statuses.get(400) ?? 0).toBeGreaterThan(TIMES * 4)
  expect(unkept).toBeGreaterThan(TIMES / 10)
  expect((await servers.call('GET', '/api/health')).body).toMatchObject({ ready: true })
}, 300_000)

/** Faults of others that a route passes on: a network, a service or an address that does not answer. */
const OUTSIDE = new Set(['unreachable', 'bad-answer'])

function request(path: string, operation: Operation, draw: Draw): { address: string; body: unknown } {
  const word = (schema: Schema, name: string): string => {
    const value = drawn(schema, draw, name)
    return typeof value === 'string' ? value : JSON.stringify(value ?? null)
  }
  const given = operation.parameters ?? []
  const schemaOf = (name: string): Schema => given.find((p) => p.name === name)?.schema ?? { type: 'string' }
  const encoded = (text: string): string => encodeURIComponent(text.replace(/\p{Surrogate}/gu, '\ufffd'))
  const place = path.replace(/\{(\w+)\}/g, (_, name: string) => encoded(word(schemaOf(name), name)) || 'x')
  const query = given
    .filter((p) => p.in === 'query' && draw.random() < 0.9)
    .map((p) => `${p.name}=${encoded(word(p.schema, p.name))}`)
  const [content] = Object.values(operation.requestBody?.content ?? {})
  return {
    address: query.length ? `${place}?${query.join('&')}` : place,
    body: content ? drawn(content.schema, draw) : undefined,
  }
}
