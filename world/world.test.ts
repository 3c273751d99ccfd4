import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { FastifyInstance } from 'fastify'
import { fernhollow, oakumYard } from '../demo/content'
import { picturePng } from '../demo/pictures'
import { startWorld, temporaryFolder } from '../e2e/servers'
import { freePort } from '../e2e/ports'
import { parseFeed } from '../core/feeds'
import { network } from '../core/networks'
import { readPage } from '../core/reading'
import { takeMedia } from './networks/publishing'

let world: FastifyInstance
let port: number
const folder = temporaryFolder()
beforeAll(async () => {
  port = await freePort()
  // No server answers, so the world runs by the machine's own clock.
  world = await startWorld({
    port,
    serverPort: await freePort(),
    folder: folder.path,
    sites: [oakumYard(), fernhollow()],
  })
})
afterAll(async () => {
  await world.close()
  folder.remove()
})

const site = (url: string) => world.inject({ url, headers: { host: `oakum-yard.localhost:${port}` } })

describe('the yard’s site', () => {
  it('answers under its own host name with a feed that carries the articles that are out', async () => {
    const answer = await site('/feed.xml')
    const feed = parseFeed(answer.body, `http://oakum-yard.localhost:${port}/feed.xml`)
    expect(feed.items.length).toBeGreaterThanOrEqual(8)
    for (const item of feed.items) {
      expect(item.html.length).toBeGreaterThan(2000)
      expect(item.categories.length).toBeGreaterThan(0)
      expect(item.images[0]).toMatchObject({ width: 1200, height: 800 })
    }
    expect(feed.items.length).toBeLessThan(oakumYard().articles.length)
  })

  it('answers 304 to a conditional request for an unchanged feed', async () => {
    const etag = String((await site('/feed.xml')).headers['etag'])
    const again = await world.inject({
      url: '/feed.xml',
      headers: { host: `oakum-yard.localhost:${port}`, 'if-none-match': etag },
    })
    expect([again.statusCode, again.body]).toEqual([304, ''])
  })

  it('has pages with real furniture, which reading tells from the article', async () => {
    const page = readPage((await site('/caulking-a-seam')).body, {
      url: 'http://oakum-yard.localhost/caulking-a-seam',
    })
    expect(page).toMatchObject({ title: 'Caulking a seam that stays shut', author: 'Rita Vance' })
    expect(page.words).toBeGreaterThan(690)
    const reasons = new Set(page.blocks.flatMap((b) => b.furniture ?? []))
    expect(reasons).toEqual(new Set(['byline', 'tags', 'biography', 'sign-up box', 'related links']))
    const prose = page.blocks.filter((b) => b.furniture === null).map((b) => page.text.slice(b.start, b.end))
    for (const words of ['Rita Vance has taught', 'Sunday letter', 'Read next', 'one cookie'])
      expect(prose.some((p) => p.includes(words))).toBe(false)
  })

  it('does not show what is not out yet, and has its pictures', async () => {
    const later = oakumYard().articles.find((a) => a.day > 0)
    expect((await site(`/${later?.slug}`)).statusCode).toBe(404)
    const picture = await site('/pictures/seam-section.png')
    expect(picture.headers['content-type']).toBe('image/png')
    expect(picture.rawPayload.subarray(1, 4).toString()).toBe('PNG')
  })
})

