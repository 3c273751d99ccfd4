import { once } from 'node:events'
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { freePort } from '../../e2e/ports'
import { aPayload } from '../../core/model/samples'
import { aLogin, FIRST } from '../testing/parts'
import { backoff } from './calls'
import type { Connector } from './connector'
import { standInConnector } from './standIn'

/* What any connector must do, held against a network that answers as it is told. */

type Answer = (request: IncomingMessage, response: ServerResponse, body: string) => void
const json =
  (status: number, body: unknown, headers: Record<string, string> = {}): Answer =>
  (_, response) =>
    response.writeHead(status, { 'content-type': 'application/json', ...headers }).end(JSON.stringify(body))

let server: Server
let connector: Connector
let answers: Record<string, Answer> = {}
const asked: { method: string; path: string; headers: IncomingMessage['headers']; body: string }[] = []

beforeAll(async () => {
  const port = await freePort()
  server = createServer((request, response) => {
    const chunks: Buffer[] = []
    request.on('data', (c: Buffer) => chunks.push(c))
    request.on('end', () => {
      const body = Buffer.concat(chunks).toString()
      const path = request.url ?? ''
      asked.push({ method: request.method ?? '', path, headers: request.headers, body })
      const answer = answers[`${request.method} ${path}`]
      if (answer) answer(request, response, body)
      else response.writeHead(404).end('{}')
    })
  }).listen(port, '127.0.0.1')
  await once(server, 'listening')
  connector = standInConnector(`http://localhost:${port}`, () => Date.parse('2026-11-24T10:00:00.000Z'))
})
afterAll(() => {
  server.closeAllConnections()
  server.close()
})
beforeEach(() => {
  answers = {}
  asked.length = 0
})

const POSTS = 'POST /networks/murmur/posts'
const MEDIA = 'POST /networks/murmur/media'
const payload = aPayload({ firstComment: 'First.' })
const login = aLogin()
const publish = async (media: Parameters<Connector['publish']>[3] = [], before = FIRST) => {
  const { outcome, attempts } = await connector.publish(login, 'ws:post:1', payload, media, before)
  const attempt = attempts.at(-1)
  if (!attempt) throw new Error('nothing was asked')
  return { outcome, attempt, attempts }
}
const taken = { id: 'r1', url: 'http://n.example/r1', visibility: 'visible' }

describe('publishing', () => {
  it('sends the words under the token and the key, and keeps request and answer', async () => {
    answers[POSTS] = json(201, taken)
    const { outcome, attempt } = await publish()
    expect(outcome).toEqual({
      kind: 'published',
      remoteId: 'r1',
      publicUrl: 'http://n.example/r1',
      visibility: 'visible',
    })
    expect(asked[0]?.headers).toMatchObject({
      authorization: 'Bearer token-1',
      'idempotency-key': 'ws:post:1',
    })
    expect(JSON.parse(asked[0]?.body ?? '')).toEqual({ ...payload, media: [] })
    expect(attempt).toMatchObject({
      at: '2026-11-24T10:00:00.000Z',
      request: { method: 'POST', body: { text: 'Green oak bends.' } },
      answer: { status: 201, body: taken },
      error: null,
    })
    expect(JSON.stringify(attempt)).not.toContain('token-1')
  })

  it('uploads pictures first and names them by what the network called them', async () => {
    answers[MEDIA] = json(201, { id: 'm7' })
    answers[POSTS] = json(201, { ...taken, visibility: 'waiting for a moderator' })
    const { outcome } = await publish([
      { hash: 'h1', bytes: new Uint8Array([1, 2, 3]), type: 'image/png', alt: 'A frame' },
    ])
    expect(outcome).toMatchObject({ kind: 'published', visibility: 'waiting for a moderator' })
    expect(asked.map((a) => a.path)).toEqual(['/networks/murmur/media', '/networks/murmur/posts'])
    expect(asked[0]?.headers['content-type']).toBe('image/png')
    expect(JSON.parse(asked[1]?.body ?? '')).toMatchObject({ media: [{ id: 'm7', alt: 'A frame' }] })
  })

  it('does not post where a picture was refused, and says why', async () => {
    answers[MEDIA] = json(413, { error: 'too_large', reason: 'The picture has 9 MB.' })
    const { outcome } = await publish([{ hash: 'h1', bytes: new Uint8Array(3), type: 'image/png', alt: '' }])
    expect(outcome).toEqual({ kind: 'refused', reason: 'Murmur: The picture has 9 MB.', field: undefined })
    expect(asked).toHaveLength(1)
  })

  it('takes the same post as before for a success', async () => {
    answers[POSTS] = json(200, taken)
    expect((await publish()).outcome.kind).toBe('published')
  })

  it.each([
    [400, 'refused'],
    [403, 'refused'],
    [404, 'refused'],
    [422, 'refused'],
    [408, 'later'],
    [425, 'later'],
    [429, 'later'],
    [500, 'later'],
    [503, 'later'],
  ] as const)('an answer %i means %s', async (status, kind) => {
    answers[POSTS] = json(status, { error: 'x', reason: 'Because.' })
    expect((await publish()).outcome).toMatchObject({ kind, reason: 'Murmur: Because.' })
  })

  it.each([
    ['expired', 'expired'],
    ['unknown_token', 'expired'],
    ['withdrawn', 'withdrawn'],
  ] as const)(
    '401 with the code “%s” means that the account is %s, whatever the sentence',
    async (error, state) => {
      answers[POSTS] = json(401, { error, reason: 'Nothing was withdrawn, nothing expired.' })
      expect((await publish()).outcome).toMatchObject({ kind: 'unlinked', state })
    },
  )

  it('says which field breaks a rule', async () => {
    answers[POSTS] = json(422, { error: 'invalid', field: 'title', reason: 'Too long.' })
    expect((await publish()).outcome).toEqual({
      kind: 'refused',
      reason: 'Murmur: Too long.',
      field: 'title',
    })
  })

  it('uploads a picture once, and posts to the place that the account stands for', async () => {
    const kept = new Map<string, string>()
    const before = {
      doubt: true,
      known: (hash: string) => Promise.resolve(kept.get(hash) ?? null),
      keep: async (hash: string, id: string) => void kept.set(hash, id),
    }
    answers[MEDIA] = json(201, { id: 'm7' })
    answers[POSTS] = json(503, { error: 'unavailable', reason: 'Down.' })
    const picture = { hash: 'h1', bytes: new Uint8Array(3), type: 'image/png', alt: '' }
    expect((await publish([picture], before)).outcome.kind).toBe('later')
    answers[POSTS] = json(201, taken)
    const target = { ...login, target: 'rack-2' }
    const { outcome } = await connector.publish(target, 'k', payload, [picture], before)
    expect(outcome.kind).toBe('published')
    expect(asked.map((a) => a.path.split('/').pop())).toEqual(['media', 'posts', 'posts'])
    expect(JSON.parse(asked[2]?.body ?? '')).toMatchObject({ target: 'rack-2', media: [{ id: 'm7' }] })
  })

  it('waits as long as the network asks', async () => {
    answers[POSTS] = json(429, { error: 'rate', reason: 'Too many.' }, { 'retry-after': '120' })
    expect((await publish()).outcome).toMatchObject({ kind: 'later', afterMilliseconds: 120_000 })
  })

  it('tries again after a line that dropped, and keeps that there was no answer', async () => {
    answers[POSTS] = (request) => request.socket.destroy()
    const { outcome, attempt } = await publish()
    expect(outcome).toMatchObject({ kind: 'later', reason: 'The connection broke before an answer came.' })
    expect(attempt).toMatchObject({ answer: null, error: expect.stringContaining('broke') })
  })

  it('does not take a success without a post for one, nor follow it elsewhere', async () => {
    answers[POSTS] = json(200, { hello: 'world' })
    expect((await publish()).outcome.kind).toBe('later')
    answers[POSTS] = json(302, {}, { location: 'http://127.0.0.1:1/steal' })
    const { outcome } = await publish()
    expect(outcome.kind).toBe('later')
  })

  it('makes a sentence of an answer without a reason', async () => {
    answers[POSTS] = (_, response) => response.writeHead(500).end('<html>Oops</html>')
    const { outcome, attempt } = await publish()
    expect(outcome).toMatchObject({ reason: 'Murmur answered 500 without a reason.' })
    expect(attempt.answer?.body).toBe('<html>Oops</html>')
  })
})

