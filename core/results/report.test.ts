import { expect, it } from 'vitest'
import { anAccount, aPost, aWording } from '../model/samples'
import type { Measures, Post, Reading } from '../model'
import { writeReport, type ReportedPost } from '../formats'
import { factsOf, reportOf, type AskedReport, type Report } from '.'

const DAY = 86_400_000
const NOW = Date.parse('2026-11-30T12:00:00Z')
const ASKED: AskedReport = {
  from: NOW - 28 * DAY,
  to: NOW,
  age: '7 d',
  network: null,
  account: null,
  pipeline: null,
}
const ACCOUNTS = [anAccount({ id: 'a', network: 'murmur' }), anAccount({ id: 'b', network: 'rackwell' })]

/** Posts by account, days ago, and what was read of each after a week. */
function known(rows: readonly [account: 'a' | 'b', daysAgo: number, read: Measures | null | undefined][]) {
  const posts: Post[] = []
  const readings: Pick<Reading, 'post' | 'generation' | 'age' | 'measures'>[] = []
  rows.forEach(([account, daysAgo, measures], i) => {
    posts.push(
      aPost({
        id: `p${i}`,
        account,
        network: account === 'a' ? 'murmur' : 'rackwell',
        state: 'published',
        publishedAt: new Date(NOW - daysAgo * DAY).toISOString(),
        wording: aWording({ text: `Number ${i} bends.` }),
      }),
    )
    if (measures !== undefined) readings.push({ post: `p${i}`, generation: 1, age: '7 d', measures })
  })
  return factsOf(posts, readings, ACCOUNTS, [])
}

// 28 days hold four weeks: days 28 to 21, 21 to 14, 14 to 7 and 7 to 0 ago.
const FACTS = known([
  ['a', 50, { impressions: 100, clicks: 4 }],
  ['a', 40, { impressions: 120, clicks: 2 }],
  ['a', 27, { impressions: 200, reactions: 5, clicks: 10 }],
  ['a', 20, { impressions: 300, reactions: 7, clicks: 6 }],
  ['b', 20, { impressions: 40, saves: 3, clicks: 0 }],
  ['a', 13, null],
  ['a', 2, undefined],
])

it('tells all that readers did, and of how many posts, in a span and the one before', () => {
  const report = reportOf(FACTS, ASKED, 2, NOW)
  expect(report.out).toBe(5)
  expect(report.totals).toEqual([
    { measure: 'impressions', sum: 540, posts: 3, before: { sum: 220, posts: 2 } },
    // Rackwell counts no reactions, comments or shares; Murmur counts no saves.
    { measure: 'reactions', sum: 12, posts: 2, before: { sum: 0, posts: 0 } },
    { measure: 'comments', sum: 0, posts: 0, before: { sum: 0, posts: 0 } },
    { measure: 'shares', sum: 0, posts: 0, before: { sum: 0, posts: 0 } },
    { measure: 'saves', sum: 3, posts: 1, before: { sum: 0, posts: 0 } },
    { measure: 'clicks', sum: 16, posts: 3, before: { sum: 6, posts: 2 } },
  ])
  expect(report.answer).toMatchObject({ posts: 3, young: 1, missing: 1 })
  // Usual for the first account is between 200 and 300; the only post of the other one is its usual itself.
  expect(report.best.map((b) => [b.post, b.value])).toEqual([['p3', 300]])
  expect(report.networks).toBe(2)
})

it('goes through a span week by week, each post in one of them, and in steps of four weeks where it is long', () => {
  const { weeks } = reportOf(FACTS, ASKED, 2, NOW)
  expect(weeks.map((w) => [(NOW - w.from) / DAY, (NOW - w.to) / DAY, w.posts, w.read, w.sum])).toEqual([
    [28, 21, 1, 1, 200],
    [21, 14, 2, 2, 340],
    [14, 7, 1, 0, 0],
    [7, 0, 1, 0, 0],
  ])
  const year = reportOf(FACTS, { ...ASKED, from: NOW - 365 * DAY }, 2, NOW).weeks
  expect(year).toHaveLength(14)
  expect([(NOW - (year[0]?.from ?? 0)) / DAY, (NOW - (year[0]?.to ?? 0)) / DAY]).toEqual([365, 364])
  expect(year.reduce((sum, w) => sum + w.posts, 0)).toBe(7)
  expect(year.at(-2)).toMatchObject({ posts: 2, sum: 220 })
})

