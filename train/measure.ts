/** The area under the receiver operating characteristic: how often a positive stands above a negative. */
export function areaUnderCurve(scores: readonly number[], labels: readonly number[]): number {
  const order = scores.map((score, i) => ({ score, label: labels[i] ?? 0 })).sort((a, b) => a.score - b.score)
  let rank = 0
  let positives = 0
  for (let i = 0; i < order.length;) {
    let j = i
    while (j < order.length && order[j]?.score === order[i]?.score) j++
    const mean = (i + 1 + j) / 2
    for (let k = i; k < j; k++)
      if (order[k]?.label) {
        rank += mean
        positives++
      }
    i = j
  }
  const negatives = order.length - positives
  return (rank - (positives * (positives + 1)) / 2) / (positives * negatives)
}
