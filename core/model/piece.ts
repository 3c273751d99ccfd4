import { z } from 'zod'
import { Id, Instant, Place } from './primitives'

/**
 * A run of the piece's text. Blocks are in order, do not overlap, and the piece's text is the
 * blocks joined by a blank line. Furniture is a mark with its reason, never a deletion.
 */
export const Block = Place.extend({
  kind: z.enum(['heading', 'paragraph', 'item', 'quotation', 'code', 'row']),
  level: z.int().min(1).max(6).optional(),
  /** Items of one list share a number; ordered lists have steps. */
  list: z.object({ id: z.int(), ordered: z.boolean(), index: z.int().min(0) }).optional(),
  furniture: z.string().nullable(),
})
export type Block = z.infer<typeof Block>

/** A sentence, with the index of the block it stands in. Sentences never cross blocks. */
export const Sentence = Place.extend({
  block: z.int().min(0),
  /** Seconds from the beginning, for what was spoken. */
  from: z.number().optional(),
  to: z.number().optional(),
})
export type Sentence = z.infer<typeof Sentence>

/** A picture of the piece; `block` is the index of the block it follows, −1 at the top. */
export const PieceImage = z.object({
  url: z.string(),
  alt: z.string(),
  caption: z.string(),
  width: z.int().positive().nullable(),
  height: z.int().positive().nullable(),
  block: z.int().min(-1),
})
export type PieceImage = z.infer<typeof PieceImage>

/** What reading makes of a file or a page, before it has an owner. */
export const PieceContent = z.object({
  title: z.string(),
  url: z.string().nullable(),
  author: z.string().nullable(),
  publishedAt: Instant.nullable(),
  language: z.string().nullable(),
  categories: z.array(z.string()),
  summary: z.string(),
  text: z.string(),
  words: z.int().min(0),
  blocks: z.array(Block),
  sentences: z.array(Sentence),
  images: z.array(PieceImage),
})
export type PieceContent = z.infer<typeof PieceContent>

/** One long-form item of a source. */
export const Piece = PieceContent.extend({
  id: Id,
  brand: Id,
  source: Id,
  /** The feed's own id of the item, or its address. */
  itemId: z.string(),
  revision: z.int().min(1),
  fingerprint: z.string(),
  takenAt: Instant,
  /** Who dealt with it: a drip was started, or it was set aside. Null while it waits in Intake. */
  dealt: z.object({ by: z.string(), at: Instant }).nullable(),
  /** Why no pipeline could make a drip of it, in words a person can act on. */
  trouble: z.string().nullable(),
  /** Pipelines that have looked at it, so that none takes it twice. */
  seenBy: z.array(Id),
})
export type Piece = z.infer<typeof Piece>
