import type { AngleOf } from './angle'
import { isBelief } from '../language'

/** It names what people believe and puts it right. */
export const myth: AngleOf = {
  angle: 'myth',
  is: (run) => run.length >= 2 && isBelief(run[0]?.sentence.text ?? ''),
  asks: 'name the mistaken belief that the passage corrects, then what is true',
}
