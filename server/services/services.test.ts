import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { handOver, openServers, until } from '../../e2e/servers'
import { oakumYard } from '../../demo/content'
import type {
  MakerOrder,
  MakerState,
  ShortLink,
  StockPage,
  WriterAnswer,
  WriterState,
} from '../../core/model'

let servers: Awaited<ReturnType<typeof openServers>>
beforeAll(async () => {
  servers = await openServers({
    sites: [oakumYard()],
    patience: { answerMilliseconds: 2000, pauseMilliseconds: 10, longestPauseMilliseconds: 1500 },
  })
})
afterAll(() => servers.close())

const settings = (change: object = {}) => ({
  address: `${servers.worldUrl}/writer/v1`,
  model: 'workshop-1',
  creativity: 0.7,
  length: 400,
  dailyWords: 100_000,
  ...change,
})
const connect = (change: object = {}, key: string | undefined = 'workshop-key') =>
  servers.call<WriterState>('PUT', '/api/writer', { settings: settings(change), key })
const question = [
  {
    role: 'user',
    content: 'Write between 20 and 200 characters.\n"""\nOak rots slowly. Pine does not wait.\n"""',
  },
]
const ask = () =>
  servers.call<WriterAnswer & { code: string; message: string }>('POST', '/api/writer/ask', {
    messages: question,
  })
const vice = (name: string, count: number) =>
  fetch(`${servers.worldUrl}/control/vice`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ vice: name, count }),
  })

describe('a connected writer', () => {
  beforeEach(async () => {
    for (const name of ['slow', 'too many requests']) await vice(name, 0)
    await connect()
  })

  it('is asked through the server, which never gives its key away', async () => {
    const state = await connect()
    expect(state.body).toMatchObject({ hasKey: true, settings: { model: 'workshop-1' } })
    expect(JSON.stringify(state.body)).not.toContain('workshop-key')
    const answer = await ask()
    expect(JSON.parse(answer.body.text)).toEqual({ text: 'Oak rots slowly. Pine does not wait.' })
    expect((await servers.call('POST', '/api/writer/try')).status).toBe(200)
  })

  it('keeps its key while its settings change, but gives it to no other place', async () => {
    expect(
      (await servers.call('PUT', '/api/writer', { settings: settings({ creativity: 0 }) })).body,
    ).toMatchObject({ hasKey: true })
    const elsewhere = settings({ address: 'https://elsewhere.example/v1' })
    expect((await servers.call('PUT', '/api/writer', { settings: elsewhere })).body).toMatchObject({
      hasKey: false,
    })
    const open = settings({ address: 'http://elsewhere.example/v1' })
    expect(await servers.call('PUT', '/api/writer', { settings: open, key: 'k' })).toMatchObject({
      status: 400,
      body: { message: expect.stringContaining('over https only') as string },
    })
  })

  it('is counted in words, and refused once the day’s budget is spent', async () => {
    const before = (await servers.call<WriterState>('GET', '/api/writer')).body
    const { words } = (await ask()).body
    const after = (await servers.call<WriterState>('GET', '/api/writer')).body
    expect([after.words - before.words, after.questions - before.questions]).toEqual([words, 1])
    await connect({ dailyWords: after.words + 3 })
    expect((await ask()).body).toMatchObject({
      code: 'over-budget',
      message: expect.stringContaining('for today is spent') as string,
    })
    expect((await servers.call<WriterState>('GET', '/api/writer')).body.questions).toBe(after.questions)
  })

  it('is asked again after 429 as soon as it may, and then no more', async () => {
    await vice('too many requests', 1)
    expect((await ask()).status).toBe(200)
    await vice('too many requests', 9)
    expect((await ask()).body).toMatchObject({
      code: 'too-many',
      message: expect.stringContaining('asked less often: Too many requests; wait a second.') as string,
    })
  })

  it('is not waited for longer than it may take, nor asked twice when it is slow', async () => {
    await vice('slow', 2)
    expect((await ask()).body).toMatchObject({ code: 'too-slow' })
    await vice('slow', 0)
    expect((await ask()).status).toBe(200)
  })

  it('says what is wrong with a key, a model and an address', async () => {
    await connect({}, 'wrong')
    expect((await ask()).body).toMatchObject({ code: 'not-linked' })
    await connect({ model: 'workshop-9' })
    expect((await ask()).body.message).toContain('There is no model “workshop-9”; there is workshop-1.')
    await connect({ address: 'http://localhost:1/v1' })
    expect((await ask()).body).toMatchObject({ code: 'unreachable' })
    await connect({ address: `${servers.worldUrl}/demo` })
    expect((await ask()).body).toMatchObject({ code: 'not-found' })
    expect((await connect({ address: 'nowhere' })).body).toMatchObject({ code: 'bad-request' })
    await servers.call('DELETE', '/api/writer')
    expect((await ask()).body).toMatchObject({ code: 'no-writer' })
  })
})

