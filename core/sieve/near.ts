import type { Sketch } from '../model'
import { Doubles } from './doubles'

/** How many candidates of one piece are compared word by word. */
const LOOKED_AT = 8

/** For each new sketch the ids of the pieces that may tell the same, those among the new ones included. */
export function nearDoubles(standing: readonly Sketch[], fresh: readonly Sketch[]): Map<string, string[]> {
  const index = new Doubles([...standing, ...fresh])
  return new Map(
    fresh.map((s) => [
      s.id,
      index
        .near(s, LOOKED_AT)
        .map((c) => c.id)
        .filter((id) => id !== s.id),
    ]),
  )
}
