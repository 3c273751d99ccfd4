import { describe, expect, it } from 'vitest'
import { addDays, isQuiet, plan, type PlanInput } from '.'
import { openingsOn } from './openings'

type Account = PlanInput['accounts'][number]
type Post = PlanInput['posts'][number]
const EVERY = [1, 2, 3, 4, 5, 6, 7]
const account = (change: Partial<Account> = {}): Account => ({
  id: 'a',
  network: 'murmur',
  zone: 'Europe/Lisbon',
  slots: EVERY.map((weekday) => ({ weekday, at: '09:00' })),
  ...change,
})
const now = '2026-11-24T08:00:00Z'
const run = (posts: Post[], accounts: Account[] = [account()], rest: Partial<PlanInput> = {}) =>
  plan({ now, accounts, posts, ...rest }).posts
const places = (posts: Post[], accounts?: Account[]): (string | null)[] =>
  run(posts, accounts).map((p) => p.at?.slice(0, 16) ?? null)
const post = (id: string, wished: string, change: Partial<Post> = {}): Post => ({
  id,
  account: 'a',
  wished,
  ...change,
})

describe('the span of a post', () => {
  it('takes in its last day, and its last moment', () => {
    expect(places([post('p', '2026-11-30', { latest: '2026-11-26' })])).toEqual(['2026-11-26T09:00'])
    expect(places([post('p', '2026-11-30', { latest: '2026-11-26T09:00:00Z' })])).toEqual([
      '2026-11-26T09:00',
    ])
    expect(places([post('p', '2026-11-30', { latest: '2026-11-26T08:59:00Z' })])).toEqual([
      '2026-11-25T09:00',
    ])
  })

  it('begins with its first day, and its first moment', () => {
    expect(places([post('p', '2026-11-25', { earliest: '2026-11-27' })])).toEqual(['2026-11-27T09:00'])
    expect(places([post('p', '2026-11-25', { earliest: '2026-11-27T09:00:01Z' })])).toEqual([
      '2026-11-28T09:00',
    ])
  })

  it('that has passed gives no place, and says so', () => {
    expect(run([post('p', '2026-11-20', { latest: '2026-11-23' })])).toMatchObject([
      { at: null, reasons: [{ code: 'too-late' }] },
    ])
  })

  it('without an opening gives no place, and says so', () => {
    const sundays = account({ slots: [{ weekday: 7, at: '09:00' }] })
    const between = post('p', '2026-11-25', { earliest: '2026-11-25', latest: '2026-11-27' })
    expect(run([between], [sundays])).toMatchObject([
      {
        at: null,
        reasons: [
          { code: 'no-opening' },
          { code: 'room', message: 'Let it go out up to 2 days later: 2026-11-29 is free.' },
        ],
      },
    ])
    expect(run([between], [account({ slots: [] })])).toMatchObject([
      { at: null, reasons: [{ code: 'no-slot' }] },
    ])
  })

  it('in the past is made good in the future, with the day it was wished for', () => {
    const [placed] = run([post('p', '2026-11-10')])
    expect(placed?.at).toBe('2026-11-24T09:00:00.000Z')
    expect(placed?.reasons.map((r) => r.code)).toEqual(['moved', 'past'])
    expect(placed?.reasons[0]?.message).toBe('Wished for 2026-11-10, it stands 14 days later.')
  })
})

