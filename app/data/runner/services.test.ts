import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { connectTo, emptyDatabase } from '../testing/browser'
import { openServers } from '../../../e2e/servers'
import { oakumYard } from '../../../demo/content'
import { Brief, HouseStyle, type Post, type WriterState } from '../../../core/model'
import { aBrand, anAccount, aWorkspace } from '../../../core/model/samples'
import { network } from '../../../core/networks'
import { get, setWorkspace } from '../api'
import { clockNow, readClock } from '../clock'
import { connectedWording } from '../actions/connected'
import { startDrip, tryDrip } from '../actions/drips'
import { keepHandPosts, tryHandPosts } from '../actions/hand'
import { editText } from '../actions/posts'
import { choosePassagesConnected } from '../actions/passages'
import { addSource, findFeeds } from '../actions/sources'
import { takeWording } from '../actions/captions'
import { visitSource } from '../actions/visit'
import { askWriter, connectShortener, connectWriter, tryWriter } from '../services'
import { all, commit, must, patch, put, wholePiece } from '../store'
import { undo } from '../undo'
import { calendarAddress, endCalendar, renewCalendar } from './calendars'
import { jump } from '.'
import { tick } from './tick'

/* Drips, hand-over and looking at links with the outside services of the stand-in world. */

const HOUR = 3_600_000
let servers: Awaited<ReturnType<typeof openServers>>
let piece = ''
beforeAll(async () => {
  servers = await openServers({
    sites: [oakumYard()],
    patience: { answerMilliseconds: 4000, pauseMilliseconds: 5, retries: 0 },
  })
  connectTo(servers.port)
  setWorkspace('ws')
  await connectWriter(
    {
      address: `${servers.worldUrl}/writer/v1`,
      model: 'workshop-1',
      creativity: 0.5,
      length: 400,
      dailyWords: 1_000_000,
    },
    'workshop-key',
  )
  await connectShortener({ address: `${servers.worldUrl}/links` }, 'workshop-key')
})
afterAll(() => servers.close())

