import type { AngleOf } from './angle'

/** It asks what its reader has really asked, and answers. */
export const question: AngleOf = {
  angle: 'question',
  is: ([first]) => first?.question ?? false,
  asks: 'open with a question that the passage answers, then answer it',
}
