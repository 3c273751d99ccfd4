import { spawn, type ChildProcess } from 'node:child_process'
import { join } from 'node:path'
import type { FastifyInstance } from 'fastify'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startWorld, temporaryFolder, until } from '../../e2e/servers'
import { freePort } from '../../e2e/ports'
import { picturePng } from '../../demo/pictures'
import type { Payload } from '../../core/model'
import { aPayload } from '../../core/model/samples'
import { aLogin, FIRST } from '../testing/parts'
import type { Connector, Login } from './connector'
import { handConnector } from './hand'
import { makeRegistry } from './registry'
import { signatureOf, webhookConnector } from './webhook'

/*
 * What every connector promises, held against what stands in public afterwards: the pages of the stand-in world, which
 * knows nothing of connectors.
 */

let world: FastifyInstance
let at: string
const folder = temporaryFolder()
const now = (): number => Date.now()
beforeAll(async () => {
  const port = await freePort()
  world = await startWorld({ port, serverPort: await freePort(), folder: folder.path })
  at = `http://localhost:${port}`
})
afterAll(async () => {
  await world.close()
  folder.remove()
})

const control = (path: string, payload: object) =>
  world.inject({ method: 'POST', url: `/control/${path}`, payload })
const code = async (network: string, account: string): Promise<string> =>
  (await world.inject({ method: 'POST', url: `/networks/${network}/demo-code`, payload: { account } })).json<{
    code: string
  }>().code

/** A connector with a login, the page that shows its posts, and a post that breaks a rule there. */
interface Side {
  network: string
  connector: () => Connector
  login: () => Promise<Login>
  page: string
  payload: (text: string, change?: Partial<Payload>) => Payload
  bad: Partial<Payload>
  /** What its network counts, where it tells. */
  counts: string[]
}

async function linked(network: string, account: string, kept: Record<string, string> = {}): Promise<Login> {
  const registry = makeRegistry({ now, origin: 'http://localhost:4600', world: at })
  const connector = registry.linkable.find((l) => l.network === network)?.connector ?? 'stand-in'
  const grant = await registry
    .of(connector)
    .grant({ network, redirect: '', code: await code(network, account), kept })
  const { remoteId, secret, settings } = grant
  return aLogin({ network, connector, remoteId, secret, settings: { ...settings } })
}
const fromRegistry = (id: 'stand-in' | 'micropub') => () =>
  makeRegistry({ now, origin: 'http://localhost:4600', world: at }).of(id)

const SIDES: Record<string, Side> = {
  'the stand-ins’ interface': {
    network: 'murmur',
    connector: fromRegistry('stand-in'),
    login: () => linked('murmur', 'murmur-one'),
    page: '/networks/murmur/@murmur.one',
    payload: (text, change) => aPayload({ text, ...change }),
    bad: { text: 'x'.repeat(301) },
    counts: ['impressions', 'reactions', 'comments', 'shares', 'clicks'],
  },
  Micropub: {
    network: 'broadside',
    connector: fromRegistry('micropub'),
    login: () =>
      linked('broadside', 'broadside-one', {
        micropub: `${at}/networks/broadside/micropub`,
        token: `${at}/networks/broadside/token`,
      }),
    page: '/networks/broadside/@broadside.one',
    payload: (text, change) =>
      aPayload({ text, title: 'On oak', link: 'https://a.example/oak', tags: ['oak'], ...change }),
    bad: { title: null },
    counts: ['impressions', 'comments', 'clicks'],
  },
  'a signed webhook': {
    network: 'webhook',
    connector: () => webhookConnector(now),
    login: async () => {
      await control('webhook', { secret: 'a secret' })
      return aLogin({
        network: 'courier',
        connector: 'webhook',
        secret: 'a secret',
        settings: { address: `${at}/webhook` },
      })
    },
    page: '/webhook',
    payload: (text, change) => aPayload({ text, ...change }),
    bad: { text: 'x'.repeat(5001) },
    counts: [],
  },
}

