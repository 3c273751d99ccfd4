import { choosePassages, runsOf, traitsOf, type Run, type SentenceOdds } from '../core/passages'
import { printOf } from '../core/text'
import type { RatedArticle } from './data'

/** What readers' ratings say of a run of sentences, by the rule of the rubric. */
export interface Judged {
  good: boolean
  never: boolean
  leans: boolean
  plain: boolean
  quotable: boolean
}

/**
 * A passage is good where its best sentence is worth posting, none must never go out, and its first
 * words stand alone.
 */
export function judged(text: string, article: RatedArticle): Judged {
  const words = printOf(text)
  const inside = article.ratings
    .filter((r) => words.includes(r.words))
    .sort((a, b) => words.indexOf(a.words) - words.indexOf(b.words))
  const best = Math.max(0, ...inside.map((r) => r.q))
  const never = inside.some((r) => r.q < 1)
  const leans = (inside[0]?.s ?? 0) < 0.5
  return { good: best >= 2 && !never && !leans, never, leans, plain: best < 2, quotable: best >= 3 }
}

/** The text of a run. */
export function textOf({ study }: RatedArticle, { from, to }: Run): string {
  const { piece, sentences } = study
  return piece.text.slice(sentences[from]?.start, sentences[to]?.end)
}

/** The traits of every run of an article with whether readers would take it. */
export function runRows(
  article: RatedArticle,
  odds: readonly SentenceOdds[],
): { traits: number[]; good: number }[] {
  return runsOf(article.study).map((run) => {
    const text = textOf(article, run)
    return { traits: traitsOf(run, odds, text.length), good: judged(text, article).good ? 1 : 0 }
  })
}

/** Figures of what is kept of some articles. */
export interface Figures {
  articles: number
  kept: number
  good: number
  never: number
  leans: number
  plain: number
  quotable: number
}

/** Chooses in every article as the product does, and counts what readers say of the choice. */
export function figuresOf(
  articles: readonly RatedArticle[],
  odds: readonly (readonly SentenceOdds[])[],
  weights: (article: number) => readonly number[],
  most = 8,
): Figures {
  const sum: Figures = {
    articles: articles.length,
    kept: 0,
    good: 0,
    never: 0,
    leans: 0,
    plain: 0,
    quotable: 0,
  }
  articles.forEach((article, k) => {
    for (const { run } of choosePassages(article.study, odds[k] ?? [], weights(k))
      .filter((c) => c.kept)
      .slice(0, most)) {
      const said = judged(textOf(article, run), article)
      sum.kept++
      for (const key of ['good', 'never', 'leans', 'plain', 'quotable'] as const) if (said[key]) sum[key]++
    }
  })
  return sum
}

/** The figures as one line. */
export function line(f: Figures): string {
  const share = (n: number): string => `${((100 * n) / Math.max(1, f.kept)).toFixed(1)} %`
  return `${f.articles} articles, ${f.kept} passages (${(f.kept / f.articles).toFixed(1)} each): good ${share(f.good)}, never ${share(f.never)}, leans ${share(f.leans)}, plain ${share(f.plain)}, holds a quotable line ${share(f.quotable)}`
}
