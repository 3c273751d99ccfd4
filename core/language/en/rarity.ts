import frequency from './frequency.json'

const RANKS: ReadonlyMap<string, number> = new Map(
  frequency.words.split(' ').map((word, rank) => [word, rank + 1]),
)
const UNKNOWN = Math.log2(RANKS.size * 2)

/**
 * How rare a word is in everyday English: the logarithm to base two of its rank by frequency (after
 * SUBTLEX, Brysbaert and New 2009), 0 for the most frequent; one above the last rank for what is not
 * among the 24,000 most frequent.
 */
export function rarity(lower: string): number {
  const rank = RANKS.get(lower)
  return rank === undefined ? UNKNOWN : Math.log2(rank)
}