describe('the films of a site', () => {
  it('are named by feed and page, lie there in parts, and say what their transcripts do when they do', async () => {
    const feed = await site('/films/feed.xml')
    const [, address = '', type] =
      /<media:content url="([^"]+)" type="([^"]+)" medium="video"/.exec(feed.body) ?? []
    const path = new URL(address).pathname
    const page = await site(path.replace(/\.\w+$/, ''))
    expect(page.body).toContain(`src="${path}"`)
    expect(page.body).toContain(`"contentUrl":"${path}"`)
    const part = await world.inject({
      url: path,
      headers: { host: new URL(address).host, range: 'bytes=0-3' },
    })
    expect([part.statusCode, part.rawPayload.length]).toEqual([206, 4])
    // What begins a WebM (EBML, RFC 8794), or stands at the beginning of an MP4.
    expect(['1a45dfa3', '00000020', '0000001c']).toContain(part.rawPayload.toString('hex'))
    expect(part.headers['content-type']).toBe(type)
  })

  it('are talks too that are only heard: a feed of enclosures with their transcripts', async () => {
    const host = (path: string) => world.inject({ url: `/sites/fernhollow${path}` })
    const { items } = parseFeed(
      (await host('/talks/feed.xml')).body,
      'http://fernhollow.example/talks/feed.xml',
    )
    const [talk] = items
    expect(talk?.video).toMatchObject({ type: 'audio/mpeg', seconds: 125 })
    const part = await world.inject({
      url: `/sites/fernhollow${new URL(talk?.video?.url ?? '').pathname}`,
      headers: { range: 'bytes=0-2' },
    })
    expect(part.statusCode).toBe(206)
    // Frames of MPEG audio begin with eleven bits set; one with a tag before them with its name.
    const [a = 0, b = 0] = part.rawPayload
    expect(part.rawPayload.toString('latin1') === 'ID3' || (a === 255 && b >= 224)).toBe(true)
    const [words] = talk?.video?.transcripts ?? []
    expect((await host(new URL(words?.url ?? '').pathname)).body).toMatch(/^WEBVTT\n/)
  })

  it.each(oakumYard().films ?? [])(
    '$slug is not larger than 4 MB, and all of it is said while it plays',
    ({ recording }) => {
      expect(recording.bytes().length).toBeLessThan(4_000_000)
      const times = recording.lines.flat()
      expect(times).toEqual([...times].sort((a, b) => a - b))
      expect(times.at(-1)).toBeLessThanOrEqual(recording.seconds)
    },
  )
})

