import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { connectTo, emptyDatabase } from '../testing/browser'
import { openServers } from '../../../e2e/servers'
import { handbook, sites } from '../../../demo/content'
import { aBrand, anAccount, aPipeline, aRow, aWorkspace } from '../../../core/model/samples'
import type { FetchAnswer, Pipeline, Source } from '../../../core/model'
import { addListedFeeds, addSource, findFeeds } from '../actions/sources'
import { visitSource } from '../actions/visit'
import {
  giveTranscript,
  importSheet,
  openFile,
  readPasted,
  takePage,
  takeWriting,
  trySheet,
} from '../actions/writing'
import {
  dealWith,
  leaveChanged,
  letThrough,
  makeAgain,
  openPostsOf,
  saveWordList,
  unfold,
} from '../actions/pieces'
import { startDrip } from '../actions/drips'
import { setWorkspace } from '../api'
import { clockNow, nowIso, readClock } from '../clock'
import { all, commit, must, put, wholePiece } from '../store'
import { undo } from '../undo'
import { jump } from '.'
import { runPipelines } from './pipelines'
import { tick } from './tick'

const HOUR = 3_600_000
let servers: Awaited<ReturnType<typeof openServers>>
beforeAll(async () => {
  servers = await openServers({ sites: sites() })
  connectTo(servers.port)
  setWorkspace('ws')
})
afterAll(() => servers.close())
beforeEach(async () => {
  await emptyDatabase()
  await readClock()
  await commit('machine', [
    put('workspace', aWorkspace()),
    put('brands', aBrand()),
    put('accounts', anAccount({ id: 'murmur-one', network: 'murmur', remoteId: 'murmur-one' })),
  ])
})

const real = globalThis.fetch
let connected: typeof fetch
beforeEach(() => {
  connected = globalThis.fetch
})
afterEach(() => {
  vi.stubGlobal('fetch', connected)
})

/** Answers to what is fetched from made-up addresses; everything else goes to the stand-in world. */
function outside(answers: Record<string, string | Partial<FetchAnswer>>): {
  asked: { url: string; etag: string | null }[]
} {
  const asked: { url: string; etag: string | null }[] = []
  vi.stubGlobal('fetch', (path: string, init: RequestInit = {}) => {
    const body =
      path === '/api/intake/fetch'
        ? (JSON.parse(String(init.body)) as { url: string; etag: string | null })
        : null
    const answer = body && answers[body.url]
    if (!body || answer === undefined || answer === null) return (connected ?? real)(path, init)
    asked.push(body)
    const whole: FetchAnswer = {
      url: body.url,
      status: 200,
      contentType: 'text/xml',
      etag: '"1"',
      lastModified: null,
      unchanged: false,
      movedTo: null,
      retryAfter: null,
      trouble: null,
      text: '',
      ...(typeof answer === 'string' ? { text: answer } : answer),
    }
    return Promise.resolve(
      new Response(JSON.stringify(whole), { headers: { 'content-type': 'application/json' } }),
    )
  })
  return { asked }
}

const FEED = 'https://kiln.example/feed.xml'
/** Per topic a way of saying it, so that no two pieces tell the same. */
const SAYS: Record<string, (i: number) => string> = {
  bowl: (i) => `The bowl wants ${i + 2} hours in the kiln before anybody may lift it out.`,
  plate: (i) => `Dry a plate for ${i + 4} days on a flat board, because wet clay remembers every bend.`,
  jug: (i) => `Potters pull ${i + 3} handles for every jug, and throw the crooked ones back into the bucket.`,
  lid: (i) => `A lid shrinks by ${i + 5} per cent, so measure the gallery wet and cut it wider.`,
  tile: (i) => `Stack ${i + 6} tiles on edge with sand between them, because flat ones warp overnight.`,
  cup: (i) => `Customers return a cup that burns their fingers after ${i + 7} sips of soup.`,
  vase: (i) => `Narrow necks hold ${i + 8} tulips upright without any wire or moss inside the vase.`,
}
const prose = (topic: string): string =>
  Array.from({ length: 18 }, (_, i) => SAYS[topic]?.(i) ?? '').join(' ')