describe('a stock of pictures', () => {
  const search = (words: string, page = 1) =>
    servers.call<StockPage & { code: string; message: string }>('POST', '/api/stock/search', { words, page })
  const join = (address: string, key = 'workshop-key') =>
    servers.call('PUT', '/api/stock', { settings: { address }, key })

  it('is refused until one is connected, then searched page by page, and its pictures can be fetched', async () => {
    expect((await search('oak')).body.code).toBe('no-stock')
    const state = await join(`${servers.worldUrl}/stock/v1`)
    expect(state.body).toMatchObject({ hasKey: true })
    expect(JSON.stringify(state.body)).not.toContain('workshop-key')
    const first = (await search('')).body
    expect(first).toMatchObject({ page: 1, pictures: { length: 20 } })
    const last = (await search('', first.pages)).body
    expect((first.pages - 1) * 20 + last.pictures.length).toBe(first.total)
    expect((await search('', first.pages + 1)).body.pictures).toEqual([])
    const [boat] = (await search('boat in winter')).body.pictures
    expect(boat).toMatchObject({ title: 'A boat drawn up on the shore in winter', width: 1200 })
    expect(boat?.credit).toMatchObject({ from: 'The Drawer', mustShow: expect.any(Boolean) as boolean })
    const fetched = await fetch(boat?.file ?? '')
    expect(fetched.headers.get('content-type')).toBe('image/png')
    expect((await fetch(boat?.credit.page ?? '')).status).toBe(200)
    // A picture of the stock is taken by the way of every other picture.
    expect((await servers.call('POST', '/api/intake/picture', { url: boat?.file })).status).toBe(200)
  })

  it('says what is wrong with its address or key, and when it is asked too often', async () => {
    await join(`${servers.worldUrl}/stock/v1`, 'wrong')
    expect((await search('oak')).body).toMatchObject({
      code: 'not-linked',
      message: expect.stringContaining('key') as string,
    })
    await join(`${servers.worldUrl}/demo?`)
    expect((await search('oak')).body).toMatchObject({ code: 'bad-answer' })
    await join('http://localhost:1/v1')
    expect((await search('oak')).body).toMatchObject({ code: 'unreachable' })
    await join(`${servers.worldUrl}/stock/v1`)
    const answers = await Promise.all(Array.from({ length: 70 }, () => search('oak')))
    expect(answers.find((a) => a.body.code === 'too-many')?.body.message).toMatch(
      /searched less often\. Try again in \d+ seconds/,
    )
    await servers.call('DELETE', '/api/stock')
    expect((await search('oak')).body.code).toBe('no-stock')
  })
})

