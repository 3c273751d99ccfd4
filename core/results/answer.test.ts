import { describe, expect, it } from 'vitest'
import { anAccount, aPost, aWording } from '../model/samples'
import type { Measures, Post, Reading } from '../model'
import { resultsSheet } from '../formats'
import { answerOf, hoursOf, rankedOf, worthOf, type Asked } from './answer'
import { openingOf } from '../house'
import { factsOf, readAt } from './facts'
import { groupName } from './words'
import { lineChange, resultsOf, toldApart } from './results'

const DAY = 86_400_000
const NOW = Date.parse('2026-11-30T12:00:00Z')
const ask = (change: Partial<Asked> = {}): Asked => ({
  from: NOW - 28 * DAY,
  to: NOW,
  by: 'opening',
  counted: 'impressions',
  age: '7 d',
  network: null,
  account: null,
  pipeline: null,
  ...change,
})

let posts: Post[] = []
let readings: Pick<Reading, 'post' | 'generation' | 'age' | 'measures'>[] = []
/** A post of so many days ago, and what was read of it after a week. */
function out(
  daysAgo: number,
  text: string,
  measures: Measures | null | undefined,
  change: Partial<Post> = {},
) {
  const id = `p${posts.length}`
  posts.push(
    aPost({
      id,
      account: 'a',
      network: 'murmur',
      state: 'published',
      publishedAt: new Date(NOW - daysAgo * DAY).toISOString(),
      wording: aWording({ text }),
      ...change,
    }),
  )
  if (measures !== undefined) readings.push({ post: id, generation: 1, age: '7 d', measures })
  return id
}
const facts = () =>
  factsOf(
    posts,
    readings,
    [anAccount({ id: 'a', zone: 'Asia/Tokyo' }), anAccount({ id: 'b', zone: 'UTC', network: 'rackwell' })],
    [
      { id: 'oak', kind: 'number' },
      { id: 'elm', kind: 'steps' },
    ],
  )
function fresh(): void {
  posts = []
  readings = []
}

describe('what is told of a post', () => {
  it.each([
    ['Why oak? It bends.', 'a question'],
    ['Oak bends. Why?', 'a statement'],
    ['https://a.example/x?\nWhy oak?', 'a question'],
    ['“Oak bends,” she said.', 'a quotation'],
    ['12 years of oak. And more', 'a number'],
    ['Oak bends\n12 years', 'a statement'],
    ['Oak at 3.5 metres bends. Why?', 'a number'],
    ['“Why oak?” she asked. It bends.', 'a quotation'],
    ['(Why oak?) It bends.', 'a question'],
  ])('“%s” opens with %s', (text, opening) => {
    expect(openingOf(text)).toBe(opening)
  })

  it('is when it went out on its account’s own clock, and what it shows', () => {
    fresh()
    out(10, 'Oak', undefined, { media: [] })
    const [fact] = facts()
    // Noon in UTC on Friday 20 November is nine in the evening in Tokyo.
    expect(fact).toMatchObject({ hour: 21, weekday: 5, shows: 'nothing', opening: 'a statement' })
  })

  it.each([
    [130, 'short'],
    [170, 'usual'],
    [210, 'long'],
  ])('is for Murmur, whose brief aims at 60 to 280 characters, that %d are %s', (characters, length) => {
    fresh()
    // The thirds of what a brief aims at lie at 133 and 207; an address is no part of it.
    out(
      10,
      `${'oak '.repeat(100).slice(0, characters - 1)}k https://a.example/a/very/long/address`,
      undefined,
    )
    expect(facts()[0]?.length).toBe(length)
  })

  it('is only what was read of it as it is out now', () => {
    fresh()
    const id = out(10, 'Oak', { impressions: 5 })
    readings.push({ post: id, generation: 2, age: '7 d', measures: { impressions: 900 } })
    out(10, 'Not out', { impressions: 7 }, { state: 'approved' })
    const all = facts()
    expect(all).toHaveLength(1)
    expect(all[0]?.readings).toEqual({ '7 d': { impressions: 5 } })
  })

  it('is missing where nobody read it, and too young before', () => {
    fresh()
    out(10, 'Old', undefined)
    out(8, 'Read in vain', null)
    out(6, 'Young', undefined)
    const [old, vain, young] = facts()
    if (!old || !vain || !young) throw new Error('no facts')
    expect(readAt(old, '7 d', NOW)).toBe('missing')
    expect(readAt(vain, '7 d', NOW)).toBe('missing')
    expect(readAt(young, '7 d', NOW)).toBe('too young')
  })
})

