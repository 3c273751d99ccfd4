import { z } from 'zod'
import { Id, Instant } from './primitives'

/** One request to a network and what it answered; `status` is null when no answer came. */
export const Attempt = z.object({
  at: Instant,
  request: z.object({ method: z.string(), url: z.string(), body: z.unknown() }),
  answer: z.object({ status: z.int(), body: z.unknown() }).nullable(),
  error: z.string().nullable(),
  milliseconds: z.number(),
})
export type Attempt = z.infer<typeof Attempt>

/** What came back from a delivery. */
export const Receipt = z.object({
  id: Id,
  post: Id,
  generation: z.int().min(1),
  /** The revision of the post that the delivery had; 0 in receipts older than that was said. */
  revision: z.int().min(0).default(0),
  account: Id,
  outcome: z.enum(['published', 'failed', 'unsure', 'by hand', 'late', 'gone']),
  reason: z.string(),
  dueAt: Instant,
  finishedAt: Instant,
  publicUrl: z.string().nullable(),
  visibility: z.enum(['visible', 'waiting for a moderator', 'gone']).nullable(),
  attempts: z.array(Attempt),
})
export type Receipt = z.infer<typeof Receipt>