const item = (n: number, topic: string, extra = ''): string =>
  `<item><title>About the ${topic}</title><link>https://kiln.example/${n}</link><guid>${n}</guid><pubDate>${new Date(
    Date.UTC(2026, 9, n, 9),
  ).toUTCString()}</pubDate><description><![CDATA[<p>${prose(topic)}</p>]]></description>${extra}</item>`
const rss = (...items: string[]): string =>
  `<rss version="2.0"><channel><title>The kiln</title><link>https://kiln.example/</link>${items.join('')}</channel></rss>`
const TOPICS = ['bowl', 'plate', 'jug', 'lid', 'tile', 'cup']
const six = rss(...TOPICS.map((t, i) => item(i + 1, t)))

const site = (name: string, path = ''): string => `${servers.worldUrl.replace('//', `//${name}.`)}${path}`
const titles = async (source: string): Promise<string[]> =>
  (await all('pieces', 'source', source)).map((p) => p.title).sort()
const change = async (id: string, edit: Partial<Source>): Promise<void> => {
  await commit('machine', [put('sources', { ...(await must('sources', id)), ...edit })])
}
const pipeline = async (edit: Partial<Pipeline['takeIn']>): Promise<void> => {
  await commit('machine', [
    put(
      'pipelines',
      aPipeline({
        takeIn: { ...aPipeline().takeIn, since: '2026-01-01T00:00:00.000Z', ...edit },
        release: [aRow({ accounts: ['murmur-one'] })],
      }),
    ),
  ])
}

describe('what a source already holds', () => {
  it.each([
    [{ kind: 'nothing' } as const, []],
    [{ kind: 'last', count: 2 } as const, ['About the cup', 'About the tile']],
    [{ kind: 'from', day: '2026-10-04' } as const, ['About the cup', 'About the lid', 'About the tile']],
  ])('is left or taken as %o says, and what is left stays left', async (backlog, expected) => {
    outside({ [FEED]: six })
    const source = await addSource('brand', { url: FEED, title: 'The kiln' }, backlog)
    await visitSource(source)
    expect(await titles(source)).toEqual(expected)
    outside({ [FEED]: rss(item(9, 'vase'), ...TOPICS.map((t, i) => item(i + 1, t))) })
    await visitSource(source)
    expect(await titles(source)).toEqual([...expected, 'About the vase'].sort())
  })

  it('comes a few at a time, also while the feed itself stays as it is', async () => {
    const { asked } = outside({ [FEED]: six })
    const source = await addSource('brand', { url: FEED, title: 'The kiln' })
    await change(source, { mostNew: 4 })
    expect(await visitSource(source)).toBe(4)
    expect((await must('sources', source)).lastVisit?.message).toMatch(
      /4 new pieces\. 2 more wait for the next visit/,
    )
    expect(await visitSource(source)).toBe(2)
    await visitSource(source)
    expect(asked.map((a) => a.etag)).toEqual([null, null, '"1"'])
  })

  it('is tried again where a page did not answer', async () => {
    const short = rss(
      '<item><title>Short</title><link>http://no-such-kiln.invalid/1</link><guid>1</guid><description>In short.</description></item>',
    )
    const { asked } = outside({ [FEED]: short })
    const source = await addSource('brand', { url: FEED, title: 'The kiln' })
    expect(await visitSource(source)).toBe(0)
    expect((await must('sources', source)).lastVisit?.notes.join()).toMatch(
      /“Short” was left out: There is no site/,
    )
    await visitSource(source)
    expect(asked.map((a) => a.etag)).toEqual([null, null])
  })
})