describe('limits', () => {
  const wishes = (count: number): Post[] =>
    Array.from({ length: count }, (_, i) => post(`p${i}`, '2026-11-25'))

  it('of a day spill over to the days beside it', () => {
    const twice = account({
      slots: EVERY.flatMap((weekday) => ['09:00', '12:00', '18:00'].map((at) => ({ weekday, at }))),
      maxPerDay: 2,
    })
    const days = places(wishes(5), [twice]).map((p) => p?.slice(0, 10))
    for (const day of new Set(days)) expect(days.filter((d) => d === day).length).toBeLessThanOrEqual(2)
  })

  it('of a week count from Monday to Sunday in the account’s zone', () => {
    const weeks = places(wishes(8), [account({ maxPerWeek: 3 })]).map((p) => {
      const day = new Date(`${p?.slice(0, 10)}T00:00:00Z`)
      return new Date(day.getTime() - ((day.getUTCDay() + 6) % 7) * 86_400_000).toISOString().slice(0, 10)
    })
    for (const week of new Set(weeks)) expect(weeks.filter((w) => w === week).length).toBeLessThanOrEqual(3)
  })

  it('let the more urgent post have the place, and the earlier wish among equals', () => {
    const [late, urgent] = places([post('a', '2026-11-25'), post('b', '2026-11-25', { priority: 5 })])
    expect([urgent, late]).toEqual(['2026-11-25T09:00', '2026-11-26T09:00'])
    const [second, first] = places([post('a', '2026-11-25T20:00:00Z'), post('b', '2026-11-25T06:00:00Z')])
    expect(first).toBe('2026-11-25T09:00')
    expect(second).not.toBe(first)
  })
})

describe('what stands', () => {
  it('stays where it is legal, though its wish is nearer elsewhere', () => {
    expect(places([post('p', '2026-11-25', { at: '2026-12-03T09:00:00Z' })])).toEqual(['2026-12-03T09:00'])
  })

  it('moves where its slot was taken away or its day made quiet', () => {
    const standing = post('p', '2026-12-03', { at: '2026-12-03T09:00:00Z' })
    expect(places([standing], [account({ slots: [{ weekday: 5, at: '09:00' }] })])).toEqual([
      '2026-12-04T09:00',
    ])
    expect(places([standing], [account({ quiet: [{ date: '2026-12-03' }] })])[0]).not.toBe('2026-12-03T09:00')
  })

  it('goes before what has no place yet, and pinned before both', () => {
    const [fresh, standing, pinned] = places([
      post('fresh', '2026-11-25'),
      post('standing', '2026-11-25', { at: '2026-11-25T09:00:00Z' }),
      post('pinned', '2026-11-25', { pinnedAt: '2026-11-25T04:44:00Z' }),
    ])
    expect([standing, pinned]).toEqual(['2026-11-25T09:00', '2026-11-25T04:44'])
    expect(fresh).toBe('2026-11-26T09:00')
  })
})

describe('the same words', () => {
  const two = [account(), account({ id: 'b' })]
  const text = 'Green oak bends.'

  it('keep exactly seven days between siblings, and none within one account’s own rule', () => {
    const [first, second] = places(
      [
        post('p', '2026-11-25', { text }),
        { ...post('q', '2026-11-25', { text: 'GREEN oak bends! #x' }), account: 'b' },
      ],
      two,
    )
    expect(first).toBe('2026-11-25T09:00')
    expect(Math.abs(Date.parse(`${second}Z`) - Date.parse(`${first}Z`))).toBeGreaterThan(7 * 86_400_000)
  })

  it('are free on another network, and where the rule is switched off', () => {
    const other = [account(), account({ id: 'b', network: 'guildhall' })]
    const posts = [post('p', '2026-11-25', { text }), { ...post('q', '2026-11-25', { text }), account: 'b' }]
    expect(places(posts, other)).toEqual(['2026-11-25T09:00', '2026-11-25T09:00'])
    expect(run(posts, two, { siblingDays: 0 }).map((p) => p.at?.slice(0, 10))).toEqual([
      '2026-11-25',
      '2026-11-25',
    ])
  })
})

