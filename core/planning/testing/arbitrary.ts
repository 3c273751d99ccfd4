import fc from 'fast-check'
import type { QuietDay, Slot } from '../../model'
import { plan } from '../plan'
import { seededRandom } from '../random'
import type { PlanInput } from '../rules'

/* Random accounts and posts for property tests: crowded, in zones of all kinds, about summer time. */

type Account = PlanInput['accounts'][number]
type Post = PlanInput['posts'][number]

/** A few days before the clocks go forward in Europe, so that summer time begins within reach. */
const NOW = '2026-03-24T10:00:00Z'
const DAY = 86_400_000
const day = (offset: number): string => new Date(Date.parse(NOW) + offset * DAY).toISOString().slice(0, 10)

const slot = fc
  .record({
    weekday: fc.oneof(fc.integer({ min: 1, max: 7 }), fc.constant(3)),
    hour: fc.integer({ min: 0, max: 22 }),
    // Windows of many hours hold exact times and other windows.
    hours: fc.constantFrom(0, 0, 1, 3, 8),
  })
  .map(({ weekday, hour, hours }): Slot => {
    const at = `${String(hour).padStart(2, '0')}:15`
    const to = `${String(Math.min(23, hour + hours)).padStart(2, '0')}:05`
    return hours && to > at ? { weekday, from: at, to } : { weekday, at }
  })
export const quiet: fc.Arbitrary<QuietDay> = fc.oneof(
  fc.integer({ min: 1, max: 7 }).map((weekday) => ({ weekday })),
  fc.integer({ min: 0, max: 40 }).map((n) => ({ date: day(n) })),
  fc.integer({ min: 0, max: 40 }).map((n) => ({ yearly: day(n).slice(5) })),
  fc
    .tuple(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 0, max: 9 }))
    .map(([n, l]) => ({ from: day(n), to: day(n + l) })),
)
/** Some days on which a slot stands at another hour. */
const trials = fc.array(
  fc.tuple(fc.nat(5), fc.integer({ min: 0, max: 5 }), fc.integer({ min: 0, max: 23 })),
  {
    maxLength: 3,
  },
)
const withTrials = (account: Account, drawn: readonly [number, number, number][]): Account => ({
  ...account,
  hourTrials: drawn.flatMap(([index, week, hour]) => {
    const chosen = account.slots[index % account.slots.length]
    if (!chosen) return []
    const date = [0, 1, 2, 3, 4, 5, 6]
      .map((d) => day(week * 7 + d))
      .find((d) => (new Date(d).getUTCDay() + 6) % 7 === chosen.weekday - 1)
    return date ? [{ date, slot: chosen, at: `${String(hour).padStart(2, '0')}:30` }] : []
  }),
})
const anyAccount = (id: string): fc.Arbitrary<Account> =>
  fc.tuple(plainAccount(id), trials).map(([account, drawn]) => withTrials(account, drawn))
const plainAccount = (id: string): fc.Arbitrary<Account> =>
  fc.record({
    id: fc.constant(id),
    network: fc.constantFrom('murmur', 'guildhall'),
    zone: fc.constantFrom('Europe/Lisbon', 'America/New_York', 'Australia/Lord_Howe', 'Asia/Kolkata'),
    slots: fc.array(slot, { minLength: 1, maxLength: 6 }),
    quiet: fc.array(quiet, { maxLength: 3 }),
    maxPerDay: fc.integer({ min: 1, max: 3 }),
    maxPerWeek: fc.integer({ min: 1, max: 6 }),
    gapMinutes: fc.constantFrom(0, 7, 60, 600, 1440, 4000),
    warmUp: fc.option(
      fc.record({
        since: fc.integer({ min: 0, max: 20 }).map((n) => `${day(-n)}T08:00:00Z`),
        steps: fc.constant([
          { days: 7, postsPerDay: 1 },
          { days: 28, postsPerDay: 2 },
        ]),
      }),
    ),
  })
