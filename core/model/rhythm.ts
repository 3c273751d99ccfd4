import { z } from 'zod'

/** How the beats of a drip are spread over time. */
export const Rhythm = z.union([
  z.object({
    name: z.string(),
    days: z.int().min(0).max(1500),
    beats: z.int().min(1).max(60),
    thinning: z.number().min(1).max(5),
  }),
  /** The days one by one, ascending, the first usually 0. */
  z.object({ name: z.string(), list: z.array(z.int().min(0).max(1500)).min(1).max(60) }),
])
export type Rhythm = z.infer<typeof Rhythm>
