import { z } from 'zod'
import { Hold, Id, Instant, Zone } from './primitives'
import { QuietDay } from './quiet'

/** What holds for everything a brand publishes. */
export const HouseStyle = z.object({
  /** Standing hashtags without the number sign, put before those found in a piece. */
  hashtags: z.array(z.string().regex(/^[\p{L}\p{N}_]+$/u, 'a hashtag is one word')).default([]),
  /** Words and phrases that never go out, compared without regard to case. */
  neverSay: z.array(z.string().min(1)).default([]),
  /** Questions that may close a long post. */
  closingLines: z.array(z.string().min(1)).default([]),
})
export type HouseStyle = z.infer<typeof HouseStyle>

/** One client or publication; everything else belongs to a brand. */
export const Brand = z.object({
  id: Id,
  name: z.string().min(1).max(80),
  zone: Zone,
  quiet: z.array(QuietDay),
  houseStyle: HouseStyle,
  held: Hold.nullable(),
  createdAt: Instant,
})
export type Brand = z.infer<typeof Brand>