describe('a service that makes pictures to order', () => {
  const order = (words: string) =>
    servers.call<{ id: string; code: string; message: string }>('POST', '/api/maker/orders', {
      words,
      width: 960,
      height: 1200,
    })
  const join = (change: object = {}, key = 'workshop-key') =>
    servers.call('PUT', '/api/maker', {
      settings: { address: `${servers.worldUrl}/painter/v1`, dailyPictures: 10, ...change },
      key,
    })
  const standing = async (id: string) =>
    (await servers.call<MakerOrder>('GET', `/api/maker/orders/${id}`)).body
  const mishap = (name: string) =>
    fetch(`${servers.worldUrl}/control/painter`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ mishap: name, count: 1 }),
    })
  const made = async (id: string): Promise<MakerOrder> => {
    let state = await standing(id)
    await until(async () => (state = await standing(id)).state !== 'waiting', 10_000)
    return state
  }

  it('is refused until one is connected, then takes an order, is slow, and gives the picture', async () => {
    expect((await order('A boat')).body.code).toBe('no-maker')
    await join()
    const { id } = (await order('One boat on the shore, in the evening.')).body
    expect((await standing(id)).state).toBe('waiting')
    const { state, url } = await made(id)
    expect(state).toBe('ready')
    const png = new Uint8Array(await (await fetch(url ?? '')).arrayBuffer())
    // Width and height of a PNG stand in its first chunk (ISO/IEC 15948, 11.2.2).
    const view = new DataView(png.buffer)
    expect([view.getUint32(16), view.getUint32(20)]).toEqual([960, 1200])
  })

  it('fails in a sentence, and says what became of an order that it forgot', async () => {
    await join()
    await mishap('fails')
    expect(await made((await order('A boat')).body.id)).toEqual({
      state: 'failed',
      url: null,
      reason: 'The paint ran. Order it again.',
    })
    await mishap('lost')
    expect(await standing((await order('A boat')).body.id)).toMatchObject({
      state: 'failed',
      reason: expect.stringContaining('knows nothing of this order') as string,
    })
    await join({}, 'wrong')
    expect((await order('A boat')).body).toMatchObject({ code: 'not-linked' })
    await join({ address: 'http://localhost:1/v1' })
    expect((await order('A boat')).body).toMatchObject({ code: 'unreachable' })
    await join({ address: `${servers.worldUrl}/demo` })
    expect((await order('A boat')).body).toMatchObject({ code: 'bad-answer' })
  })

  it('sends no more orders than the day’s budget allows, however many come at once', async () => {
    const { body } = await servers.call<MakerState>('GET', '/api/maker')
    await join({ dailyPictures: body.pictures + 2 })
    const answers = await Promise.all(Array.from({ length: 5 }, () => order('A boat')))
    expect(answers.filter((a) => a.status === 200)).toHaveLength(2)
    expect(answers.find((a) => a.status !== 200)?.body).toMatchObject({
      code: 'over-budget',
      message: expect.stringContaining('pictures for today is spent') as string,
    })
    await join({ dailyPictures: 0 })
    expect((await order('A boat')).body.code).toBe('over-budget')
    await servers.call('DELETE', '/api/maker')
  })
})

describe('a shortener', () => {
  const links = (urls: string[], key = 'post:1') =>
    servers.call<{ links: ShortLink[]; code: string }>('POST', '/api/shortener/links', {
      links: urls.map((url) => ({ url, key })),
    })

  it('is refused until one is connected, then makes links that lead on and are counted', async () => {
    const url = 'https://yard.example/rot?utm_source=murmur'
    expect((await links([url])).body.code).toBe('no-shortener')
    await servers.call('PUT', '/api/shortener', {
      settings: { address: `${servers.worldUrl}/links` },
      key: 'workshop-key',
    })
    const [first, second] = (await links([url, 'https://yard.example/oars'])).body.links
    expect(first!.short.length).toBeLessThan(url.length)
    expect((await links([url])).body.links[0]!.short).toBe(first!.short)
    expect((await links([url], 'post:2')).body.links[0]!.short).not.toBe(first!.short)
    const followed = await fetch(first!.short, { redirect: 'manual' })
    expect([followed.status, followed.headers.get('location')]).toEqual([302, url])
    const counted = await servers.call<{ links: ShortLink[] }>('POST', '/api/shortener/clicks', {
      links: [first!.short, second!.short],
    })
    expect(counted.body.links.map((l) => l.clicks)).toEqual([1, 0])
  })

  it('that does not take the key or does not answer says so', async () => {
    await servers.call('PUT', '/api/shortener', {
      settings: { address: `${servers.worldUrl}/links` },
      key: 'wrong',
    })
    expect((await links(['https://yard.example/x'])).body.code).toBe('not-linked')
    await servers.call('PUT', '/api/shortener', { settings: { address: 'http://localhost:1/' } })
    expect((await links(['https://yard.example/x'])).body.code).toBe('unreachable')
  })
})

