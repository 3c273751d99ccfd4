import type { AngleOf } from './angle'

/** It says what is so in general: what every run is that argues in no other way. */
export const lesson: AngleOf = {
  angle: 'lesson',
  is: () => true,
  asks: 'open with what the passage teaches, then what it rests on',
}
