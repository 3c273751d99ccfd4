import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { emptyDatabase } from '../testing/browser'
import { withServers } from '../testing/servers'
import { PLAIN_MAKE, type Follow, type Pipeline, type Post } from '../../../core/model'
import {
  aBrand,
  aDrip,
  aPipeline,
  aPost,
  aRow,
  aSource,
  aWorkspace,
  anAccount,
} from '../../../core/model/samples'
import { takeWriting, toPassages } from '../../../core/pipeline'
import { readFragment } from '../../../core/reading'
import { readArticle } from '../../../demo/content'
import { savePipeline } from '../actions/pipelines'
import { nowIso, readClock } from '../clock'
import { connectChat, disconnectChat } from '../services'
import { all, commit, must, patch, put, putPiece } from '../store'
import { publishDocuments } from './documents'
import { followUp } from './follow'
import { runPipelines } from './pipelines'

/* What follows pipelines, with a real server and the stand-in chat. */

let made = 0
const article = readArticle(
  readFileSync(join(import.meta.dirname, '../../../demo/content/oakum-yard/oars-that-fit.md'), 'utf8'),
)
const piece = {
  ...takeWriting(
    readFragment(article.html, { title: 'Oars' }),
    { id: 'piece', brand: 'brand', source: 'source', now: '2026-01-01T10:00:00.000Z' },
    { itemId: 'oars', kind: 'article' },
  ),
  dealt: { by: 'Journal', at: '2026-01-02T10:00:00.000Z' },
}
const passages = toPassages(piece, () => `passage ${made++}`)

const servers = withServers()

const hoursAgo = (hours: number): string => new Date(Date.parse(nowIso()) - hours * 3_600_000).toISOString()
const heard = async (): Promise<string[]> => {
  const { messages } = (await (await fetch(`${servers().worldUrl}/chat/messages`)).json()) as {
    messages: { text: string }[]
  }
  return messages.map((m) => m.text).slice(already)
}
/** How much the chat heard in the tests before. */
let already = 0

const says = (when: 'is taken in' | 'is published' | 'fails' | 'is finished', text: string): Follow => ({
  kind: 'chat',
  id: `says ${when}`,
  when,
  text,
})
const handsOn = (takes: 'the finished piece' | 'the published posts', pipeline = 'next'): Follow => ({
  kind: 'pipeline',
  id: 'hands on',
  pipeline,
  takes,
})
const setPipeline = (change: Partial<Pipeline>): Promise<unknown> =>
  commit('machine', [put('pipelines', aPipeline({ savedAt: hoursAgo(40), ...change }))])
const setPost = (change: Partial<Post>): Promise<unknown> =>
  commit('machine', [
    put(
      'posts',
      aPost({
        pipeline: 'pipeline',
        drip: 'drip',
        piece: 'piece',
        account: 'one',
        state: 'published',
        publishedAt: hoursAgo(1),
        publicUrl: `https://murmur.example/${change.id}`,
        ...change,
      }),
    ),
  ])
const next = aPipeline({
  id: 'next',
  name: 'Round',
  takeIn: { ...aPipeline().takeIn, sources: [] },
  make: PLAIN_MAKE,
  release: [aRow({ id: 'r', accounts: ['hall'], by: { kind: 'next openings', posts: 1 } })],
})

beforeEach(async () => {
  await emptyDatabase()
  await readClock()
  await connectChat({ address: `${servers().worldUrl}/chat/hooks/workshop` })
  already = 0
  already = (await heard()).length
  await commit('machine', [
    put('workspace', aWorkspace()),
    put('brands', aBrand({ zone: 'UTC' })),
    put('sources', aSource()),
    put('accounts', anAccount({ id: 'one', handle: 'one' })),
    put('accounts', anAccount({ id: 'hall', handle: 'hall', network: 'guildhall' })),
    ...putPiece(piece),
    ...passages.map((p) => put('passages', p)),
    put(
      'drips',
      aDrip({ pipeline: 'pipeline', row: 'row-1', days: [0, 3], accounts: ['one'], createdAt: hoursAgo(30) }),
    ),
  ])
})

