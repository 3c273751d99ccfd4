import { z } from 'zod'
import { Instant } from './primitives'

/** Block: no gate passes it. Flag: a person may accept it. Note: advice. */
export const Severity = z.enum(['block', 'flag', 'note'])
export type Severity = z.infer<typeof Severity>

/** What a check found, with the words it concerns. */
export const Check = z.object({
  code: z.string(),
  severity: Severity,
  message: z.string(),
  words: z.string().optional(),
  /** What a click would do about it, where the caption can be mended by itself. */
  remedy: z.string().optional(),
})
export type Check = z.infer<typeof Check>

/** A person's acceptance of one flag on one post. */
export const Acceptance = z.object({ code: z.string(), words: z.string(), at: Instant })
export type Acceptance = z.infer<typeof Acceptance>