describe('what a feed said while the app was closed', () => {
  /** The server as it answers for a source: snapshots, until they are forgotten. */
  function closed(feeds: readonly string[], now: Parameters<typeof outside>[0]): { left: () => number } {
    let snapshots = feeds.map((text, i) => ({ id: i + 1, at: '2026-11-20T10:00:00.000Z', text }))
    outside(now)
    const inner = globalThis.fetch as (path: string, init?: RequestInit) => Promise<Response>
    vi.stubGlobal('fetch', (path: string, init: RequestInit = {}) => {
      const asked = /^\/api\/watch\/[^/]+\/snapshots(?:\?upTo=(\d+))?$/.exec(path)
      if (!asked) return inner(path, init)
      if (init.method === 'DELETE') snapshots = snapshots.filter((s) => s.id > Number(asked[1]))
      return Promise.resolve(
        new Response(JSON.stringify(init.method === 'DELETE' ? { source: 's' } : { snapshots }), {
          headers: { 'content-type': 'application/json' },
        }),
      )
    })
    return { left: () => snapshots.length }
  }
  const fast = (...topics: [number, string][]) => rss(...topics.map(([i, t]) => item(i, t)))

  it('is taken in with what it says now, each item once', async () => {
    outside({ [FEED]: fast([1, 'bowl']) })
    const source = await addSource('brand', { url: FEED, title: 'The kiln' })
    await visitSource(source)
    const server = closed([fast([2, 'plate'], [3, 'jug']), fast([3, 'jug'], [4, 'lid'])], {
      [FEED]: fast([5, 'tile']),
    })
    expect(await visitSource(source)).toBe(4)
    expect(await titles(source)).toEqual(
      ['bowl', 'plate', 'jug', 'lid', 'tile'].map((t) => `About the ${t}`).sort(),
    )
    expect(server.left()).toBe(0)
    expect(await visitSource(source)).toBe(0)
  })

  it('is read also where the feed is now as the app saw it last, and kept until all of it is taken', async () => {
    outside({ [FEED]: fast([1, 'bowl']) })
    const source = await addSource('brand', { url: FEED, title: 'The kiln' })
    await visitSource(source)
    await change(source, { mostNew: 2 })
    const server = closed([fast([2, 'plate'], [3, 'jug']), fast([4, 'lid'])], {
      [FEED]: { unchanged: true },
    })
    expect(await visitSource(source)).toBe(2)
    expect(server.left()).toBe(2)
    expect(await visitSource(source)).toBe(1)
    expect(server.left()).toBe(0)
  })
})

describe('a source that is in trouble', () => {
  const trouble = (
    message: string,
    gone = false,
    waitSeconds: number | null = null,
  ): Partial<FetchAnswer> => ({
    status: 500,
    trouble: { message, gone, waitSeconds },
  })
  const visited = async (answer: Partial<FetchAnswer>): Promise<Source> => {
    outside({ [FEED]: answer })
    const source = await addSource('brand', { url: FEED, title: 'The kiln' })
    await visitSource(source)
    return must('sources', source)
  }

  it('that asks to be left alone is left alone as long as it asks', async () => {
    const source = await visited(trouble('kiln.example asks us to come less often (429).', false, 6 * 3600))
    expect(Date.parse(source.nextVisitAt ?? '') - clockNow()).toBeGreaterThan(5.9 * HOUR)
    expect(source.lastVisit).toMatchObject({ ok: false, message: /less often/ })
  })

  it('that is gone for good is not visited any more, and says so', async () => {
    const source = await visited(trouble('kiln.example says that this is gone for good.', true))
    expect(source).toMatchObject({ nextVisitAt: null, held: { reason: /gone for good/ } })
  })

  it('that moved for good is remembered at its new address', async () => {
    const source = await visited({ text: six, movedTo: 'https://kiln.example/new.xml' })
    expect(source).toMatchObject({ url: 'https://kiln.example/new.xml', movedFrom: FEED, failures: 0 })
  })

  it('that became a web page is a fault in plain words', async () => {
    const source = await visited({ text: '<!doctype html><html><body><p>Hello.</p></body></html>' })
    expect(source.lastVisit).toMatchObject({ ok: false, message: /a web page now where the feed was/ })
  })
})