describe.each(Object.entries(SIDES))('%s', (_name, side) => {
  let login: Login
  beforeAll(async () => {
    login = await side.login()
  })
  const again = { ...FIRST, doubt: true }
  const send = (key: string, text: string, before = FIRST, change: Partial<Payload> = {}) =>
    side.connector().publish(login, `${side.network}:${key}`, side.payload(text, change), [], before)
  const trouble = (kind: string) => control('trouble', { network: side.network, kind })
  const times = async (words: string): Promise<number> =>
    (await world.inject(side.page)).body.split(words).length - 1

  it('publishes once under one key, and shows no secret in what it kept of that', async () => {
    const first = await send('once', 'Green oak bends.')
    expect(first.outcome).toMatchObject({ kind: 'published', visibility: 'visible' })
    expect((await send('once', 'Green oak bends.', again)).outcome).toMatchObject({ kind: 'published' })
    expect(await times('Green oak bends.')).toBe(1)
    for (const secret of [login.secret, tryJson(login.secret).access ?? login.secret])
      expect(JSON.stringify(first.attempts)).not.toContain(secret)
  })

  it('finds what was taken before the line broke, and does not post it twice', async () => {
    await trouble('drop')
    const lost = await send('lost', 'Larch keeps its shape.')
    expect(lost.outcome.kind).toBe('later')
    expect(lost.attempts.at(-1)?.answer).toBeNull()
    expect(await times('Larch keeps its shape.')).toBe(1)
    expect((await send('lost', 'Larch keeps its shape.', again)).outcome.kind).toBe('published')
    expect(await times('Larch keeps its shape.')).toBe(1)
  })

  it('waits as it is asked, and tries again while the other side is down', async () => {
    await trouble('limit')
    expect((await send('slow', 'Pitch is warm.')).outcome).toMatchObject({
      kind: 'later',
      afterMilliseconds: 120_000,
    })
    await trouble('fail')
    expect((await send('slow', 'Pitch is warm.')).outcome.kind).toBe('later')
    expect(await times('Pitch is warm.')).toBe(0)
    expect((await send('slow', 'Pitch is warm.', again)).outcome.kind).toBe('published')
    expect(await times('Pitch is warm.')).toBe(1)
  })

  it('says why a post is refused, and sends it no further', async () => {
    const { outcome } = await send('bad', 'Too much.', FIRST, side.bad)
    expect(outcome).toMatchObject({ kind: 'refused', reason: expect.stringMatching(/\w{3}/) })
    expect(await times('Too much.')).toBe(0)
  })

  it('sends a picture with what it shows', async () => {
    const bytes = picturePng('seam-section') ?? new Uint8Array()
    const media = [{ hash: 'b'.repeat(64), bytes, type: 'image/png', alt: 'A seam' }]
    const { outcome } = await side
      .connector()
      .publish(login, `${side.network}:picture`, side.payload('With a picture.'), media, FIRST)
    expect(outcome.kind).toBe('published')
    const { body } = await world.inject(side.page)
    expect(body.slice(body.indexOf('With a picture.') - 600, body.indexOf('With a picture.') + 200)).toMatch(
      /alt="A seam"|1 pictures/,
    )
  })

  it('takes down what stands, and is content where it is gone', async () => {
    const { outcome } = await send('down', 'Taken back.')
    if (outcome.kind !== 'published') throw new Error(outcome.kind)
    if (side.connector().capabilities.reads)
      expect((await side.connector().read(login, outcome.remoteId)).shown).toMatchObject({
        text: 'Taken back.',
      })
    await side.connector().takeDown(login, outcome.remoteId)
    expect(await times('Taken back.')).toBe(0)
    await side.connector().takeDown(login, outcome.remoteId)
    if (side.connector().capabilities.reads)
      expect((await side.connector().read(login, outcome.remoteId)).shown).toBeNull()
  })

  it('tells what readers did with a post, as its network counts it, or says that it cannot', async () => {
    const connector = side.connector()
    const { outcome } = await send('measured', 'Read by many.')
    if (outcome.kind !== 'published') throw new Error(outcome.kind)
    if (!connector.capabilities.measures) {
      await expect(connector.measures(login, outcome.remoteId)).rejects.toMatchObject({ code: 'bad-request' })
      return
    }
    const came = await connector.measures(login, outcome.remoteId)
    expect(came).toMatchObject({ kind: 'read', measures: { impressions: expect.any(Number) } })
    expect(Object.keys(came.kind === 'read' ? came.measures : {}).sort()).toEqual(side.counts.toSorted())
    await connector.takeDown(login, outcome.remoteId)
    expect(await connector.measures(login, outcome.remoteId)).toEqual({ kind: 'gone' })
  })

  it('knows how its login is: fine, nobody answers, or no longer allowed', async () => {
    expect(await side.connector().check(login)).toMatchObject({ state: 'linked' })
    const settings = Object.fromEntries(Object.keys(login.settings).map((k) => [k, 'http://localhost:1/']))
    if (Object.keys(settings).length) expect(await side.connector().check({ ...login, settings })).toBeNull()
    const { access } = tryJson(login.secret)
    const wrong = { ...login, secret: access ? login.secret.replace(access, 'nonsense') : 'nonsense' }
    expect(await side.connector().check(wrong)).toMatchObject({
      state: expect.stringMatching(/expired|withdrawn/),
    })
    const refused = await side
      .connector()
      .publish(wrong, `${side.network}:wrong`, side.payload('No.'), [], FIRST)
    expect(refused.outcome.kind).toBe('unlinked')
    expect(await times('>No.<')).toBe(0)
  })
})

