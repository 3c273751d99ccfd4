import { z } from 'zod'
import { Feed } from '../core/feeds'
import { Angle, Check, FoundPassage, PieceContent, Place } from '../core/model'

/** What `read` prints. */
export const ReadOutput = z.union([
  z.object({ kind: z.literal('feed'), feed: Feed }),
  z.object({ kind: z.literal('piece'), piece: PieceContent }),
])

/** One row of what `passages` prints, best first. */
export const PassageRow = FoundPassage

/** One row of what `captions` prints. `text` is null where no honest caption can be made. */
export const CaptionRow = z.object({
  beat: z.int().min(0),
  day: z.int().min(0),
  network: z.string(),
  angle: Angle.nullable(),
  text: z.string().nullable(),
  title: z.string().optional(),
  parts: z.array(z.string()).optional(),
  hashtags: z.array(z.string()),
  length: z.int().min(0),
  limit: z.int().positive(),
  passage: Place.extend({ text: z.string() }).nullable(),
  spans: z.array(Place),
  checks: z.array(Check),
})
export type CaptionRow = z.infer<typeof CaptionRow>