describe('an item that changed at its source', () => {
  const before = rss(item(1, 'bowl'), item(2, 'plate'))
  const after = rss(item(1, 'bowl').replace('wants 3 hours', 'wants thirty hours'), item(2, 'plate'))

  async function dripped(): Promise<{ source: string; id: string }> {
    outside({ [FEED]: before })
    const source = await addSource('brand', { url: FEED, title: 'The kiln' })
    await visitSource(source)
    const id = (await all('pieces')).find((p) => p.title === 'About the bowl')?.id ?? ''
    await startDrip({
      piece: id,
      accounts: ['murmur-one'],
      rhythm: { name: 'Mine', list: [0, 3, 9] },
      startDay: nowIso().slice(0, 10),
      gate: 'nothing',
      pipeline: null,
      actor: 'machine',
    })
    outside({ [FEED]: after })
    await visitSource(source)
    return { source, id }
  }

  it('is kept as its next revision and counted in the visit; the others stay', async () => {
    const { source, id } = await dripped()
    expect((await must('sources', source)).lastVisit?.message).toMatch(
      /Nothing new\. 1 changed at the source\./,
    )
    const piece = await wholePiece(id)
    expect(piece.revision).toBe(2)
    expect(piece.changedAt).not.toBeNull()
    expect(piece.text).toContain('thirty hours')
    expect((await must('texts', `${id}.1`)).text).toContain('wants 3 hours')
    expect((await all('pieces')).filter((p) => p.changedAt !== null)).toHaveLength(1)
  })

  it('leaves its posts as they are, or makes those to come again from the new words', async () => {
    const { id } = await dripped()
    const old = (await openPostsOf(id)).map((p) => p.id)
    await leaveChanged(id)
    expect((await must('pieces', id)).changedAt).toBeNull()
    expect((await openPostsOf(id)).map((p) => p.id)).toEqual(old)
    expect(await makeAgain(id, () => undefined)).toBe(1)
    const fresh = await openPostsOf(id)
    expect(fresh.length).toBeGreaterThan(0)
    expect(fresh.map((p) => [p.pieceRevision, p.state])).toEqual(fresh.map(() => [2, 'for review']))
    for (const post of old) expect((await must('posts', post)).state).toBe('set aside')
    const text = (await wholePiece(id)).text
    for (const p of fresh)
      for (const { start, end } of p.wording.spans)
        expect(end).toBeLessThanOrEqual(text.length + start - start)
  })

  it('comes in with the time of the world as well: the yard’s open day changes its soup', async () => {
    const [feed] = await findFeeds(site('oakum-yard', '/feed.xml'))
    const source = await addSource('brand', feed!)
    await visitSource(source)
    await jump(4 * 24 * HOUR)
    await visitSource(source)
    const changed = (await all('pieces')).filter((p) => p.changedAt !== null)
    expect(changed.map((p) => p.title)).toEqual([expect.stringMatching(/^Open day/)])
  }, 120_000)
})

describe('doubles', () => {
  it('fold under the first across sources, in other clothes and in part, and unfold for good', async () => {
    const other = 'https://copies.example/feed.xml'
    outside({
      [FEED]: six,
      [other]: rss(
        item(20, 'jug').replace('https://kiln.example/20', 'http://www.kiln.example/3/?utm_source=x'),
        item(21, 'lid').replace('<title>About the lid</title>', '<title>What a lid is for</title>'),
        item(22, 'vase'),
      ),
    })
    const source = await addSource('brand', { url: FEED, title: 'The kiln' })
    await visitSource(source)
    const copies = await addSource('brand', { url: other, title: 'Copies' })
    await visitSource(copies)
    const byTitle = new Map((await all('pieces')).map((p) => [`${p.source === copies} ${p.title}`, p]))
    expect(byTitle.get('true About the jug')?.double).toMatchObject({
      of: byTitle.get('false About the jug')?.id,
      why: 'the same address',
    })
    const lid = byTitle.get('true What a lid is for')
    expect(lid?.double).toMatchObject({
      of: byTitle.get('false About the lid')?.id,
      why: 'the same story',
      likeness: 1,
    })
    expect(byTitle.get('true About the vase')?.double).toBeNull()
    await unfold(lid?.id ?? '', true)
    await visitSource(copies)
    expect((await must('pieces', lid?.id ?? '')).unfolded).toBe(true)
    expect(await undo('brand')).toMatch(/^Unfold/)
  })
})

