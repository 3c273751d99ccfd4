import { performance } from 'node:perf_hooks'
import { XMLParser } from 'fast-xml-parser'
import winkNLP from 'wink-nlp'
import model from 'wink-eng-lite-web-model'
import { parseFeed } from '../core/feeds'
import { findPassages } from '../core/passages'
import { readFragment } from '../core/reading'
import { Doubles, sketchOf } from '../core/sieve'
import type { SiteArticle } from '../world'

/** One line of what is printed: the time of a thing, and what it is held against. */
export interface Ratio {
  what: string
  time: string
  against: string
  ratio: string
  bound: string
}

const median = (times: readonly number[]): number =>
  [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? 0

function timed(work: () => unknown): number {
  const started = performance.now()
  work()
  return performance.now() - started
}

/** Times two things in turns, so that both meet the same weather. */
function pair(rounds: number, ours: () => unknown, theirs: () => unknown): [number, number] {
  const [a, b]: [number[], number[]] = [[], []]
  for (let i = 0; i < rounds; i++) {
    a.push(timed(ours))
    b.push(timed(theirs))
  }
  return [median(a), median(b)]
}

function ratio(what: string, ours: number, against: string, theirs: number, bound: number): Ratio {
  return {
    what,
    time: `${ours.toFixed(0)} ms`,
    against: `${against}: ${theirs.toFixed(0)} ms`,
    ratio: (ours / theirs).toFixed(2),
    bound: `≤ ${bound}`,
  }
}

/** A feed of many items, each with the summary, categories and dates that feeds carry. */
function feedOf(count: number, articles: readonly SiteArticle[]): string {
  const items = Array.from({ length: count }, (_, i) => {
    const a = articles[i % articles.length] as SiteArticle
    return `<item><title>${a.title} ${i}</title><link>https://blog.example/${a.slug}-${i}?utm_source=feed</link><guid isPermaLink="false">${a.slug}-${i}</guid><pubDate>${new Date(
      Date.UTC(2020, 0, 1) + i * 3_600_000,
    ).toUTCString()}</pubDate><dc:creator>${a.author}</dc:creator>${a.categories.map((c) => `<category>${c}</category>`).join('')}<description><![CDATA[${a.html.slice(0, 1500)}]]></description></item>`
  })
  return `<?xml version="1.0" encoding="UTF-8"?><rss version="2.0" xmlns:dc="http://purl.org/dc/elements/1.1/"><channel><title>A long feed</title><link>https://blog.example/</link>${items.join('')}</channel></rss>`
}

/** What intake is measured by, each against a known library or a bound, in one run. */
export function intakeRatios(articles: readonly SiteArticle[]): Ratio[] {
  const rows: Ratio[] = []

  const feed = feedOf(10_000, articles)
  const xml = new XMLParser({ ignoreAttributes: false })
  const [parse, plain] = pair(
    5,
    () => parseFeed(feed, 'https://blog.example/feed'),
    () => xml.parse(feed) as unknown,
  )
  rows.push(
    ratio(
      `parse a feed of 10,000 items (${(feed.length / 1e6).toFixed(1)} MB)`,
      parse,
      'fast-xml-parser, plain objects',
      plain,
      2,
    ),
  )

  const nlp = winkNLP(model, ['sbd', 'pos'])
  const whole = `${articles
    .slice(0, 2)
    .map((a) => a.html)
    .join('')}`
  const text = readFragment(whole).text
  const tag = (): unknown => nlp.readDoc(text).tokens().out(nlp.its.pos)
  const readAndFind = (): unknown => findPassages(readFragment(whole))
  tag()
  readAndFind()
  const [read, tagged] = pair(9, readAndFind, tag)
  rows.push(
    ratio(
      `read ${text.split(/\s+/).length} words and find their passages`,
      read,
      'wink-nlp, tokenize and tag',
      tagged,
      4,
    ),
  )

  const words = articles.flatMap((a) => a.html.replace(/<[^>]*>/g, ' ').split(/\s+/))
  const made = (n: number): string =>
    Array.from({ length: 700 }, (_, i) => words[(n * 7919 + i * (1 + (n % 13))) % words.length]).join(' ')
  const index = new Doubles()
  for (let n = 0; n < 20_000; n++) index.add({ id: `p${n}`, ...sketchOf(made(n)) })
  const looked = Array.from({ length: 50 }, (_, i) => {
    const text_ = `${made(i * 391)
      .split(' ')
      .slice(40)
      .join(' ')} and then some words of its own`
    return timed(() => index.near(sketchOf(text_)))
  }).sort((a, b) => a - b)
  rows.push({
    what: 'look one new piece up among 20,000 for doubles',
    time: `${median(looked).toFixed(1)} ms`,
    against: `slowest of ${looked.length}: ${(looked.at(-1) ?? 0).toFixed(1)} ms`,
    ratio: '–',
    bound: '< 50 ms',
  })
  return rows
}
