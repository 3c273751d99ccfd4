import { jaccard } from '../study'
import { withoutAddresses, withoutTags, wordsIn } from '../text'

/** How alike two posts of one account or of siblings may be. */
export const LIKENESS_BOUND = 0.3

/** So many captions are remembered: more than a workspace of some years holds, about 2 kB each. */
const MOST_KNOWN = 15_000
const known = new Map<string, ReadonlySet<string>>()

/** Lower-cased word trigrams of a caption, links and tags left out. */
export function trigrams(text: string): ReadonlySet<string> {
  const before = known.get(text)
  if (before) return before
  const words = wordsIn(withoutTags(withoutAddresses(text, ' ')))
  const grams = new Set<string>()
  for (let i = 0; i + 2 < words.length; i++) grams.add(words.slice(i, i + 3).join(' '))
  if (known.size > MOST_KNOWN) known.clear()
  known.set(text, grams)
  return grams
}

/** The likeness of two captions: the Jaccard index of their word trigrams, between 0 and 1. */
export function likeness(a: string, b: string): number {
  return jaccard(trigrams(a), trigrams(b))
}

/** How a caption opens: its first four words in lower case, by which openings are told apart. */
export function opening(text: string): string {
  return wordsIn(text).slice(0, 4).join(' ')
}
