import type { AngleOf } from './angle'

/** It opens with a figure and what it measures. */
export const number: AngleOf = {
  angle: 'number',
  is: ([first]) => (first?.numbers ?? 0) > 0,
  asks: 'open with a number of the passage and what it measures',
}
