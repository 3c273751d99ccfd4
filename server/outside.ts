/** Why a call to an outside service brought no answer. */
export type CallTrouble = 'too slow' | 'too large' | 'broken off'

/** A call that brought no answer. */
export class CallFailed extends Error {
  constructor(readonly trouble: CallTrouble) {
    super(`The call was ${trouble}.`)
  }
}

/** An answer with its whole body. */
export interface Answer {
  status: number
  ok: boolean
  headers: Headers
  text: string
}

/** The most that an answer of a service may hold, in bytes. */
const LARGEST = 2 * 1024 * 1024

/**
 * Calls an outside service: one time-out over headers and body (milliseconds), a bound on the body (bytes), no
 * redirect. The controller and its timer are held here until the call ends, so that no collection of garbage
 * takes the time-out away; a body that is given up is closed, not drained. Throws `CallFailed`.
 */
export async function callOutside(
  url: string,
  init: Omit<RequestInit, 'signal' | 'redirect'>,
  { milliseconds, bytes = LARGEST }: { milliseconds: number; bytes?: number },
): Promise<Answer> {
  const controller = new AbortController()
  let timer: NodeJS.Timeout | undefined
  const tooSlow = new Promise<never>((_, reject) => {
    timer = setTimeout(() => {
      reject(new CallFailed('too slow'))
      controller.abort()
    }, milliseconds)
  })
  const answer = async (): Promise<Answer> => {
    const response = await fetch(url, { ...init, redirect: 'error', signal: controller.signal })
    const { status, ok, headers } = response
    return { status, ok, headers, text: await textOf(response, bytes) }
  }
  try {
    return await Promise.race([answer(), tooSlow])
  } catch (error) {
    throw error instanceof CallFailed ? error : new CallFailed('broken off')
  } finally {
    clearTimeout(timer)
    controller.abort()
  }
}

/** A body as text, read up to a bound. */
async function textOf(response: Response, bytes: number): Promise<string> {
  if (Number(response.headers.get('content-length')) > bytes) throw new CallFailed('too large')
  if (!response.body) return ''
  const reader = response.body.getReader()
  const decoder = new TextDecoder()
  let text = ''
  let size = 0
  for (;;) {
    const { done, value } = await reader.read()
    if (done) return text + decoder.decode()
    size += value.byteLength
    if (size > bytes) throw new CallFailed('too large')
    text += decoder.decode(value, { stream: true })
  }
}

/** The longest that a service may ask us to wait, in seconds: a month. */
const LONGEST_WAIT = 30 * 86_400

/** Seconds of a Retry-After header (RFC 9110: seconds, or a date), at most a month; null where it says nothing. */
export function waitOf(value: string | null, date: string | null = null): number | null {
  if (value === null) return null
  const text = value.trim()
  const seconds = /^\d+(?:\.\d+)?$/.test(text)
    ? Number(text)
    : (Date.parse(text) - (Date.parse(date ?? '') || Date.now())) / 1000
  return Number.isNaN(seconds) ? null : Math.min(LONGEST_WAIT, Math.max(0, Math.round(seconds)))
}

/** A text as JSON, or null where it is none. */
export function parseJson(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}
