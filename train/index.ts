import { fork } from 'node:child_process'
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import {
  PHRASE_SHARE,
  QUESTIONS,
  type Judge,
  type Model,
  type Question,
  type SentenceOdds,
} from '../core/passages'
import { FEATURES, GROUPS } from '../core/study'
import { figuresOf, line, runRows } from './choose'
import { ratedArticles, type RatedArticle } from './data'
import { frequentWords } from './frequency'
import { newton } from './linear'
import { areaUnderCurve } from './measure'
import { heldOutOdds, learn, rowsWhere, tableOf } from './rows'

/*
 * npm run train: learns which sentences readers would post from the rated articles in train/quotable,
 * writes core/passages/weights.json, and prints how well the choice agrees with the ratings of articles
 * that it did not learn from, leaving one out at a time. --folds N leaves out a share of 1/N at a time,
 * which is quicker; --groups prints, by twelve shares, what each group of features adds; --figures
 * leaves the weights as they are. The judging (train/choose.ts) is the rubric's own rule.
 */

const here = import.meta.dirname
const cache = join(here, '../node_modules/.cache/train')
const argument = (name: string): string | undefined => {
  const at = process.argv.indexOf(`--${name}`)
  return at < 0 ? undefined : process.argv[at + 1]
}
const flag = (name: string): boolean => process.argv.includes(`--${name}`)

/** Learns every question from the articles that a test lets through. */
function learnAll(
  table: ReturnType<typeof tableOf>,
  test: (article: number) => boolean,
): Record<Question, Judge> {
  const use = rowsWhere(table, test)
  return Object.fromEntries(QUESTIONS.map((q) => [q, learn(table, q, use)])) as Record<Question, Judge>
}

/** One process's share of the folds: writes the odds of the articles that were left out. */
async function foldsOf(part: number, parts: number, folds: number, without: string | null): Promise<void> {
  const articles = await ratedArticles()
  const table = tableOf(articles, without)
  const share = without === 'phrases' ? 0 : PHRASE_SHARE
  for (let fold = part; fold < folds; fold += parts) {
    const judges = learnAll(table, (a) => a % folds !== fold)
    articles.forEach((a, k) => {
      if (k % folds === fold)
        process.send?.({ article: k, odds: heldOutOdds(table, judges, k, a.study.sentences.length, share) })
    })
  }
}

/** What judges that did not learn from it say of each article, with all the machine's cores. */
async function leftOut(count: number, folds: number, without: string | null): Promise<SentenceOdds[][]> {
  const parts = Math.min(folds, availableParallelism())
  const odds: SentenceOdds[][] = Array.from({ length: count }, () => [])
  await Promise.all(
    Array.from({ length: parts }, (_, part) => {
      const child = fork(import.meta.filename, [], {
        env: { ...process.env, TRAIN_PART: JSON.stringify([part, parts, folds, without]) },
      })
      return new Promise<void>((done, failed) => {
        child.on('message', (said: { article: number; odds: SentenceOdds[] }) => {
          odds[said.article] = said.odds
        })
        child.on('error', failed)
        child.on('exit', (code) => (code === 0 ? done() : failed(new Error(`A process ended with ${code}.`))))
      })
    }),
  )
  return odds
}

/** The weights of passages, learned from the articles that a test lets through. */
function passageWeights(
  articles: readonly RatedArticle[],
  odds: readonly SentenceOdds[][],
  test: (a: number) => boolean,
): number[] {
  const rows = articles.flatMap((a, k) => (test(k) ? runRows(a, odds[k] ?? []) : []))
  return newton(
    rows.map((r) => r.traits),
    rows.map((r) => r.good),
  )
}

/** Figures for odds of left-out articles, the weights of passages learned from the other folds as well. */
function report(articles: readonly RatedArticle[], odds: readonly SentenceOdds[][], folds: number): string {
  const weights = Array.from({ length: Math.min(folds, 12) }, (_, f, n = Math.min(folds, 12)) =>
    passageWeights(articles, odds, (a) => a % n !== f),
  )
  return line(figuresOf(articles, odds, (a) => weights[a % weights.length] ?? []))
}

async function main(): Promise<void> {
  const articles = await ratedArticles()
  const folds = Number(argument('folds') ?? articles.length)
  const saved = join(cache, `odds-${folds}.json`)
  let odds: SentenceOdds[][]
  if (flag('saved')) odds = JSON.parse(readFileSync(saved, 'utf8')) as SentenceOdds[][]
  else {
    odds = await leftOut(articles.length, folds, null)
    mkdirSync(cache, { recursive: true })
    writeFileSync(saved, JSON.stringify(odds))
  }
  const table = tableOf(articles)
  console.log(
    `${table.rows.length} rated sentences, ${FEATURES.length} features, ${table.vocabulary.length} phrases`,
  )
  for (const q of QUESTIONS) {
    const said = [...table.article.keys()].map(
      (i) => odds[table.article[i] as number]?.[table.sentence[i] as number]?.[q] ?? 0,
    )
    console.log(`area under the curve, ${q}: ${areaUnderCurve(said, [...table.labels[q]]).toFixed(3)}`)
  }
  console.log(report(articles, odds, folds))
  if (flag('groups'))
    for (const group of ['phrases', ...GROUPS]) {
      const less = await leftOut(articles.length, 12, group)
      console.log(`without ${group}: ${report(articles, less, 12)}`)
    }
  if (flag('figures')) return
  const model: Model = {
    features: FEATURES.map((f) => f.name),
    vocabulary: table.vocabulary,
    judges: learnAll(table, () => true),
    passage: passageWeights(articles, odds, () => true),
  }
  writeFileSync(join(here, '../core/passages/weights.json'), `${JSON.stringify(model)}\n`)
  writeFileSync(
    join(here, '../core/language/en/frequency.json'),
    `${JSON.stringify({ words: frequentWords() })}\n`,
  )
}

const part = process.env.TRAIN_PART
if (part) {
  const [mine, parts, folds, without] = JSON.parse(part) as [number, number, number, string | null]
  await foldsOf(mine, parts, folds, without)
} else await main()
