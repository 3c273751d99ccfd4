import { CholeskyDecomposition, Matrix } from 'ml-matrix'

/** An observation: the columns in which it differs from nought, and what was seen. */
export interface Observation {
  columns: readonly (readonly [column: number, value: number])[]
  seen: number
}

/** What a fit says of each column: its effect and how unsure that is, as a standard deviation. */
export interface Fit {
  effects: number[]
  deviations: number[]
  /** The variance of what nothing explains. */
  noise: number
}

const ROUNDS = 200
const STILL = 1e-4
/** The least that the effects of a group may vary, as a part of the noise. */
const LEAST = 1e-7

/**
 * A linear model whose effects come in groups, each drawn together as far as the group's own spread asks: effects of a group
 * are normally distributed about nought with one variance, found with the effects by the EM algorithm (Laird and Ware,
 * Biometrics 38, 1982). Columns of the group `null` are free. `groups` names the group of each column.
 */
export function fitMixed(observations: readonly Observation[], groups: readonly (string | null)[]): Fit {
  const p = groups.length
  const sums = sumsOf(observations, p)
  const names = [...new Set(groups.filter((g) => g !== null))]
  const members = new Map(names.map((n) => [n, groups.flatMap((g, i) => (g === n ? [i] : []))]))
  let noise = Math.max(1e-9, sums.squares / Math.max(1, observations.length))
  const spread = new Map(names.map((n) => [n, noise / 10]))
  let known = solved(sums, groups, spread, noise)
  for (let round = 0; round < ROUNDS; round++) {
    let moved = 0
    for (const [name, columns] of members) {
      const next =
        columns.reduce((sum, c) => sum + (known.effects[c] as number) ** 2 + known.unsure.get(c, c), 0) /
        columns.length
      moved = Math.max(moved, Math.abs(next - (spread.get(name) as number)) / noise)
      spread.set(name, Math.max(LEAST * noise, next))
    }
    noise = Math.max(1e-9, noiseOf(sums, known, observations.length))
    known = solved(sums, groups, spread, noise)
    if (moved < STILL) break
  }
  const deviations = known.effects.map((_, i) => Math.sqrt(Math.max(0, known.unsure.get(i, i))))
  return { effects: known.effects, deviations, noise }
}

/** What a fit needs of its observations: the products of their columns with each other and with what was seen. */
interface Sums {
  products: Matrix
  seen: number[]
  squares: number
}

function sumsOf(observations: readonly Observation[], p: number): Sums {
  const products = Matrix.zeros(p, p)
  const seen = Array.from({ length: p }, () => 0)
  let squares = 0
  for (const { columns, seen: y } of observations) {
    squares += y * y
    for (const [i, v] of columns) {
      seen[i] = (seen[i] as number) + v * y
      for (const [j, w] of columns) products.set(i, j, products.get(i, j) + v * w)
    }
  }
  return { products, seen, squares }
}

interface Known {
  effects: number[]
  /** Covariances of the effects. */
  unsure: Matrix
}

/** The effects that are likeliest where the variances are known. */
function solved(
  { products, seen }: Sums,
  groups: readonly (string | null)[],
  spread: ReadonlyMap<string, number>,
  noise: number,
): Known {
  const p = groups.length
  const system = Matrix.div(products, noise)
  // Free columns are held by next to nothing, so that one of which nothing is seen does not break the system.
  for (const [i, g] of groups.entries())
    system.set(i, i, system.get(i, i) + (g === null ? 1e-6 : 1 / (spread.get(g) as number)))
  const unsure = new CholeskyDecomposition(system).solve(Matrix.eye(p))
  const effects = unsure.mmul(Matrix.columnVector(seen.map((v) => v / noise))).to1DArray()
  return { effects, unsure }
}

/** The variance of what the effects leave unexplained, as EM has it. */
function noiseOf({ products, seen, squares }: Sums, { effects, unsure }: Known, count: number): number {
  const p = effects.length
  let left = squares
  for (let i = 0; i < p; i++) {
    left -= 2 * (effects[i] as number) * (seen[i] as number)
    for (let j = 0; j < p; j++)
      left += products.get(i, j) * ((effects[i] as number) * (effects[j] as number) + unsure.get(i, j))
  }
  return left / Math.max(1, count)
}
