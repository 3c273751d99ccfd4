import { phraseOdds } from '../core/passages'
import { seededRandom } from '../core/planning'

/** How a linear model is trained: rounds over the data, the first step (AdaGrad), and the L2 penalty. */
const LINEAR = { rounds: 12, step: 0.15, ridge: 1e-3 }

export interface Linear {
  base: number
  weights: Float64Array
}

/**
 * Logistic regression over sparse phrases by AdaGrad (Duchi, Hazan, Singer 2011): `phrases` holds the
 * numbers of each row's phrases, `use` the rows to learn from.
 */
export function linear(
  phrases: readonly (readonly number[])[],
  size: number,
  labels: Float64Array,
  use: Int32Array,
): Linear {
  const weights = new Float64Array(size)
  const squares = new Float64Array(size).fill(1e-2)
  const chance = seededRandom(7)
  let base = -1
  const order = Int32Array.from(use)
  for (let round = 0; round < LINEAR.rounds; round++) {
    for (let i = order.length - 1; i > 0; i--) {
      const j = Math.floor(chance() * (i + 1))
      const held = order[i] as number
      order[i] = order[j] as number
      order[j] = held
    }
    for (const i of order) {
      const ids = phrases[i] ?? []
      const scale = 1 / Math.sqrt(Math.max(1, ids.length))
      const p = 1 / (1 + Math.exp(-phraseOdds(weights, base, ids)))
      const error = p - (labels[i] as number)
      base -= 0.02 * error
      for (const id of ids) {
        const gradient = error * scale + LINEAR.ridge * (weights[id] as number)
        squares[id] = (squares[id] as number) + gradient * gradient
        weights[id] = (weights[id] as number) - (LINEAR.step * gradient) / Math.sqrt(squares[id] as number)
      }
    }
  }
  return { base, weights }
}

/**
 * Logistic regression over a few dense traits by Newton's method with a small ridge; the constant comes
 * last in what it gives.
 */
export function newton(rows: readonly (readonly number[])[], labels: readonly number[]): number[] {
  const size = (rows[0]?.length ?? 0) + 1
  const w = new Float64Array(size)
  for (let step = 0; step < 12; step++) {
    const system = Array.from({ length: size }, (_, f) => {
      const line = new Float64Array(size + 1)
      line[f] = 1
      line[size] = -(w[f] as number)
      return line
    })
    rows.forEach((row, i) => {
      const x = [...row, 1]
      const p = 1 / (1 + Math.exp(-x.reduce((z, v, f) => z + v * (w[f] as number), 0)))
      for (let f = 0; f < size; f++) {
        const line = system[f] as Float64Array
        for (let q = 0; q < size; q++)
          line[q] = (line[q] as number) + p * (1 - p) * (x[f] as number) * (x[q] as number)
        line[size] = (line[size] as number) + ((labels[i] as number) - p) * (x[f] as number)
      }
    })
    solve(system).forEach((d, f) => (w[f] = (w[f] as number) + d))
  }
  return [...w].map((v) => Math.round(v * 1e4) / 1e4)
}

/** Solves a linear system by Gauss and Jordan; each line holds its right side last. */
function solve(lines: Float64Array[]): number[] {
  const n = lines.length
  for (let i = 0; i < n; i++) {
    let most = i
    for (let r = i; r < n; r++) if (Math.abs(lines[r]?.[i] ?? 0) > Math.abs(lines[most]?.[i] ?? 0)) most = r
    const held = lines[i] as Float64Array
    lines[i] = lines[most] as Float64Array
    lines[most] = held
    const pivot = lines[i] as Float64Array
    for (let r = 0; r < n; r++) {
      if (r === i) continue
      const line = lines[r] as Float64Array
      const k = (line[i] as number) / (pivot[i] as number)
      for (let q = i; q <= n; q++) line[q] = (line[q] as number) - k * (pivot[q] as number)
    }
  }
  return lines.map((line, i) => (line[n] as number) / (line[i] as number))
}