const anyPost = (index: number, accounts: number): fc.Arbitrary<Post> =>
  fc
    .record({
      account: fc.nat(accounts - 1),
      wish: fc.integer({ min: -3, max: 40 }),
      spread: fc.option(fc.tuple(fc.nat(12), fc.nat(12))),
      of: fc.record({
        piece: fc.nat(4),
        passage: fc.nat(6),
        picture: fc.nat(3),
        pipeline: fc.nat(2),
        beat: fc.nat(5),
        words: fc.nat(6),
      }),
      priority: fc.integer({ min: -1, max: 2 }),
      stands: fc.option(fc.integer({ min: 0, max: 40 }), { freq: 3 }),
      pinned: fc.option(fc.integer({ min: 0, max: 40 }), { freq: 6 }),
    })
    .map((r) => ({
      id: `p${String(index).padStart(2, '0')}`,
      account: `a${r.account}`,
      piece: `piece ${r.of.piece}`,
      passage: `passage ${r.of.passage}`,
      picture: `picture ${r.of.picture}`,
      pipeline: `pipeline ${r.of.pipeline}`,
      beat: `beat ${r.of.beat}`,
      text: `words ${r.of.words}`,
      wished: day(r.wish),
      earliest: r.spread ? day(r.wish - r.spread[0]) : null,
      latest: r.spread ? day(r.wish + r.spread[1]) : null,
      priority: r.priority,
      at: r.stands === null ? null : `${day(r.stands)}T09:15:00Z`,
      pinnedAt: r.pinned === null ? null : `${day(r.pinned)}T11:11:00Z`,
    }))

const anyLimit = fc.record({
  id: fc.nat(2).map((n) => `pipeline ${n}`),
  aDay: fc.option(fc.integer({ min: 1, max: 2 })),
  aWeek: fc.option(fc.integer({ min: 1, max: 4 })),
})

/** Accounts and posts of all kinds, some of pipelines that are limited. */
export const anyInput: fc.Arbitrary<PlanInput> = fc.integer({ min: 1, max: 4 }).chain((accounts) =>
  fc
    .tuple(
      fc.tuple(...Array.from({ length: accounts }, (_, i) => anyAccount(`a${i}`))),
      fc
        .integer({ min: 0, max: 22 })
        .chain((posts) => fc.tuple(...Array.from({ length: posts }, (_, i) => anyPost(i, accounts)))),
      fc.uniqueArray(anyLimit, { maxLength: 2, selector: (l) => l.id }),
    )
    .map(([list, posts, limits]) => ({ now: NOW, accounts: list, posts, limits })),
)

/** The input with every post standing where the plan put it. */
export const standing = (input: PlanInput): PlanInput => {
  const at = new Map(plan(input).posts.map((p) => [p.id, p.at]))
  return { ...input, posts: input.posts.map((p) => ({ ...p, at: at.get(p.id) ?? null })) }
}
/** Where the planner puts each post. */
export const places = (input: PlanInput): Map<string, string | null> =>
  new Map(plan(input).posts.map((p) => [p.id, p.at]))

/** Accounts with fewer slots than their posts want, some of them windows, and posts bound to a few days. */
export function aCrowd(seed: number): PlanInput {
  const random = seededRandom(seed)
  const upTo = (n: number): number => Math.floor(random() * n)
  const date = (n: number): string =>
    new Date(Date.parse('2026-12-01T00:00:00Z') + n * DAY).toISOString().slice(0, 10)
  const hour = (n: number, minutes: string): string => `${String(n).padStart(2, '0')}:${minutes}`
  const aSlot = (): Slot => {
    const from = 8 + upTo(8)
    const weekday = 1 + upTo(7)
    return upTo(2)
      ? { weekday, at: hour(from, '00') }
      : { weekday, from: hour(from, '00'), to: hour(from + 1 + upTo(6), '30') }
  }
  const accounts = 1 + upTo(3)
  return {
    now: '2026-11-24T08:00:00Z',
    limits: [{ id: 'pipeline 0', aDay: 1 + upTo(2), aWeek: 2 + upTo(6) }],
    accounts: Array.from({ length: accounts }, (_, i) => ({
      id: `a${i}`,
      network: upTo(2) ? 'murmur' : 'guildhall',
      zone: 'Europe/Lisbon',
      slots: Array.from({ length: 2 + upTo(6) }, aSlot),
      maxPerDay: 1 + upTo(3),
      maxPerWeek: 2 + upTo(6),
      gapMinutes: [0, 30, 120, 1500, 3000][upTo(5)] ?? 0,
    })),
    posts: Array.from({ length: 8 + upTo(40) }, (_, i) => {
      const wish = upTo(28)
      const bound = upTo(3) > 0
      return {
        id: `p${String(i).padStart(2, '0')}`,
        account: `a${upTo(accounts)}`,
        piece: `piece ${upTo(6)}`,
        text: `words ${upTo(9)}`,
        beat: `beat ${upTo(9)}`,
        pipeline: `pipeline ${upTo(3)}`,
        wished: date(wish),
        earliest: bound ? date(wish - upTo(5)) : null,
        latest: bound ? date(wish + upTo(5)) : null,
        priority: upTo(3) - 1,
      }
    }),
  }
}
