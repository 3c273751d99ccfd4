import type { AngleOf } from './angle'

/** It sets one thing against another. */
export const contrast: AngleOf = {
  angle: 'contrast',
  is: (run) => run.some((f) => f.contrast),
  asks: 'set what people do or think against what the passage says instead',
}
