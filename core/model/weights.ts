import { z } from 'zod'

/**
 * How much each soft rule counts, in days: 1 for `distance` is the price of a day away from the
 * wish, and 4 for `picture` says that a post goes up to four days away so as not to show a picture again too soon.
 */
export const Weights = z.object({
  /** A day away from the wished day. */
  distance: z.number().min(0.05).max(20).default(1),
  /** The same picture again on an account within `pictureDays`. */
  picture: z.number().min(0).max(20).default(4),
  /** The same passage again on an account within `passageDays`. */
  passage: z.number().min(0).max(20).default(8),
  /** Each other post of the same pipeline in an account's week. */
  share: z.number().min(0).max(20).default(0.2),
  /** Each other post on an account's day. */
  even: z.number().min(0).max(20).default(0.5),
  /** An hour that is worth nothing, where the hours' worth is known. */
  hours: z.number().min(0).max(20).default(1),
  /** Another account served with the same beat within the brand's stagger. */
  stagger: z.number().min(0).max(20).default(0.8),
  pictureDays: z.int().min(0).max(365).default(21),
  passageDays: z.int().min(0).max(730).default(60),
  staggerMinutes: z.int().min(0).max(20_160).default(120),
})
export type Weights = z.infer<typeof Weights>

/** The weights taken where none were set. */
export const USUAL_WEIGHTS: Weights = Weights.parse({})
