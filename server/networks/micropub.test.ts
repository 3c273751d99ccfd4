import { once } from 'node:events'
import { createServer, type IncomingHttpHeaders, type Server } from 'node:http'
import type { FastifyInstance } from 'fastify'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { startWorld, temporaryFolder } from '../../e2e/servers'
import { freePort } from '../../e2e/ports'
import { aPayload } from '../../core/model/samples'
import { aLogin, FIRST } from '../testing/parts'
import { discover, linkHeader } from './discover'
import { micropubConnector } from './micropub'

/** A site that answers as it is told. */
let site: Server
let port: number
let pages: Record<string, { status?: number; headers?: Record<string, string>; body?: string }> = {}
const asked: { what: string; headers: IncomingHttpHeaders; body: string }[] = []
const world = () => ({ host: 'localhost', port })
const base = () => `http://localhost:${port}`
beforeAll(async () => {
  port = await freePort()
  site = createServer((request, response) => {
    let body = ''
    request.on('data', (chunk) => (body += String(chunk)))
    request.on('end', () => {
      const what = `${request.method} ${request.url}`
      asked.push({ what, headers: request.headers, body })
      const answer = pages[what] ?? { status: 404 }
      response
        .writeHead(answer.status ?? 200, { 'content-type': 'text/html', ...answer.headers })
        .end(answer.body)
    })
  }).listen(port)
  await once(site, 'listening')
})
afterAll(() => site.close())
beforeEach(() => {
  pages = {}
  asked.length = 0
})

describe('finding a site’s endpoints', () => {
  it('reads Link headers as RFC 8288 writes them', () => {
    // Its examples, 3.5, and one after IndieAuth's.
    expect(
      linkHeader('<http://example.com/TheBook/chapter2>; rel="previous"; title="previous chapter"'),
    ).toEqual([{ target: 'http://example.com/TheBook/chapter2', rel: 'previous' }])
    expect(
      linkHeader(
        '</TheBook/chapter2>; rel="previous"; title*=UTF-8\'de\'letztes%20Kapitel, </TheBook/chapter4>; rel="next"; title*=UTF-8\'de\'n%c3%a4chstes%20Kapitel',
      ).map((l) => l.target),
    ).toEqual(['/TheBook/chapter2', '/TheBook/chapter4'])
    expect(linkHeader('<http://example.org/>; rel="start http://example.net/relation/other"')).toEqual([
      { target: 'http://example.org/', rel: 'start http://example.net/relation/other' },
    ])
    expect(linkHeader('</a,b>; rel=micropub,</c>;title="x, y";rel=token_endpoint')).toEqual([
      { target: '/a,b', rel: 'micropub' },
      { target: '/c', rel: 'token_endpoint' },
    ])
    expect(linkHeader('nonsense; rel="x"')).toEqual([])
  })

  it('takes the header before the page, the first of several, and addresses relative to where it ended', async () => {
    pages['GET /'] = { status: 301, headers: { location: '/home/' } }
    pages['GET /home/'] = {
      headers: { link: '<take>; rel="micropub"' },
      body: '<a rel="micropub" href="/other">m</a><link rel="authorization_endpoint" href="/allow"><link rel="authorization_endpoint" href="/second"><link href="token?x=1" rel="me token_endpoint">',
    }
    expect(await discover(`${base()}/`, world())).toEqual({
      me: `${base()}/home/`,
      micropub: `${base()}/home/take`,
      authorization: `${base()}/allow`,
      token: `${base()}/home/token?x=1`,
    })
  })

  it('asks the metadata where the page names it, and says what is missing', async () => {
    pages['GET /'] = { body: '<link rel="micropub" href="/m"><link rel="indieauth-metadata" href="/meta">' }
    pages['GET /meta'] = {
      body: JSON.stringify({ authorization_endpoint: `${base()}/a`, token_endpoint: `${base()}/t` }),
    }
    expect(await discover(base(), world())).toMatchObject({
      authorization: `${base()}/a`,
      token: `${base()}/t`,
    })
    pages['GET /meta'] = { body: '<html>' }
    await expect(discover(base(), world())).rejects.toThrow(/does not say where you allow that/)
    pages['GET /'] = { body: 'Nothing here.' }
    await expect(discover(base(), world())).rejects.toThrow(/Switch Micropub on there/)
    await expect(discover('http://10.0.0.1/', null)).rejects.toMatchObject({ code: 'private-address' })
  })
})

