import { z } from 'zod'

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
