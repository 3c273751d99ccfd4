import type { AngleOf } from './angle'

/** It says what a thing is. */
export const definition: AngleOf = {
  angle: 'definition',
  is: ([first]) => first?.definition ?? false,
  asks: 'say what the thing is, then why that matters',
}
