import type { FastifyInstance } from 'fastify'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { startWorld, temporaryFolder } from '../e2e/servers'
import { freePort } from '../e2e/ports'
import { oakumYard } from '../demo/content'
import { weeklyPosts } from './networks/standIn'
import { SERVICE_KEY, written } from './services'
import { VICES } from './state'

const asked = (change = ''): { role: string; content: string }[] => [
  {
    role: 'user',
    content: `Length of the text: between 20 and 120 characters.${change}\n"""\nPaint dries from the edge. Wind dries it faster than sun. It cracks in frost.\n"""\n"""\nA longer text around it.\n"""`,
  },
]
const textOf = (answer: string): string => (JSON.parse(answer) as { text: string }).text

describe('the way of the stand-in writer', () => {
  it('keeps to the passage and the length, and begins elsewhere when it is sent back', () => {
    const first = textOf(written(asked(), null))
    expect(first).toBe('Paint dries from the edge. Wind dries it faster than sun. It cracks in frost.')
    const again = written([...asked(), { role: 'assistant', content: '…' }], null)
    expect(textOf(again)).toMatch(/^Wind dries it faster/)
  })

  it('opens otherwise than the posts it is told of', () => {
    const told = asked('\nOther posts of this article open so; open otherwise:\n- paint dries from the\n')
    expect(textOf(written(told, null))).toMatch(/^Wind/)
  })

  it('draws on what stands around where the passage is too short, and gives a title where one is asked for', () => {
    const long = asked().map((m) => ({ ...m, content: m.content.replace('between 20', 'between 300') }))
    expect(textOf(written(long, null))).toContain('A longer text around it.')
    const titled = written(
      [{ role: 'system', content: '{"text": string, "title": string}' }, ...asked()],
      null,
    )
    expect(JSON.parse(titled)).toHaveProperty('title', 'Paint dries from the edge')
  })

  it('does wrong as it is told to', () => {
    expect(textOf(written(asked(), 'too long')).length).toBeGreaterThan(240)
    expect(textOf(written(asked(), 'invented number'))).toContain('87 of 100')
    expect(written(asked(), 'markup fence')).toMatch(/^Sure!.*```json/s)
    expect(written(asked(), 'refusal')).toContain('can’t help')
    expect(written(asked(), 'nonsense')).toContain('marmalade')
    expect(written([{ role: 'user', content: 'Are you there?' }], 'nonsense')).toBe('Yes, I am ready.')
  })
})

describe('the services of the world', () => {
  let world: FastifyInstance
  const folder = temporaryFolder()
  beforeAll(async () => {
    world = await startWorld({
      port: await freePort(),
      serverPort: await freePort(),
      folder: folder.path,
      sites: [oakumYard()],
    })
  })
  afterAll(async () => {
    await world.close()
    folder.remove()
  })
  beforeEach(async () => {
    for (const vice of VICES) await vice_(vice, 0)
  })
  const vice_ = (vice: string, count: number) =>
    world.inject({ method: 'POST', url: '/control/vice', payload: { vice, count } })
  const ask = (key = SERVICE_KEY, model = 'workshop-1') =>
    world.inject({
      method: 'POST',
      url: '/writer/v1/chat/completions',
      headers: { authorization: `Bearer ${key}` },
      payload: { model, messages: asked() },
    })

  it('want a key, a model that there is, and messages', async () => {
    expect((await ask('other')).statusCode).toBe(401)
    expect((await ask(SERVICE_KEY, 'other')).statusCode).toBe(404)
    const empty = await world.inject({
      method: 'POST',
      url: '/writer/v1/chat/completions',
      headers: { authorization: `Bearer ${SERVICE_KEY}` },
      payload: {},
    })
    expect(empty.statusCode).toBe(400)
    expect((await ask()).json()).toMatchObject({ choices: [{ message: { role: 'assistant' } }] })
  })

  it('have a vice for as many answers as it is given, and then none', async () => {
    await vice_('refusal', 2)
    const said = async () => (await ask()).body
    expect(await said()).toContain('can’t help')
    expect(await said()).toContain('can’t help')
    expect(await said()).not.toContain('can’t help')
    await vice_('too many requests', 1)
    const limited = await ask()
    expect([limited.statusCode, limited.headers['retry-after']]).toEqual([429, '1'])
  })

  it('shorten an address under a key always to the same link, which leads on and counts', async () => {
    const shorten = async (urls: string[], key = 'a') =>
      (
        await world.inject({
          method: 'POST',
          url: '/links',
          headers: { authorization: `Bearer ${SERVICE_KEY}` },
          payload: { links: urls.map((url) => ({ url, key })) },
        })
      ).json<{ links: { short: string; clicks: number }[] }>().links
    const [one, other] = await shorten(['https://yard.example/a', 'https://yard.example/b'])
    expect(one!.short).not.toBe(other!.short)
    const path = new URL(one!.short).pathname
    const followed = await world.inject({ url: path })
    expect([followed.statusCode, followed.headers.location]).toEqual([302, 'https://yard.example/a'])
    expect((await shorten(['https://yard.example/a']))[0]).toEqual({ ...one, clicks: 1 })
    expect((await shorten(['https://yard.example/a'], 'b'))[0]?.short).not.toBe(one!.short)
    expect((await world.inject({ url: '/s/none' })).statusCode).toBe(404)
  })

  it('take a page of a site away and bring it back', async () => {
    const page = async () =>
      (await world.inject({ url: '/reading-rot', headers: { host: 'oakum-yard.localhost:1' } })).statusCode
    const away = (yes: 'yes' | 'no') =>
      world.inject({
        method: 'POST',
        url: '/control/page',
        payload: { page: 'oakum-yard/reading-rot', away: yes },
      })
    expect(await page()).toBe(200)
    await away('yes')
    expect(await page()).toBe(404)
    await away('no')
    expect(await page()).toBe(200)
  })

  it('are named on the world’s page with what befalls next', async () => {
    await vice_('nonsense', 3)
    const { body } = await world.inject({ url: '/' })
    expect(body).toContain('/writer/v1')
    expect(body).toContain('nonsense: the next 3')
  })
})

it('tags are used by a few often and by most seldom, the same in any case, not the same on each network', () => {
  const figures = Array.from({ length: 400 }, (_, i) => weeklyPosts(`Tag${i}`, 'murmur')).sort(
    (a, b) => a - b,
  )
  expect(figures[200]).toBeLessThan(figures[399]! / 10)
  expect(weeklyPosts('HandTools', 'murmur')).toBe(weeklyPosts('handtools', 'murmur'))
  expect(weeklyPosts('HandTools', 'murmur')).not.toBe(weeklyPosts('HandTools', 'guildhall'))
})
