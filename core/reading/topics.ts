import type { Chapter, PieceContent } from '../model'
import { analyse, type ReadSentence } from './piece'

/** A chapter is at least so long, in seconds, and a video this long is worth parting. */
const LEAST = 45
const WORTH_PARTING = 180
/** How many sentences stand on each side of a gap that is weighed. */
const WINDOW = 6

const isSubject = (pos: string): boolean => pos === 'NOUN' || pos === 'PROPN' || pos === 'VERB'
const COMMON = new Set(
  'be have do go get make take come say see know think want look put thing way lot bit one time kind sort let use people year day'.split(
    ' ',
  ),
)

/**
 * The chapters of a talk that names none, by TextTiling (Hearst 1997): at every gap between
 * sentences the words on both sides are compared; where the likeness dips deepest the topic
 * changes. Each is called after the words that are frequent in it and rare in the others
 * (tf–idf over the chapters). Empty for what is short or holds together.
 */
export function findChapters(
  piece: Pick<PieceContent, 'text' | 'blocks' | 'sentences' | 'language'>,
): Chapter[] {
  const read = analyse(piece)
  const times = new Map(piece.sentences.map((s) => [s.start, s.from]))
  const length = piece.sentences[piece.sentences.length - 1]?.to ?? 0
  if (length < WORTH_PARTING || read.length < WINDOW * 3) return []
  const bags = read.map((s) => wordsOf(s))
  const likeness = read.slice(1).map((_, gap) => {
    const at = gap + 1
    return cosine(bags.slice(Math.max(0, at - WINDOW), at).flat(), bags.slice(at, at + WINDOW).flat())
  })
  const depth = likeness.map((here, i) => {
    let left = here
    for (let j = i - 1; j >= 0 && (likeness[j] ?? 0) >= left; j--) left = likeness[j] ?? 0
    let right = here
    for (let j = i + 1; j < likeness.length && (likeness[j] ?? 0) >= right; j++) right = likeness[j] ?? 0
    return left - here + (right - here)
  })
  const mean = depth.reduce((a, b) => a + b, 0) / depth.length
  const deviation = Math.sqrt(depth.reduce((a, d) => a + (d - mean) ** 2, 0) / depth.length)
  const gaps = depth
    .map((d, i) => ({ d, at: i + 1, from: times.get(read[i + 1]?.start ?? -1) ?? 0 }))
    .filter((g) => g.d > mean + deviation / 2)
    .sort((a, b) => b.d - a.d)
  const cuts: { at: number; from: number }[] = [{ at: 0, from: 0 }]
  const most = Math.max(2, Math.round(length / 90))
  for (const gap of gaps)
    if (
      cuts.length < most &&
      length - gap.from >= LEAST &&
      cuts.every((c) => Math.abs(c.from - gap.from) >= LEAST)
    )
      cuts.push(gap)
  cuts.sort((a, b) => a.at - b.at)
  if (cuts.length < 2) return []
  const parts = cuts.map((c, i) => bags.slice(c.at, cuts[i + 1]?.at ?? bags.length).flat())
  return cuts.map((c, i) => ({ at: Math.round(c.from), title: titleOf(parts[i] ?? [], parts) }))
}

function wordsOf(sentence: ReadSentence): string[] {
  return sentence.tokens
    .filter((t) => isSubject(t.pos) && t.lemma.length > 2 && !COMMON.has(t.lemma) && /^\p{L}/u.test(t.text))
    .map((t) => t.lemma)
}

function counted(words: readonly string[]): Map<string, number> {
  const counts = new Map<string, number>()
  for (const w of words) counts.set(w, (counts.get(w) ?? 0) + 1)
  return counts
}

function cosine(a: readonly string[], b: readonly string[]): number {
  const [x, y] = [counted(a), counted(b)]
  let dot = 0
  for (const [w, n] of x) dot += n * (y.get(w) ?? 0)
  const norm = Math.hypot(...x.values()) * Math.hypot(...y.values())
  return norm === 0 ? 0 : dot / norm
}

function titleOf(words: readonly string[], parts: readonly (readonly string[])[]): string {
  const score = (word: string, n: number): number =>
    n * Math.log(1 + parts.length / parts.filter((p) => p.includes(word)).length)
  const best = [...counted(words)]
    .map(([word, n]) => ({ word, s: score(word, n) }))
    .sort((a, b) => b.s - a.s || (a.word < b.word ? -1 : 1))
    .slice(0, 2)
    .map((b) => b.word)
  const title = best.join(' and ')
  return title.charAt(0).toUpperCase() + title.slice(1)
}