const page = (report: Report, best: readonly ReportedPost[] = [], note = '') =>
  writeReport({
    title: 'Oak & <Yard>',
    by: 'Ines',
    note,
    zone: 'Europe/Lisbon',
    asked: ASKED,
    report,
    best,
    followers: [
      {
        network: 'murmur',
        handle: 'y<ard',
        followers: 1234,
        day: '2026-11-30',
        growth: { since: '2026-11-01', by: 34, from: 1200 },
        before: { since: '2026-10-01', by: -12, from: 1212 },
      },
    ],
  })

it('is one page with everything in it, in which nothing that a person wrote is code', () => {
  const best: ReportedPost = {
    network: 'murmur',
    handle: 'yard',
    text: 'A seam <b>wants</b> cotton.',
    at: Date.parse('2026-11-10T23:30:00Z'),
    url: 'javascript:alert(1)',
    picture: 'data:image/png;base64,AAAA',
    alt: 'A "seam"',
    seen: 300,
    times: 1.42,
  }
  const html = page(
    reportOf(FACTS, ASKED, 2, NOW),
    [best, { ...best, url: 'https://murmur.example/1', picture: null }],
    'First try.\n\n<script>x</script>',
  )
  expect(html).toContain('<h1>Oak &amp; &lt;Yard&gt;</h1>')
  expect(html).toContain('<p>First try.</p>\n<p>&lt;script&gt;x&lt;/script&gt;</p>')
  expect(html).not.toMatch(/<script|javascript:|<link|@import|url\(/)
  // It asks nothing of any host: what it shows is in it, and links lead away only where they are pressed.
  expect([...html.matchAll(/\ssrc="([^"]*)"/g)].map((m) => m[1]?.slice(0, 5))).toEqual(['data:'])
  expect([...html.matchAll(/href="([^"]*)"/g)].map((m) => m[1])).toEqual(['https://murmur.example/1'])
  expect(html).toContain('alt="A &quot;seam&quot;"')
  expect(html).toContain('Seen 300 times</b>, 1.4 times what is usual there')
  expect(html).toContain(
    '<th scope="row">Murmur, @y&lt;ard</th><td>1,234</td><td>+34 (+2.8 %)</td><td>−12 (−1 %)</td>',
  )
})

it('says in short what happened, and claims no difference that may be chance', () => {
  const html = page(reportOf(FACTS, ASKED, 0, NOW))
  expect(html).toContain('<p>5 posts came out on 2 networks.</p>')
  expect(html).toContain(
    '<p>Seven days after each came out they had been seen 540 times, 180 a post, and their links were followed 16 times.</p>',
  )
  expect(html).toContain(
    '1 post is too young for that and in no figure yet; of 1 post the network gave no figures',
  )
  expect(html).not.toContain('did best')
  // By hand: 2 November 12:00 to 30 November 12:00.
  expect(html).toContain('<p>2 November 2026 to 30 November 2026 · Ines</p>')
  const empty = page(reportOf([], ASKED, 0, NOW))
  expect(empty).toContain('No post came out in these days.')
  expect(empty).not.toMatch(/NaN|undefined|Infinity/)
  expect(html).not.toMatch(/NaN|undefined|Infinity/)
})

it('tells a change that is certain with its bounds, and else that none can be told', () => {
  const rows = (now: number) =>
    Array.from({ length: 40 }, (_, i): ['a', number, Measures] => [
      'a',
      10 + i,
      { impressions: Math.round((i < 18 ? now : 100) * (1 + (i % 3) * 0.05)) },
    ])
  expect(page(reportOf(known(rows(150)), ASKED, 0, NOW))).toMatch(
    /A post was seen (4[5-9]|5\d) % more than in the same number of days before \(\d+ to \d+ % more\)/,
  )
  expect(page(reportOf(known(rows(101)), ASKED, 0, NOW))).toMatch(
    /no difference can be told \(\d % less to \d % more\)/,
  )
})
