import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { oneBrand } from '../testing/brand'
import { setClock } from '../testing/browser'
import { aPipeline, aPost, aRow, aShelf, aSource, anAccount } from '../../../core/model/samples'
import { type FromShelf, type Pipeline, type Post } from '../../../core/model'
import { takeWriting, toPassages } from '../../../core/pipeline'
import { readFragment } from '../../../core/reading'
import { readArticle } from '../../../demo/content'
import { startDrip } from '../actions/drips'
import { keepHandPosts, tryHandPosts } from '../actions/hand'
import { all, commit, must, patch, put, putPiece } from '../store'
import { shelve } from '../shelf'
import { undo } from '../undo'
import { nextRunAt, runPipelines } from './pipelines'

vi.mock('../../workers', async () => (await import('../testing/workers')).inProcess())

const DAY = 86_400_000
const NAMES = ['seven-tools', 'scarf-not-butt', 'oars-that-fit'] as const
let made = 0
const pieces = NAMES.map((name) => {
  const article = readArticle(
    readFileSync(join(import.meta.dirname, `../../../demo/content/oakum-yard/${name}.md`), 'utf8'),
  )
  const whole = takeWriting(
    readFragment(article.html, { title: article.title }),
    { id: name, brand: 'brand', source: 'source', now: '2026-01-01T10:00:00.000Z' },
    { itemId: name, kind: 'manuscript' },
  )
  return { ...whole, keeps: { span: 'evergreen' as const, until: null, phrases: [] } }
})
const passages = pieces.flatMap((p) =>
  toPassages(p, () => `passage ${made++}`).map((one) => ({ ...one, choice: 'kept' as const })),
)

const BEGIN = '2026-11-30T06:00:00.000Z'
const dayAfter = (days: number): string => new Date(Date.parse(BEGIN) + days * DAY).toISOString()
const account = (id: string, network = 'murmur') =>
  anAccount({
    id,
    network,
    handle: id,
    zone: 'UTC',
    slots: [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({ weekday, at: '12:00' })),
    maxPerDay: 1,
    gapMinutes: 0,
  })
const setPipeline = (by: FromShelf, change: Partial<Pipeline> = {}): Promise<unknown> =>
  commit('machine', [
    put(
      'pipelines',
      aPipeline({
        gate: 'what is flagged',
        release: [aRow({ id: 'again', accounts: ['one'], by })],
        ...change,
      }),
    ),
  ])
const fromShelf = async (): Promise<Post[]> =>
  (await all('posts')).filter((p) => p.shelf).sort((a, b) => ((a.at ?? '') < (b.at ?? '') ? -1 : 1))

beforeEach(async () => {
  await oneBrand(BEGIN, [account('one'), account('hall', 'guildhall')])
  await commit('machine', [
    put('sources', aSource({ lastVisit: null })),
    ...pieces.flatMap((p) => putPiece(p)),
    ...passages.map((p) => put('passages', p)),
    // Each piece was out once, long ago.
    ...NAMES.map((piece, i) =>
      put(
        'posts',
        aPost({
          id: `old ${i}`,
          account: 'one',
          network: 'murmur',
          piece,
          passage: passages.find((p) => p.piece === piece)?.id ?? null,
          drip: null,
          pipeline: null,
          state: 'published',
          at: dayAfter(-200 + i),
          publishedAt: dayAfter(-200 + i),
        }),
      ),
    ),
  ])
})

