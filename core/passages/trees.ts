/**
 * Boosted regression trees (Friedman 2001): the log odds of a thing as the sum of many small trees.
 * A tree is stored as a list of nodes; a branch goes to `left` where the feature is below `at`, else
 * to `right`; a leaf gives its value. Everything is plain data, so that a model is a file.
 */
export type TreeNode = { feature: number; at: number; left: number; right: number } | { value: number }

export interface Trees {
  /** The log odds before any tree. */
  base: number
  trees: TreeNode[][]
}

/** Trees laid out for walking: the nodes of all in a row, a leaf marked by feature −1 and its value in `at`. */
export interface LaidOut {
  base: number
  roots: Int32Array
  feature: Int16Array
  at: Float64Array
  left: Int32Array
  right: Int32Array
}

/** Lays trees out in arrays, which are walked many times as fast as lists of nodes. */
export function layOut({ base, trees }: Trees): LaidOut {
  const nodes = trees.flat()
  const laid: LaidOut = {
    base,
    roots: new Int32Array(trees.length),
    feature: new Int16Array(nodes.length),
    at: new Float64Array(nodes.length),
    left: new Int32Array(nodes.length),
    right: new Int32Array(nodes.length),
  }
  let offset = 0
  trees.forEach((tree, t) => {
    laid.roots[t] = offset
    tree.forEach((node, i) => {
      const leaf = 'value' in node
      laid.feature[offset + i] = leaf ? -1 : node.feature
      laid.at[offset + i] = leaf ? node.value : node.at
      laid.left[offset + i] = leaf ? 0 : offset + node.left
      laid.right[offset + i] = leaf ? 0 : offset + node.right
    })
    offset += tree.length
  })
  return laid
}

/** The log odds that laid-out trees give to a row of features. */
export function logOdds({ base, roots, feature, at, left, right }: LaidOut, row: ArrayLike<number>): number {
  let sum = base
  for (let t = 0; t < roots.length; t++) {
    let node = roots[t] as number
    let f = feature[node] as number
    while (f >= 0) {
      node = ((row[f] as number) < (at[node] as number) ? left[node] : right[node]) as number
      f = feature[node] as number
    }
    sum += at[node] as number
  }
  return sum
}
