import { z } from 'zod'
import { Hold, Id, Instant } from './primitives'

/** The one record that holds for everything in this browser's database. */
export const Workspace = z.object({
  id: Id,
  /** Set when the workspace is the demo; the world carries the same one. */
  seed: Id.nullable(),
  held: Hold.nullable(),
  lastBundleAt: Instant.nullable(),
  /** Whether a bundle is made by itself each week, and where it goes. */
  weeklyBundle: z.enum(['off', 'download', 'folder']),
  lastVisitAt: Instant.nullable(),
  receiptCursor: z.int().min(0),
  createdAt: Instant,
})
export type Workspace = z.infer<typeof Workspace>
