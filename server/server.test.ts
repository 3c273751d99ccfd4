import { createHash } from 'node:crypto'
import { writeFileSync } from 'node:fs'
import { get } from 'node:http'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { caller, handOver, openServers, temporaryFolder, until, type Page } from '../e2e/servers'
import { oakumYard } from '../demo/content'
import { aPayload } from '../core/model/samples'
import { picturePng } from '../demo/pictures'
import { createServer } from './server'
import { layFreshSpool } from './testing/freshSpool'

let servers: Awaited<ReturnType<typeof openServers>>
beforeAll(async () => {
  servers = await openServers({ sites: [oakumYard()] })
})
afterAll(() => servers.close())

const now = async (): Promise<number> =>
  Date.parse((await servers.call<{ now: string }>('GET', '/api/clock')).body.now)
const soon = async (milliseconds = 1000): Promise<string> =>
  new Date((await now()) + milliseconds).toISOString()

describe('what sources are fetched with', () => {
  const fetchOf = (path: string, as = 'feed') =>
    servers
      .call<{ text: string; trouble: { message: string; gone: boolean } | null }>(
        'POST',
        '/api/intake/fetch',
        {
          url: `${servers.worldUrl.replace('//', '//oakum-yard.')}${path}`,
          as,
        },
      )
      .then((answer) => answer.body)

  it('a feed and a page come as text, what is not there with what to do', async () => {
    expect(await fetchOf('/feed.xml')).toMatchObject({
      trouble: null,
      text: expect.stringContaining('<rss') as string,
    })
    expect(await fetchOf('/no-such-page', 'page')).toMatchObject({
      text: '',
      trouble: {
        gone: false,
        message: expect.stringMatching(/nothing at this address.*Check the address/) as string,
      },
    })
  })

  it('how often pages were shared comes from the share-count service, unknown ones as unknown', async () => {
    const page = `${servers.worldUrl.replace('//', '//oakum-yard.')}/reading-rot`
    const { body } = await servers.call<{ counts: ({ shares?: number } | null)[] }>(
      'POST',
      '/api/intake/counts',
      { urls: [page, 'https://nowhere.example/x'] },
    )
    expect(body.counts[0]?.shares).toBeGreaterThanOrEqual(0)
    expect(body.counts[1]).toBeNull()
  })
})

