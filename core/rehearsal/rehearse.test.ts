import { describe, expect, it } from 'vitest'
import { USUAL_WEIGHTS, type Account, type Post } from '../model'
import {
  aBrand,
  aDrip,
  anAccount,
  aPassage,
  aPiece,
  aPipeline,
  aPost,
  aRow,
  aSource,
  aWording,
} from '../model/samples'
import { rehearse, thinnedSlots, type Change, type RehearsalRequest } from '.'

const now = '2026-11-23T06:00:00.000Z'
const daily = [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({ weekday, at: '09:00' }))
const account = (id: string, change: Partial<Account> = {}) =>
  anAccount({ id, zone: 'UTC', slots: daily, maxPerDay: 1, maxPerWeek: 7, gapMinutes: 0, ...change })
const day = (n: number): string => new Date(Date.parse(now) + n * 86_400_000).toISOString().slice(0, 10)
const at = (n: number): string => `${day(n)}T09:00:00.000Z`
const post = (n: number, change: Partial<Post> = {}): Post =>
  aPost({
    id: `p${n}`,
    account: 'one',
    piece: `piece ${n}`,
    passage: `passage ${n}`,
    drip: null,
    media: [],
    wording: aWording({ text: `Words of ${n}` }),
    wished: `${day(n)}T12:00:00.000Z`,
    at: at(n),
    ...change,
  })
const by = (list: number[]) => ({ kind: 'rhythm' as const, rhythm: { name: 'x', list } })
const of = { pipeline: 'pipeline', drip: 'drip', piece: 'piece' }
/** One drip of a pipeline on one account at days 0, 3 and 20, and a post by itself. */
const base: RehearsalRequest = {
  now,
  brand: 'brand',
  accounts: [account('one'), account('two', { network: 'guildhall' })],
  brands: [aBrand({ quiet: [] })],
  drips: [
    aDrip({
      pipeline: 'pipeline',
      row: 'row',
      accounts: ['one'],
      startDay: day(1),
      days: [0, 3, 20],
      createdAt: now,
    }),
  ],
  pipelines: [aPipeline({ release: [aRow({ accounts: ['one'], by: by([0, 3, 20]) })] })],
  posts: [
    post(1, { ...of, beat: 0 }),
    post(4, { ...of, beat: 1 }),
    post(21, { ...of, beat: 2 }),
    post(5, { pinned: true }),
    post(6),
  ],
  from: day(0),
  to: day(55),
  changes: [],
  arrivals: false,
  pieces: [],
  sources: [aSource()],
  passages: [],
  worth: new Map(),
}
const played = (changes: Change[], change: Partial<RehearsalRequest> = {}) =>
  rehearse({ ...base, changes, ...change })
const days = (posts: readonly Post[]): string[] =>
  posts.flatMap((p) => (p.at ? [`${p.id} ${p.at.slice(5, 10)}`] : [])).toSorted()

