import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { performance } from 'node:perf_hooks'
import { checkCaption, PLAIN_HOUSE, sourceText, writeDrip } from '../core/captions'
import type { PieceContent } from '../core/model'
import { measure, network } from '../core/networks'
import { findPassages } from '../core/passages'
import { beatDays, plan, TRICKLE, type PlanInput } from '../core/planning'
import { readFragment } from '../core/reading'
import { readArticle } from '../demo/content'
import { screenFrames } from './frames'
import { intakeRatios } from './intake'

/*
 * npm run bench: how long the heart takes, on the demo's articles and on a large plan; what intake
 * takes beside known libraries; and the frames of a list of 20,000 pieces in Chromium. Times are
 * medians of several rounds on this machine; compare them within one run, not across machines.
 */

const folder = join(import.meta.dirname, '../demo/content/oakum-yard')
const articles = readdirSync(folder).map((f) => readArticle(readFileSync(join(folder, f), 'utf8')))
const read = (): PieceContent[] => articles.map((a) => readFragment(a.html, { title: a.title }))

function median(rounds: number, work: () => unknown): number {
  const times = Array.from({ length: rounds }, () => {
    const started = performance.now()
    work()
    return performance.now() - started
  })
  return times.sort((a, b) => a - b)[Math.floor(rounds / 2)] ?? 0
}

const rows: { what: string; median: string; per: string }[] = []
function report(what: string, rounds: number, count: number, unit: string, work: () => unknown): void {
  const time = median(rounds, work)
  rows.push({ what, median: `${time.toFixed(1)} ms`, per: `${(time / count).toFixed(3)} ms a ${unit}` })
}

const pieces = read()
const words = pieces.reduce((sum, p) => sum + p.words, 0)
report('read the articles (with sentences and parts of speech)', 5, words / 1000, 'thousand words', read)
report('find the passages of fresh pieces', 5, pieces.length, 'piece', () =>
  read().map((p) => findPassages(p)),
)

const accounts = ['murmur', 'guildhall', 'shutterleaf'].map((id) => ({ id, network: id }))
const days = beatDays(TRICKLE)
report('write a Trickle for three accounts from each', 3, pieces.length * days.length * 3, 'caption', () =>
  pieces.map((piece) => {
    const found = findPassages(piece)
    return writeDrip({
      piece,
      passages: found.slice(0, days.length),
      spare: found.slice(days.length),
      accounts,
      days,
      house: PLAIN_HOUSE,
      link: 'https://example.org/piece',
      seed: 1,
    })
  }),
)

const [piece] = pieces
if (piece) {
  const caption = findPassages(piece)[0]?.text ?? ''
  const context = {
    profile: network('murmur'),
    house: PLAIN_HOUSE,
    source: sourceText(piece),
    pictures: 1,
    others: [],
  }
  report('check a caption', 9, 100, 'caption', () => {
    for (let i = 0; i < 100; i++) checkCaption(caption, context)
  })
  report('measure a caption', 9, 10_000, 'caption', () => {
    for (let i = 0; i < 10_000; i++) measure(`${caption} https://example.org/a é`, network('murmur').text)
  })
}

/** A year of posts: so many accounts, each with three posts a week. */
function yearOf(accountCount: number): PlanInput {
  const ids = Array.from({ length: accountCount }, (_, i) => `account-${i}`)
  return {
    now: '2026-11-24T08:00:00Z',
    accounts: ids.map((id, i) => ({
      id,
      network: `network-${i % 3}`,
      zone: 'Europe/Lisbon',
      slots: [1, 2, 3, 4, 5].map((weekday) => ({ weekday, at: '09:00' })),
      maxPerDay: 2,
      gapMinutes: 120,
    })),
    posts: ids.flatMap((account) =>
      Array.from({ length: 150 }, (_, k) => ({
        id: `${account} ${k}`,
        account,
        text: `Words of ${account} number ${k}`,
        wished: new Date(
          Date.parse('2026-11-25T12:00:00Z') + Math.floor((k * 365) / 150) * 86_400_000,
        ).toISOString(),
      })),
    ),
  }
}
for (const count of [5, 20]) {
  const input = yearOf(count)
  report(`plan a year for ${count} accounts`, 3, input.posts.length, 'post', () => plan(input))
}
console.table(rows)
console.table(intakeRatios(articles))
console.table(await screenFrames())
