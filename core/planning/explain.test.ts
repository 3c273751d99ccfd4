import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Slot } from '../model'
import { WEEKDAYS } from './names'
import { plan } from './plan'
import { isQuiet, openingsOn } from './openings'
import { PlanInput } from './rules'
import { anyInput, standing } from './testing/arbitrary'
import { brokenRules } from './testing/oracle'
import { addDays, daysBetween, toWall, weekdayOf } from './zone'

type Account = PlanInput['accounts'][number]
type Post = PlanInput['posts'][number]

const daily = (at: string): Slot[] => [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({ weekday, at }))
const account = (change: Partial<Account> = {}): Account => ({
  id: 'a',
  network: 'murmur',
  zone: 'Europe/Lisbon',
  slots: daily('09:00'),
  maxPerDay: 1,
  ...change,
})
const now = '2026-11-24T06:00:00Z'
const day = '2026-11-26'
/** A post that may go out on one day only. */
const wants = (change: Partial<Post> = {}): Post => ({
  id: 'wants',
  account: 'a',
  wished: day,
  earliest: day,
  latest: day,
  ...change,
})
/** A post that stays where it is. */
const stands = (id: string, at: string, change: Partial<Post> = {}): Post => ({
  id,
  account: 'a',
  wished: at,
  pinnedAt: at,
  ...change,
})
const said = (
  input: Partial<PlanInput>,
): { at: string | null; room: string | undefined; codes: string[] } => {
  const { posts } = plan({ now, accounts: [account()], posts: [], ...input })
  const { at, reasons } = posts.find((p) => p.id === 'wants') as (typeof posts)[number]
  const room = reasons.find((r) => r.code === 'room')
  return { at, room: room?.message, codes: reasons.filter((r) => r !== room).map((r) => r.code) }
}

describe('what would make room', () => {
  const far = { latest: '2026-11-26', earliest: '2026-11-26' }
  it('is a day more where the next one is free', () => {
    expect(said({ posts: [wants(), stands('x', '2026-11-26T09:00:00Z')] })).toEqual({
      at: null,
      codes: ['taken'],
      room: 'Let it go out up to 1 day later: 2026-11-27 is free.',
    })
  })

  it.each<[string, Partial<Account>, Post[], string, string]>([
    [
      'the post that stands there, moved',
      {},
      [stands('x', '2026-11-26T09:00:00Z')],
      'taken',
      'Move the post of 2026-11-26, 09:00 to another day, or set it aside.',
    ],
    [
      'one of the posts of a full week, moved out of it',
      { maxPerWeek: 2, maxPerDay: 2 },
      [stands('x', '2026-11-25T09:00:00Z'), stands('y', '2026-11-27T09:00:00Z')],
      'week-full',
      'Move the post of 2026-11-25, 09:00 to another week, or set it aside.',
    ],
    [
      'a neighbour, moved further away than the gap',
      { gapMinutes: 2000, maxPerDay: 2 },
      [stands('x', '2026-11-25T12:00:00Z')],
      'gap',
      'Move the post of 2026-11-25, 12:00 further away, or set it aside.',
    ],
    [
      'a smaller gap, where its neighbour went out already',
      { gapMinutes: 4000, maxPerDay: 2 },
      [stands('x', '2026-11-24T05:00:00Z')],
      'gap',
      'Make the smallest gap of the account at most 3120 minutes instead of 4000.',
    ],
    [
      'more posts a day, and a smaller gap with it',
      { slots: daily('07:00'), maxPerDay: 1, gapMinutes: 90 },
      [stands('x', '2026-11-24T06:00:00Z')],
      'day-full',
      'Let the account take 2 posts a day instead of 1, and make the smallest gap of the account at most 60 minutes instead of 90.',
    ],
    [
      'an end to a quiet day',
      { quiet: [{ from: '2026-11-26', to: '2027-12-31' }] },
      [],
      'quiet-day',
      'Let 2026-11-26 no longer be a quiet day.',
    ],
    [
      'a slot, where none opens',
      { slots: [{ weekday: 2, at: '09:00' }], quiet: [{ weekday: 2 }] },
      [],
      'no-opening',
      'Add a slot on Thursdays, say at 09:00: 2026-11-26 is free then.',
    ],
  ])('is %s', (_, change, others, code, words) => {
    // What went out today is in the way of today; everything else of Thursday.
    const today = others[0]?.pinnedAt?.startsWith('2026-11-24T06') ? '2026-11-24' : day
    const quiet = change.quiet ?? [{ from: addDays(today, 1), to: '2027-12-31' }]
    const found = said({
      accounts: [account({ ...change, quiet })],
      posts: [wants({ wished: today, earliest: today, latest: today }), ...others],
    })
    expect(found).toEqual({ at: null, codes: [code], room: words })
  })

  it('is none where its last day has passed, and a slot where there is none at all', () => {
    const late = wants({ wished: '2026-11-01', earliest: null, latest: '2026-11-02' })
    expect(said({ posts: [late] })).toMatchObject({ codes: ['too-late'], room: undefined })
    expect(said({ accounts: [account({ slots: [] })], posts: [wants(far)] }).codes).toEqual(['no-slot'])
  })

  it('does make room, whatever stands in the way', () => {
    let heeded = 0
    fc.assert(
      fc.property(anyInput, (input) => {
        const settled = standing(input)
        const found = new Map(plan(settled).posts.map((p) => [p.id, p]))
        for (const post of settled.posts) {
          const room = found.get(post.id)?.reasons.find((r) => r.code === 'room')
          if (!room) continue
          const others = settled.posts.filter((p) => p === post || p.pinnedAt || p.at)
          const heedful = room.message
            .replace(/\.$/, '')
            .split(', and ')
            .reduce((sum, clause) => heeding(sum, post.id, clause), { ...settled, posts: others })
          const at = plan(heedful).posts.find((p) => p.id === post.id)?.at
          expect([room.message, at]).toEqual([room.message, expect.any(String)])
          heeded++
        }
      }),
      { numRuns: 250 },
    )
    expect(heeded).toBeGreaterThan(20)
  })
})