describe('a rehearsal', () => {
  it('without a change plays what stands, and moves nothing', () => {
    const { before, after, moves, dropped, wanted } = played([])
    expect(after).toEqual(before)
    expect([moves, dropped, wanted]).toEqual([[], [], []])
    expect(before.mondays).toEqual([day(0), day(7), day(14), day(21), day(28), day(35), day(42), day(49)])
    expect(before.weeks).toEqual([
      [4, 0, 0, 1, 0, 0, 0, 0],
      [0, 0, 0, 0, 0, 0, 0, 0],
    ])
    expect(before.figures.map((f) => [f.account, f.posts])).toEqual([
      ['one', 5],
      ['two', 0],
    ])
    expect(before.dry).toEqual([{ pipeline: 'pipeline', day: day(21), takesIn: false }])
  })

  it('with a pipeline paused goes on without its posts; the others stay', () => {
    const { after, moves, dropped } = played([{ kind: 'pause', pipeline: 'pipeline' }])
    expect(after.posts.map((p) => p.id)).toEqual(['p5', 'p6'])
    expect(moves).toEqual([])
    expect(dropped.map((p) => p.id)).toEqual(['p1', 'p4', 'p21'])
    expect(after.dry).toEqual([{ pipeline: 'pipeline', day: null, takesIn: false }])
  })

  it('with quiet days moves what stood on them, and nothing else', () => {
    const { after, moves } = played([{ kind: 'quiet', brand: 'brand', days: [{ from: day(6), to: day(8) }] }])
    expect(moves.map((m) => m.post.id)).toEqual(['p6'])
    expect(days(after.posts)).toContain(`p6 ${day(9).slice(5)}`)
    expect(after.pressure.rules).toContainEqual({ code: 'quiet-day', times: 1 })
    expect(after.pressure.moved).toBe(1)
  })

  it('with fewer slots places what has none any more', () => {
    const mondays = daily.filter((s) => s.weekday === 1)
    const { after } = played([{ kind: 'slots', account: 'one', slots: mondays }])
    for (const p of after.posts.filter((x) => !x.pinned && x.at))
      expect(new Date(p.at ?? '').getUTCDay()).toBe(1)
    expect(after.posts.find((p) => p.id === 'p5')?.at).toBe(at(5))
  })

  it('with another rhythm puts the beats to come at its days, and lets those beyond fall away', () => {
    const { after, dropped } = played([
      { kind: 'rhythm', pipeline: 'pipeline', rhythm: { name: 'y', list: [0, 10] } },
    ])
    expect(days(after.posts)).toContain(`p4 ${day(11).slice(5)}`)
    expect(dropped.map((p) => p.id)).toEqual(['p21'])
  })

  it('with an account more writes a post for it at every beat to come', () => {
    const { after, wanted } = played([
      { kind: 'account', pipeline: 'pipeline', account: account('two', { network: 'guildhall' }) },
    ])
    expect(wanted.map((w) => [w.like, w.account])).toEqual([
      ['p1', 'two'],
      ['p4', 'two'],
      ['p21', 'two'],
    ])
    expect(after.figures.find((f) => f.account === 'two')?.posts).toBe(3)
    const unlinked = played([{ kind: 'account', pipeline: 'pipeline', account: account('new') }])
    expect(unlinked.after.accounts.map((a) => a.id)).toEqual(['one', 'two', 'new'])
    expect(unlinked.before.accounts.map((a) => a.id)).toEqual(['one', 'two'])
  })

  it('lets pieces come in as often as they appeared lately and pass, each with its drip', () => {
    const verdict = (passed: boolean) => [{ pipeline: 'pipeline', version: 1, passed, reason: '' }]
    // Eight in twelve weeks, of which half pass: one every three weeks.
    const pieces = Array.from({ length: 8 }, (_, i) =>
      aPiece({
        id: `x${i}`,
        publishedAt: `${day(-83 + i * 11)}T10:00:00.000Z`,
        verdicts: verdict(i % 2 === 0),
      }),
    )
    const old = aPiece({ id: 'old', publishedAt: `${day(-400)}T10:00:00.000Z` })
    const double = aPiece({
      id: 'double',
      publishedAt: `${day(-3)}T10:00:00.000Z`,
      double: { of: 'x1', why: '' } as never,
    })
    const elsewhere = aPiece({ id: 'else', source: 'another', publishedAt: `${day(-3)}T10:00:00.000Z` })
    const arriving = played([], {
      arrivals: true,
      pieces: [...pieces, old, double, elsewhere],
      pipelines: [aPipeline({ release: [aRow({ accounts: ['one'], by: by([0, 3]) })] })],
    }).before
    const fresh = arriving.posts.filter((p) => p.id.startsWith(' to come'))
    expect(new Set(fresh.map((p) => p.drip)).size).toBe(2)
    expect(fresh).toHaveLength(4)
    expect(arriving.dry).toMatchObject([{ takesIn: true }])
    expect(arriving.figures[0]?.fresh).toBeCloseTo(4 / 9)
  })

  it('lets nothing come into a pipeline that is off, held or paused', () => {
    const pieces = [aPiece({ publishedAt: `${day(-3)}T10:00:00.000Z` })]
    const off = { arrivals: true, pieces, pipelines: [aPipeline({ on: false })] }
    expect(played([], off).before.posts).toHaveLength(5)
    expect(
      played([{ kind: 'pause', pipeline: 'pipeline' }], { arrivals: true, pieces }).after.posts.map(
        (p) => p.id,
      ),
    ).toEqual(['p5', 'p6'])
  })

  it('leaves ended accounts and other brands out', () => {
    const accounts = [
      ...base.accounts,
      account('ended', { endedAt: now }),
      account('theirs', { brand: 'other' }),
    ]
    expect(played([], { accounts }).before.accounts.map((a) => a.id)).toEqual(['one', 'two'])
  })
})

