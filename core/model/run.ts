import { z } from 'zod'
import { Id, Instant } from './primitives'

/** One thing that a pipeline did with one piece, or did not. */
export const RunStep = z.object({
  what: z.enum(['sieve', 'write', 'make anew', 'drip again', 'write ahead', 'from the shelf', 'follow']),
  /** Whether it was done, left for later or for good, or failed. */
  came: z.enum(['done', 'skipped', 'failed']),
  piece: Id,
  title: z.string(),
  /** The row of the release, or null where no row is meant. */
  row: Id.nullable(),
  /** What came of it, or why nothing did, in a sentence. */
  message: z.string(),
  posts: z.int().min(0),
  drip: Id.nullable(),
  milliseconds: z.int().min(0),
})
export type RunStep = z.infer<typeof RunStep>

/** One round of a pipeline in which something came of it, step by step. */
export const Run = z.object({
  id: Id,
  brand: Id,
  pipeline: Id,
  /** The pipeline's version that ran. */
  version: z.int().min(1),
  at: Instant,
  milliseconds: z.int().min(0),
  steps: z.array(RunStep).min(1),
})
export type Run = z.infer<typeof Run>