describe('the team chat', () => {
  it('is told once of each post that went out since, and not of what is old news', async () => {
    await setPipeline({ follows: [says('is published', '{account} on {network}: {title} {link}')] })
    await setPost({ id: 'new', beat: 0 })
    await setPost({ id: 'older than the pipeline says so', beat: 1, publishedAt: hoursAgo(41) })
    await setPost({ id: 'waits', beat: 2, state: 'approved', publishedAt: null })
    await followUp()
    await followUp()
    expect(await heard()).toEqual(['@one on Murmur: Oars https://murmur.example/new'])
  })

  it('is told under the same key where the tab was closed before it was noted, so that it hears it once', async () => {
    await setPipeline({ follows: [says('is published', '{title}')] })
    await setPost({ id: 'p' })
    await followUp()
    await commit('machine', [patch('posts', 'p', (p) => ({ ...p, followed: [] }))])
    await followUp()
    expect(await heard()).toHaveLength(1)
    expect((await must('posts', 'p')).followed).toEqual(['says is published'])
  })

  it('is told of each failure, of what is taken in, and of the end of a piece', async () => {
    await setPipeline({
      follows: [
        says('is taken in', '{pipeline} took {title}: {posts}'),
        says('fails', '{account}: {reason}'),
        says('is finished', 'done with {title}: {posts}'),
      ],
    })
    await setPost({
      id: 'a',
      beat: 0,
      state: 'failed',
      at: hoursAgo(1),
      publishedAt: null,
      failure: 'Too long.',
    })
    await setPost({ id: 'b', beat: 1 })
    await followUp()
    expect(await heard()).toEqual(['Journal took Oars: 2 posts', '@one: Too long.'])
    await commit('machine', [patch('posts', 'a', (p) => ({ ...p, state: 'set aside' }))])
    await followUp()
    expect((await heard()).slice(2)).toEqual(['done with Oars: 1 post'])
    await commit('machine', [patch('posts', 'a', (p) => ({ ...p, state: 'failed', generation: 2 }))])
    await followUp()
    expect((await heard()).slice(3)).toEqual(['@one: Too long.'])
  })

  it('is not flooded with what went out while the app was closed', async () => {
    await setPipeline({ follows: [says('is published', '{link}')] })
    for (let i = 10; i < 30; i++) await setPost({ id: `p${i}`, beat: i, publishedAt: hoursAgo(31 - i) })
    await followUp()
    const told = await heard()
    expect(told).toHaveLength(9)
    expect([told[0], told[8]]).toEqual(['https://murmur.example/p10', 'Journal: and 12 more of the same.'])
    await followUp()
    expect(await heard()).toHaveLength(9)
  })

  it('that is away is told later; one that is not connected is said in the run, and nothing is lost', async () => {
    await setPipeline({ follows: [says('is published', '{title}')] })
    await setPost({ id: 'q' })
    await disconnectChat()
    await followUp()
    expect((await all('runs'))[0]?.steps).toMatchObject([
      { came: 'failed', message: 'No team chat is connected. Connect one under Services.' },
    ])
    await fetch(`${servers().worldUrl}/control/chat`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{"refuses":1}',
    })
    await connectChat({ address: `${servers().worldUrl}/chat/hooks/workshop` })
    await followUp()
    const state = await servers().call<{ waiting: number; trouble: string }>('GET', '/api/chat')
    expect(state.body).toMatchObject({
      waiting: 1,
      trouble: expect.stringContaining('answered 503') as string,
    })
    expect(JSON.stringify(state.body)).not.toContain('workshop')
    await servers().call('POST', '/api/clock/advance', {
      to: new Date(Date.parse(nowIso()) + 60_000).toISOString(),
    })
    await vi.waitFor(async () => expect(await heard()).toEqual(['Oars']), { timeout: 5000 })
  })
})