describe('linking and taking down', () => {
  it('sends the person to the network’s own page with the way back', async () => {
    const asked = { network: 'guildhall', redirect: 'http://localhost/back', state: 'state-1', site: null }
    const url = new URL((await connector.authorise(asked)).address)
    expect(url.pathname).toBe('/networks/guildhall/authorize')
    expect(Object.fromEntries(url.searchParams)).toEqual({
      redirect_uri: 'http://localhost/back',
      state: 'state-1',
    })
  })

  it('exchanges a code for a grant, or says that there was none', async () => {
    const account = { id: 'a', handle: 'h', name: 'N', zone: 'UTC', url: 'http://n.example/@h' }
    answers['POST /networks/murmur/token'] = json(200, {
      accessToken: 't',
      expiresAt: '2027-01-01T00:00:00.000Z',
      account,
    })
    expect(await connector.grant({ network: 'murmur', redirect: '', code: 'c', kept: {} })).toMatchObject({
      remoteId: 'a',
      secret: 't',
      expiresAt: Date.parse('2027-01-01T00:00:00.000Z'),
    })
    answers['POST /networks/murmur/token'] = json(400, { error: 'bad_code', reason: 'Used.' })
    await expect(connector.grant({ network: 'murmur', redirect: '', code: 'c', kept: {} })).rejects.toThrow(
      /did not grant the account\. Start the linking again/,
    )
  })

  it('is content where the post is gone already, and says so where it stays', async () => {
    const path = 'DELETE /networks/murmur/posts/r%2F1'
    for (const status of [204, 404]) {
      answers[path] = (_, response) => response.writeHead(status).end()
      await connector.takeDown(login, 'r/1')
    }
    answers[path] = json(403, { error: 'x', reason: 'Not yours.' })
    await expect(connector.takeDown(login, 'r/1')).rejects.toThrow(
      'Murmur did not take the post down: Murmur: Not yours.',
    )
  })

  it('reads a post back as the network has it, or says that it has none', async () => {
    const path = 'GET /networks/murmur/posts/r%2F1'
    answers[path] = json(200, { id: 'r/1', text: 'Oak.', firstComment: null, pictures: 2 })
    expect((await connector.read(login, 'r/1')).shown).toEqual({
      title: null,
      text: 'Oak.',
      parts: [],
      poll: [],
      firstComment: null,
      pictures: 2,
    })
    for (const answer of [json(404, { error: 'gone', reason: 'x' }), json(200, { text: 7 })]) {
      answers[path] = answer
      expect((await connector.read(login, 'r/1')).shown).toBeNull()
    }
  })
})

it('waits longer after each try, up to a quarter of an hour', () => {
  const minutes = [1, 2, 3, 4, 5, 6, 9].map((tries) => backoff(tries) / 60_000)
  expect(minutes).toEqual([1, 2, 4, 8, 15, 15, 15])
})
