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

/**
 * Trees laid out for walking. Each is filled up to a whole binary tree of one depth, so that a step needs
 * no test for the end: the children of node `n` are `2n + 1` and `2n + 2`. `feature` and `at` hold the
 * branches of all trees in a row, `values` their leaves.
 */
export interface LaidOut {
  base: number
  depth: number
  feature: Uint16Array
  at: Float64Array
  values: Float64Array
}

const depthOf = (tree: readonly TreeNode[], node: number): number => {
  const n = tree[node] as TreeNode
  return 'value' in n ? 0 : 1 + Math.max(depthOf(tree, n.left), depthOf(tree, n.right))
}

/** Lays trees out in arrays, which are walked many times as fast as lists of nodes. */
export function layOut({ base, trees }: Trees): LaidOut {
  const depth = Math.max(0, ...trees.map((tree) => depthOf(tree, 0)))
  const leaves = 2 ** depth
  const laid: LaidOut = {
    base,
    depth,
    feature: new Uint16Array(trees.length * (leaves - 1)),
    at: new Float64Array(trees.length * (leaves - 1)),
    values: new Float64Array(trees.length * leaves),
  }
  trees.forEach((tree, t) => {
    // A leaf above the last level goes down on the left: its branch compares with what nothing reaches.
    const fill = (node: number, place: number, level: number): void => {
      const n = tree[node] as TreeNode
      if (level === depth) {
        laid.values[t * leaves + place - (leaves - 1)] = 'value' in n ? n.value : 0
        return
      }
      const leaf = 'value' in n
      laid.feature[t * (leaves - 1) + place] = leaf ? 0 : n.feature
      laid.at[t * (leaves - 1) + place] = leaf ? Infinity : n.at
      fill(leaf ? node : n.left, 2 * place + 1, level + 1)
      fill(leaf ? node : n.right, 2 * place + 2, level + 1)
    }
    fill(0, 0, 0)
  })
  return laid
}

/** The log odds that laid-out trees give to a row of features, none of which is NaN. */
export function logOdds({ base, depth, feature, at, values }: LaidOut, row: ArrayLike<number>): number {
  const leaves = 2 ** depth
  const branches = leaves - 1
  let sum = base
  for (let leaf = 0, root = 0; leaf < values.length; leaf += leaves, root += branches) {
    let n = 0
    for (let level = 0; level < depth; level++) {
      const below = (row[feature[root + n] as number] as number) < (at[root + n] as number)
      n = 2 * n + (below ? 1 : 2)
    }
    sum += values[leaf + n - branches] as number
  }
  return sum
}