describe('a pipeline’s sieve', () => {
  async function kiln(edit: Partial<Pipeline['takeIn']> = {}): Promise<Map<string, string>> {
    outside({ [FEED]: six })
    const [source] = await addListedFeeds('brand', [{ url: FEED, title: 'The kiln', group: 'Clay' }], {
      kind: 'everything',
    })
    await visitSource(source ?? '')
    await pipeline({ sources: [], groups: ['Clay'], ...edit })
    return new Map((await all('pieces')).map((p) => [p.title.replace('About the ', ''), p.id]))
  }
  const none = (...words: string[]): Pipeline['takeIn']['sieve'] => [
    { kind: 'words', need: 'none', words, lists: [], where: 'the title' },
  ]
  const dripping = async (): Promise<string[]> => {
    const drips = await all('drips')
    return (await Promise.all(drips.map(async (d) => (await must('pieces', d.piece)).title))).sort()
  }

  it('drips what passes from its group, and writes on the others what caught them', async () => {
    const ids = await kiln({ sieve: none('lid', 'tile', 'cup', 'jug') })
    await runPipelines()
    expect(await dripping()).toEqual(['About the bowl', 'About the plate'])
    expect((await must('pieces', ids.get('lid') ?? '')).verdicts).toMatchObject([
      { passed: false, reason: expect.stringMatching(/“lid” in the title/) as string },
    ])
    await runPipelines()
    expect(await all('drips')).toHaveLength(2)
  })

  it('looks into the words of the piece, not into the furniture around them', async () => {
    const ids = await kiln({
      sieve: [
        {
          kind: 'words',
          need: 'none',
          words: ['tulips', 'letter'],
          lists: [],
          where: 'the title and the text',
        },
      ],
    })
    const bowl = await must('texts', `${ids.get('bowl')}.1`)
    const line = 'Subscribe to our letter, every week in your inbox.'
    const start = bowl.text.length + 2
    const block = {
      kind: 'paragraph' as const,
      start,
      end: start + line.length,
      furniture: 'call to subscribe',
    }
    await commit('machine', [
      put('texts', { ...bowl, text: `${bowl.text}\n\n${line}`, blocks: [...bowl.blocks, block] }),
    ])
    await runPipelines()
    expect(await dripping()).toContain('About the bowl')
  })

  it('yields to a person: one let through is dripped, one set aside never', async () => {
    const ids = await kiln({ sieve: none('lid', 'tile', 'cup', 'jug') })
    await letThrough([ids.get('lid') ?? ''], true)
    await dealWith([ids.get('bowl') ?? ''], true)
    await runPipelines()
    expect(await dripping()).toEqual(['About the lid', 'About the plate'])
  })

  it('catches what a shared list of words says, as soon as the list says it', async () => {
    await commit('machine', [
      put('wordLists', {
        id: 'w',
        brand: 'brand',
        name: 'Not us',
        words: ['lid', 'tile', 'cup', 'jug', 'plate'],
      }),
    ])
    const ids = await kiln({
      sieve: [{ kind: 'words', need: 'none', words: [], lists: ['w'], where: 'the title and the text' }],
    })
    await runPipelines()
    expect(await dripping()).toEqual(['About the bowl'])
    await saveWordList({ id: 'w', brand: 'brand', name: 'Not us', words: ['tile', 'cup', 'jug', 'plate'] })
    await runPipelines()
    expect(await dripping()).toEqual(['About the bowl', 'About the lid'])
    expect((await must('pieces', ids.get('tile') ?? '')).dealt).toBeNull()
  })

  it('lets no double through, and nothing go out after it has aged', async () => {
    const today = nowIso().slice(0, 10)
    const in_ = (days: number) => new Date(Date.parse(today) + days * 24 * HOUR).toISOString().slice(0, 10)
    const ids = await kiln({ sieve: none('tile', 'cup', 'jug') })
    const edit = async (name: string, change: object) => {
      const piece = await must('pieces', ids.get(name) ?? '')
      await commit('machine', [put('pieces', { ...piece, ...change })])
    }
    await edit('lid', { double: { of: ids.get('jug'), likeness: 0.9, why: 'the same story' } })
    await edit('bowl', { keeps: { span: 'weeks', until: in_(1), phrases: [] } })
    await edit('plate', { keeps: { span: 'past', until: in_(-1), phrases: [] } })
    await runPipelines()
    expect(await dripping()).toEqual(['About the bowl'])
    expect((await all('drips'))[0]?.days).toEqual([0])
    expect((await must('pieces', ids.get('plate') ?? '')).trouble).toMatch(/could not drip it: it kept until/)
  })
})

