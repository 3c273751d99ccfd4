/**
 * LexRank (Erkan and Radev 2004): how central each sentence is to its text, as the stationary
 * distribution of a random walk over the graph of cosine likenesses of their tf–idf vectors.
 * Takes the lemmas of each sentence; gives one number a sentence, scaled so that the largest is 1.
 */
export function lexRank(sentences: readonly (readonly string[])[], damping = 0.85, rounds = 40): number[] {
  const n = sentences.length
  if (n === 0) return []
  const documents = new Map<string, number>()
  for (const words of sentences) for (const w of new Set(words)) documents.set(w, (documents.get(w) ?? 0) + 1)
  const vectors = sentences.map((words) => {
    const weights = new Map<string, number>()
    for (const w of words) weights.set(w, (weights.get(w) ?? 0) + Math.log(1 + n / (documents.get(w) ?? 1)))
    const norm = Math.hypot(...weights.values()) || 1
    for (const [w, x] of weights) weights.set(w, x / norm)
    return weights
  })
  const likeness = vectors.map((a, i) =>
    vectors.map((b, j) => {
      if (i === j) return 0
      let dot = 0
      for (const [w, x] of a) dot += x * (b.get(w) ?? 0)
      return dot > 0.05 ? dot : 0
    }),
  )
  const sums = likeness.map((row) => row.reduce((a, b) => a + b, 0))
  let rank = new Array<number>(n).fill(1 / n)
  for (let round = 0; round < rounds; round++) {
    rank = rank.map((_, i) => {
      let incoming = 0
      for (let j = 0; j < n; j++) {
        const out = sums[j] ?? 0
        incoming += out > 0 ? ((likeness[j]?.[i] ?? 0) / out) * (rank[j] ?? 0) : (rank[j] ?? 0) / n
      }
      return (1 - damping) / n + damping * incoming
    })
  }
  const top = Math.max(...rank)
  return rank.map((r) => r / top)
}

/** The Jaccard index of two sets. */
export function jaccard(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  if (a.size === 0 || b.size === 0) return 0
  let shared = 0
  for (const x of a) if (b.has(x)) shared++
  return shared / (a.size + b.size - shared)
}
