import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Account, Brand, Post, Slot } from '../model'
import { aBrand, aDrip, aPiece, aPipeline, aPost, aRow, aSource, aWording, anAccount } from '../model/samples'
import { planOf } from '../planning'
import { brokenRules } from '../planning/testing/oracle'
import { rehearse, type Change, type RehearsalRequest } from '.'

/* Random workspaces and random changes: what the rehearsal promises holds for all of them. */

const NOW = '2026-03-20T10:00:00.000Z'
const DAY = 86_400_000
const day = (n: number): string => new Date(Date.parse(NOW) + n * DAY).toISOString().slice(0, 10)
const slot: fc.Arbitrary<Slot> = fc.record({
  weekday: fc.integer({ min: 1, max: 7 }),
  at: fc.integer({ min: 6, max: 21 }).map((h) => `${String(h).padStart(2, '0')}:15`),
})
const slots = fc.uniqueArray(slot, { minLength: 1, maxLength: 8, selector: (s) => JSON.stringify(s) })
const accountOf = (id: string): fc.Arbitrary<Account> =>
  fc
    .record({
      network: fc.constantFrom('murmur', 'guildhall'),
      zone: fc.constantFrom('Europe/Lisbon', 'America/New_York', 'Asia/Kolkata'),
      slots,
      maxPerDay: fc.integer({ min: 1, max: 3 }),
      maxPerWeek: fc.integer({ min: 1, max: 9 }),
      gapMinutes: fc.constantFrom(0, 120, 1500),
    })
    .map((r) => anAccount({ id, ...r }))
const change: fc.Arbitrary<Change> = fc.oneof(
  fc.constantFrom('l0', 'l1').map((pipeline): Change => ({ kind: 'pause', pipeline })),
  fc
    .tuple(fc.constantFrom('l0', 'l1'), fc.uniqueArray(fc.nat(40), { minLength: 1, maxLength: 4 }))
    .map(([pipeline, list]): Change => ({ kind: 'rhythm', pipeline, rhythm: { name: 'x', list } })),
  fc
    .tuple(fc.constantFrom('a0', 'a1', 'a2'), slots)
    .map(([account, s]): Change => ({ kind: 'slots', account, slots: s })),
  fc
    .tuple(fc.nat(40), fc.nat(10))
    .map(([n, l]): Change => ({ kind: 'quiet', brand: 'brand', days: [{ from: day(n), to: day(n + l) }] })),
)

/** Three accounts, two pipelines with a drip each, posts that the planner itself has placed. */
const workspace = fc
  .tuple(
    fc.tuple(accountOf('a0'), accountOf('a1'), accountOf('a2')),
    fc.array(fc.record({ account: fc.nat(2), drip: fc.nat(1), beat: fc.nat(3), pinned: fc.nat(7) }), {
      maxLength: 16,
    }),
    fc.array(change, { maxLength: 3 }),
    fc.boolean(),
  )
  .map(([accounts, wanted, changes, arrivals]): RehearsalRequest => {
    const days = [0, 3, 11, 30]
    const drips = [0, 1].map((n) =>
      aDrip({
        row: 'row',
        id: `d${n}`,
        pipeline: `l${n}`,
        piece: `piece ${n}`,
        startDay: day(1 + n),
        days,
        accounts: ['a0', 'a1', 'a2'],
      }),
    )
    const posts: Post[] = wanted.map((w, i) =>
      aPost({
        id: `p${String(i).padStart(2, '0')}`,
        account: `a${w.account}`,
        network: accounts[w.account]?.network ?? 'murmur',
        drip: `d${w.drip}`,
        pipeline: `l${w.drip}`,
        piece: `piece ${w.drip}`,
        beat: w.beat,
        passage: `passage ${i}`,
        media: [],
        wording: aWording({ text: `Words number ${i} of all` }),
        wished: `${day((days[w.beat] ?? 0) + 1 + w.drip)}T12:00:00.000Z`,
        at: null,
      }),
    )
    const base = {
      now: NOW,
      brand: 'brand',
      accounts,
      brands: [aBrand({ quiet: [], zone: 'UTC' })],
      drips,
      pipelines: [0, 1].map((n) =>
        aPipeline({
          id: `l${n}`,
          release: [aRow({ accounts: ['a0', 'a1', 'a2'] })],
          createdAt: '2026-02-01T10:00:00.000Z',
        }),
      ),
      from: day(0),
      to: day(80),
      pieces: [60].map((n) => aPiece({ id: `x${n}`, publishedAt: `${day(-n)}T10:00:00.000Z` })),
      sources: [aSource()],
      passages: [],
      worth: new Map(),
    }
    // Quiet for no day: the planner looks at every post once, and places it.
    const placed = rehearse({
      ...base,
      posts,
      changes: [{ kind: 'quiet', brand: 'brand', days: [] }],
      arrivals: false,
    })
    const at = new Map(placed.moves.map((m) => [m.post.id, m.post]))
    return {
      ...base,
      posts: posts.map((p, i) => ({
        ...(at.get(p.id) ?? p),
        pinned: wanted[i]?.pinned === 0 && at.has(p.id),
      })),
      changes,
      arrivals,
    }
  })