describe('posts that are put together', () => {
  it('have their mean, their number, and the span before; what is left out is told', () => {
    fresh()
    out(20, 'Why oak?', { impressions: 100 })
    out(19, 'Why larch?', { impressions: 300 })
    out(18, 'Oak bends.', { impressions: 50 })
    out(17, 'Oak splits.', null)
    out(2, 'Oak is young.', undefined)
    out(16, 'Oak counts nothing.', { reactions: 3 })
    out(40, 'Why ash?', { impressions: 80 })
    out(70, 'Long ago?', { impressions: 9000 })
    // What could not be read of the span before is none of this span's.
    out(41, 'Ash in vain.', null)
    const answer = answerOf(facts(), ask(), NOW)
    expect(answer).toMatchObject({ posts: 3, mean: 150, missing: 1, young: 1, uncounted: 1 })
    expect(answer.before).toEqual({ mean: 80, posts: 1 })
    const question = answer.groups.find((g) => g.key === 'a question')
    expect(question).toMatchObject({ posts: 2, mean: 200, before: { mean: 80, posts: 1 } })
    expect(answer.groups.find((g) => g.key === 'a statement')).toMatchObject({
      posts: 1,
      mean: 50,
      before: null,
    })
  })

  it('are compared with what is usual for their own accounts', () => {
    fresh()
    // One account earns ten times what the other does; on both, questions earn twice as much.
    for (let i = 0; i < 12; i++) {
      const wobble = i % 2 ? 1.05 : 0.95
      out(20 - i, 'Why oak?', { impressions: Math.round(2000 * wobble) })
      out(20 - i, 'Oak bends.', { impressions: Math.round(1000 * wobble) })
      if (i < 3) {
        const other = { account: 'b', network: 'rackwell' }
        out(20 - i, 'Why ash?', { impressions: Math.round(200 * wobble) }, other)
        out(20 - i, 'Ash bends.', { impressions: Math.round(100 * wobble) }, other)
      }
    }
    const groups = answerOf(facts(), ask(), NOW).groups
    // Against the middle of both, twice is the root of two more and less.
    expect(groups.map((g) => g.key)).toEqual(['a question', 'a statement'])
    expect(groups[0]?.times?.at).toBeCloseTo(Math.SQRT2, 1)
    expect(groups[1]?.times?.at).toBeCloseTo(1 / Math.SQRT2, 1)
    expect(groups[0]?.times?.low).toBeGreaterThan(1.3)
  })

  it('are compared account by account with the span before, which another mix of accounts does not change', () => {
    fresh()
    const b = { account: 'b', network: 'rackwell' }
    for (const [i, w] of [0.9, 1, 1.1, 1].entries()) {
      out(50 - i, 'Oak.', { impressions: 1000 * w })
      out(20 - i, 'Oak.', { impressions: 1500 * w })
      // The small account posts only now and then before, and much now.
      if (i === 0) out(50, 'Ash.', { impressions: 10 }, b)
      out(20 - i, 'Ash.', { impressions: 15 }, b)
    }
    const { times, mean, before } = answerOf(facts(), ask(), NOW)
    expect(times?.at).toBeCloseTo(1.49, 1)
    expect((times?.low ?? 0) < 1.5 && 1.5 < (times?.high ?? 0)).toBe(true)
    expect(mean).toBeLessThan(before?.mean ?? 0)
    expect(lineChange(facts(), NOW)).toBeNull()
  })

  it('are compared so that each account counts by what stands behind its difference', () => {
    fresh()
    for (let i = 0; i < 8; i++) {
      const wobble = i % 2 ? 1.01 : 0.99
      out(50 - i, 'Oak.', { impressions: 10_000 * wobble })
      out(20 - i, 'Oak.', { impressions: 15_000 * wobble })
    }
    const b = { account: 'b', network: 'rackwell' }
    out(50, 'Ash.', { impressions: 10_000 }, b)
    out(20, 'Ash.', { impressions: 10_000 }, b)
    // Half more of eight and eight is worth 4, nothing of one and one 0.5: 1.5 to the power of 4 / 4.5.
    expect(answerOf(facts(), ask(), NOW).times?.at).toBeCloseTo(1.434, 2)
  })

  it('stand by hour and weekday in the order of the day and the week, whatever they earned', () => {
    fresh()
    // In Tokyo, nine hours ahead: noon in UTC is 21:00.
    for (const [hours, impressions] of [
      [0, 10],
      [-12, 900],
      [-5, 50],
    ] as const)
      out(
        10,
        'Oak',
        { impressions },
        { publishedAt: new Date(NOW - 10 * DAY + hours * 3_600_000).toISOString() },
      )
    const by = (what: Asked['by']) => answerOf(facts(), ask({ by: what }), NOW).groups.map((g) => g.key)
    expect(by('hour')).toEqual(['9', '16', '21'])
    expect(by('weekday')).toEqual(['5'])
  })

  it('stand under each of their tags, and under no pipeline where they have none', () => {
    fresh()
    out(9, 'Oak', { impressions: 10 }, { wording: aWording({ hashtags: ['#Oak', '#boats'], tags: ['oak'] }) })
    const by = (what: Asked['by']) => answerOf(facts(), ask({ by: what }), NOW).groups.map((g) => g.key)
    expect(by('tag').toSorted()).toEqual(['boats', 'oak'])
    expect(by('account')).toEqual(['a'])
  })

  it('stand under what their passages are, those without one in no group', () => {
    fresh()
    out(9, 'Oak', { impressions: 10 }, { passage: 'oak' })
    out(9, 'Oak again', { impressions: 30 }, { passage: 'oak' })
    out(9, 'Elm', { impressions: 5 }, { passage: 'elm' })
    out(9, 'By hand', { impressions: 7 }, { passage: null })
    out(9, 'Of what is gone', { impressions: 7 }, { passage: 'gone' })
    const { groups, posts: all } = answerOf(facts(), ask({ by: 'passage' }), NOW)
    expect(groups.map((g) => [g.key, g.posts, g.mean]).sort()).toEqual([
      ['number', 2, 20],
      ['steps', 1, 5],
    ])
    expect(all).toBe(5)
    const names = { accounts: [], pieces: [], pipelines: [] }
    expect(groupName('passage', 'steps', names)).toBe('from steps')
  })

  it('count the clicks on their own short links on any network, and leave out what has none', () => {
    fresh()
    out(9, 'Oak', { impressions: 10, 'link clicks': 4 })
    out(9, 'Ash', { saves: 1, 'link clicks': 8 }, { account: 'b', network: 'rackwell' })
    out(9, 'Elm', { impressions: 10, clicks: 3 })
    const asked = ask({ counted: 'link clicks', by: 'account' })
    expect(answerOf(facts(), asked, NOW)).toMatchObject({ posts: 2, mean: 6, uncounted: 1 })
    // They are no part of the response, which is what networks count.
    expect(answerOf(facts(), ask({ counted: 'response' }), NOW).responses).not.toContain('link clicks')
    expect(toldApart(facts(), asked, NOW).effects.map((e) => [e.network, e.posts])).toEqual([
      ['murmur', 1],
      ['rackwell', 1],
    ])
  })

  it('respond by what all their networks count, as a share of those who saw them', () => {
    fresh()
    out(9, 'Oak', { impressions: 200, reactions: 5, comments: 1, shares: 2, clicks: 2 })
    expect(answerOf(facts(), ask({ counted: 'response' }), NOW)).toMatchObject({
      mean: 0.05,
      responses: ['reactions', 'comments', 'shares', 'clicks'],
    })
    // Rackwell counts saves and clicks, Murmur no saves: clicks are what they have in common.
    out(9, 'Ash', { impressions: 100, saves: 50, clicks: 4 }, { account: 'b', network: 'rackwell' })
    expect(answerOf(facts(), ask({ counted: 'response' }), NOW)).toMatchObject({
      mean: 6 / 300,
      responses: ['clicks'],
    })
  })
})

