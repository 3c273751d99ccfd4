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

/** The log odds that a model gives to a row of features. */
export function logOdds({ base, trees }: Trees, row: ArrayLike<number>): number {
  let sum = base
  for (const tree of trees) {
    let node = tree[0]
    while (node && 'feature' in node) node = tree[(row[node.feature] ?? 0) < node.at ? node.left : node.right]
    sum += node && 'value' in node ? node.value : 0
  }
  return sum
}
