/** The syllables of an English word, by its groups of vowels; right for about nine words in ten. */
function syllables(word: string): number {
  const bare = word
    .toLowerCase()
    .replace(/[^a-z]/g, '')
    .replace(/(?:[^laeiouy]es|[^t]ed|[^l]e)$/, (m) => m.charAt(0))
  return Math.max(1, bare.match(/[aeiouy]+/g)?.length ?? 1)
}

/**
 * How easily a text reads: Flesch's reading ease (Flesch 1948), about 0 for a law to 100 for a
 * nursery rhyme; null for a text too short to say.
 */
export function readingEase(text: string): number | null {
  const words = text.match(/[\p{L}’'-]+/gu) ?? []
  if (words.length < 8) return null
  const sentences = Math.max(1, text.match(/[.!?…:]+(?=\s|["”’)]|$)|\n+/g)?.length ?? 1)
  const spoken = words.reduce((sum, w) => sum + syllables(w), 0)
  return 206.835 - 1.015 * (words.length / sentences) - 84.6 * (spoken / words.length)
}
