import type { Angle, Leaning, Length, Opening } from '../model'

/** How far a caption is raised or lowered at most, so that other angles and lengths stay alive. */
const BOUNDS = { least: 0.9, most: 1.12 }

/**
 * By how much a caption's score is multiplied for what posts with its angle and opening and of its length earned: by as much as they
 * earned more or less for certain (the bound of the estimate that lies nearer to 1), within bounds; 1 where nothing is known.
 */
export function leanOf(
  made: { angle: Angle | null; length: Length; opening: Opening },
  leanings: readonly Pick<Leaning, 'of' | 'times'>[],
): number {
  const factor = leanings
    .filter(({ of }) =>
      Object.entries(of).every(([what, which]) => made[what as keyof typeof made] === which),
    )
    .reduce((product, { times }) => product * (times.at > 1 ? times.low : times.high), 1)
  return Math.min(BOUNDS.most, Math.max(BOUNDS.least, factor))
}