const control = (path: string, body: object) =>
  fetch(`${servers.worldUrl}/control/${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  })
const VICES = ['too long', 'invented number', 'markup fence', 'refusal', 'nonsense', 'too many requests']
const vice = async (name: string | null, count = 500): Promise<void> => {
  for (const each of VICES) await control('vice', { vice: each, count: each === name ? count : 0 })
}

/** What the visit of the source took in: it is read once, and laid there anew for each test. */
const TAKEN = ['sources', 'pieces', 'texts', 'sketches', 'passages'] as const
let taken: ReturnType<typeof put>[][] | null = null

beforeEach(async () => {
  await vice(null)
  await emptyDatabase()
  await readClock()
  await commit('machine', [
    put('workspace', aWorkspace()),
    put('brands', aBrand({ houseStyle: HouseStyle.parse({ writer: 'connected' }) })),
    ...['murmur', 'guildhall', 'shutterleaf'].map((id) => {
      const account = anAccount({ id: `${id}-one`, network: id, remoteId: `${id}-one`, gapMinutes: 0 })
      return put('accounts', account)
    }),
  ])
  if (taken === null) {
    const [feed] = (await findFeeds(`${servers.worldUrl.replace('//', '//oakum-yard.')}/feed.xml`)) ?? []
    await visitSource(await addSource('brand', feed!))
    taken = await Promise.all(TAKEN.map(async (table) => (await all(table)).map((row) => put(table, row))))
  } else await commit('machine', taken.flat())
  piece = (await all('pieces')).find((p) => p.title.includes('Caulking'))!.id
})

const drip = async (accounts = ['murmur-one', 'guildhall-one']): Promise<Post[]> => {
  const id = await startDrip({
    piece,
    accounts,
    rhythm: { name: 'Mine', list: [0, 3, 9] },
    startDay: '2026-12-01',
    gate: 'what is flagged',
    pipeline: null,
    actor: { brand: 'brand', label: 'Start a drip' },
  })
  return all('posts', 'drip', id)
}

describe('a drip by the connected writer', () => {
  it('has its captions, fitted and checked, with the built-in writer’s kept beside them', async () => {
    const posts = await drip()
    const hers = posts.filter((p) => p.wording.by === 'connected')
    expect(hers.length).toBeGreaterThan(posts.length / 2)
    for (const post of hers) {
      expect(post.others[0]?.by).toBe('built-in')
      expect(post.fallback).toBeNull()
      expect(post.checks.filter((c) => c.severity === 'block')).toEqual([])
      expect(post.wording.text.length).toBeLessThanOrEqual(network(post.network).text.limit ?? Infinity)
    }
    for (const post of posts.filter((p) => p.wording.by === 'built-in'))
      expect(post.fallback).toContain('could not go out')
  })

  it.each(['invented number', 'refusal', 'nonsense'])(
    'that answers with the vice “%s” is written by the built-in writer, which says why',
    async (name) => {
      await vice(name)
      const posts = await drip(['murmur-one'])
      expect(posts.length).toBeGreaterThan(0)
      for (const post of posts) {
        expect(post.wording.by).toBe('built-in')
        expect(post.fallback).toMatch(/The connected writer’s answer could not go out: .+/)
        expect(post.wording.text.replace(/https?:\S+/, '')).not.toContain('87')
      }
    },
  )

  it('is asked for once, for all its posts together', async () => {
    const before = (await get<WriterState>('/api/writer')).questions
    const posts = await drip()
    const questions = (await get<WriterState>('/api/writer')).questions - before
    const sentBack = posts.filter((p) => p.fallback).length
    expect(posts.length).toBeGreaterThan(4)
    expect(questions).toBeLessThan(posts.length)
    expect(questions).toBeGreaterThanOrEqual(1 + sentBack)
  })

  it('chooses passages by the numbers of sentences; a person’s own stay, and undo brings the others back', async () => {
    const text = await wholePiece(piece)
    const before = await all('passages', 'piece', piece)
    const [byHand] = before
    await commit('machine', [put('passages', { ...byHand!, by: 'person', choice: 'kept' })])
    const mine = await all('passages', 'piece', piece)
    const chose = await choosePassagesConnected(text, mine)
    const after = await all('passages', 'piece', piece)
    const kept = after.filter((p) => p.choice === 'kept' && p.by === 'machine')
    expect(kept).toHaveLength(chose)
    for (const p of kept) expect(text.text.slice(p.start, p.end)).toBe(p.text)
    expect(after.find((p) => p.id === byHand!.id)).toMatchObject({ by: 'person', choice: 'kept' })
    await undo('brand')
    expect(new Set(await all('passages', 'piece', piece))).toEqual(new Set(mine))
  })

  it('that talks around its answer or writes too much is freed of that or sent back', async () => {
    for (const name of ['markup fence', 'too long']) {
      await vice(name, 1)
      const [post] = await drip(['murmur-one'])
      expect([name, /```|Sure/.test(post!.wording.text)]).toEqual([name, false])
      expect(post!.wording.text.length).toBeLessThan(500)
    }
  })

  it('that does not answer is asked no more after three times, and every post says why', async () => {
    await vice('too many requests')
    const posts = await drip(['murmur-one', 'guildhall-one', 'shutterleaf-one'])
    expect(posts.length).toBeGreaterThan(6)
    expect(new Set(posts.map((p) => p.wording.by))).toEqual(new Set(['built-in']))
    for (const post of posts) expect(post.fallback).toContain('asks to be asked less often')
  })

  it('is not asked for an example on the bench', async () => {
    const words = async () => (await servers.call<{ words: number }>('GET', '/api/writer')).body.words
    const before = await words()
    const request = {
      piece,
      accounts: ['murmur-one'],
      rhythm: { name: 'Mine', list: [0] },
      startDay: '2026-12-01',
      gate: 'everything' as const,
      pipeline: null,
    }
    expect((await tryDrip(request)).result.posts[0]?.wording.by).toBe('built-in')
    expect(await words()).toBe(before)
  })
})

