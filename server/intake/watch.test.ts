import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { temporaryFolder } from '../../e2e/servers'
import type { FetchAnswer, Watched } from '../../core/model'
import type { Database } from '../store/database'
import { freshDatabase } from '../testing/freshSpool'
import { Watcher } from './watch'

const MINUTE = 60_000
const BORN = Date.parse('2026-11-24T10:00:00.000Z')
const folder = temporaryFolder()
let database: Database
let watcher: Watcher
let now = BORN
/** What the site says, and what it was asked. */
let says: Partial<FetchAnswer> | Error = {}
let asked: (string | null)[] = []

beforeAll(async () => {
  database = await freshDatabase(folder.path)
})
afterAll(async () => {
  await database.close()
  folder.remove()
})
beforeEach(async () => {
  now = BORN
  asked = []
  await database.query(`delete from watched`)
  await database.query(`delete from snapshots`)
  watcher = new Watcher({
    database,
    now: () => now,
    fetch: (_url, { etag }) => {
      asked.push(etag)
      if (says instanceof Error) return Promise.reject(says)
      return Promise.resolve({
        url: 'https://kiln.example/feed',
        status: 200,
        contentType: 'text/xml',
        etag: null,
        lastModified: null,
        unchanged: false,
        movedTo: null,
        retryAfter: null,
        trouble: null,
        text: '',
        ...says,
      })
    },
  })
})

const feed = (change: Partial<Watched> = {}): Watched => ({
  source: 's',
  url: 'https://kiln.example/feed',
  everyMinutes: 60,
  nextAt: new Date(BORN + 60 * MINUTE).toISOString(),
  etag: '"app"',
  lastModified: null,
  ...change,
})
/** Moves on and visits what is due; every five minutes of the way. */
const pass = async (minutes: number): Promise<void> => {
  for (const until = now + minutes * MINUTE; now < until;) {
    now += 5 * MINUTE
    await watcher.visitDue()
  }
}
const texts = async (source = 's') => (await watcher.feeds.snapshots(source)).map((s) => s.text)

describe('a watched feed', () => {
  it('is visited where the app does not, and not while it does', async () => {
    says = { text: 'one' }
    await watcher.feeds.replace([feed()])
    await pass(60)
    expect(asked).toEqual([])
    // The app came by and means to come again an hour later.
    await watcher.feeds.replace([feed({ nextAt: new Date(now + 60 * MINUTE).toISOString() })])
    await pass(60)
    expect(asked).toEqual([])
    await pass(5)
    expect(asked).toEqual(['"app"'])
  })

  it('is kept each time it says something else, and given in order', async () => {
    await watcher.feeds.replace([feed()])
    for (const text of ['one', 'one', 'two', 'one', 'three']) {
      says = { text, etag: `"${text}"` }
      await pass(65)
    }
    expect(await texts()).toEqual(['one', 'two', 'one', 'three'])
    expect(asked).toEqual(['"app"', '"one"', '"one"', '"two"', '"one"'])
    says = { unchanged: true, etag: '"three"' }
    await pass(65)
    expect(await texts()).toHaveLength(4)
    const [, second] = await watcher.feeds.snapshots('s')
    await watcher.feeds.forget('s', second?.id ?? 0)
    expect(await texts()).toEqual(['one', 'three'])
  })

  it('that fails is asked less and less often, and as often as before once it answers', async () => {
    says = new Error('down')
    await watcher.feeds.replace([feed({ nextAt: new Date(BORN).toISOString() })])
    // After 1, 2, 4, 8 and 8 hours again.
    await pass(24 * 60)
    expect(asked).toHaveLength(6)
    says = { text: 'back' }
    await pass(8 * 60)
    const before = asked.length
    await pass(5 * 65)
    expect(asked.length - before).toBe(5)
    expect(await texts()).toEqual(['back'])
  })

  it('that asks for a pause gets it', async () => {
    says = { trouble: { message: 'Later.', gone: false, waitSeconds: 6 * 3600 } }
    await watcher.feeds.replace([feed({ nextAt: new Date(BORN).toISOString() })])
    await pass(6 * 60)
    expect(asked).toHaveLength(1)
    await pass(20)
    expect(asked).toHaveLength(2)
  })

  it('keeps its newest forty, and nothing once it is watched no more', async () => {
    await watcher.feeds.replace([feed(), feed({ source: 'other' })])
    for (let i = 0; i < 45; i++) {
      says = { text: `text ${i}` }
      await pass(65)
    }
    expect(await texts()).toHaveLength(40)
    expect((await texts()).at(-1)).toBe('text 44')
    await watcher.feeds.replace([feed({ source: 'other' })])
    expect(await texts()).toEqual([])
    expect(await texts('other')).toHaveLength(40)
  })
})