describe('another pipeline', () => {
  it('takes a piece over once all of its posts are out, though it is of no source of its', async () => {
    await setPipeline({ follows: [handsOn('the finished piece')] })
    await commit('machine', [put('pipelines', next)])
    await setPost({ id: 'a', beat: 0 })
    await setPost({ id: 'b', beat: 1, state: 'approved', publishedAt: null })
    await followUp()
    await runPipelines()
    expect((await all('drips')).map((d) => d.pipeline)).toEqual(['pipeline'])
    await setPost({ id: 'b', beat: 1 })
    await followUp()
    expect((await must('pieces', 'piece')).handedTo).toEqual(['next'])
    await runPipelines()
    await followUp()
    await runPipelines()
    expect((await all('drips', 'piece', 'piece')).map((d) => d.pipeline).sort()).toEqual(['next', 'pipeline'])
  })

  it('takes each published post over as a piece of its own, once, and never one that came from it', async () => {
    const words = 'Oak rots slowly where it stands in water. #Oak https://yard.example/oars'
    await setPipeline({ follows: [handsOn('the published posts')] })
    await commit('machine', [put('pipelines', next)])
    await setPost({ id: 'a', wording: { ...aPost().wording, text: words, hashtags: ['#Oak'] } })
    await followUp()
    await commit('machine', [patch('posts', 'a', (p) => ({ ...p, followed: [] }))])
    await followUp()
    const made = (await all('pieces')).filter((p) => p.through.length > 0)
    expect(made).toMatchObject([
      { handedTo: ['next'], through: ['pipeline'], url: 'https://murmur.example/a', title: 'Oars' },
    ])
    const id = made[0]?.id ?? ''
    expect((await must('texts', `${id}.1`)).text).toBe('Oak rots slowly where it stands in water.')
    expect(await all('passages', 'piece', id)).toMatchObject([{ choice: 'kept', start: 0, end: 41 }])
    await runPipelines()
    const posts = await all('posts', 'piece', id)
    expect(posts.map((p) => [p.pipeline, p.account, p.link])).toEqual([
      ['next', 'hall', expect.stringContaining('murmur.example/a')],
    ])
    // Were the second to hand its posts back, the first would not take them.
    await commit('machine', [
      patch('pipelines', 'next', (p) => ({
        ...p,
        savedAt: hoursAgo(40),
        follows: [handsOn('the published posts', 'pipeline')],
      })),
      patch('posts', posts[0]?.id ?? '', (p) => ({ ...p, state: 'published', publishedAt: nowIso() })),
    ])
    await followUp()
    expect((await all('pieces')).filter((p) => p.through.length > 0)).toHaveLength(1)
  })

  it('that would hand back is refused by name, and nothing changes', async () => {
    await setPipeline({ on: false, follows: [handsOn('the finished piece')] })
    await commit('machine', [put('pipelines', { ...next, on: false })])
    await expect(
      savePipeline(next, { follows: [handsOn('the finished piece', 'pipeline')] }, 'x'),
    ).rejects.toThrow('“Round” hands on to “Journal” hands on to “Round”')
    expect((await must('pipelines', 'next')).follows).toEqual([])
  })
})

describe('a feed of what went out', () => {
  const served = async (): Promise<string> => {
    const { documents } = (
      await servers().call<{ documents: { id: string; url: string }[] }>('GET', '/api/documents')
    ).body
    const url = documents.find((d) => d.id === 'pipeline.feed')?.url
    return url ? (await fetch(url)).text() : ''
  }
  const feed: Follow = { kind: 'feed', id: 'feed', title: 'Yard', format: 'RSS', items: 2 }

  it('keeps its address, shows the newest, and ends with what publishes it', async () => {
    await setPipeline({ follows: [feed, { kind: 'sheet', id: 'sheet', title: 'Archive' }] })
    for (const [i, id] of ['a', 'b', 'c'].entries())
      await setPost({ id, beat: i, publishedAt: hoursAgo(3 - i) })
    await publishDocuments()
    expect((await served()).match(/<guid[^>]*>\w+/g)?.map((g) => g.slice(-1))).toEqual(['c', 'b'])
    await setPipeline({ follows: [] })
    await publishDocuments()
    expect(await served()).toBe('')
  })

  it('shows a post that was handed over from the moment it goes out, while the app is closed', async () => {
    await setPipeline({ follows: [feed] })
    const dueAt = new Date(Date.parse(nowIso()) + 60_000).toISOString()
    await servers().call('POST', '/api/spool/posts', {
      posts: [
        {
          id: 'later',
          generation: 1,
          revision: 1,
          account: 'murmur-one',
          dueAt,
          gapMinutes: 0,
          payload: {
            text: 'Oak rots slowly.',
            parts: [],
            poll: [],
            firstComment: null,
            link: null,
            media: [],
          },
        },
      ],
    })
    await setPost({ id: 'later', state: 'handed over', publishedAt: null, publicUrl: null, at: dueAt })
    await publishDocuments()
    expect(await served()).not.toContain('later')
    await servers().call('POST', '/api/clock/advance', {
      to: new Date(Date.parse(dueAt) + 1000).toISOString(),
    })
    expect(await served()).toMatch(/<guid[^>]*>later[^]*<pubDate>/)
  })
})
