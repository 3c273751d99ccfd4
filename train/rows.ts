import { phraseOdds, QUESTIONS, type Judge, type Question, type SentenceOdds } from '../core/passages'
import { FEATURES, phrasesOf } from '../core/study'
import { layOut, logOdds } from '../core/passages'
import { binned, grow, type Binned, type Growth } from './boost'
import type { RatedArticle, Rating } from './data'
import { linear } from './linear'

/** In how many articles a phrase must stand to be weighed. */
const LEAST_ARTICLES = 6

const GROWTH: Growth = { trees: 120, depth: 3, shrink: 0.12, columns: 0.2, rows: 0.7, least: 4, ridge: 2 }

const ASKED: Record<Question, (r: Rating) => boolean> = {
  worth: (r) => r.q >= 2,
  quotable: (r) => r.q >= 3,
  alone: (r) => r.s >= 0.5,
  never: (r) => r.q < 1,
  good: (r) => r.q >= 2 && r.s >= 0.5,
}

/** All rated sentences as one table. */
export interface Table {
  data: Binned
  rows: Float32Array[]
  phrases: number[][]
  vocabulary: string[]
  labels: Record<Question, Float64Array>
  /** The article of each row, and its sentence in it. */
  article: Int32Array
  sentence: Int32Array
}

/** Makes the table; `without` names a group of features that is left out. */
export function tableOf(articles: readonly RatedArticle[], without: string | null = null): Table {
  const rows: Float32Array[] = []
  const ratings: Rating[] = []
  const article: number[] = []
  const sentence: number[] = []
  const sets: Set<string>[] = []
  const inArticles = new Map<string, Set<number>>()
  articles.forEach((a, k) => {
    a.study.sentences.forEach((s, i) => {
      const rating = a.labels[i]
      const row = a.rows[i]
      if (!rating || !row) return
      rows.push(without ? row.map((x, f) => (FEATURES[f]?.group === without ? 0 : x)) : row)
      ratings.push(rating)
      article.push(k)
      sentence.push(i)
      const phrases = without === 'phrases' ? new Set<string>() : phrasesOf(s)
      sets.push(phrases)
      for (const p of phrases) inArticles.set(p, (inArticles.get(p) ?? new Set()).add(k))
    })
  })
  const vocabulary = [...inArticles].flatMap(([p, where]) => (where.size >= LEAST_ARTICLES ? [p] : [])).sort()
  const index = new Map(vocabulary.map((p, i) => [p, i]))
  const labels = {} as Record<Question, Float64Array>
  for (const q of QUESTIONS) labels[q] = Float64Array.from(ratings, (r) => (ASKED[q](r) ? 1 : 0))
  return {
    data: binned(rows),
    rows,
    phrases: sets.map((set) => [...set].flatMap((p) => index.get(p) ?? [])),
    vocabulary,
    labels,
    article: Int32Array.from(article),
    sentence: Int32Array.from(sentence),
  }
}

/** The rows of the articles that a test lets through. */
export function rowsWhere(table: Table, test: (article: number) => boolean): Int32Array {
  return Int32Array.from(table.article.keys()).filter((i) => test(table.article[i] as number))
}

/** Learns one question from some rows. */
export function learn(table: Table, question: Question, use: Int32Array): Judge {
  const labels = table.labels[question]
  const words = linear(table.phrases, table.vocabulary.length, labels, use)
  return {
    trees: grow(table.data, labels, use, GROWTH, 1),
    phrases: [...words.weights].map((w) => Math.round(w * 100) / 100),
    base: Math.round(words.base * 1000) / 1000,
  }
}

/** What judges that learned from other articles say of each sentence of one. */
export function heldOutOdds(
  table: Table,
  judges: Record<Question, Judge>,
  article: number,
  count: number,
  share: number,
): SentenceOdds[] {
  const none = Object.fromEntries(QUESTIONS.map((q) => [q, -6])) as Record<Question, number>
  const odds = Array.from({ length: count }, () => ({ ...none }))
  const laid = Object.fromEntries(QUESTIONS.map((q) => [q, layOut(judges[q].trees)])) as Record<
    Question,
    ReturnType<typeof layOut>
  >
  for (const i of rowsWhere(table, (a) => a === article)) {
    const mine = odds[table.sentence[i] as number]
    if (!mine) continue
    for (const q of QUESTIONS) {
      const judge = judges[q]
      mine[q] =
        logOdds(laid[q], table.rows[i] as Float32Array) +
        share * phraseOdds(judge.phrases, judge.base, table.phrases[i] ?? [])
    }
  }
  return odds
}
