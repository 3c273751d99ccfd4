import type { AngleOf } from './angle'

/** It gives somebody's words with the name; no run of the author's own sentences is one. */
export const quotation: AngleOf = {
  angle: 'quotation',
  is: () => false,
  asks: 'quote the strongest words letter by letter and say who says them',
}