it('posts are ranked against their own accounts, and hours hold the posts behind them', () => {
  fresh()
  const b = { account: 'b', network: 'rackwell' }
  const low = out(10, 'Oak', { impressions: 500 })
  const high = out(11, 'Oak', { impressions: 2000 })
  const small = out(10, 'Ash', { impressions: 9 }, b)
  out(11, 'Ash', { impressions: 10 }, b)
  const ranked = rankedOf(facts(), ask(), NOW)
  expect(ranked.map((r) => r.post)).toEqual([high, 'p3', small, low])
  // The usual of 500 and 2000 is their geometric mean, 1000.
  expect(ranked[0]?.times).toBeCloseTo(2, 2)
  expect(
    hoursOf(facts(), ask({ account: 'b' }), NOW).map(({ weekday, hour, posts: n }) => [weekday, hour, n]),
  ).toEqual([
    [4, 12, 1],
    [5, 12, 1],
  ])
})

it('what fell behind is told with what on it earns less for certain', () => {
  fresh()
  for (let i = 0; i < 60; i++) {
    const question = i % 2 === 0
    const wobble = 1 + 0.1 * Math.sin(i * 7)
    out(8 + (i % 20), question ? 'Why oak?' : 'Oak bends.', {
      impressions: Math.round((question ? 400 : 1000) * wobble),
    })
  }
  const { ranked } = resultsOf(facts(), ask(), NOW)
  const { effects, on } = toldApart(facts(), ask(), NOW)
  const of = (post: string | undefined) => (on.get(post ?? '') ?? []).map((e) => e.level)
  expect(of(ranked.at(-1)?.post)).toContain('opens with a question')
  expect(of(ranked[0]?.post)).not.toContain('opens with a question')
  const named = effects[0]?.named.find((e) => e.level === 'opens with a question')
  expect(named?.times.at).toBeCloseTo(0.4, 1)
  expect(toldApart(facts(), ask({ network: 'rackwell' }), NOW).effects).toEqual([])
})

