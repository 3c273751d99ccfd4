import { z } from 'zod'
import { Id, Place } from './primitives'

/** What a passage is made of, which decides the angles it can carry. */
export const PassageKind = z.enum([
  'statement',
  'number',
  'contrast',
  'instruction',
  'steps',
  'story',
  'definition',
  'question',
])
export type PassageKind = z.infer<typeof PassageKind>

/** An extract worth quoting, as found in a text. The score lies between 0 and 1. */
export const FoundPassage = Place.extend({
  text: z.string(),
  kind: PassageKind,
  score: z.number().min(0).max(1),
  reasons: z.array(z.string()),
})
export type FoundPassage = z.infer<typeof FoundPassage>

/** A passage of a piece, with its exact quotation and what stands around it. */
export const Passage = FoundPassage.extend({
  id: Id,
  brand: Id,
  piece: Id,
  revision: z.int().min(1),
  before: z.string(),
  after: z.string(),
  choice: z.enum(['kept', 'spare', 'left out']),
  by: z.enum(['machine', 'person']),
  /** What a person said of dripping it again: on the shelf whatever a row asks, or off it; absent where nobody said. */
  shelf: z.enum(['on', 'off']).optional(),
  /** Set when the piece changed and the quotation is no longer in it. */
  lostPlace: z.boolean(),
})
export type Passage = z.infer<typeof Passage>

const CONTEXT = 40

/** What stands around a place of a text, by which a passage is found again when its piece changes. */
export function around(text: string, start: number, end: number): { before: string; after: string } {
  return { before: text.slice(Math.max(0, start - CONTEXT), start), after: text.slice(end, end + CONTEXT) }
}
