import { z } from 'zod'

/**
 * Everything that can go wrong by somebody's input or the outside world, as one short list.
 * The code is for programs, the status for HTTP, the sentence for the person who can mend it.
 */
export const FAULTS = {
  'bad-request': 400,
  'bad-file': 422,
  'not-a-feed': 422,
  'not-readable': 422,
  'bad-bundle': 422,
  'bad-plan': 422,
  'unknown-network': 422,
  'needs-item': 422,
  'not-found': 404,
  'no-session': 401,
  'wrong-origin': 403,
  'wrong-workspace': 409,
  'older-revision': 409,
  'already-sending': 409,
  'private-address': 422,
  robots: 403,
  unreachable: 502,
  'bad-answer': 502,
  'too-large': 413,
  'too-slow': 504,
  'not-linked': 409,
  'clock-busy': 409,
  'wrong-type': 415,
  'too-many': 429,
  'over-budget': 429,
  'no-writer': 409,
  'no-shortener': 409,
  'no-stock': 409,
  'no-maker': 409,
  'no-chat': 409,
  'not-ready': 503,
  'no-space': 507,
  internal: 500,
} as const
export type FaultCode = keyof typeof FAULTS

/** The one error that is thrown on purpose. `where` names the file, line, row or field. */
export class Fault extends Error {
  readonly code: FaultCode
  readonly where: string | null
  constructor(code: FaultCode, message: string, where: string | null = null) {
    super(message)
    this.name = 'Fault'
    this.code = code
    this.where = where
  }
  get status(): number {
    return FAULTS[this.code]
  }
  toJSON(): FaultBody {
    return { code: this.code, message: this.message, where: this.where }
  }
}

/** How a fault travels: over HTTP, from workers, and on standard error. */
export const FaultBody = z.object({
  code: z.enum(Object.keys(FAULTS) as [FaultCode, ...FaultCode[]]),
  message: z.string(),
  where: z.string().nullable(),
})
export type FaultBody = z.infer<typeof FaultBody>

/** Turns anything thrown into a fault, keeping one that already is. */
export function asFault(error: unknown, fallback: FaultCode = 'internal'): Fault {
  if (error instanceof Fault) return error
  if (error instanceof z.ZodError) {
    const issue = error.issues[0]
    return new Fault(
      fallback === 'internal' ? 'bad-request' : fallback,
      issue?.message ?? 'The data has the wrong shape.',
      issue?.path.join('.') ?? null,
    )
  }
  return new Fault(fallback, error instanceof Error ? error.message : String(error))
}
