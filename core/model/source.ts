import { z } from 'zod'
import { Hold, Id, Instant } from './primitives'

/** What came of the last visit to a source, in words a person can act on. */
export const Visit = z.object({
  at: Instant,
  ok: z.boolean(),
  message: z.string(),
  newPieces: z.int().min(0),
})
export type Visit = z.infer<typeof Visit>

/** Where long-form work comes from. */
export const Source = z.object({
  id: Id,
  brand: Id,
  kind: z.literal('feed'),
  title: z.string(),
  url: z.string(),
  siteUrl: z.string().nullable(),
  visitEveryMinutes: z.int().min(15).max(1440),
  nextVisitAt: Instant,
  lastVisit: Visit.nullable(),
  failures: z.int().min(0),
  etag: z.string().nullable(),
  lastModified: z.string().nullable(),
  held: Hold.nullable(),
  createdAt: Instant,
})
export type Source = z.infer<typeof Source>
