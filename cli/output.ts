import { z } from 'zod'
import { MATERIAL_KINDS } from '../core/angles'
import { Feed } from '../core/feeds'
import { Angle, Check, FoundPassage, PieceContent, Place, Wording } from '../core/model'

/** What `read` prints. */
export const ReadOutput = z.union([
  z.object({ kind: z.literal('feed'), feed: Feed }),
  z.object({ kind: z.literal('piece'), piece: PieceContent }),
])

/** One row of what `passages` prints, best first. */
export const PassageRow = FoundPassage

/** One row of what `material` prints, in the order of the text. */
export const MaterialRow = Place.extend({
  kind: z.enum(MATERIAL_KINDS),
  says: z.string(),
  /** What belongs to it elsewhere: the answer to a question, what is true instead of a belief. */
  with: Place.optional(),
})

/** One row of what `captions` prints. `text` is null where no honest caption can be made. */
export const CaptionRow = z.object({
  beat: z.int().min(0),
  day: z.int().min(0),
  network: z.string(),
  angle: Angle.nullable(),
  format: z.string().nullable(),
  title: z.string().optional(),
  summary: z.string().optional(),
  text: z.string().nullable(),
  /** What follows the text in a thread. */
  parts: z.array(z.string()).optional(),
  /** The answers of a poll. */
  poll: z.array(z.string()).optional(),
  firstComment: z.string().optional(),
  /** Tags in a field of their own. */
  tags: z.array(z.string()).optional(),
  hashtags: z.array(z.string()),
  length: z.int().min(0),
  /** Null where the network sets none. */
  limit: z.int().positive().nullable(),
  passage: Place.extend({ text: z.string() }).nullable(),
  spans: z.array(Place),
  checks: z.array(Check),
  /** Other wordings, best first, where --wordings asks for them. */
  wordings: z.array(Wording.omit({ closing: true })).optional(),
})
export type CaptionRow = z.infer<typeof CaptionRow>

/** What `card` prints: a drawn card, its size in pixels. */
export const CardOutput = z.object({
  width: z.int().positive(),
  height: z.int().positive(),
  /** Letters that no typeface has; they are drawn as boxes. */
  missing: z.array(z.string()),
  svg: z.string(),
})
