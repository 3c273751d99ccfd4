import { expect, it } from 'vitest'
import { betaBelow, betaQuantile, logGamma, tQuantile } from './distributions'

// Expected values by SciPy 1.17 (stats.t.ppf, stats.beta.ppf, special.gammaln).
it.each([
  [0.975, 1, 12.70620474],
  [0.975, 3, 3.182446305],
  [0.975, 10, 2.228138852],
  [0.975, 250, 1.969498393],
  [0.9, 5, 1.475884049],
  [0.025, 7, -2.364624252],
])('a share %d of Student’s t with %d degrees lies below %d', (p, degrees, expected) => {
  expect(tQuantile(p, degrees)).toBeCloseTo(expected, 6)
})

it.each([
  [0.025, 2, 8, 0.02814497348],
  [0.975, 2, 8, 0.4824965149],
  [0.5, 0.5, 0.5, 0.5],
  [0.975, 300, 9700, 0.03343133406],
  [0.1, 1, 1, 0.1],
  [0.025, 40, 2, 0.8714459796],
])('a share %d of a beta distribution of %d and %d lies below %d', (p, a, b, expected) => {
  expect(betaQuantile(p, a, b)).toBeCloseTo(expected, 8)
  expect(betaBelow(expected, a, b)).toBeCloseTo(p, 6)
})

it.each([
  [0.5, 0.572364942925],
  [1, 0],
  [2.5, 0.284682870473],
  [10, 12.8018274801],
  [1000, 5905.22042321],
])('the logarithm of gamma of %d is %d', (x, expected) => {
  expect(logGamma(x)).toBeCloseTo(expected, 7)
})
