import { expect, it } from 'vitest'
import { seededRandom } from '../planning'
import type { Fact } from './facts'
import { expectedOf } from './expected'
import { aFact } from './testing/fact'
import { normals } from './testing/normal'

const DAY = 86_400_000
const NOW = Date.parse('2026-11-30T12:00:00Z')

const fact = (account: string, impressions: number | null, daysAgo = 30): Fact =>
  aFact({
    post: `${account} ${daysAgo}`,
    account,
    at: NOW - daysAgo * DAY,
    readings: { '7 d': impressions === null ? null : { impressions } },
  })

it('multiplies the mean of what an account earned, and adds accounts', () => {
  // Half of the posts earned 99.5 and half 399.5: 249.5 on average.
  const facts = ['a', 'b'].flatMap((account) =>
    [99.5, 399.5, 99.5, 399.5].map((seen, i) => fact(account, seen, 10 + i)),
  )
  const one = expectedOf(facts, [{ account: 'a', posts: 6 }], '7 d', NOW)
  expect(one?.seen.at).toBeCloseTo(6 * 249.5, 6)
  expect(one).toMatchObject({ posts: 6, from: 4, unknown: [] })
  const both = expectedOf(
    facts,
    [
      { account: 'a', posts: 6 },
      { account: 'b', posts: 1 },
      { account: 'c', posts: 3 },
    ],
    '7 d',
    NOW,
  )
  expect(both?.seen.at).toBeCloseTo(7 * 249.5, 6)
  expect(both).toMatchObject({ posts: 7, from: 8, unknown: ['c'] })
})

it('says nothing of accounts with two posts, of old posts, and of what was not read', () => {
  const few = [fact('a', 100, 10), fact('a', 120, 20), fact('a', 90, 183), fact('a', null, 30)]
  expect(expectedOf(few, [{ account: 'a', posts: 5 }], '7 d', NOW)).toBeNull()
  expect(expectedOf([...few, fact('a', 90, 181)], [{ account: 'a', posts: 5 }], '7 d', NOW)?.from).toBe(3)
  expect(expectedOf([], [], '7 d', NOW)).toBeNull()
})

it('is surer of many posts than of one, and of what more posts stand behind', () => {
  const normal = normals(seededRandom(4))
  const known = (count: number): Fact[] =>
    Array.from({ length: count }, (_, i) => fact('a', 100 * Math.exp(normal() * 0.5), 1 + i))
  const width = (facts: Fact[], posts: number): number => {
    const seen = expectedOf(facts, [{ account: 'a', posts }], '7 d', NOW)?.seen
    return seen ? Math.log(seen.high / seen.low) : 0
  }
  const [some, many] = [known(6), known(120)]
  expect(width(many, 1)).toBeGreaterThan(1.5)
  expect(width(many, 30)).toBeLessThan(0.6)
  expect(width(some, 30)).toBeGreaterThan(width(many, 30))
})

it('bounds a single post as the lognormal distribution does that its account’s posts follow', () => {
  const normal = normals(seededRandom(3))
  const facts = Array.from({ length: 6000 }, (_, i) =>
    fact('a', 100 * Math.exp(normal() * 0.5) - 0.5, 1 + (i % 150)),
  )
  const seen = expectedOf(facts, [{ account: 'a', posts: 1 }], '7 d', NOW)?.seen
  // The mean is 100 exp(0.125); 95 in 100 lie within 1.96 standard deviations of the median, which is 100.
  expect((seen?.at ?? 0) / (100 * Math.exp(0.125))).toBeCloseTo(1, 1)
  expect((seen?.low ?? 0) / (100 * Math.exp(-0.98))).toBeCloseTo(1, 1)
  expect((seen?.high ?? 0) / (100 * Math.exp(0.98))).toBeCloseTo(1, 1)
})

it('holds what comes about 95 times in 100, over accounts of every size', () => {
  const random = seededRandom(11)
  const normal = normals(random)
  const DRAWS = 4000
  let inside = 0
  for (let draw = 0; draw < DRAWS; draw++) {
    const accounts = ['a', 'b', 'c'].map((id) => ({
      id,
      level: 3 + 4 * random(),
      behind: 6 + Math.floor(random() * 40),
      planned: 1 + Math.floor(random() * 25),
    }))
    const spread = 0.2 + random() * 0.5
    const seen = (level: number): number => Math.exp(level + spread * normal())
    const facts = accounts.flatMap(({ id, level, behind }) =>
      Array.from({ length: behind }, (_, i) => fact(id, seen(level), 1 + i)),
    )
    let sum = 0
    for (const { level, planned } of accounts) for (let i = 0; i < planned; i++) sum += seen(level)
    const planned = accounts.map((a) => ({ account: a.id, posts: a.planned }))
    const told = expectedOf(facts, planned, '7 d', NOW)?.seen
    if (told && told.low <= sum && sum <= told.high) inside++
  }
  expect(inside / DRAWS).toBeGreaterThan(0.93)
  expect(inside / DRAWS).toBeLessThan(0.97)
})
