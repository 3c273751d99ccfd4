/**
 * LexRank (Erkan and Radev 2004): how central each sentence is to its text, as the stationary
 * distribution of a random walk over the graph of cosine likenesses of their tf–idf vectors.
 * Takes the lemmas of each sentence; gives one number a sentence, scaled so that the largest is 1.
 */
export function lexRank(sentences: readonly (readonly string[])[], damping = 0.85, rounds = 40): number[] {
  const n = sentences.length
  if (n === 0) return []
  // Words as numbers, and per word the sentences it stands in, so that only pairs that share one are met.
  const numbers = new Map<string, number>()
  const holders: number[][] = []
  const weights = sentences.map((words, i) => {
    const counts = new Map<number, number>()
    for (const w of words) {
      let number = numbers.get(w)
      if (number === undefined) {
        number = holders.push([]) - 1
        numbers.set(w, number)
      }
      const seen = counts.get(number) ?? 0
      if (seen === 0) holders[number]?.push(i)
      counts.set(number, seen + 1)
    }
    return counts
  })
  for (const counts of weights) {
    let square = 0
    for (const [w, count] of counts) {
      const weight = count * Math.log(1 + n / (holders[w]?.length ?? 1))
      counts.set(w, weight)
      square += weight * weight
    }
    const norm = Math.sqrt(square) || 1
    for (const [w, x] of counts) counts.set(w, x / norm)
  }
  const neighbours: { at: number[]; likeness: number[]; sum: number }[] = weights.map((counts, i) => {
    const dots = new Float64Array(n)
    for (const [w, x] of counts)
      for (const j of holders[w] ?? []) dots[j] = (dots[j] ?? 0) + x * (weights[j]?.get(w) ?? 0)
    const found = { at: [] as number[], likeness: [] as number[], sum: 0 }
    for (let j = 0; j < n; j++) {
      const dot = dots[j] ?? 0
      if (j === i || dot <= 0.05) continue
      found.at.push(j)
      found.likeness.push(dot)
      found.sum += dot
    }
    return found
  })
  let rank = new Float64Array(n).fill(1 / n)
  for (let round = 0; round < rounds; round++) {
    const next = new Float64Array(n)
    let lonely = 0
    neighbours.forEach(({ at, likeness, sum }, j) => {
      const mine = rank[j] ?? 0
      if (sum === 0) lonely += mine / n
      for (let k = 0; k < at.length; k++) {
        const i = at[k] ?? 0
        next[i] = (next[i] ?? 0) + ((likeness[k] ?? 0) / sum) * mine
      }
    })
    let moved = 0
    for (let i = 0; i < n; i++) {
      const now = (1 - damping) / n + damping * ((next[i] ?? 0) + lonely)
      moved = Math.max(moved, Math.abs(now - (rank[i] ?? 0)))
      next[i] = now
    }
    rank = next
    if (moved * n < 1e-4) break
  }
  const top = Math.max(...rank)
  return Array.from(rank, (r) => r / top)
}

/** The Jaccard index of two sets. */
export function jaccard(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  if (a.size === 0 || b.size === 0) return 0
  let shared = 0
  for (const x of a) if (b.has(x)) shared++
  return shared / (a.size + b.size - shared)
}
