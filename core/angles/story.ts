import { mostly, ofSomebody, type AngleOf } from './angle'

/** It tells what happened to somebody. */
export const story: AngleOf = {
  angle: 'story',
  is: (run) => mostly(run, (f) => f.past) && (ofSomebody(run) || run[0]?.numbers === 0),
  asks: 'tell what happened, as the passage does, beginning just before it matters',
}
