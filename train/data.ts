import { printOf } from '../core/text'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { read } from '../core/reading'
import { featureRows, studyOf, type Study } from '../core/study'

/** A reader's judgement of a sentence: q from 0 (never) to 3 (quotable), s whether it stands alone. */
export interface Rating {
  words: string
  q: number
  s: number
}

/** An article with what readers said of it. */
export interface RatedArticle {
  name: string
  study: Study
  ratings: Rating[]
  /** The rating of each sentence of the study; null where no rated sentence has its words. */
  labels: (Rating | null)[]
  rows: Float32Array[]
}

const folder = join(import.meta.dirname, 'quotable')

/** The rated articles, read as Dripline reads them. */
export async function ratedArticles(): Promise<RatedArticle[]> {
  const all = JSON.parse(readFileSync(join(folder, 'ratings.json'), 'utf8')) as Record<
    string,
    { text: string; q: number[]; s: number[] }[]
  >
  const found: RatedArticle[] = []
  for (const file of readdirSync(folder).filter((f) => f.endsWith('.md'))) {
    const ratings = (all[file.replace('.md', '')] ?? [])
      .map((r) => ({ words: printOf(r.text), q: r.q[0] ?? 1, s: r.s[0] ?? 0 }))
      .filter((r) => r.words.length > 2)
    if (!ratings.length) continue
    const result = await read(readFileSync(join(folder, file)), { name: file })
    if (result.kind !== 'piece') continue
    const study = studyOf(result.piece)
    found.push({
      name: file,
      study,
      ratings,
      labels: study.sentences.map((s) => ratingOf(printOf(s.text), ratings)),
      rows: featureRows(study),
    })
  }
  return found
}

/** A sentence's rating: its own, that of the longer one it is part of, or of those that it holds. */
function ratingOf(words: string, ratings: readonly Rating[]): Rating | null {
  if (words.length <= 2) return null
  const same = ratings.find((r) => r.words === words)
  if (same) return same
  const held = ratings.filter((r) => words.includes(r.words) && r.words.length > 8)
  if (held.length)
    return {
      words,
      q: held.some((r) => r.q === 0) ? 0 : Math.max(...held.map((r) => r.q)),
      s: held[0]?.s ?? 0,
    }
  return ratings.find((r) => r.words.endsWith(words)) ?? ratings.find((r) => r.words.includes(words)) ?? null
}
