import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { temporaryFolder } from '../../e2e/servers'
import { troubleWith } from '../reach'
import { createServer } from '../server'
import { openDatabase } from '../store/database'
import { layFreshSpool } from '../testing/freshSpool'

const PASSWORD = 'a long: and secret word'
const HOST = 'social.example.org'

describe('a server with a password', () => {
  const folder = temporaryFolder()
  let server: Awaited<ReturnType<typeof createServer>>
  let close: () => Promise<void> = () => Promise.resolve()
  beforeAll(async () => {
    await layFreshSpool(folder.path)
    server = await createServer({
      port: 4698,
      host: '127.0.0.1',
      dataDir: folder.path,
      worldUrl: null,
      publicUrl: `https://${HOST}`,
      password: PASSWORD,
    })
    close = server.close
    await server.ready
  })
  afterAll(async () => {
    await close()
    folder.remove()
  })

  const ask = (url: string, headers: Record<string, string> = {}) =>
    server.app.inject({ url, headers: { host: HOST, ...headers } })
  const send = (form: Record<string, string>, headers: Record<string, string> = {}) =>
    server.app.inject({
      method: 'POST',
      url: '/session',
      headers: {
        host: HOST,
        origin: `https://${HOST}`,
        'content-type': 'application/x-www-form-urlencoded',
        ...headers,
      },
      payload: new URLSearchParams(form).toString(),
    })
  const cookieOf = (answer: Awaited<ReturnType<typeof send>>): string =>
    String(answer.headers['set-cookie']).split(';')[0] ?? ''

  it('shows strangers a form and no more, and says so to programs', async () => {
    const page = await ask('/dispatch?at="><script>')
    expect(page.statusCode).toBe(401)
    expect(page.body).toContain('<label for="password">Password</label>')
    expect(page.body).not.toContain('<script>')
    for (const url of ['/api/clock', '/api/accounts', '/api/docs.json', '/api/metrics', '/assets/x.js'])
      expect((await ask(url)).statusCode).toBe(401)
    expect((await ask('/api/clock')).json()).toMatchObject({ code: 'no-session' })
    const forged = `dripline-session=${'A'.repeat(43)}`
    expect((await ask('/api/clock', { cookie: forged })).statusCode).toBe(401)
  })

  it('answers everybody whether it is up, and under the secret addresses of what is published', async () => {
    for (const url of ['/api/health', '/api/health?from=probe']) expect((await ask(url)).statusCode).toBe(200)
    for (const url of ['/calendar/nothing.ics', '/published/nothing.xml', '/links/nothing'])
      expect((await ask(url)).statusCode).toBe(404)
    expect((await ask('/published-not/x')).statusCode).toBe(401)
  })

  it('lets in who gives the password, by a cookie that no script reads, until they sign out', async () => {
    const wrong = await send({ password: PASSWORD.slice(1), to: '/horizon' })
    expect(wrong.statusCode).toBe(401)
    expect(wrong.body).toContain('This is not the password.')
    expect(wrong.headers['set-cookie']).toBeUndefined()
    const right = await send({ password: PASSWORD, to: '/horizon' })
    expect([right.statusCode, right.headers.location]).toEqual([303, '/horizon'])
    expect(right.headers['set-cookie']).toMatch(/; HttpOnly; SameSite=Lax; Max-Age=2592000; Secure$/)
    const cookie = cookieOf(right)
    expect((await ask('/api/clock', { cookie: `other=1; ${cookie}` })).statusCode).toBe(200)
    expect((await ask('/session', { cookie })).body).toContain('You are signed in')
    await send({ end: 'yes' }, { cookie })
    expect((await ask('/api/clock', { cookie })).statusCode).toBe(401)
  })

  it('sends nobody elsewhere, and takes no form from another site', async () => {
    for (const to of ['//evil.example', '/\\evil.example', 'https://evil.example'])
      expect((await send({ password: PASSWORD, to })).headers.location).toBe('/')
    const foreign = await send({ password: PASSWORD }, { origin: 'https://evil.example' })
    expect(foreign.statusCode).toBe(403)
  })

  it('takes the password of programs, and soon no more guesses', async () => {
    const basic = (word: string) => ({
      authorization: `Basic ${Buffer.from(`watch:${word}`).toString('base64')}`,
    })
    expect((await ask('/api/metrics', basic(PASSWORD))).statusCode).toBe(200)
    expect((await ask('/api/metrics', basic('another'))).statusCode).toBe(401)
    const cookie = cookieOf(await send({ password: PASSWORD }))
    const answers = new Set<number>()
    for (let n = 0; n < 12; n++) answers.add((await send({ password: 'guess' })).statusCode)
    expect(answers).toContain(429)
    // Nor by another way in; who is in stays so.
    expect((await ask('/api/metrics', basic('guess'))).statusCode).toBe(429)
    expect((await ask('/api/clock', { cookie })).statusCode).toBe(200)
  })

  it('keeps nothing that lets anybody in', async () => {
    await close()
    close = () => Promise.resolve()
    const database = await openDatabase({ folder: folder.path })
    const rows = await database.query<{ hash: string }>('select hash from sessions')
    expect(rows.length).toBeGreaterThan(0)
    for (const { hash } of rows) expect(hash).toMatch(/^[0-9a-f]{64}$/)
    await database.close()
  })
})

describe('where a server may listen', () => {
  const publicUrl = 'https://social.example.org'
  const password = 'twelve signs'
  it.each([
    [{ host: '127.0.0.1', password: undefined, publicUrl: undefined }, null],
    [{ host: '::1', password, publicUrl }, null],
    [{ host: '0.0.0.0', password, publicUrl }, null],
    [{ host: '0.0.0.0', password: undefined, publicUrl }, /demands a password/],
    [{ host: '192.168.1.5', password, publicUrl: undefined }, /Set PUBLIC_URL/],
    [{ host: '127.0.0.1', password: 'short', publicUrl }, /5 signs/],
    [{ host: '127.0.0.1', password, publicUrl: 'social.example.org' }, /no address of the web/],
  ])('%o', (options, expected) => {
    const trouble = troubleWith(options)
    if (expected === null) expect(trouble).toBeNull()
    else expect(trouble).toMatch(expected)
  })
})
