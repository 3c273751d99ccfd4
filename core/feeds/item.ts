import { z } from 'zod'
import { Chapter, Counts, Instant } from '../model'

/** A picture that a feed names for an item. */
const FeedImage = z.object({
  url: z.string(),
  alt: z.string(),
  width: z.number().nullable(),
  height: z.number().nullable(),
})

/** A film or recording that a feed names for an item, with where its words and chapters are. */
const FeedVideo = z.object({
  url: z.string().nullable(),
  type: z.string(),
  seconds: z.number().positive().nullable(),
  chapters: z.array(Chapter),
  /** Where its chapters are, where they are not in the feed. */
  chaptersUrl: z.string().nullable(),
  transcripts: z.array(z.object({ url: z.string(), type: z.string(), language: z.string().nullable() })),
})

/** One item of a feed, whatever the feed's format. */
export const FeedItem = z.object({
  title: z.string(),
  url: z.string().nullable(),
  id: z.string(),
  publishedAt: Instant.nullable(),
  author: z.string().nullable(),
  language: z.string().nullable(),
  categories: z.array(z.string()),
  summary: z.string(),
  /** The item's body as HTML, empty where the feed carries summaries only. */
  html: z.string(),
  /** What addresses in its body are relative to. */
  base: z.string().nullable(),
  images: z.array(FeedImage),
  video: FeedVideo.nullable(),
  counts: Counts,
  place: z.object({ latitude: z.number(), longitude: z.number() }).nullable(),
  /** Elements of the item that are none of the above and hold a short text: a price, a distance. */
  fields: z.record(z.string(), z.string()),
})
export type FeedItem = z.infer<typeof FeedItem>

export const Feed = z.object({
  title: z.string(),
  url: z.string().nullable(),
  items: z.array(FeedItem),
  /** What had to be mended to read it, in plain words. */
  notes: z.array(z.string()),
})
export type Feed = z.infer<typeof Feed>