it('what is told apart is of the posts until a moment, and an account’s age holds no single post back', () => {
  fresh()
  for (let i = 0; i < 60; i++)
    out(8 + i, 'Oak bends.', { impressions: Math.round(300 * 1.02 ** i * (1 + 0.05 * Math.sin(i * 7))) })
  const { effects, on } = toldApart(facts(), ask(), NOW)
  expect(effects[0]?.named.find((e) => e.factor === 'age')?.times.high).toBeLessThan(1)
  expect([...on.values()].flat().filter((e) => e.factor === 'age')).toEqual([])
  // Seventeen of them are older than fifty days.
  expect(toldApart(facts(), ask({ to: NOW - 50.5 * DAY }), NOW).effects).toEqual([
    { network: 'murmur', posts: 17, named: [], others: 0 },
  ])
})

it('groups are saved as a sheet, with what is not known left empty', () => {
  fresh()
  out(9, 'Oak', { impressions: 1234567 })
  const { groups } = answerOf(facts(), ask(), NOW)
  expect(resultsSheet(groups, ['=1+1'], ask())).toBe(
    "opening,posts,impressions a post after 7 d,before,posts before,times,low,high\r\n'=1+1,1,1234570,,,,,\r\n",
  )
})

it('the line’s number compares the last 28 days with the 28 before, a day after each post', () => {
  fresh()
  for (const [i, w] of [0.9, 1, 1.1, 1].entries())
    for (const [daysAgo, impressions] of [
      [40 - i, 1000],
      [10 - i, 1200],
    ] as const)
      readings.push({
        post: out(daysAgo, 'Oak.', undefined),
        generation: 1,
        age: '1 d',
        measures: { impressions: impressions * w },
      })
  expect(lineChange(facts(), NOW)?.at).toBeCloseTo(1.2, 3)
})

it('the response of one account’s groups is pulled together by all who saw its posts', () => {
  fresh()
  for (let i = 0; i < 8; i++) {
    out(20 - i, 'Why oak?', { impressions: 1000, reactions: 60 + (i % 3) })
    out(20 - i, 'Oak bends.', { impressions: 1000, reactions: 20 + (i % 3) })
    out(20 - i, '“Oak.”', { impressions: 1000, reactions: 40 + (i % 3) })
    out(20 - i, '9 oaks.', { impressions: 1000, reactions: 40 + (i % 3) })
  }
  const { groups, mean } = answerOf(facts(), ask({ counted: 'response' }), NOW)
  expect(mean).toBeCloseTo(0.0409, 4)
  expect(groups.map((g) => g.key)[0]).toBe('a question')
  // 0.0609 of 0.0409 is about 1.49; so much is certain that it is hardly pulled.
  expect(groups[0]?.times?.at).toBeCloseTo(1.48, 1)
  expect(groups[0]?.times?.low).toBeGreaterThan(1.2)
})

describe('what a passage earned', () => {
  const usual = (): void => {
    fresh()
    for (let i = 0; i < 30; i++) {
      const [many, passage] = [80 + ((i * 13) % 41), `p${i % 12}`]
      out(40 + i, `Oak ${i}`, { impressions: many }, { passage })
    }
  }
  const worth = (passage: string): number =>
    worthOf(facts(), { counted: 'impressions', age: '7 d' }, NOW).get(passage) ?? 0

  it('is drawn to the usual, the more so the fewer posts say it', () => {
    usual()
    for (let i = 0; i < 5; i++) out(20 + i, `Larch ${i}`, { impressions: 180 + 10 * i }, { passage: 'often' })
    out(15, 'Ash', { impressions: 200 }, { passage: 'once' })
    out(14, 'No passage', { impressions: 900 }, { passage: null })
    expect(worth('often')).toBeGreaterThan(worth('once'))
    expect(worth('once')).toBeGreaterThan(1)
    expect(worth('nobody')).toBe(0)
  })

  it('is that of all posts that say it', () => {
    usual()
    out(14, 'Elm', { impressions: 400 }, { passage: 'both' })
    out(13, 'Elm again', { impressions: 25 }, { passage: 'both' })
    // Four times and a quarter of what is usual are neither more nor less.
    expect(Math.abs(Math.log(worth('both')))).toBeLessThan(0.02)
  })
})
