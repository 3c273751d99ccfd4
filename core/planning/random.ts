/** A source of numbers in [0, 1), the same for the same seed. */
export type Random = () => number

/**
 * Mulberry32, a 32-bit generator by Tommy Ettinger (public domain): small, and even enough to
 * choose among wordings and minutes.
 */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}
