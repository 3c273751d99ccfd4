import { ANGLES, LENGTHS, OPENINGS, type Leaning } from '../model'
import type { Effect } from './effects'
import type { NetworkEffects } from './results'

/**
 * What the effects say of the captions on each network that a writer can go by: angles, openings and lengths that earn more or less
 * for certain. What was known `before` keeps the day since which it is; the rest is known since `today`, a local date.
 */
export function leaningsOf(
  effects: readonly NetworkEffects[],
  before: readonly Leaning[],
  today: string,
): Leaning[] {
  return effects.flatMap(({ network, named }) =>
    named.flatMap(({ factor, level, times, posts }): Leaning[] => {
      const of = leanedTo(factor, level)
      if (!of) return []
      const known = before.find(
        (l) =>
          l.network === network &&
          JSON.stringify(l.of) === JSON.stringify(of) &&
          l.times.at > 1 === times.at > 1,
      )
      return [{ network, of, times, posts, since: known?.since ?? today }]
    }),
  )
}

function leanedTo(factor: Effect['factor'], level: string): Leaning['of'] | null {
  const angle = factor === 'angle' && ANGLES.find((a) => a === level)
  if (angle) return { angle }
  const length = factor === 'length' && LENGTHS.find((l) => l === level)
  if (length) return { length }
  const opening = factor === 'trait' && OPENINGS.find((o) => level === `opens with ${o}`)
  return opening ? { opening } : null
}
