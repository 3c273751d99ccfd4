import { z } from 'zod'
import { Hold, Id, Instant, LocalDate } from './primitives'
import { Rhythm } from './rhythm'
import { SieveRule } from './sieve'

/** How much is held for a person. */
export const Gate = z.enum(['everything', 'what is flagged', 'nothing'])
export type Gate = z.infer<typeof Gate>

export const HUES = ['indigo', 'sky', 'violet', 'rose', 'brown', 'slate', 'jade', 'graphite'] as const
export const Hue = z.enum(HUES)
export type Hue = z.infer<typeof Hue>

/** From sources to accounts by itself. */
export const Pipeline = z.object({
  id: Id,
  brand: Id,
  name: z.string().min(1).max(80),
  hue: Hue,
  on: z.boolean(),
  sources: z.array(Id),
  /** Groups of sources, by name: whatever is in them counts. */
  groups: z.array(z.string()),
  sieve: z.array(SieveRule),
  /** Pieces published before this moment are left to the person. */
  since: Instant,
  accounts: z.array(Id),
  rhythm: Rhythm,
  gate: Gate,
  /** The days between which its posts may go out, both included; null where nothing bounds them. */
  window: z.object({ from: LocalDate.nullable(), to: LocalDate.nullable() }),
  /** Its posts' priority: above 0 they have their place before others. */
  priority: z.int().min(-10).max(10),
  held: Hold.nullable(),
  endedAt: Instant.nullable(),
  version: z.int().min(1),
  savedAt: Instant,
  createdAt: Instant,
})
export type Pipeline = z.infer<typeof Pipeline>
