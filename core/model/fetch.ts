import { z } from 'zod'
import { Id, Instant } from './primitives'

/** What the server brings back from a feed, a page or a file it was asked to fetch. */
export const FetchAnswer = z.object({
  url: z.string(),
  status: z.int(),
  contentType: z.string(),
  etag: z.string().nullable(),
  lastModified: z.string().nullable(),
  /** The site answered a conditional request: nothing is new. */
  unchanged: z.boolean(),
  /** Where it moved for good, or null. */
  movedTo: z.string().nullable(),
  retryAfter: z.number().nullable(),
  /** What stands in the way, as a sentence; `gone` is for good, `waitSeconds` what the site asks for. */
  trouble: z
    .object({ message: z.string(), gone: z.boolean(), waitSeconds: z.number().nullable() })
    .nullable(),
  text: z.string(),
})
export type FetchAnswer = z.infer<typeof FetchAnswer>

/** A feed that the server goes on visiting while the app is closed. */
export const Watched = z.object({
  source: Id,
  url: z.string().max(2000),
  everyMinutes: z.int().min(1),
  /** When the app means to visit it next; the server does where the app does not. */
  nextAt: Instant,
  etag: z.string().nullable(),
  lastModified: z.string().nullable(),
})
export type Watched = z.infer<typeof Watched>

/** What a watched feed said at a moment. */
export const Snapshot = z.object({ id: z.int(), at: Instant, text: z.string() })
export type Snapshot = z.infer<typeof Snapshot>