describe('windows', () => {
  const windowed = account({ slots: EVERY.map((weekday) => ({ weekday, from: '10:00', to: '11:30' })) })

  it('take the minute nearest to a wish inside them', () => {
    expect(places([post('p', '2026-11-25T10:47:00Z')], [windowed])).toEqual(['2026-11-25T10:47'])
  })

  it('hold one post each, as an exact slot does', () => {
    const posts = Array.from({ length: 3 }, (_, i) => post(`p${i}`, '2026-11-25'))
    const days = places(posts, [windowed]).map((p) => p?.slice(0, 10))
    expect(new Set(days).size).toBe(3)
  })

  it('give way to another minute where the gap asks for it', () => {
    const posts = [
      post('p', '2026-11-25', { pinnedAt: '2026-11-25T09:58:00Z' }),
      post('q', '2026-11-25', { earliest: '2026-11-25', latest: '2026-11-25' }),
    ]
    const [, at] = places(posts, [{ ...windowed, gapMinutes: 80 }])
    expect(at! >= '2026-11-25T11:18' && at! <= '2026-11-25T11:30').toBe(true)
  })

  it('open with both ends included, at a minute that differs from account to account', () => {
    const [opening] = openingsOn('2026-11-25', { ...windowed, slots: [...windowed.slots] })
    const clock = (at: number) => new Date(at).toISOString().slice(11, 16)
    expect([clock(opening?.from ?? 0), clock(opening?.to ?? 0)]).toEqual(['10:00', '11:30'])
    for (const at of opening?.others() ?? []) expect(clock(at) >= '10:00' && clock(at) <= '11:30').toBe(true)
    const first = (id: string, date = '2026-11-25') =>
      openingsOn(date, { ...windowed, id, slots: [...windowed.slots] })[0]?.drawn ?? 0
    expect(new Set(['a', 'b', 'c', 'd', 'e'].map((id) => first(id))).size).toBeGreaterThan(1)
    const weeks = Array.from({ length: 40 }, (_, i) => clock(first('a', addDays('2026-11-25', 7 * i))))
    weeks.slice(1).forEach((time, i) => expect(time).not.toBe(weeks[i]))
  })
})

it('a slot on trial stands at another hour on its day alone, and one that is gone counts for nothing', () => {
  const nine = { weekday: 3, at: '09:00' }
  const account = {
    id: 'a',
    zone: 'Europe/Lisbon',
    slots: [nine, { weekday: 3, from: '15:00', to: '17:00' }],
    hourTrials: [
      { date: '2026-11-25', slot: nine, at: '20:30' },
      { date: '2026-12-09', slot: { weekday: 3, from: '15:00', to: '17:00' }, at: '07:45' },
      { date: '2026-12-16', slot: { weekday: 3, at: '11:00' }, at: '12:00' },
    ],
  }
  const opens = (date: string): string[] =>
    openingsOn(date, account).map(({ from, to }) =>
      [...new Set([from, to])].map((at) => new Date(at).toISOString().slice(11, 16)).join(' to '),
    )
  expect(opens('2026-11-25')).toEqual(['15:00 to 17:00', '20:30'])
  expect(opens('2026-12-02')).toEqual(['09:00', '15:00 to 17:00'])
  expect(opens('2026-12-09')).toEqual(['07:45', '09:00'])
  expect(opens('2026-12-16')).toEqual(['09:00', '15:00 to 17:00'])
  // Of slots that begin together, only the one that is meant.
  const window = { weekday: 3, from: '09:00', to: '10:00' }
  const hourTrials = [{ date: '2026-11-25', slot: window, at: '20:30' }]
  const both = { ...account, slots: [window, nine], hourTrials }
  const times = openingsOn('2026-11-25', both).map((o) => new Date(o.to).toISOString().slice(11, 16))
  expect(times).toEqual(['09:00', '20:30'])
})

it('quiet ranges hold on both ends', () => {
  const quiet = [{ from: '2026-12-24', to: '2026-12-26' }]
  expect(['2026-12-23', '2026-12-24', '2026-12-26', '2026-12-27'].map((d) => isQuiet(d, quiet))).toEqual([
    false,
    true,
    true,
    false,
  ])
})
