import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Slot } from '../model'
import { isQuiet, openingsOn } from './openings'
import { plan, type PlanAccount, type PlanInput } from './plan'
import { bareWords } from './sameWords'
import { mondayOf, toWall } from './zone'

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

  it('keeps every hard rule on whatever it is given, and is deterministic', () => {
    const slot = fc
      .record({
        weekday: fc.integer({ min: 1, max: 7 }),
        hour: fc.integer({ min: 0, max: 22 }),
        window: fc.boolean(),
      })
      .map(({ weekday, hour, window }): Slot => {
        const at = `${String(hour).padStart(2, '0')}:15`
        return window ? { weekday, from: at, to: `${String(hour + 1).padStart(2, '0')}:00` } : { weekday, at }
      })
    const accounts = fc.array(
      fc.record({
        slots: fc.array(slot, { minLength: 1, maxLength: 6 }),
        maxPerDay: fc.integer({ min: 1, max: 3 }),
        maxPerWeek: fc.integer({ min: 1, max: 6 }),
        gapMinutes: fc.integer({ min: 0, max: 2000 }),
        quietDay: fc.integer({ min: 1, max: 7 }),
      }),
      { minLength: 1, maxLength: 3 },
    )
    const posts = fc.array(
      fc.record({
        account: fc.nat(2),
        day: fc.integer({ min: 0, max: 40 }),
        piece: fc.nat(3),
        text: fc.nat(4),
      }),
      { maxLength: 25 },
    )
    fc.assert(
      fc.property(
        accounts,
        posts,
        fc.constantFrom('Europe/Lisbon', 'America/New_York', 'Australia/Sydney'),
        (rawAccounts, rawPosts, zone) => {
          const list = rawAccounts.map((a, i) =>
            account({
              id: `a${i}`,
              zone,
              slots: a.slots,
              maxPerDay: a.maxPerDay,
              maxPerWeek: a.maxPerWeek,
              gapMinutes: a.gapMinutes,
              quiet: [{ weekday: a.quietDay }],
            }),
          )
          const input: PlanInput = {
            now: '2026-03-20T00:00:00Z',
            accounts: list,
            posts: rawPosts.map((p, i) => ({
              id: `p${i}`,
              account: `a${p.account % list.length}`,
              piece: `x${p.piece}`,
              text: `words ${p.text}`,
              wished: new Date(Date.parse('2026-03-20T12:00:00Z') + p.day * 86_400_000).toISOString(),
            })),
          }
          const result = plan(input)
          expect(plan(input)).toEqual(result)
          const placed = result.posts.flatMap((p, i) =>
            p.at
              ? [
                  {
                    at: Date.parse(p.at),
                    post: input.posts[i]!,
                    account: list.find((a) => a.id === input.posts[i]!.account)!,
                  },
                ]
              : [],
          )
          for (const x of placed) {
            const wall = toWall(x.at, zone)
            expect(x.at).toBeGreaterThanOrEqual(Date.parse(input.now))
            expect(isQuiet(wall.date, x.account.quiet)).toBe(false)
            expect(openingsOn(wall.date, x.account, 1440).flat()).toContain(x.at)
            const mine = placed.filter((y) => y.account === x.account)
            expect(mine.filter((y) => toWall(y.at, zone).date === wall.date).length).toBeLessThanOrEqual(
              x.account.maxPerDay,
            )
            expect(
              mine.filter((y) => mondayOf(toWall(y.at, zone).date) === mondayOf(wall.date)).length,
            ).toBeLessThanOrEqual(x.account.maxPerWeek)
            for (const y of mine)
              if (y !== x) {
                expect(Math.abs(y.at - x.at)).toBeGreaterThanOrEqual(
                  Math.max(1, x.account.gapMinutes * 60_000),
                )
                if (y.post.piece === x.post.piece) expect(toWall(y.at, zone).date).not.toBe(wall.date)
              }
            for (const y of placed)
              if (y.account !== x.account && bareWords(y.post.text ?? '') === bareWords(x.post.text ?? ''))
                expect(Math.abs(y.at - x.at)).toBeGreaterThan(7 * 86_400_000)
          }
        },
      ),
      { numRuns: 40 },
    )
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
