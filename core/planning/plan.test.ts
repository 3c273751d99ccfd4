import { describe, expect, it } from 'vitest'
import type { Slot } from '../model'
import { isQuiet } from './openings'
import { plan } from './plan'
import type { PlanAccount, PlanInput } from './rules'

const daily = (at: string): Slot[] => [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({ weekday, at }))

function account(change: Partial<PlanAccount> = {}): PlanAccount {
  return {
    id: 'a',
    network: 'murmur',
    zone: 'Europe/Lisbon',
    slots: daily('09:00'),
    quiet: [],
    maxPerDay: 1,
    maxPerWeek: 7,
    gapMinutes: 60,
    ...change,
  }
}

const now = '2026-11-24T06:00:00Z'

describe('plan', () => {
  it('puts a post on its wished day, exactly at the slot', () => {
    const { posts } = plan({
      now,
      accounts: [account()],
      posts: [{ id: 'p', account: 'a', wished: '2026-11-26' }],
    })
    expect(posts).toEqual([
      {
        id: 'p',
        at: '2026-11-26T09:00:00.000Z',
        reasons: [{ code: 'as-wished', message: 'It stands on its wished day, 2026-11-26.' }],
      },
    ])
  })

  it('keeps the slot’s wall time across summer time', () => {
    const { posts } = plan({
      now: '2026-03-20T00:00:00Z',
      accounts: [account({ zone: 'Europe/Berlin' })],
      posts: [
        { id: 'before', account: 'a', wished: '2026-03-28' },
        { id: 'after', account: 'a', wished: '2026-03-29' },
      ],
    })
    expect(posts.map((p) => p.at)).toEqual(['2026-03-28T08:00:00.000Z', '2026-03-29T07:00:00.000Z'])
  })

  it('never uses a slot that summer time skips', () => {
    const { posts } = plan({
      now: '2026-03-20T00:00:00Z',
      accounts: [account({ zone: 'Europe/Berlin', slots: daily('02:30') })],
      posts: [{ id: 'p', account: 'a', wished: '2026-03-29', earliest: '2026-03-29', latest: '2026-03-29' }],
    })
    expect(posts[0]?.at).toBeNull()
    expect(posts[0]?.reasons[0]?.code).toBe('no-opening')
  })

  it('steps aside for a quiet day and says so', () => {
    const { posts } = plan({
      now,
      accounts: [account({ quiet: [{ date: '2026-11-26' }] })],
      posts: [{ id: 'p', account: 'a', wished: '2026-11-26' }],
    })
    expect(posts[0]?.at).toMatch(/^2026-11-2[57]T09/)
    expect(posts[0]?.reasons.map((r) => r.code)).toContain('quiet-day')
  })

  it('keeps the gap in elapsed minutes; exactly the gap is allowed', () => {
    const slots: Slot[] = [
      { weekday: 4, at: '09:00' },
      { weekday: 4, at: '09:59' },
      { weekday: 4, at: '10:00' },
    ]
    const { posts } = plan({
      now,
      accounts: [account({ slots, maxPerDay: 9, gapMinutes: 60 })],
      posts: [
        { id: 'p', account: 'a', wished: '2026-11-26T09:00:00Z' },
        { id: 'q', account: 'a', wished: '2026-11-26T09:30:00Z', latest: '2026-11-26' },
      ],
    })
    expect(posts.map((p) => p.at)).toEqual(['2026-11-26T09:00:00.000Z', '2026-11-26T10:00:00.000Z'])
  })

  it('never puts the same words on sibling accounts within seven days', () => {
    const { posts } = plan({
      now,
      accounts: [account(), account({ id: 'b' }), account({ id: 'c', network: 'guildhall' })],
      posts: [
        { id: 'p', account: 'a', wished: '2026-12-01', text: 'Twenty seconds. https://x.example #Oak' },
        { id: 'q', account: 'b', wished: '2026-12-01', text: 'twenty   SECONDS!' },
        { id: 'r', account: 'c', wished: '2026-12-01', text: 'Twenty seconds.' },
      ],
    })
    const [p, q, r] = posts.map((x) => Date.parse(x.at ?? ''))
    expect(Math.abs((q ?? 0) - (p ?? 0))).toBeGreaterThan(7 * 86_400_000)
    expect(r).toBe(p)
  })

  it('leaves posts that stand legally where they are, and pinned ones always', () => {
    const { posts } = plan({
      now,
      accounts: [account({ quiet: [{ date: '2026-11-30' }] })],
      posts: [
        { id: 'stands', account: 'a', wished: '2026-11-26', at: '2026-12-03T09:00:00Z' },
        { id: 'pinned', account: 'a', wished: '2026-11-26', pinnedAt: '2026-11-30T13:13:00Z' },
        { id: 'illegal', account: 'a', wished: '2026-11-26', at: '2026-11-28T13:13:00Z' },
      ],
    })
    expect(posts.map((p) => p.at)).toEqual([
      '2026-12-03T09:00:00.000Z',
      '2026-11-30T13:13:00.000Z',
      '2026-11-26T09:00:00.000Z',
    ])
  })

  it('never puts two posts of one piece on one account on one day', () => {
    const { posts } = plan({
      now,
      accounts: [account({ slots: [...daily('09:00'), ...daily('18:00')], maxPerDay: 5 })],
      posts: [
        { id: 'p', account: 'a', piece: 'x', wished: '2026-11-26' },
        { id: 'q', account: 'a', piece: 'x', wished: '2026-11-26' },
      ],
    })
    expect(new Set(posts.map((p) => p.at?.slice(0, 10))).size).toBe(2)
  })

  it('says which rule stands in the way when nothing is free', () => {
    const { posts } = plan({
      now,
      accounts: [account()],
      posts: [
        { id: 'p', account: 'a', wished: '2026-11-26', latest: '2026-11-26', earliest: '2026-11-26' },
        { id: 'q', account: 'a', wished: '2026-11-26', latest: '2026-11-26', earliest: '2026-11-26' },
        { id: 'late', account: 'a', wished: '2026-11-01', latest: '2026-11-02' },
      ],
    })
    expect(posts[1]?.at).toBeNull()
    expect(posts[1]?.reasons[0]).toMatchObject({ code: 'taken' })
    expect(posts[2]?.reasons[0]).toMatchObject({ code: 'too-late' })
  })

  it('varies the minute of a window from week to week', () => {
    const windows: Slot[] = [{ weekday: 1, from: '07:00', to: '09:00' }]
    const { posts } = plan({
      now,
      accounts: [account({ slots: windows })],
      posts: Array.from({ length: 8 }, (_, i) => ({
        id: `p${i}`,
        account: 'a',
        wished: `2026-12-${String(7 + (i % 4) * 7).padStart(2, '0')}`,
      })),
    })
    const times = posts.flatMap((p) => (p.at ? [p.at.slice(11, 16)] : []))
    times.forEach((t) => expect(t >= '07:00' && t <= '09:00').toBe(true))
    expect(new Set(times).size).toBeGreaterThan(3)
  })

  it('serves no two accounts of a beat in the same minute, and keeps them apart where it can', () => {
    const windows: Slot[] = [{ weekday: 4, from: '09:00', to: '12:00' }]
    const ids = ['a', 'b', 'c']
    const run = (slots: Slot[]) =>
      plan({
        now,
        accounts: ids.map((id) => account({ id, network: `net-${id}`, slots })),
        posts: ids.map((id) => ({
          id,
          account: id,
          beat: 'one',
          wished: '2026-11-26',
          latest: '2026-11-26',
        })),
      }).posts
    const exact = run([{ weekday: 4, at: '09:00' }])
    expect(exact.filter((p) => p.at)).toHaveLength(1)
    expect(exact.filter((p) => !p.at).map((p) => p.reasons[0]?.code)).toEqual(['same-minute', 'same-minute'])
    const minutes = run(windows).map((p) => p.at)
    expect(new Set(minutes).size).toBe(3)
    const hours = run([...windows, { weekday: 4, at: '16:00' }, { weekday: 4, at: '20:00' }])
      .map((p) => Date.parse(p.at ?? ''))
      .sort((a, b) => a - b)
    expect((hours[1] ?? 0) - (hours[0] ?? 0)).toBeGreaterThanOrEqual(2 * 3_600_000)
    expect((hours[2] ?? 0) - (hours[1] ?? 0)).toBeGreaterThanOrEqual(2 * 3_600_000)
  })

  it('lets a young account warm up', () => {
    const slots = ['09:00', '13:00', '18:00'].map((at): Slot => ({ weekday: 4, at }))
    const posts = Array.from({ length: 3 }, (_, i) => ({ id: `p${i}`, account: 'a', wished: '2026-11-26' }))
    const warmUp = {
      since: '2026-11-20T00:00:00Z',
      steps: [
        { days: 7, postsPerDay: 1 },
        { days: 28, postsPerDay: 2 },
      ],
    }
    const days = plan({ now, accounts: [account({ slots, maxPerDay: 3, warmUp })], posts }).posts.map((p) =>
      p.at?.slice(0, 10),
    )
    expect(days.sort()).toEqual(['2026-11-26', '2026-12-03', '2026-12-03'])
  })

  it('keeps the same picture and the same passage apart, and says so', () => {
    const { posts } = plan({
      now,
      accounts: [account({ maxPerWeek: 7 })],
      posts: [
        { id: 'p', account: 'a', picture: 'oak', wished: '2026-12-01', pinnedAt: '2026-12-01T09:00:00Z' },
        { id: 'q', account: 'a', picture: 'oak', wished: '2026-12-18' },
        { id: 'r', account: 'a', picture: 'ash', wished: '2026-12-18' },
      ],
    })
    expect(Date.parse(posts[1]?.at ?? '') - Date.parse(posts[0]?.at ?? '')).toBe(21 * 86_400_000)
    expect(posts[1]?.reasons.map((r) => r.code)).toContain('soft-picture')
    expect(posts[2]?.at).toBe('2026-12-18T09:00:00.000Z')
  })

  it('prefers the better hours where they are known', () => {
    const hours = Array.from({ length: 168 }, (_, h) => (h % 24 === 18 ? 1 : 0.1))
    const slots = ['09:00', '18:00'].map((at): Slot => ({ weekday: 4, at }))
    const [post] = plan({
      now,
      accounts: [account({ slots, hours })],
      posts: [{ id: 'p', account: 'a', wished: '2026-11-26' }],
    }).posts
    expect(post?.at).toBe('2026-11-26T18:00:00.000Z')
  })

  it('moves one that stands only to make room for one that has no place, and only as few as needed', () => {
    const input: PlanInput = {
      now,
      accounts: [account()],
      posts: [
        ...['2026-11-26', '2026-11-27', '2026-11-28'].map((date) => ({
          id: date,
          account: 'a',
          wished: date,
          at: `${date}T09:00:00Z`,
        })),
        { id: 'new', account: 'a', wished: '2026-11-27', earliest: '2026-11-26', latest: '2026-11-28' },
      ],
    }
    const { posts } = plan(input)
    expect(posts.every((p) => p.at)).toBe(true)
    expect(posts.slice(0, 3).filter((p) => p.at?.slice(0, 10) !== p.id)).toHaveLength(1)
    const free = plan({
      ...input,
      posts: input.posts.map((p) => (p.id === 'new' ? { ...p, latest: '2026-11-30' } : p)),
    })
    expect(free.posts.map((p) => p.at?.slice(0, 10))).toEqual([
      '2026-11-26',
      '2026-11-27',
      '2026-11-28',
      '2026-11-29',
    ])
  })

  it('refuses doubled ids, unknown accounts and a wrong shape', () => {
    const bad =
      (input: unknown): (() => unknown) =>
      () =>
        plan(input as PlanInput)
    expect(bad({ now, accounts: [account()], posts: [{ id: 'p', account: 'z', wished: now }] })).toThrow(
      /not in the plan/,
    )
    expect(bad({ now, accounts: [account(), account()], posts: [] })).toThrow(/same id/)
    expect(bad({ now: 'tomorrow', accounts: [], posts: [] })).toThrow()
    expect(bad({ now, accounts: [account({ zone: 'Mars/Base' })], posts: [] })).toThrow(/time zone/)
  })
})

describe('isQuiet', () => {
  it('knows weekdays, dates, yearly days and ranges with both ends', () => {
    expect(isQuiet('2026-11-29', [{ weekday: 7 }])).toBe(true)
    expect(isQuiet('2027-12-25', [{ yearly: '12-25' }])).toBe(true)
    expect(isQuiet('2026-08-31', [{ from: '2026-08-01', to: '2026-08-31' }])).toBe(true)
    expect(isQuiet('2026-09-01', [{ from: '2026-08-01', to: '2026-08-31' }, { date: '2026-09-02' }])).toBe(
      false,
    )
  })
})
