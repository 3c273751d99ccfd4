import { mostly, type AngleOf } from './angle'

/** It gives steps to be done one after the other. */
export const checklist: AngleOf = {
  angle: 'checklist',
  is: (run) => run.filter((f) => f.imperative).length >= 3 && mostly(run, (f) => f.imperative),
  asks: 'give the steps of the passage in their order, none left out',
}