describe('posting to a site', () => {
  const connector = micropubConnector({
    now: () => Date.parse('2026-11-24T10:00:00Z'),
    origin: 'http://localhost:4600',
    world: null,
  })
  const login = () =>
    aLogin({
      connector: 'micropub',
      network: 'broadside',
      target: 'the-square',
      secret: JSON.stringify({ access: 'xyz', refresh: 'again' }),
      settings: { endpoint: `${base()}/micropub`, token: `${base()}/token`, media: `${base()}/media` },
    })
  const payload = aPayload({
    title: 'Oak',
    summary: 'In short.',
    tags: ['oak', 'steam'],
    link: 'https://a.example/oak',
  })

  it('sends an h-entry as the recommendation writes it, pictures by the media endpoint', async () => {
    pages['POST /media'] = { status: 201, headers: { location: '/files/1.png' } }
    pages['POST /micropub'] = { status: 202, headers: { location: '/2026/oak' } }
    const media = [{ hash: 'c'.repeat(64), bytes: new Uint8Array([1]), type: 'image/png', alt: 'A frame' }]
    const { outcome } = await connector.publish(login(), 'ws:p:1', payload, media, FIRST)
    expect(outcome).toEqual({
      kind: 'published',
      remoteId: `${base()}/2026/oak`,
      publicUrl: `${base()}/2026/oak`,
      visibility: 'visible',
    })
    expect(asked[0]?.headers['content-type']).toMatch(/^multipart\/form-data; boundary=/)
    expect(asked[0]?.body).toMatch(/name="file"; filename="c{16}\.png"/)
    expect(asked[1]?.headers.authorization).toBe('Bearer xyz')
    expect(JSON.parse(asked[1]?.body ?? '')).toEqual({
      type: ['h-entry'],
      properties: {
        name: ['Oak'],
        content: ['Green oak bends.'],
        summary: ['In short.'],
        category: ['oak', 'steam'],
        photo: [{ value: `${base()}/files/1.png`, alt: 'A frame' }],
        canonical: ['https://a.example/oak'],
        uid: ['ws:p:1'],
        'mp-syndicate-to': ['the-square'],
      },
    })
  })

  it('says that it may be public where the answer was lost and the site lists nothing, and sends no more', async () => {
    pages['GET /micropub?q=source&limit=50'] = { status: 400, body: '{"error":"invalid_request"}' }
    const { outcome } = await connector.publish(login(), 'k', payload, [], { ...FIRST, doubt: true })
    expect(outcome).toMatchObject({ kind: 'unsure', reason: expect.stringContaining('may stand there') })
    expect(asked.map((a) => a.what)).toEqual(['GET /micropub?q=source&limit=50'])
  })

  it('renews a permission that can be renewed, and reads the recommendation’s errors', async () => {
    pages['POST /token'] = {
      body: JSON.stringify({ access_token: 'new', token_type: 'Bearer', me: base(), expires_in: 3600 }),
    }
    expect(await connector.check(login())).toEqual({
      state: 'linked',
      message: 'Linked.',
      expiresAt: Date.parse('2026-11-24T11:00:00Z'),
      secret: JSON.stringify({ access: 'new', refresh: 'again' }),
    })
    expect(asked[0]?.body).toContain('grant_type=refresh_token&refresh_token=again')
    for (const [status, error, kind] of [
      [403, 'forbidden', 'unlinked'],
      [401, 'unauthorized', 'unlinked'],
      [401, 'insufficient_scope', 'unlinked'],
      [400, 'invalid_request', 'refused'],
      [500, 'oops', 'later'],
    ] as const) {
      pages['POST /micropub'] = { status, body: JSON.stringify({ error, error_description: 'So it is.' }) }
      const { outcome } = await connector.publish(login(), 'k', payload, [], FIRST)
      expect([error, outcome.kind]).toEqual([error, kind])
      expect(outcome).toMatchObject({ reason: expect.stringContaining('So it is.') })
    }
    await expect(connector.takeDown(login(), `${base()}/x`)).rejects.toThrow(/did not take the post down/)
  })
})

describe('linking the stand-in site', () => {
  const folder = temporaryFolder()
  let outside: FastifyInstance
  let at: string
  beforeAll(async () => {
    const worldPort = await freePort()
    outside = await startWorld({ port: worldPort, serverPort: await freePort(), folder: folder.path })
    at = `http://localhost:${worldPort}`
  })
  afterAll(async () => {
    await outside.close()
    folder.remove()
  })

  it('goes through its own page with a proof that only we can give', async () => {
    const connector = micropubConnector({ now: () => Date.now(), origin: 'http://localhost:4600', world: at })
    const redirect = 'http://localhost:4600/api/link/callback'
    const asks = { network: 'broadside', redirect, state: 's1', site: `${at}/networks/broadside/` }
    const { address, kept } = await connector.authorise(asks)
    const { searchParams } = new URL(address)
    expect(Object.fromEntries(searchParams)).toMatchObject({
      response_type: 'code',
      client_id: 'http://localhost:4600/',
      redirect_uri: redirect,
      state: 's1',
      code_challenge_method: 'S256',
      scope: expect.stringContaining('create'),
    })
    const allow = async () => {
      const form = {
        account: 'broadside-one',
        allow: 'yes',
        redirect_uri: redirect,
        state: 's1',
        code_challenge: searchParams.get('code_challenge'),
      }
      const answer = await outside.inject({
        method: 'POST',
        url: '/networks/broadside/authorize',
        payload: form,
      })
      return new URL(String(answer.headers.location)).searchParams.get('code') ?? ''
    }
    const stolen = { ...kept, verifier: 'guessed' }
    await expect(
      connector.grant({ network: 'broadside', redirect, code: await allow(), kept: stolen }),
    ).rejects.toMatchObject({ code: 'bad-answer' })
    const grant = await connector.grant({ network: 'broadside', redirect, code: await allow(), kept })
    expect(grant).toMatchObject({
      remoteId: `${at}/networks/broadside/@broadside.one`,
      handle: 'broadside.one',
      name: 'Account one',
      settings: { media: `${at}/networks/broadside/media` },
    })
    await expect(connector.authorise({ ...asks, site: null })).rejects.toMatchObject({ where: 'site' })
  })
})
