import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { performance } from 'node:perf_hooks'
import { writeDrip } from '../core/drips'
import { PLAIN_HOUSE } from '../core/house'
import { checkCaption, sourceText } from '../core/judging'
import type { PieceContent } from '../core/model'
import { measure, network, NETWORKS } from '../core/networks'
import { findPassages } from '../core/passages'
import { beatDays, TRICKLE } from '../core/planning'
import { readFragment } from '../core/reading'
import { readArticle } from '../demo/content'
import { cardSpeed } from './cardSpeed'
import { horizonFrames, screenFrames } from './frames'
import { intakeRatios } from './intake'
import { flood } from './flood'
import { largeWorkspace } from './large'
import { manyResults } from './results'
import { planningCurve } from './planning'
import { fullShelf } from './shelf'

/*
 * npm run bench: how long the heart takes, on the demo's articles; what intake takes beside known
 * libraries; how the planner grows with the posts; the frames of a list of 20,000 pieces and of
 * a Horizon of 10,000 posts in Chromium; how long a workspace of 20 brands takes to open, and one that has as much in one brand; and 200 pieces through a pipeline; how fast cards are painted; `-- --heart` stops after the first. Times are
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
      passages: found,
      accounts,
      days,
      house: PLAIN_HOUSE,
      link: 'https://example.org/piece',
      seed: 1,
    })
  }),
)

const nine = NETWORKS.map(({ id }) => ({ id, network: id }))
const longest = pieces.reduce((a, b) => (b.words > a.words ? b : a))
const writeNine = () =>
  writeDrip({
    piece: longest,
    passages: findPassages(longest),
    accounts: nine,
    days: Array.from({ length: 9 }, (_, i) => i * 9),
    house: PLAIN_HOUSE,
    link: 'https://example.org/piece',
    seed: 1,
  })
const written = writeNine().filter((p) => p.wording !== null).length
report(
  `write nine beats for nine accounts, ${longest.words} words (≤ 1500 ms)`,
  7,
  written,
  'caption',
  writeNine,
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

const results = manyResults()
report('know 50,000 posts by 330,000 readings', 3, 50, 'thousand posts', results.know)
report('ask them for three months (≤ 200 ms)', 5, 50, 'thousand posts', results.ask)
report('tell the effects of one network apart (≤ 2000 ms)', 3, 5.5, 'thousand posts', results.tellApart)

const shelf = fullShelf()
report('lay out a shelf of 240,000 passages and 50,000 posts', 5, 240, 'thousand passages', shelf.lay)
report('choose from it for an account on a day', 5, 240, 'thousand passages', shelf.choose)

console.table(rows)
if (process.argv.includes('--heart')) process.exit()
console.table(intakeRatios(articles))
console.table(planningCurve())
console.table(await cardSpeed())
console.table(await screenFrames())
console.table(await horizonFrames())
console.table(await largeWorkspace(20))
console.table(await largeWorkspace(1))
console.table(await flood())
