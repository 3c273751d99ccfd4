import type { Attempt } from '../../core/model'
import { CallFailed, callOutside, waitOf, type CallTrouble } from '../outside'
import type { NotDone } from './connector'

const TIMEOUT = 8_000

const TROUBLES: Readonly<Record<CallTrouble, string>> = {
  'too slow': `No answer within ${TIMEOUT / 1000} seconds.`,
  'too large': 'The answer was longer than an answer of a network can be.',
  'broken off': 'The connection broke before an answer came.',
}

/** One call to a network, written down with its answer; what carried a secret is not among it. */
export interface Called {
  attempt: Attempt
  headers: Headers
}

/** What is sent: JSON, a form, or bytes. */
export type Body =
  | { json: unknown }
  | { form: URLSearchParams }
  | { bytes: Uint8Array; type: string }
  | { file: Uint8Array; type: string; name: string }
  | null

/** Calls a network under a clock and writes the call down; secrets travel in headers, which are not kept. */
export function caller(now: () => number) {
  return async (
    method: string,
    url: string,
    { token = null, body = null, headers = {} }: CallOptions = {},
  ): Promise<Called> => {
    const started = performance.now()
    const attempt: Attempt = {
      at: new Date(now()).toISOString(),
      request: { method, url, body: shownOf(body) },
      answer: null,
      error: null,
      milliseconds: 0,
    }
    let answered = new Headers()
    try {
      const { sent, type } = packed(body)
      const answer = await callOutside(
        url,
        {
          method,
          headers: {
            accept: 'application/json',
            ...(type ? { 'content-type': type } : {}),
            ...(token ? { authorization: `Bearer ${token}` } : {}),
            ...headers,
          },
          ...(sent === undefined ? {} : { body: sent }),
        },
        { milliseconds: TIMEOUT },
      )
      attempt.answer = { status: answer.status, body: parsed(answer.text) }
      answered = answer.headers
    } catch (error) {
      attempt.error = TROUBLES[error instanceof CallFailed ? error.trouble : 'broken off']
    }
    attempt.milliseconds = Math.round(performance.now() - started)
    return { attempt, headers: answered }
  }
}

export interface CallOptions {
  token?: string | null
  body?: Body
  headers?: Readonly<Record<string, string>>
}

function packed(body: Body): {
  sent: string | Uint8Array<ArrayBuffer> | FormData | undefined
  type: string | null
} {
  if (body === null) return { sent: undefined, type: null }
  if ('json' in body) return { sent: JSON.stringify(body.json), type: 'application/json' }
  if ('form' in body) return { sent: body.form.toString(), type: 'application/x-www-form-urlencoded' }
  if ('bytes' in body) return { sent: new Uint8Array(body.bytes), type: body.type }
  const form = new FormData()
  form.set('file', new Blob([new Uint8Array(body.file)], { type: body.type }), body.name)
  return { sent: form, type: null }
}

/** Fields of a form that prove something; the ledger shows that they were there and no more. */
const SECRET = new Set(['code', 'code_verifier', 'client_secret', 'access_token', 'refresh_token'])

function shownOf(body: Body): unknown {
  if (body === null) return null
  if ('json' in body) return body.json
  if ('form' in body)
    return Object.fromEntries([...body.form].map(([k, v]) => [k, SECRET.has(k) ? '(secret)' : v]))
  return `${('bytes' in body ? body.bytes : body.file).byteLength} bytes`
}

/** The waits between tries, in milliseconds of the shared clock: one minute, then twice as long each time, at most fifteen. */
const WAITS = [1, 2, 4, 8, 15].map((minutes) => minutes * 60_000)

/** How long to wait after so many tries, in milliseconds of the shared clock. */
export function backoff(tries: number): number {
  return WAITS[Math.min(tries, WAITS.length) - 1] ?? (WAITS[0] as number)
}

/**
 * What an answer that is no success means for a delivery by HTTP's own rules (RFC 9110, RFC 6585): the permission is
 * gone (401), a rule is broken (other 4xx), or it is tried again later. `unlinked` says how a 401 is to be read.
 */
export function outcomeOf(
  { attempt, headers }: Called,
  reason: string,
  unlinked: 'expired' | 'withdrawn',
  field?: string,
): NotDone {
  const status = attempt.answer?.status
  if (status === 401) return { kind: 'unlinked', reason, state: unlinked }
  if (status !== undefined && status >= 400 && status < 500 && ![408, 425, 429].includes(status))
    return { kind: 'refused', reason, field }
  const seconds = waitOf(headers.get('retry-after')) ?? 0
  return { kind: 'later', reason, afterMilliseconds: seconds > 0 ? seconds * 1000 : backoff(1) }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return text.slice(0, 500)
  }
}
