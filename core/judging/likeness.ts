import { jaccard } from '../study'
import { trigrams, wordsIn } from '../text'

/** How alike two posts of one account or of siblings may be. */
export const LIKENESS_BOUND = 0.3
/** The same where the other was long ago: what both say may be one sentence of two, not the whole. */
export const LONG_AGO_BOUND = 0.5

/** The likeness of two captions: the Jaccard index of their word trigrams, between 0 and 1. */
export function likeness(a: string, b: string): number {
  return jaccard(trigrams(a), trigrams(b))
}

/** How a caption opens: its first four words in lower case, by which openings are told apart. */
export function opening(text: string): string {
  return wordsIn(text).slice(0, 4).join(' ')
}