describe('a row that drips from the shelf', () => {
  it('fills the wanted days of the coming week, once, and says when it looks again', async () => {
    await setPipeline(aShelf())
    await runPipelines()
    const posts = await fromShelf()
    // 30 November 2026 is a Monday: two a week stand on its Tuesday and Friday.
    expect(posts.map((p) => p.at)).toEqual(['2026-12-01T12:00:00.000Z', '2026-12-04T12:00:00.000Z'])
    expect(new Set(posts.map((p) => p.piece)).size).toBe(2)
    expect(posts.every((p) => p.state === 'approved' || p.checks.length > 0)).toBe(true)
    const run = (await all('runs'))[0]
    expect(run?.steps.map((s) => [s.what, s.came])).toEqual([
      ['from the shelf', 'done'],
      ['from the shelf', 'done'],
    ])
    expect(nextRunAt()).toBe('2026-12-01T00:00:00.000Z')
    await runPipelines()
    expect(await fromShelf()).toHaveLength(2)
    // What was set aside is not made again for its day.
    await commit('machine', [patch('posts', posts[0]?.id ?? '', (p) => ({ ...p, state: 'set aside' }))])
    await runPipelines()
    expect(await fromShelf()).toHaveLength(2)
  })

  it('takes no new piece in, and leaves alone what stands off the shelf', async () => {
    const [first, ...rest] = NAMES
    await shelve(
      passages.filter((p) => rest.some((name) => name === p.piece)),
      'off',
    )
    await setPipeline(aShelf({ per: 'day', posts: 1 }))
    await runPipelines()
    expect((await fromShelf()).map((p) => p.piece)).toEqual([first])
    expect(await all('drips')).toEqual([])
    expect((await must('pieces', first)).seenBy).toEqual([])
    await undo('brand')
    expect((await all('passages')).some((p) => p.shelf)).toBe(false)
  })

  it('looks again some hours later where nothing can come, and not for days that have passed', async () => {
    await shelve(passages, 'off')
    await setPipeline(aShelf({ per: 'day', posts: 1, restDays: 30 }))
    await runPipelines()
    expect(nextRunAt()?.slice(0, 16)).toBe('2026-11-30T12:00')
    await setClock(dayAfter(9))
    await runPipelines()
    expect(nextRunAt()?.slice(0, 16)).toBe('2026-12-09T12:00')
    expect(await fromShelf()).toEqual([])
  })

  it('does without an opening that new work has, and gives way to new work that comes later', async () => {
    await setPipeline(aShelf({ per: 'day', posts: 1, restDays: 7 }))
    await runPipelines()
    const before = (await fromShelf()).filter((p) => p.state === 'approved')
    expect(before.length).toBeGreaterThan(1)
    // One post a day is all the account may have, so that the drip needs the very openings.
    await startDrip({
      piece: 'seven-tools',
      accounts: ['one'],
      rhythm: { name: 'Two', list: [0, 1] },
      startDay: '2026-12-01',
      gate: 'nothing',
      pipeline: null,
      actor: { brand: 'brand', label: 'Start a drip' },
    })
    const fresh = (await all('posts')).filter((p) => p.drip !== null)
    expect(fresh.map((p) => p.at?.slice(0, 10)).sort()).toEqual(['2026-12-01', '2026-12-02'])
    const after = await fromShelf()
    const aside = after.filter((p) => p.state === 'set aside').map((p) => p.shelf?.day)
    expect(aside.every((day) => day === '2026-12-01' || day === '2026-12-02')).toBe(true)
    expect(aside.length).toBeGreaterThan(0)
    const days = [...after, ...fresh].filter((p) => p.state !== 'set aside').map((p) => p.at?.slice(0, 10))
    expect(new Set(days).size).toBe(days.length)
  })

  it('gives way to what a person writes, which lands where it was shown; undone, all is as it was', async () => {
    await setPipeline(aShelf({ per: 'day', posts: 1, restDays: 14 }))
    await runPipelines()
    const before = await fromShelf()
    const first = before[0]
    const row = {
      words: { title: null, text: 'The kettle is on from ten; bring a mallet.', link: null, picture: null },
      accounts: ['one'],
      on: { date: first?.at?.slice(0, 10) ?? '', time: null },
      earliest: null,
      latest: null,
    }
    const [shown] = await tryHandPosts('brand', [row], { kind: 'next openings' })
    expect(shown?.post.at).toBe(first?.at)
    await keepHandPosts('brand', shown ? [shown] : [])
    const after = await fromShelf()
    expect(after.find((p) => p.id === first?.id)?.state).toBe('set aside')
    expect(after.filter((p) => p.id !== first?.id)).toEqual(before.filter((p) => p.id !== first?.id))
    expect((await must('posts', shown?.post.id ?? '')).at).toBe(first?.at)
    await undo('brand')
    expect((await fromShelf()).map((p) => [p.id, p.at, p.state])).toEqual(
      before.map((p) => [p.id, p.at, p.state]),
    )
  })

  it('keeps good work dripping for a year: rested, in other words each time, and never more than it may', async () => {
    await setPipeline(aShelf())
    for (let day = 0; day <= 364; day += 3.5) {
      const now = dayAfter(day)
      await setClock(now)
      const due = (await all('posts')).filter((p) => p.at !== null && p.at <= now && p.state !== 'published')
      await commit(
        'machine',
        due.map((p) => put('posts', { ...p, state: 'published', publishedAt: p.at })),
      )
      await runPipelines()
    }
    const posts = await fromShelf()
    const at = (p: Post): number => Date.parse(p.at ?? '')
    // Three pieces of some ten passages each cannot fill two a week with 90 days of rest; most weeks they do.
    expect(posts.length).toBeGreaterThan(60)
    const everything = (await all('posts')).filter((p) => p.account === 'one')
    for (const one of posts)
      for (const other of everything.filter((p) => p !== one && p.id !== one.id)) {
        const apart = Math.abs(at(one) - at(other)) / DAY
        if (one.wording.text === other.wording.text)
          throw new Error(`The same words ${apart} days apart: ${one.wording.text}`)
        if (one.passage === other.passage) expect(apart).toBeGreaterThanOrEqual(89.5)
      }
    const weeks = new Map<number, number>()
    for (const p of posts) {
      const week = Math.floor((at(p) - Date.parse('2026-11-30T00:00:00.000Z')) / (7 * DAY))
      weeks.set(week, (weeks.get(week) ?? 0) + 1)
    }
    expect(Math.max(...weeks.values())).toBe(2)
  }, 120_000)
})