/** The token within a secret that is JSON. */
function tryJson(text: string): { access?: string } {
  try {
    const { access } = JSON.parse(text) as { access: string }
    return { access }
  } catch {
    return {}
  }
}

describe('by hand', () => {
  it('leaves a post to the person', async () => {
    const sent = await handConnector().publish(aLogin({ connector: 'hand' }), 'k', aPayload(), [], FIRST)
    expect(sent).toEqual({
      outcome: { kind: 'by hand', reason: expect.stringContaining('say when it is out') },
      attempts: [],
    })
  })
})

describe('the receiver in docs', () => {
  it('takes what is signed, once a key, and refuses what is not', async () => {
    const port = String(await freePort())
    const child: ChildProcess = spawn(process.execPath, [
      join(import.meta.dirname, '../../docs/webhook-receiver.mjs'),
      'a secret',
      port,
    ])
    try {
      const address = `http://localhost:${port}/`
      await until(() =>
        fetch(address, { method: 'POST' }).then(
          () => true,
          () => false,
        ),
      )
      const login = aLogin({ connector: 'webhook', secret: 'a secret', settings: { address } })
      const connector = webhookConnector(now)
      expect(await connector.check(login)).toMatchObject({ state: 'linked' })
      expect((await connector.publish(login, 'k', aPayload(), [], FIRST)).outcome).toMatchObject({
        kind: 'published',
        remoteId: 'k',
      })
      const other = { ...login, secret: 'another' }
      expect((await connector.publish(other, 'k', aPayload(), [], FIRST)).outcome.kind).toBe('unlinked')
      const late = webhookConnector(() => now() - 600_000)
      expect((await late.publish(login, 'k', aPayload(), [], FIRST)).outcome.kind).toBe('unlinked')
    } finally {
      child.kill()
    }
  })

  it('signs as RFC 2104 has it', () => {
    // Worked out with openssl: printf '1700000000.{}' | openssl dgst -sha256 -hmac key
    expect(signatureOf('key', '1700000000', '{}')).toBe(
      'sha256=9d713ed406bb7076d4123f0dc2c39d2df5c654ed4b0cd56b52c8b4c940bd63ae',
    )
  })
})