describe('another wording by the connected writer', () => {
  it('is offered like any other, and taken with the one before kept', async () => {
    await vice('refusal')
    const posts = await drip()
    await vice(null)
    // The stand-in is no better than it is: of six captions one at least can go out.
    const made = await Promise.all(
      posts.map(async (post) => ({ post, option: (await connectedWording(post.id).catch(() => []))[0] })),
    )
    const { post, option } = made.find((m) => m.option) ?? {}
    expect(option?.wording.by).toBe('connected')
    await takeWording(post!.id, option!)
    const now = await must('posts', post!.id)
    expect(now).toMatchObject({ fallback: null, others: [{ by: 'built-in' }, ...now.others.slice(1)] })
  })

  it('says why there is none, and leaves the caption', async () => {
    const [post] = await drip(['murmur-one'])
    await vice('nonsense')
    await expect(connectedWording(post!.id)).rejects.toThrow(/something else than the passage.*stays/s)
    expect(await must('posts', post!.id)).toEqual(post)
  })

  it('is one small question when it is tried', async () => {
    expect((await tryWriter()).text).toBe('Yes, I am ready.')
    await vice('refusal', 1)
    expect((await askWriter([{ role: 'user', content: '"""\nA.\n"""' }])).text).toContain('can’t help')
  })
})

describe('links', () => {
  const style = (change: object) =>
    commit('machine', [patch('brands', 'brand', (b) => ({ ...b, houseStyle: HouseStyle.parse(change) }))])
  const dueIn = (post: Post, hours: number) =>
    commit('machine', [
      patch('posts', post.id, (p) => ({
        ...p,
        state: 'approved',
        at: new Date(clockNow() + hours * HOUR).toISOString(),
      })),
    ])
  const out = async (post: Post): Promise<string> => {
    await dueIn(post, 1)
    await jump(2 * HOUR)
    const { publicUrl } = await must('posts', post.id)
    return (await fetch(publicUrl!)).text()
  }

  it('go out short where the servers wants it, lead on, and stay long in the caption', async () => {
    await style({ shortLinks: true, linkTags: [{ name: 'utm_source', value: '{network}' }] })
    const [post] = await drip(['murmur-one'])
    const page = await out(post!)
    const { shortLink, link, wording } = await must('posts', post!.id)
    expect(page).toContain(shortLink)
    expect(page).not.toContain('utm_source')
    expect(wording.text).toContain(link)
    const followed = await fetch(shortLink!, { redirect: 'manual' })
    expect(followed.headers.get('location')).toBe(link)
  })

  it('that stand in the profile are on the brand’s page once their post is out', async () => {
    await style({})
    const brief = Brief.parse({ network: 'murmur', link: 'profile' })
    await commit('machine', [patch('brands', 'brand', (b) => ({ ...b, briefs: [brief] }))])
    const [post] = await drip(['murmur-one'])
    const page = async () => (await fetch(`http://localhost:${servers.port}/links/brand`)).text()
    await dueIn(post!, 3)
    await tick()
    expect(await page()).not.toContain('Caulking')
    await out(post!)
    expect(await page()).toContain('Caulking a seam that stays shut')
    expect(await page()).toContain(post!.link)
  })

  it('to a page that is gone are flagged and their posts held, until it is back', async () => {
    await style({})
    const [first] = await drip(['murmur-one'])
    await dueIn(first!, 200)
    await tick()
    expect((await must('posts', first!.id)).state).toBe('handed over')
    const slug = new URL(first!.link!).pathname.slice(1)
    await control('page', { page: `oakum-yard/${slug}`, away: 'yes' })
    await jump(80 * HOUR)
    const held = await must('posts', first!.id)
    expect(held.held?.reason).toMatch(/^Its link leads nowhere: There is nothing at this address/)
    expect(held.state).toBe('approved')
    expect(held.checks).toContainEqual(expect.objectContaining({ code: 'link-broken', severity: 'flag' }))
    await control('page', { page: `oakum-yard/${slug}`, away: 'no' })
    await jump(80 * HOUR)
    const back = await must('posts', first!.id)
    expect(back.held).toBeNull()
    expect(back.checks.some((c) => c.code === 'link-broken')).toBe(false)
  })

  it('that a person typed are looked after too, until they lead somewhere', async () => {
    await style({})
    const { url } = await must('pieces', piece)
    const words = (text: string, link: string | null) => ({
      words: { title: null, text, link, picture: null },
      accounts: ['murmur-one'],
      on: null,
      earliest: null,
      latest: null,
    })
    const made = await tryHandPosts(
      'brand',
      [
        words('The tools are laid out; come and look.', `${url}-gone`),
        words(`What we keep by the bench: ${url}-gone`, null),
        words(`How a seam is caulked: ${url}`, null),
      ],
      { kind: 'next openings' },
    )
    await keepHandPosts('brand', made)
    const ids = made.map((m) => m.post.id)
    for (const { post } of made) await dueIn(post, 200)
    await tick()
    const now = await Promise.all(ids.map((id) => must('posts', id)))
    expect(now.map((p) => p.held?.reason.slice(0, 23) ?? null)).toEqual([
      'Its link leads nowhere:',
      'Its link leads nowhere:',
      null,
    ])
    expect(now.map((p) => p.checks.some((c) => c.code === 'link-broken'))).toEqual([true, true, false])
    await editText(ids[1]!, `What we keep by the bench: ${url}`)
    await jump(HOUR)
    const mended = await must('posts', ids[1]!)
    expect([mended.held, mended.checks.some((c) => c.code === 'link-broken')]).toEqual([null, false])
  })
})

