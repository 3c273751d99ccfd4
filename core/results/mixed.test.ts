import { expect, it } from 'vitest'
import { seededRandom } from '../planning'
import { fitMixed, type Observation } from './mixed'
import { normals } from './testing/normal'

const random = seededRandom(3)
const normal = normals(random)

it('free columns are what least squares make of them', () => {
  // 1 + 2x through (0, 1.1), (1, 2.9), (2, 5.1), (3, 6.9): by the normal equations 1.06 + 1.96 x.
  const seen = [1.1, 2.9, 5.1, 6.9]
  const observations = seen.map((y, x): Observation => ({
    columns: [
      [0, 1],
      [1, x],
    ],
    seen: y,
  }))
  const { effects } = fitMixed(observations, [null, null])
  expect(effects[0]).toBeCloseTo(1.06, 4)
  expect(effects[1]).toBeCloseTo(1.96, 4)
})

it('the variances of groups and of what is left are found again, and intervals hold what is true', () => {
  let [held, all, noise, spread] = [0, 0, 0, 0]
  const ROUNDS = 60
  for (let round = 0; round < ROUNDS; round++) {
    const truth = Array.from({ length: 10 }, () => 0.5 * normal())
    const observations = Array.from({ length: 300 }, (): Observation => {
      const [one, other] = [Math.floor(random() * 10), Math.floor(random() * 10)]
      return {
        columns: [
          [0, 1],
          [1 + one, 1],
          [11 + other, 1],
        ],
        seen: 3 + (truth[one] ?? 0) + 0.8 * normal(),
      }
    })
    const groups = [null, ...truth.map(() => 'one'), ...truth.map(() => 'other')]
    const fit = fitMixed(observations, groups)
    noise += fit.noise / ROUNDS
    const mean = truth.reduce((a, b) => a + b, 0) / 10
    for (const [i, t] of truth.entries()) {
      const [effect, deviation] = [fit.effects[1 + i] ?? 0, fit.deviations[1 + i] ?? 0]
      spread += effect ** 2 / 10 / ROUNDS
      all += 2
      if (Math.abs(effect - t + mean) < 1.96 * deviation) held++
      // Of what does nothing it says so.
      if (Math.abs(fit.effects[11 + i] ?? 0) < 1.96 * (fit.deviations[11 + i] ?? 0)) held++
    }
  }
  expect(noise).toBeCloseTo(0.64, 1)
  // Over sixty rounds it is known to a hundredth; what the effects themselves are unsure of is no part of it.
  expect(Math.abs(noise - 0.64)).toBeLessThan(0.02)
  expect(spread).toBeGreaterThan(0.18)
  expect(spread).toBeLessThan(0.3)
  expect(held / all).toBeGreaterThan(0.93)
})