describe('the team chat', () => {
  const heard = async (): Promise<string[]> => {
    const answer = await fetch(`${servers.worldUrl}/chat/messages`)
    return ((await answer.json()) as { messages: { text: string }[] }).messages.map((m) => m.text)
  }
  const connectChat = () =>
    servers.call('PUT', '/api/chat', { settings: { address: `${servers.worldUrl}/chat/hooks/workshop` } })
  const refused = async (id: string): Promise<void> => {
    await servers.call('POST', '/api/spool/posts', {
      posts: [
        handOver(id, new Date().toISOString(), {
          payload: { ...handOver(id, '').payload, text: 'x'.repeat(400) },
        }),
      ],
    })
    await until(async () => {
      const page = await servers.call<{ receipts: { post: string }[] }>('GET', '/api/spool/receipts?after=0')
      return page.body.receipts.some((r) => r.post === id)
    })
  }

  it('hears of a refused post from the server itself, once, and only where that is wanted', async () => {
    await connectChat()
    await refused('unwanted')
    await servers.call('PUT', '/api/chat/notices', { kinds: ['failed posts'] })
    await refused('too-long')
    await until(async () => (await heard()).length > 0)
    expect(await heard()).toEqual([
      expect.stringMatching(/^A post on Murmur \(@murmur\.one\) was refused\. Murmur: .*300.* “x{80} …”$/),
    ])
    // The app says the same when it learns of it.
    await servers.call('POST', '/api/chat/messages', {
      messages: [{ key: 'notice failed too-long 1', text: 'A post was refused.' }],
    })
    expect(await heard()).toHaveLength(1)
  })

  it('is not connected over an open line, and what it refuses for good is not said again', async () => {
    const open = await servers.call('PUT', '/api/chat', {
      settings: { address: 'http://chat.example/hooks/x' },
    })
    expect(open).toMatchObject({ status: 400 })
    await servers.call('PUT', '/api/chat', { settings: { address: `${servers.worldUrl}/chat/hooks/other` } })
    const lost = await servers.call<{ waiting: number; trouble: string }>('POST', '/api/chat/messages', {
      messages: [
        { key: 'k', text: 'Hello.' },
        { key: 'b', text: 'Second.' },
        { key: 'a', text: 'Third.' },
      ],
    })
    expect(lost.body).toMatchObject({ waiting: 3, trouble: expect.stringContaining('(404)') as string })
    await connectChat()
    await until(async () => (await heard()).includes('Third.'))
    expect((await heard()).slice(-3)).toEqual(['Hello.', 'Second.', 'Third.'])
    await servers.call('DELETE', '/api/chat')
    expect(
      (await servers.call('POST', '/api/chat/messages', { messages: [{ key: 'l', text: 'x' }] })).body,
    ).toMatchObject({ code: 'no-chat' })
  })
})

describe('what else captions want from outside', () => {
  it('a network tells how often tags are posted with, by the account that is linked', async () => {
    const figures = async (network: string) =>
      (
        await servers.call<{ figures: Record<string, number>; code: string }>(
          'POST',
          `/api/networks/${network}/tags`,
          { tags: ['Oak', 'OldBoatsOfTheRiver'] },
        )
      ).body
    const { figures: murmur } = await figures('murmur')
    expect(Object.keys(murmur)).toEqual(['Oak', 'OldBoatsOfTheRiver'])
    expect(murmur['Oak']).not.toBe((await figures('guildhall')).figures['Oak'])
    expect((await figures('courier')).code).toBe('not-linked')
  })

  it('a link is broken where nothing stands at its end, not where a site is away for now', async () => {
    const site = servers.worldUrl.replace('//', '//oakum-yard.')
    const { body } = await servers.call<{ troubles: (string | null)[] }>('POST', '/api/intake/links', {
      urls: [`${site}/reading-rot?utm_source=murmur`, `${site}/never-written`, 'http://localhost:1/away'],
    })
    expect(body.troubles).toEqual([null, expect.stringContaining('nothing at this address'), null])
  })

  it('a brand’s page of links is public, shows what has gone out by now, and follows the clock', async () => {
    const at = (hours: number) => new Date(Date.now() + hours * 3_600_000).toISOString()
    const put = await servers.call<{ url: string }>('PUT', '/api/pages/yard', {
      name: 'The Yard',
      links: [
        { title: 'Reading rot', url: 'https://yard.example/rot', at: at(-1) },
        { title: 'Oars', url: 'https://yard.example/oars', at: at(5) },
      ],
    })
    const page = async () => (await fetch(put.body.url)).text()
    expect(await page()).toContain('Reading rot')
    expect(await page()).not.toContain('Oars')
    await servers.call('POST', '/api/clock/advance', { to: at(6) })
    expect(await page()).toContain('Oars')
    const script = { name: 'X', links: [{ title: 'x', url: 'javascript:alert(1)', at: at(0) }] }
    expect((await servers.call('PUT', '/api/pages/yard', script)).status).toBe(400)
    expect((await fetch(`${put.body.url}-other`)).status).toBe(404)
  })
})