describe('a content sheet', () => {
  const bytes = (text: string) => new TextEncoder().encode(text)
  const csv = (stage: string) =>
    `Headline;Link;Stage;Notes\nReading rot;${site('oakum-yard', '/reading-rot')};ready;one\nOars;${site('oakum-yard', '/no-such')};ready;two\nLarch;${site('oakum-yard', '/larch-or-oak')};${stage};three\n`
  async function imported(stage: string, into: string | null = null): Promise<string> {
    const file = await openFile('list.csv', bytes(csv(stage)))
    if (file.kind !== 'sheet') throw new Error(file.kind)
    const reading = { ...file.reading, ready: ['ready'] }
    return importSheet('brand', into, 'List', file.table, reading)
  }

  it('gives its ready rows one a visit, the oldest first; a row that cannot be had is said and passed over', async () => {
    const source = await imported('idea')
    expect(await visitSource(source)).toBe(1)
    expect((await all('pieces', 'source', source))[0]).toMatchObject({ title: 'Reading rot', notes: 'one' })
    expect(await visitSource(source)).toBe(0)
    const rows = await all('sheetRows', 'source', source)
    expect(rows.find((r) => r.title === 'Oars')?.trouble).toMatch(/nothing at this address/)
    expect(await visitSource(source)).toBe(0)
    expect((await must('sources', source)).lastVisit?.message).toMatch(/No row is ready/)
  })

  it('imported again changes only what changed, and what was taken stays taken', async () => {
    const source = await imported('idea')
    await visitSource(source)
    const file = await openFile('list.csv', bytes(csv('ready')))
    if (file.kind !== 'sheet') throw new Error(file.kind)
    const merge = await trySheet(source, file.table, { ...file.reading, ready: ['ready'] })
    expect([merge.added.length, merge.changed.map((r) => r.title), merge.same]).toEqual([0, ['Larch'], 2])
    await imported('ready', source)
    expect(await all('sheetRows', 'source', source)).toHaveLength(3)
    await visitSource(source)
    expect(await visitSource(source)).toBe(1)
    expect(await titles(source)).toEqual(['Larch', 'Reading rot'])
  })
})

describe('one page alone', () => {
  it('is a film with its words, or an article; taken in again it is revised, not doubled', async () => {
    const film = await takePage('brand', site('oakum-yard', '/films/paying-a-seam'))
    expect(await must('pieces', film)).toMatchObject({ kind: 'video', trouble: null, revision: 1 })
    expect((await must('pieces', film)).video?.seconds).toBeGreaterThan(60)
    expect(await takePage('brand', site('oakum-yard', '/films/paying-a-seam?utm_source=x'))).toBe(film)
    const article = await takePage('brand', site('fernhollow', '/blisters'))
    expect(await must('pieces', article)).toMatchObject({ kind: 'article', revision: 1 })
    expect((await must('pieces', article)).words).toBeGreaterThan(300)
    expect((await all('sources')).map((s) => s.title)).toEqual(['Single pages'])
    await expect(takePage('brand', site('fernhollow', '/no-such'))).rejects.toThrow(/nothing at this address/)
    expect(await all('pieces')).toHaveLength(2)
  })

  it('does not take from a film the words that a person gave it', async () => {
    const film = await takePage('brand', site('oakum-yard', '/films/paying-a-seam'))
    await giveTranscript(film, 'WEBVTT\n\n00:01.000 --> 00:09.000\nThese words were written down by hand.')
    expect(await takePage('brand', site('oakum-yard', '/films/paying-a-seam'))).toBe(film)
    expect((await wholePiece(film)).text).toBe('These words were written down by hand.')
  })
})