/** The brand as the changes leave it. */
const brandAfter = (request: RehearsalRequest): Brand[] =>
  request.brands.map((b) => ({
    ...b,
    quiet: request.changes.flatMap((c) => (c.kind === 'quiet' ? c.days : [])),
  }))

describe('whatever is changed, a rehearsal', () => {
  it('breaks no hard rule with what it moves', () => {
    fc.assert(
      fc.property(workspace, (request) => {
        const { after } = rehearse(request)
        const moved = after.posts.filter((p) => !p.pinned && p.at !== null)
        const input = planOf({
          now: NOW,
          accounts: after.accounts,
          brands: brandAfter(request),
          drips: [],
          pipelines: request.pipelines,
          standing: [],
          moving: after.posts.filter((p) => p.at !== null),
        })
        const places = after.posts.flatMap((p) => (p.at ? [{ id: p.id, at: p.at }] : []))
        const free = new Set(moved.map((p) => p.id))
        expect(brokenRules(input, places).filter((b) => free.has(b.split(':')[0] ?? ''))).toEqual([])
      }),
      { numRuns: 120 },
    )
  })

  it('without a change changes nothing, and never moves what is pinned or not there', () => {
    fc.assert(
      fc.property(workspace, (request) => {
        const none = rehearse({ ...request, changes: [] })
        expect(none.moves).toEqual([])
        expect(none.dropped).toEqual([])
        const { moves } = rehearse(request)
        const known = new Map(request.posts.map((p) => [p.id, p]))
        for (const m of moves)
          expect([known.get(m.post.id)?.pinned, m.from]).toEqual([false, known.get(m.post.id)?.at])
      }),
      { numRuns: 70 },
    )
  })

  it('of other slots on one account leaves every other account as it was', () => {
    fc.assert(
      fc.property(workspace, slots, (request, s) => {
        const changes: Change[] = [{ kind: 'slots', account: 'a1', slots: s }]
        const { moves, dropped } = rehearse({ ...request, changes, arrivals: false })
        expect(dropped).toEqual([])
        expect(moves.filter((m) => m.post.account !== 'a1')).toEqual([])
      }),
      { numRuns: 70 },
    )
  })

  it('counts every post once: by week, and in the figures', () => {
    fc.assert(
      fc.property(workspace, (request) => {
        for (const way of [rehearse(request).before, rehearse(request).after]) {
          const placed = way.posts.filter((p) => p.at !== null).length
          expect(way.weeks.flat().reduce((a, b) => a + b, 0)).toBe(placed)
          expect(way.figures.reduce((sum, f) => sum + f.posts, 0)).toBe(placed)
          expect(way.pressure.unplaced).toBe(way.posts.length - placed)
        }
      }),
      { numRuns: 60 },
    )
  })
})
