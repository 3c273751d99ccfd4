import type { Angle } from '../model'
import type { SentenceFeatures } from '../study'

/** One way to open and argue. */
export interface AngleOf {
  angle: Angle
  /** Whether a run of sentences argues so by itself; what none else is, is a lesson. */
  is: (run: readonly SentenceFeatures[]) => boolean
  /** What is asked of a connected writer, as one would tell a colleague. */
  asks: string
}

/** Whether more than half of a run has a trait. */
export const mostly = (run: readonly SentenceFeatures[], trait: (f: SentenceFeatures) => boolean): boolean =>
  run.filter(trait).length * 2 > run.length

/** Somebody to whom something happens. */
export const SOMEBODY =
  /\b(?:I|we|my|our|he|she|his|her|a (?:man|woman|boy|girl|student|customer|reader|neighbour|friend|child|colleague))\b/

/** Whether a run tells of somebody. */
export const ofSomebody = (run: readonly SentenceFeatures[]): boolean =>
  run.some((f) => SOMEBODY.test(f.sentence.text) || f.names > 0)