describe('writing of one’s own', () => {
  it('comes in by the chapter, and again as revisions of the same chapters', async () => {
    const file = await openFile('handbook.md', new TextEncoder().encode(handbook().markdown))
    if (file.kind !== 'writing') throw new Error(file.kind)
    const ids = await takeWriting('brand', file.title, file.chapters, 'manuscript')
    expect(ids).toHaveLength(2)
    const edited = await openFile(
      'handbook.md',
      new TextEncoder().encode(
        `${handbook().markdown}\n\nOne more paragraph, which somebody wrote by the stove in the night.`,
      ),
    )
    if (edited.kind !== 'writing') throw new Error(edited.kind)
    expect(await takeWriting('brand', edited.title, edited.chapters, 'manuscript')).toEqual(ids)
    const revisions = await Promise.all(ids.map(async (id) => (await must('pieces', id)).revision))
    expect(revisions.sort()).toEqual([1, 2])
    expect(await all('sources')).toHaveLength(1)
  })

  it('a Word document, a list of feeds and a talk are known for what they are', async () => {
    const kind = async (name: string, data: Uint8Array | string) =>
      (await openFile(name, typeof data === 'string' ? new TextEncoder().encode(data) : data)).kind
    expect(await kind('winter.docx', handbook().docx)).toBe('writing')
    expect(
      await kind(
        'feeds.opml',
        `<opml version="2.0"><body><outline text="x" xmlUrl="${FEED}"/></body></opml>`,
      ),
    ).toBe('feeds')
    expect(await kind('talk.vtt', 'WEBVTT\n\n00:01.000 --> 00:04.000\nRake it.')).toBe('transcript')
    await expect(openFile('photo.png', new Uint8Array([0x89, 0x50, 0, 0, 0]))).rejects.toThrow(
      /not a text file/,
    )
  })

  it('what is pasted is read as a piece, an address or the words, and kept nowhere', async () => {
    const page = await readPasted('brand', `  ${site('oakum-yard', '/reading-rot')}\n`)
    expect(page.piece).toMatchObject({ title: 'Reading rot with a screwdriver', kind: 'article' })
    expect(page.passages.some((p) => p.choice === 'kept')).toBe(true)
    const kiln =
      '# Kilns\n\nA kiln of two metres wants nine hours before anybody may open it.\n\n- Rake.\n- Wait.'
    const written = await readPasted('brand', kiln)
    expect([written.piece.title, written.piece.text]).toEqual([
      'Kilns',
      'A kiln of two metres wants nine hours before anybody may open it.\n\nRake.\n\nWait.',
    ])
    // However many chapters it has, it travels as one.
    const chapters = await readPasted('brand', '# Kilns\n\nA kiln cracks.\n\n# Lamps\n\nA lamp hums.')
    expect([chapters.piece.kind, chapters.piece.text]).toEqual([
      'manuscript',
      'A kiln cracks.\n\nLamps\n\nA lamp hums.',
    ])
    const talk = await readPasted(
      'brand',
      'WEBVTT\n\n00:01.000 --> 00:04.000\nA kiln cracks where it is thin.',
    )
    expect(talk.piece).toMatchObject({ kind: 'video', text: 'A kiln cracks where it is thin.' })
    await expect(
      readPasted('brand', '<rss version="2.0"><channel><title>x</title></channel></rss>'),
    ).rejects.toThrow('This is a feed')
    expect((await readPasted('brand', '<p>A kiln <b>cracks</b>.</p>')).piece.text).toBe('A kiln cracks.')
    for (const nothing of ['  ', '<p></p>', '***'])
      await expect(readPasted('brand', nothing)).rejects.toThrow(/[Pp]aste|words/)
    expect([await all('pieces'), await all('sources')]).toEqual([[], []])
  })

  it('a film without words is given them, and then has passages', async () => {
    const film = `<feed xmlns="http://www.w3.org/2005/Atom" xmlns:media="http://search.yahoo.com/mrss/"><title>Films</title><id>f</id><entry><id>1</id><title>A film</title><link href="https://kiln.example/film"/><updated>2026-10-01T00:00:00Z</updated><media:group><media:content url="https://kiln.example/film.mp4" type="video/mp4" duration="60"/><media:description>What we do.</media:description></media:group></entry></feed>`
    outside({ [FEED]: film })
    const source = await addSource('brand', { url: FEED, title: 'Films' })
    await visitSource(source)
    const [piece] = await all('pieces', 'source', source)
    expect(piece).toMatchObject({ kind: 'video', trouble: expect.stringMatching(/no transcript/) as string })
    await giveTranscript(
      piece?.id ?? '',
      'WEBVTT\n\n00:01.000 --> 00:09.000\nA kiln of two metres wants nine hours before anybody may open it.\n\n00:10.000 --> 00:18.000\nA cup cracks along the line where its handle was joined to it.',
    )
    expect(await must('pieces', piece?.id ?? '')).toMatchObject({
      trouble: null,
      changedAt: null,
      revision: 2,
    })
    expect((await all('passages', 'piece', piece?.id ?? '')).length).toBeGreaterThan(0)
    await tick()
  })
})