describe('why a post stands where it stands', () => {
  const wished = (reasons: readonly { code: string; message: string }[]) => reasons.map((r) => r.message)
  const one = (input: Partial<PlanInput>): string[] =>
    wished(
      plan({ now, accounts: [account()], posts: [], ...input }).posts.find((p) => p.id === 'wants')
        ?.reasons ?? [],
    )
  const free = wants({ earliest: null, latest: null })

  it('is told from the wish, with each nearer day and what closed it', () => {
    const others = [stands('x', '2026-11-26T09:00:00Z'), stands('y', '2026-11-27T09:00:00Z')]
    expect(
      one({ posts: [free, ...others], accounts: [account({ quiet: [{ date: '2026-11-25' }] })] }),
    ).toEqual([
      'Wished for 2026-11-26, it stands 2 days later.',
      '2026-11-26 was already taken.',
      '2026-11-25 is a quiet day.',
    ])
    expect(one({ posts: [free] })).toEqual(['It stands on its wished day, 2026-11-26.'])
  })

  it('names the soft rule that made a nearer day dearer', () => {
    const shown = stands('x', '2026-11-21T09:00:00Z', { picture: 'seam' })
    const weights = { picture: 20, pictureDays: 6 }
    const [head, ...why] = one({ posts: [{ ...free, picture: 'seam' }, shown], weights })
    expect(head).toBe('Wished for 2026-11-26, it stands 1 day later.')
    expect(why).toEqual(['2026-11-26 was free, but the same picture stands on this account within 6 days.'])
  })

  it('says nothing that is not so, whatever stands', () => {
    const told = new Set<string>()
    fc.assert(
      fc.property(anyInput, (input) => {
        const { posts } = plan(input)
        const parsed = PlanInput.parse(input)
        for (const post of parsed.posts) {
          const placed = posts.find((p) => p.id === post.id)
          const own = parsed.accounts.find((a) => a.id === post.account)
          if (!placed?.at || !own || post.pinnedAt) continue
          const date = toWall(Date.parse(placed.at), own.zone).date
          /** What the rules' oracle has against the post at a moment, all others standing. */
          const against = (ms: number): string[] => {
            const there = posts.map((p) => (p === placed ? { ...p, at: new Date(ms).toISOString() } : p))
            return brokenRules(parsed, there)
              .filter((b) => b.startsWith(`${post.id}: `))
              .map((b) => b.slice(post.id.length + 2))
          }
          const [head, ...rest] = placed.reasons
          if (head?.code === 'stays') {
            expect(Date.parse(placed.at)).toBe(Date.parse(post.at ?? ''))
            continue
          }
          const days = Math.abs(daysBetween(post.wished, date))
          expect(head?.message).toContain(days === 0 ? `wished day, ${date}` : `stands ${days} day`)
          for (const { code, message } of rest) {
            const on = /\d{4}-\d\d-\d\d/.exec(message)?.[0] ?? ''
            const minutes = openingsOn(on, own).flatMap((o) =>
              Array.from({ length: (o.to - o.from) / 60_000 + 1 }, (_, i) => o.from + i * 60_000),
            )
            const rule = code.replaceAll('-', ' ')
            const today = toWall(Date.parse(input.now), own.zone).date
            const so =
              code === 'quiet-day'
                ? isQuiet(on, own.quiet)
                : code === 'past' && !minutes.some((m) => m < Date.parse(input.now))
                  ? post.wished < today
                  : minutes.some((m) => {
                      const broken = against(m)
                      if (code.startsWith('soft-')) return broken.length === 0
                      // A first and a last day are one rule to the planner, two to the oracle.
                      return broken.some(
                        (b) => b === rule || (rule === 'out of bounds' && / its (first|last) /.test(b)),
                      )
                    })
            expect([message, so]).toEqual([message, true])
            told.add(code)
          }
        }
      }),
      { numRuns: 200, endOnFailure: true },
    )
    // The common kinds of sentences have all been met.
    for (const code of ['taken', 'quiet-day', 'gap', 'past']) expect(told).toContain(code)
  })
})