describe('a calendar’s address', () => {
  const events = async (url: string): Promise<string[]> =>
    [...(await (await fetch(url)).text()).matchAll(/^UID:(.+)@dripline\r?$/gm)]
      .map((m) => m[1] ?? '')
      .toSorted()
  const standing = async (account?: string): Promise<string[]> =>
    (await all('posts'))
      .filter((p) => p.at !== null && (!account || p.account === account))
      .map((p) => p.id)
      .toSorted()

  it('shows the posts of all accounts or of one, and follows what changes', async () => {
    await drip()
    expect(await calendarAddress('brand')).toBeNull()
    const url = await renewCalendar('brand')
    expect(url).toMatch(/\/calendar\/[\w-]{32}\.ics$/)
    const answer = await fetch(url!)
    expect(answer.headers.get('content-type')).toContain('text/calendar')
    expect(await events(url!)).toEqual(await standing())
    expect(await events(`${url}?account=murmur-one`)).toEqual(await standing('murmur-one'))
    const [first] = await standing()
    await commit('machine', [patch('posts', first!, (p) => ({ ...p, state: 'set aside', at: null }))])
    await tick()
    expect(await events(url!)).toEqual(await standing())
    expect(await calendarAddress('brand')).toBe(url)
  })

  it('is another one once it was renewed, and none once it was ended; the old answers no more', async () => {
    await drip(['murmur-one'])
    const first = await renewCalendar('brand')
    const second = await renewCalendar('brand')
    expect(second).not.toBe(first)
    expect((await fetch(first!)).status).toBe(404)
    expect(await events(second!)).toEqual(await standing())
    await endCalendar('brand')
    const gone = await fetch(second!)
    expect([gone.status, ((await gone.json()) as { message: string }).message]).toEqual([
      404,
      expect.stringContaining('copy it anew from the Horizon'),
    ])
    expect(await calendarAddress('brand')).toBeNull()
    await tick()
  })

  it('is told to no other workspace', async () => {
    await renewCalendar('brand')
    setWorkspace('another')
    await expect(calendarAddress('brand')).rejects.toThrow(/Another browser/)
    setWorkspace('ws')
    await endCalendar('brand')
  })
})