describe('a stand-in network', () => {
  const base = '/networks/murmur'
  const token = async (account = 'murmur-one', network = 'murmur'): Promise<string> => {
    const { code } = (
      await world.inject({ method: 'POST', url: `/networks/${network}/demo-code`, payload: { account } })
    ).json<{ code: string }>()
    const answer = await world.inject({
      method: 'POST',
      url: `/networks/${network}/token`,
      payload: { code },
    })
    return answer.json<{ accessToken: string }>().accessToken
  }
  const post = async (body: object, key: string, bearer?: string, network = 'murmur') =>
    world.inject({
      method: 'POST',
      url: `/networks/${network}/posts`,
      headers: { authorization: `Bearer ${bearer ?? (await token())}`, 'idempotency-key': key },
      payload: body,
    })
  const trouble = (kind: string, network = 'murmur') =>
    world.inject({ method: 'POST', url: '/control/trouble', payload: { network, kind } })

  it('gives a token for a code once', async () => {
    const { code } = (
      await world.inject({ method: 'POST', url: `${base}/demo-code`, payload: { account: 'murmur-one' } })
    ).json<{ code: string }>()
    const take = () => world.inject({ method: 'POST', url: `${base}/token`, payload: { code } })
    expect((await take()).json()).toMatchObject({
      account: { id: 'murmur-one' },
      expiresAt: expect.any(String),
    })
    expect((await take()).statusCode).toBe(400)
  })

  it('keeps one post for one key, also when both ask at once', async () => {
    const bearer = await token()
    const answers = await Promise.all([1, 2, 3].map(() => post({ text: 'Once only.' }, 'k-once', bearer)))
    expect(new Set(answers.map((a) => a.json<{ id: string }>().id)).size).toBe(1)
    expect(answers.map((a) => a.statusCode).sort()).toEqual([200, 200, 201])
  })

  it('takes the post and drops the line, and knows the key when asked again', async () => {
    const bearer = await token()
    await trouble('drop')
    // Only a real connection can be dropped.
    const asked = fetch(`http://localhost:${port}${base}/posts`, {
      method: 'POST',
      headers: {
        authorization: `Bearer ${bearer}`,
        'idempotency-key': 'k-drop',
        'content-type': 'application/json',
      },
      body: JSON.stringify({ text: 'Dropped.' }),
    })
    await expect(asked).rejects.toThrow()
    expect((await post({ text: 'Dropped.' }, 'k-drop', bearer)).statusCode).toBe(200)
  })

  it('tells measures to the account that posted, and to no other', async () => {
    const bearer = await token()
    const { id } = (await post({ text: 'Counted.' }, 'k-count', bearer)).json<{ id: string }>()
    const ask = async (as: string) =>
      world.inject({ url: `${base}/posts/${id}/measures`, headers: { authorization: `Bearer ${as}` } })
    expect((await ask(bearer)).json()).toMatchObject({ measures: { impressions: 0 } })
    expect((await ask(await token('murmur-two'))).statusCode).toBe(404)
    await trouble('down')
    expect((await ask(bearer)).statusCode).toBe(503)
    await trouble('up')
  })

  it('refuses what breaks its rules with the field and a sentence', async () => {
    expect((await post({ text: 'x'.repeat(301) }, 'k1')).json()).toMatchObject({
      error: 'invalid',
      field: 'text',
    })
    expect((await post({ text: 'A picture', media: [{ id: 'nowhere' }] }, 'k2')).json()).toMatchObject({
      field: 'media',
    })
    const leaf = await post(
      { text: 'No picture.' },
      'k3',
      await token('shutterleaf-one', 'shutterleaf'),
      'shutterleaf',
    )
    expect([leaf.statusCode, leaf.json<{ reason: string }>().reason]).toEqual([
      422,
      'Shutterleaf wants at least one picture.',
    ])
  })

  it('takes a thread and a poll where it knows them, shows every part, and refuses them elsewhere', async () => {
    const thread = await post(
      { text: 'Three things about oak.', parts: ['Oak is heavy.', 'Oak is slow.'] },
      'k-th',
    )
    expect(thread.statusCode).toBe(201)
    const shown = await world.inject(`${base}/posts/${thread.json<{ id: string }>().id}/page`)
    expect(shown.body).toMatch(/Three things about oak\..*Oak is heavy\..*Oak is slow\./s)
    expect((await post({ text: 'Long.', parts: ['x'.repeat(301)] }, 'k-tl')).json()).toMatchObject({
      field: 'parts',
    })
    expect((await post({ text: 'Oak or larch?', poll: ['Oak', 'Larch'] }, 'k-po')).statusCode).toBe(201)
    expect((await post({ text: 'Oak?', poll: ['Oak'] }, 'k-p1')).json()).toMatchObject({ field: 'poll' })
    const leaf = await token('shutterleaf-one', 'shutterleaf')
    expect((await post({ text: 'A', parts: ['B'] }, 'k-ts', leaf, 'shutterleaf')).json()).toMatchObject({
      reason: 'Shutterleaf knows no threads.',
    })
  })

  it('refuses the same words from a sibling, whatever their case and tags', async () => {
    await post({ text: 'Green oak bends better.' }, 'k-a')
    const twin = await post({ text: 'GREEN oak bends better! #Oak' }, 'k-b', await token('murmur-two'))
    expect([twin.statusCode, twin.json<{ error: string }>().error]).toEqual([422, 'seen'])
  })

  it('says why it does not know a token: none, withdrawn, expired', async () => {
    const reason = async (bearer: string) =>
      (await post({ text: 'Hm.' }, 'k-t', bearer)).json<{ error: string }>().error
    expect(await reason('nonsense')).toBe('unknown_token')
    const first = await token('murmur-two')
    await trouble('expire')
    expect(await reason(first)).toBe('expired')
    const second = await token('murmur-two')
    await trouble('withdraw')
    expect(await reason(second)).toBe('withdrawn')
  })

  it('is down, or asks to wait, for as long as it was told to', async () => {
    const bearer = await token()
    await trouble('fail')
    await trouble('limit')
    expect((await post({ text: 'One.' }, 'k-f', bearer)).statusCode).toBe(503)
    const limited = await post({ text: 'One.' }, 'k-f', bearer)
    expect([limited.statusCode, limited.headers['retry-after']]).toEqual([429, '120'])
    expect((await post({ text: 'One.' }, 'k-f', bearer)).statusCode).toBe(201)
  })

  it('takes clips for what their own files say of them, and refuses what is no film', async () => {
    const bearer = await token()
    const film = oakumYard().films?.find((f) => f.recording.type === 'video/mp4')
    const upload = (payload: Buffer) =>
      world.inject({
        method: 'POST',
        url: `${base}/media`,
        headers: { authorization: `Bearer ${bearer}`, 'content-type': 'video/mp4' },
        payload,
      })
    const taken = await upload(film?.recording.bytes() ?? Buffer.alloc(0))
    // As ffmpeg was told to write it, and how long ffprobe says it is: 283.75 s.
    expect(taken.json()).toMatchObject({ width: 640, height: 360 })
    expect((await upload(Buffer.from('no film'))).statusCode).toBe(415)
    const { id } = taken.json<{ id: string }>()
    const made = await post({ text: 'Too long.', media: [{ id, alt: 'A talk' }] }, 'k-film', bearer)
    expect(made.json()).toMatchObject({
      field: 'media',
      reason: 'The clip is 283.8 s long; Murmur takes 1 to 140 s.',
    })
  })

  it('takes moving pictures where it shows them, and no GIF elsewhere', async () => {
    // One frame of one white pixel, as the GIF89a specification lays it out.
    const gif = Buffer.from('R0lGODlhAQABAIAAAP///wAAACwAAAAAAQABAAACAkQBADs=', 'base64')
    const store = { putMedia: () => undefined } as unknown as Parameters<typeof takeMedia>[1]['store']
    const taken = (id: string) => takeMedia(network(id), { store }, gif, 'image/gif')
    expect(await taken('murmur')).toMatchObject({ width: 1, height: 1 })
    expect(await taken('guildhall')).toBeNull()
  })

  it('takes pictures, shows them on its public page, and takes a post down', async () => {
    const bearer = await token()
    const headers = { authorization: `Bearer ${bearer}`, 'content-type': 'image/png' }
    const upload = await world.inject({
      method: 'POST',
      url: `${base}/media`,
      headers,
      payload: picturePng('brush-tin') ?? '',
    })
    expect(upload.json()).toMatchObject({ width: 1200, height: 800 })
    const broken = await world.inject({
      method: 'POST',
      url: `${base}/media`,
      headers,
      payload: Buffer.from('no picture'),
    })
    expect(broken.statusCode).toBe(415)
    const made = await post(
      {
        text: 'With <b>a brush</b> & a tin.',
        media: [{ id: upload.json<{ id: string }>().id, alt: 'A brush' }],
      },
      'k-p',
      bearer,
    )
    const { id } = made.json<{ id: string }>()
    const page = async () => (await world.inject({ url: `${base}/@murmur.one` })).body
    expect(await page()).toContain('With &lt;b&gt;a brush&lt;/b&gt; &amp; a tin.')
    expect(await page()).toContain('alt="A brush"')
    const gone = () =>
      world.inject({
        method: 'DELETE',
        url: `${base}/posts/${id}`,
        headers: { authorization: `Bearer ${bearer}` },
      })
    expect((await gone()).statusCode).toBe(204)
    expect((await gone()).statusCode).toBe(404)
    expect(await page()).not.toContain('a brush')
  })

  it('proposes a login that is not in use yet, and describes itself', async () => {
    const page = await world.inject({
      url: '/networks/guildhall/authorize?redirect_uri=http://x.example/&state=s',
    })
    expect(page.body).toMatch(/value="guildhall-one" checked/)
    await token('guildhall-one', 'guildhall')
    const next = await world.inject({
      url: '/networks/guildhall/authorize?redirect_uri=http://x.example/&state=s',
    })
    expect(next.body).toMatch(/value="guildhall-two" checked/)
    expect((await world.inject({ url: '/networks/guildhall/openapi.json' })).json()).toMatchObject({
      info: { title: 'Guildhall' },
      paths: { '/posts': expect.any(Object) },
    })
  })
})

it('lists everything there is on its front page', async () => {
  const { body } = await world.inject({ url: '/' })
  for (const words of ['Oakum Yard journal', 'Murmur', 'Guildhall', 'Shutterleaf', 'Trouble'])
    expect(body).toContain(words)
})
