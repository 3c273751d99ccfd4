import { seededRandom } from '../core/planning'
import type { TreeNode, Trees } from '../core/passages'

/** How trees are grown. */
export interface Growth {
  trees: number
  depth: number
  shrink: number
  /** The share of the features that a tree may look at, and of the rows it is grown on. */
  columns: number
  rows: number
  /** The least weight (sum of p(1 − p)) of a leaf, and what is added to it (L2). */
  least: number
  ridge: number
}

const BINS = 32

/** Rows of features cut into bins: a column of bin numbers a feature, with the values that part them. */
export interface Binned {
  columns: Uint8Array[]
  edges: number[][]
  rows: number
}

/** Cuts every feature at its quantiles. */
export function binned(rows: readonly Float32Array[]): Binned {
  const width = rows[0]?.length ?? 0
  const columns: Uint8Array[] = []
  const edges: number[][] = []
  for (let f = 0; f < width; f++) {
    const values = Float32Array.from(rows, (r) => r[f] ?? 0).sort()
    const cuts: number[] = []
    for (let b = 1; b < BINS; b++) {
      const value = values[Math.floor((b * values.length) / BINS)] ?? 0
      if (value > (values[0] ?? 0) && value !== cuts[cuts.length - 1]) cuts.push(value)
    }
    const top = values[values.length - 1] ?? 0
    if (cuts.length === 0 && top > (values[0] ?? 0)) cuts.push(top)
    // Rare values above the last quantile get a bin of their own.
    else if (cuts.length && top > (cuts[cuts.length - 1] ?? 0) && cuts.length < 4) cuts.push(top)
    edges.push(cuts)
    columns.push(
      Uint8Array.from(rows, (r) => {
        const x = r[f] ?? 0
        let bin = 0
        while (bin < cuts.length && x >= (cuts[bin] ?? 0)) bin++
        return bin
      }),
    )
  }
  return { columns, edges, rows: rows.length }
}

/**
 * Grows boosted trees for 0/1 labels with logistic loss and Newton steps (Friedman 2001; Chen and
 * Guestrin 2016 for the gain with a ridge), on the given rows of the data.
 */
export function grow(data: Binned, labels: Float64Array, use: Int32Array, g: Growth, seed: number): Trees {
  const chance = seededRandom(seed)
  let positive = 0
  for (const i of use) positive += labels[i] ?? 0
  const share = positive / use.length
  const base = Math.log(share / (1 - share))
  const score = new Float64Array(data.rows).fill(base)
  const gradient = new Float64Array(data.rows)
  const weight = new Float64Array(data.rows)
  const trees: TreeNode[][] = []
  for (let t = 0; t < g.trees; t++) {
    const sample: number[] = []
    for (const i of use) {
      const p = 1 / (1 + Math.exp(-(score[i] ?? 0)))
      gradient[i] = (labels[i] ?? 0) - p
      weight[i] = Math.max(1e-6, p * (1 - p))
      if (chance() < g.rows) sample.push(i)
    }
    const features: number[] = []
    data.columns.forEach((_, f) => {
      if ((data.edges[f]?.length ?? 0) > 0 && chance() < g.columns) features.push(f)
    })
    const { nodes, bins } = growTree(data, gradient, weight, Int32Array.from(sample), features, g)
    trees.push(nodes)
    for (const i of use) {
      let at = 0
      for (let node = nodes[0]; node && 'feature' in node; node = nodes[at])
        at =
          ((data.columns[node.feature] as Uint8Array)[i] as number) <= (bins[at] as number)
            ? node.left
            : node.right
      score[i] = (score[i] as number) + (nodes[at] as { value: number }).value
    }
  }
  return { base, trees }
}

function growTree(
  data: Binned,
  gradient: Float64Array,
  weight: Float64Array,
  rows: Int32Array,
  features: readonly number[],
  g: Growth,
): { nodes: TreeNode[]; bins: number[] } {
  const nodes: TreeNode[] = []
  /** The last bin that goes left, a number a node. */
  const bins: number[] = []
  const build = (mine: Int32Array, depth: number): number => {
    const at = nodes.push({ value: 0 }) - 1
    let sumG = 0
    let sumH = 0
    for (const i of mine) {
      sumG += gradient[i] ?? 0
      sumH += weight[i] ?? 0
    }
    const best = depth < g.depth ? bestSplit(data, gradient, weight, mine, features, sumG, sumH, g) : null
    if (!best) {
      nodes[at] = { value: Math.round(((g.shrink * sumG) / (sumH + g.ridge)) * 1e4) / 1e4 }
      return at
    }
    const column = data.columns[best.feature] as Uint8Array
    const left = mine.filter((i) => (column[i] ?? 0) <= best.bin)
    const right = mine.filter((i) => (column[i] ?? 0) > best.bin)
    const cut = data.edges[best.feature]?.[best.bin] ?? 0
    const l = build(left, depth + 1)
    const r = build(right, depth + 1)
    nodes[at] = { feature: best.feature, at: cut, left: l, right: r }
    bins[at] = best.bin
    return at
  }
  build(rows, 0)
  return { nodes, bins }
}

function bestSplit(
  data: Binned,
  gradient: Float64Array,
  weight: Float64Array,
  rows: Int32Array,
  features: readonly number[],
  sumG: number,
  sumH: number,
  g: Growth,
): { feature: number; bin: number } | null {
  const own = (sumG * sumG) / (sumH + g.ridge)
  let best: { feature: number; bin: number } | null = null
  let most = 1e-3
  const n = rows.length
  const mineG = Float64Array.from(rows, (i) => gradient[i] as number)
  const mineH = Float64Array.from(rows, (i) => weight[i] as number)
  const G = new Float64Array(BINS + 1)
  const H = new Float64Array(BINS + 1)
  for (const feature of features) {
    const bins = (data.edges[feature]?.length ?? 0) + 1
    addUp(data.columns[feature] as Uint8Array, rows, n, mineG, mineH, G, H)
    let leftG = 0
    let leftH = 0
    for (let b = 0; b < bins - 1; b++) {
      leftG += G[b] as number
      leftH += H[b] as number
      if (leftH < g.least || sumH - leftH < g.least) continue
      const gain =
        (leftG * leftG) / (leftH + g.ridge) +
        ((sumG - leftG) * (sumG - leftG)) / (sumH - leftH + g.ridge) -
        own
      if (gain > most) {
        most = gain
        best = { feature, bin: b }
      }
    }
  }
  return best
}

/** The sums of gradients and weights a bin. */
function addUp(
  column: Uint8Array,
  rows: Int32Array,
  n: number,
  gradient: Float64Array,
  weight: Float64Array,
  G: Float64Array,
  H: Float64Array,
): void {
  G.fill(0)
  H.fill(0)
  for (let k = 0; k < n; k++) {
    const b = column[rows[k] as number] as number
    G[b] = (G[b] as number) + (gradient[k] as number)
    H[b] = (H[b] as number) + (weight[k] as number)
  }
}