describe('every route that changes or fetches anything', () => {
  it('wants the application’s origin', async () => {
    for (const origin of ['https://elsewhere.example', 'null', 'http://127.0.0.1:4600'])
      expect(await servers.call('POST', '/api/workspace/claim', { id: 'x' }, { origin })).toMatchObject({
        status: 403,
        body: { code: 'wrong-origin' },
      })
  })

  it('answers at one host name and sends pages of the others there', async () => {
    const ask = (path: string, host: string) =>
      new Promise<{ status: number; location: string | undefined }>((resolve) =>
        get({ port: servers.port, path, headers: { host } }, (r) => {
          r.resume()
          resolve({ status: r.statusCode ?? 0, location: r.headers.location })
        }),
      )
    expect(await ask('/api/clock', 'rebound.example')).toMatchObject({ status: 403 })
    expect(await ask('/writing', `127.0.0.1:${servers.port}`)).toEqual({
      status: 308,
      location: `http://localhost:${servers.port}/writing`,
    })
  })

  it('gives the application’s page at every address of it, packed or not', async () => {
    const folder = temporaryFolder()
    const files = temporaryFolder()
    const page = '<!doctype html><title>Dripline</title>'
    writeFileSync(join(files.path, 'index.html'), page)
    writeFileSync(join(files.path, 'index.html.gz'), gzipSync(page))
    await layFreshSpool(folder.path)
    const options = { port: 0, host: '127.0.0.1', dataDir: folder.path, appDir: files.path, worldUrl: null }
    const { app, close } = await createServer(options)
    const ask = async (url: string, headers: Record<string, string> = {}) => {
      const { statusCode, headers: sent } = await app.inject({
        url,
        headers: { host: 'localhost:0', ...headers },
      })
      return [statusCode, String(sent['content-type']).split(';')[0]]
    }
    for (const url of ['/', '/horizon', '/index.html', '/?from=there'])
      for (const headers of [{}, { 'accept-encoding': 'gzip, br' }])
        expect([url, ...(await ask(url, headers))]).toEqual([url, 200, 'text/html'])
    expect(await ask('/nothing.js')).toEqual([404, 'application/json'])
    await close()
    folder.remove()
    files.remove()
  })

  it('runs without the demo behind a proxy: its address counts, and nothing of the demo is there', async () => {
    const folder = temporaryFolder()
    const publicUrl = 'https://social.example.org'
    await layFreshSpool(folder.path)
    const options = { port: 4699, host: '127.0.0.1', dataDir: folder.path, worldUrl: null, publicUrl }
    const { app, ready, close } = await createServer(options)
    await ready
    const ask = (url: string, host: string, method: 'GET' | 'POST' = 'GET', origin = publicUrl) =>
      app.inject({
        method,
        url,
        headers: { host, origin, 'content-type': 'application/json' },
        ...(method === 'POST' ? { payload: '{"id":"w"}' } : {}),
      })
    expect((await ask('/api/clock', 'social.example.org')).json()).toMatchObject({
      demo: false,
      worldUrl: null,
    })
    expect((await ask('/api/workspace/claim', 'social.example.org', 'POST')).statusCode).toBe(200)
    expect(
      (await ask('/api/workspace/claim', 'social.example.org', 'POST', 'https://evil.example')).statusCode,
    ).toBe(403)
    expect((await ask('/api/clock', 'evil.example')).statusCode).toBe(403)
    expect((await ask('/api/health', 'evil.example')).json()).toMatchObject({ ready: true })
    expect((await ask('/desk', '127.0.0.1:4699')).headers['location']).toBe(`${publicUrl}/desk`)
    for (const url of ['/api/demo', '/api/demo/seed', '/api/clock/next?until=2026-12-01T00:00:00.000Z'])
      expect([url, (await ask(url, 'social.example.org')).statusCode]).toEqual([url, 404])
    expect((await ask('/api/networks', 'social.example.org')).json()).toEqual({ linkable: [] })
    expect((await ask('/api/link/murmur/start?brand=b', 'social.example.org')).json()).toMatchObject({
      message: expect.stringMatching(/Micropub.*webhook.*by hand/),
    })
    const figures = await ask('/api/metrics', 'social.example.org')
    expect(figures.headers['content-type']).toContain('version=0.0.4')
    expect(figures.body).toMatch(/^# HELP dripline_posts_due .*\n# TYPE dripline_posts_due gauge$/m)
    expect(figures.body).toMatch(/^dripline_memory_bytes \d+$/m)
    await close()
    folder.remove()
  })

  it('wants JSON or a picture, of a shape it knows and a size it takes', async () => {
    const text = { 'content-type': 'text/plain' }
    expect(await servers.call('POST', '/api/workspace/claim', { id: 'x' }, text)).toMatchObject({
      status: 415,
      body: { code: 'wrong-type' },
    })
    expect(await servers.call('POST', '/api/workspace/claim', { name: 'x' })).toMatchObject({
      status: 400,
      body: { code: 'bad-request', where: 'id' },
    })
    const long = { url: 'x'.repeat(3 * 1024 * 1024) }
    expect(await servers.call('POST', '/api/intake/fetch', long)).toMatchObject({
      status: 413,
      body: { code: 'too-large' },
    })
    expect(await servers.call('GET', '/api/nothing')).toMatchObject({
      status: 404,
      body: { code: 'not-found' },
    })
  })

  it('carries the headers that keep a page safe', async () => {
    const { headers } = await servers.call('GET', '/api/health')
    expect(headers.get('content-security-policy')).toContain("script-src 'self'")
    expect(headers.get('x-content-type-options')).toBe('nosniff')
  })

  it('is described, each with a summary', async () => {
    const { body } = await servers.call<{ paths: Record<string, Record<string, { summary?: string }>> }>(
      'GET',
      '/api/docs.json',
    )
    expect(Object.keys(body.paths)).toEqual(
      expect.arrayContaining(['/api/health', '/api/clock', '/api/spool/posts/{id}', '/api/intake/fetch']),
    )
    for (const [path, methods] of Object.entries(body.paths))
      for (const method of Object.values(methods))
        expect([path, method.summary]).toEqual([path, expect.any(String)])
  })
})

describe('the spool over HTTP', () => {
  it('belongs to one workspace; a second is told and may take it over, which recalls what waits', async () => {
    const entry = handOver('mine', await soon(9_000_000))
    expect((await servers.call('PUT', '/api/spool/posts/mine', entry)).body).toMatchObject({
      result: 'taken',
    })
    const other = caller(servers.port, 'other')
    expect(await other('GET', '/api/spool/receipts')).toMatchObject({
      status: 409,
      body: { code: 'wrong-workspace' },
    })
    expect(await other('POST', '/api/workspace/claim', { id: 'other' })).toMatchObject({ status: 409 })
    expect((await other('POST', '/api/workspace/claim', { id: 'other', takeOver: true })).body).toEqual({
      owner: 'other',
    })
    expect(await servers.call('GET', '/api/accounts')).toMatchObject({ status: 409 })
    await servers.call('POST', '/api/workspace/claim', { id: 'ws', takeOver: true })
    expect((await servers.call('POST', '/api/spool/held', { posts: ['mine'] })).body).toEqual({ held: [] })
  })

  it('sends a post with its picture at its time, and gives the receipt until it is acknowledged', async () => {
    const png = picturePng('seam-section') ?? Buffer.alloc(0)
    const hash = createHash('sha256').update(png).digest('hex')
    const wrong = await servers.call('PUT', `/api/spool/media/${'0'.repeat(64)}`, png, {
      'content-type': 'image/png',
    })
    expect(wrong).toMatchObject({ status: 400, body: { code: 'bad-request', where: 'hash' } })
    const due = await soon()
    const payload = aPayload({
      text: 'With a picture.',
      firstComment: 'First!',
      media: [{ hash, alt: 'A seam' }],
    })
    const entry = handOver('pic', due, { account: 'guildhall-one', payload })
    expect((await servers.call('PUT', '/api/spool/posts/pic', entry)).body).toMatchObject({
      result: 'media missing',
    })
    expect(
      await servers.call('PUT', `/api/spool/media/${hash}`, png, { 'content-type': 'image/png' }),
    ).toMatchObject({ status: 200, body: { hash } })
    expect((await servers.call('PUT', '/api/spool/posts/pic', entry)).body).toMatchObject({ result: 'taken' })
    await servers.call('POST', '/api/clock/advance', { to: due })
    const { body } = await servers.call<Page>('GET', '/api/spool/receipts')
    const receipt = body.receipts.find((r) => r.post === 'pic')
    expect(receipt).toMatchObject({ outcome: 'published', visibility: 'visible', dueAt: due })
    const page = await (await fetch(receipt?.publicUrl ?? '')).text()
    expect(page).toContain('With a picture.')
    expect(page).toContain('First comment: First!')
    expect(page).toContain('alt="A seam"')
    await servers.call('POST', '/api/spool/receipts/acknowledge', { cursor: body.cursor })
    expect((await servers.call<Page>('GET', '/api/spool/receipts')).body.receipts).toEqual([])
  })

  it('takes a batch, and refuses an id that is not its address', async () => {
    const due = await soon(9_000_000)
    const { body } = await servers.call<{ answers: { id: string; result: string }[] }>(
      'POST',
      '/api/spool/posts',
      {
        posts: [handOver('b1', due), handOver('b2', due, { account: 'nobody' })],
      },
    )
    expect(body.answers.map((a) => a.result)).toEqual(['taken', 'not linked'])
    expect(await servers.call('PUT', '/api/spool/posts/b3', handOver('b4', due))).toMatchObject({
      status: 400,
    })
    expect((await servers.call('DELETE', '/api/spool/posts/b1')).body).toMatchObject({ result: 'recalled' })
  })

  it('takes a published post down and says so in a receipt', async () => {
    const due = await soon()
    await servers.call('PUT', '/api/spool/posts/down', handOver('down', due, { account: 'murmur-two' }))
    expect(await servers.call('POST', '/api/spool/posts/down/takedown', {})).toMatchObject({ status: 404 })
    await servers.call('POST', '/api/clock/advance', { to: due })
    expect((await servers.call('POST', '/api/spool/posts/down/takedown', {})).status).toBe(200)
    const { receipts } = (await servers.call<Page>('GET', '/api/spool/receipts')).body
    expect(receipts.filter((r) => r.post === 'down').map((r) => r.outcome)).toEqual(['published', 'gone'])
    const page = await (await fetch(`${servers.worldUrl}/networks/murmur/@murmur.two`)).text()
    expect(page).not.toContain('The words of down.')
  })

  it('says why a network refused, and marks an account whose permission was withdrawn', async () => {
    const due = await soon()
    const long = aPayload({ text: 'x'.repeat(400) })
    await servers.call('PUT', '/api/spool/posts/long', handOver('long', due, { payload: long }))
    await servers.call('POST', '/api/clock/advance', { to: due })
    const { receipts } = (await servers.call<Page>('GET', '/api/spool/receipts')).body
    expect(receipts.find((r) => r.post === 'long')).toMatchObject({
      outcome: 'failed',
      reason: 'Murmur: The text has 400 characters; Murmur takes 300.',
    })
    await fetch(`${servers.worldUrl}/control/trouble`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ network: 'shutterleaf', kind: 'withdraw' }),
    })
    const later = await soon()
    await servers.call('PUT', '/api/spool/posts/sh', handOver('sh', later, { account: 'shutterleaf-one' }))
    await servers.call('POST', '/api/clock/advance', { to: later })
    await until(async () => {
      const { accounts } = (
        await servers.call<{ accounts: { id: string; state: string }[] }>('GET', '/api/accounts')
      ).body
      return accounts.find((a) => a.id === 'shutterleaf-one')?.state === 'withdrawn'
    })
  })
})