/** A plan after what a clause tells one to do was done. */
function heeding(input: PlanInput, id: string, clause: string): PlanInput {
  const post = input.posts.find((p) => p.id === id) as Post
  const own = input.accounts.find((a) => a.id === post.account) as Account
  const date = /\d{4}-\d\d-\d\d/.exec(clause)?.[0] ?? ''
  const number = Number(/\d+/.exec(clause)?.[0])
  const edit = (change: Partial<Account>): PlanInput => ({
    ...input,
    accounts: input.accounts.map((a) => (a === own ? { ...a, ...change } : a)),
  })
  const reword = (change: Partial<Post>): PlanInput => ({
    ...input,
    posts: input.posts.map((p) => (p === post ? { ...p, ...change } : p)),
  })
  const words = clause.toLowerCase()
  if (words.startsWith('move the post of')) {
    const time = /\d\d:\d\d/.exec(clause)?.[0]
    const elsewhere = words.includes('on another account')
    const away = input.posts.filter((p) => {
      const at = p.pinnedAt ?? p.at
      const zone = input.accounts.find((a) => a.id === p.account)?.zone ?? 'UTC'
      const wall = at ? toWall(Date.parse(at), zone) : null
      return (p.account !== post.account) === elsewhere && wall?.date === date && wall.time === time
    })
    expect(away).not.toEqual([])
    return { ...input, posts: input.posts.filter((p) => !away.includes(p)) }
  }
  if (words.startsWith('make the smallest gap')) return edit({ gapMinutes: number })
  if (words.startsWith('let its pipeline make'))
    return {
      ...input,
      limits: (input.limits ?? []).map((l) =>
        l.id !== post.pipeline
          ? l
          : { ...l, ...(words.includes('a day') ? { aDay: number } : { aWeek: number }) },
      ),
    }
  if (words.includes('posts a day instead')) return edit({ maxPerDay: number })
  if (words.includes('posts a week instead')) return edit({ maxPerWeek: number })
  if (words.startsWith('wait until the account is warm')) return edit({ warmUp: null })
  if (words.startsWith('word it differently')) return reword({ text: 'other words' })
  if (words.startsWith('let it go out up to')) return reword({ latest: addDays(String(post.latest), number) })
  if (words.includes('no longer be a quiet day')) {
    const weekday = weekdayOf(date)
    return edit({
      quiet: (own.quiet ?? []).filter(
        (q) =>
          !('weekday' in q && q.weekday === weekday) &&
          !('date' in q && q.date === date) &&
          !('yearly' in q && q.yearly === date.slice(5)) &&
          !('from' in q && q.from <= date && date <= q.to),
      ),
    })
  }
  const weekday = WEEKDAYS.findIndex((name) => clause.includes(`${name}s`)) + 1
  const at = /\d\d:\d\d/.exec(clause)?.[0] ?? ''
  expect([clause, weekday]).toEqual([clause, expect.any(Number)])
  return edit({ slots: [...own.slots, { weekday, at }] })
}
