import type { AngleOf } from './angle'

/** It tells the reader what to do. */
export const howTo: AngleOf = {
  angle: 'how-to',
  is: (run) => run.length > 0 && run.filter((f) => f.imperative).length * 2 >= run.length,
  asks: 'tell the reader what to do, as the passage does',
}