describe('slots that are thinned', () => {
  it('stay as even over the week as they stood', () => {
    expect(thinnedSlots(daily, 3).map((s) => s.weekday)).toEqual([2, 4, 6])
    expect(thinnedSlots(daily, 1).map((s) => s.weekday)).toEqual([4])
    expect(thinnedSlots(daily, 0)).toEqual([])
    expect(thinnedSlots(daily, 9)).toEqual(daily)
  })
})

describe('the shelf in a rehearsal', () => {
  const shelf = {
    kind: 'shelf',
    posts: 1,
    per: 'week',
    order: 'the oldest first',
    restDays: 30,
    earned: null,
  } as const
  const pipelines = [aPipeline({ release: [aRow({ id: 'again', accounts: ['two'], by: shelf })] })]
  const out = post(-100, {
    account: 'two',
    network: 'guildhall',
    piece: 'piece',
    state: 'published',
    publishedAt: at(-100),
  })
  const passages = [
    aPassage({ id: 'a', start: 0, end: 10 }),
    aPassage({ id: 'b', start: 20, end: 30 }),
    aPassage({ id: 'c', start: 40, end: 50 }),
  ]
  const again = (change: Partial<RehearsalRequest> = {}): Post[] =>
    played([], { pipelines, passages, pieces: [aPiece()], posts: [out], ...change }).before.posts.filter(
      (p) => p.shelf,
    )

  it('goes on with what rests, so often as its row asks', () => {
    const brands = [aBrand({ quiet: [], weights: { ...USUAL_WEIGHTS, passageDays: 20 } })]
    const posts = again({ brands })
    // Eight weeks from Monday 23 November; three passages, each of which rests for 30 days.
    expect(posts.map((p) => p.passage)).toEqual(['a', 'b', 'c', 'a', 'b', 'c'])
    expect(posts.map((p) => p.at?.slice(0, 10))).toEqual([
      day(3),
      day(10),
      day(17),
      day(38),
      day(45),
      day(52),
    ])
  })

  it('gets no day on which no opening is free, and stops with its pipeline', () => {
    const taken = Array.from({ length: 56 }, (_, n) =>
      post(n, { account: 'two', network: 'guildhall', piece: null, passage: null, pinned: true }),
    )
    expect(again({ posts: [out, ...taken] })).toEqual([])
    expect(
      played([], { pipelines, passages, pieces: [aPiece()], posts: [out, ...taken] }).before.pressure
        .unplaced,
    ).toBe(0)
    expect(again({ pipelines: pipelines.map((p) => ({ ...p, on: false })) })).toEqual([])
    // With the first week full, what it wanted is not made up for in the second.
    const brands = [aBrand({ quiet: [], weights: { ...USUAL_WEIGHTS, passageDays: 20 } })]
    const rest = again({ posts: [out, ...taken.slice(0, 7)], brands })
    expect(rest.map((p) => p.at?.slice(0, 10))).toEqual([day(10), day(17), day(38), day(45), day(52)])
  })
})