describe('the clock', () => {
  it('moves forward only, at most 400 days at once', async () => {
    const before = await now()
    await servers.call('POST', '/api/clock/advance', { to: new Date(before - 9_000_000).toISOString() })
    expect(await now()).toBeGreaterThanOrEqual(before)
    const far = new Date(before + 500 * 86_400_000).toISOString()
    expect(await servers.call('POST', '/api/clock/advance', { to: far })).toMatchObject({
      status: 400,
      body: { where: 'to' },
    })
  })

  it('knows the next delivery, so that a jump can go event by event', async () => {
    const due = await soon(5_000_000)
    await servers.call('PUT', '/api/spool/posts/next', handOver('next', due))
    const until = await soon(9_000_000)
    expect((await servers.call('GET', `/api/clock/next?until=${until}`)).body).toEqual({ at: due })
    expect((await servers.call('GET', `/api/clock/next?until=${await soon(10)}`)).body).toEqual({ at: null })
  })
})

describe('linking through the authorisation page', () => {
  it('goes out with a state, comes back with a code, and keeps the token to itself', async () => {
    const start = await servers.call('GET', '/api/link/guildhall/start?brand=b1&back=/dispatch/accounts')
    const authorize = new URL(start.headers.get('location') ?? '')
    expect(await (await fetch(authorize)).text()).toContain('Let Dripline post for you on Guildhall?')
    const form = new URLSearchParams({
      account: 'guildhall-two',
      redirect_uri: authorize.searchParams.get('redirect_uri') ?? '',
      state: authorize.searchParams.get('state') ?? '',
      allow: 'yes',
    })
    const allowed = await fetch(`${servers.worldUrl}/networks/guildhall/authorize`, {
      method: 'POST',
      body: form,
      redirect: 'manual',
    })
    const back = new URL(allowed.headers.get('location') ?? '')
    const done = await servers.call('GET', `${back.pathname}${back.search}`)
    expect(done.headers.get('location')).toMatch(/^\/dispatch\/accounts\?brand=b1&linked=guildhall-two$/)
    // The same state a second time is nobody's.
    expect(await servers.call('GET', `${back.pathname}${back.search}`)).toMatchObject({
      status: 400,
      body: { where: 'state' },
    })
    const { body } = await servers.call<{ accounts: object[] }>('GET', '/api/accounts')
    expect(JSON.stringify(body)).not.toContain('token')
  })

  it('comes back without an account where the person declines, and never to another site', async () => {
    const start = await servers.call('GET', '/api/link/murmur/start?brand=b1')
    const state = new URL(start.headers.get('location') ?? '').searchParams.get('state')
    const declined = await servers.call('GET', `/api/link/callback?state=${state}&error=declined`)
    expect(declined.headers.get('location')).toBe('/dispatch/accounts?brand=b1&declined=murmur')
    expect(
      await servers.call('GET', '/api/link/murmur/start?brand=b1&back=https://evil.example'),
    ).toMatchObject({ status: 400 })
    expect(await servers.call('GET', '/api/link/nowhere/start?brand=b1')).toMatchObject({
      status: 422,
      body: { code: 'unknown-network' },
    })
  })
})
