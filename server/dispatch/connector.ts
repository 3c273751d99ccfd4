import { z } from 'zod'
import { Fault, ShownPost, TagFigures, type Attempt, type Payload } from '../../core/model'
import { network, servicePath } from '../../core/networks'
import { CallFailed, callOutside, waitOf, type CallTrouble } from '../outside'
import type { Outcome } from './spool'

/** What a network grants when a person allows an account. */
export interface Grant {
  remoteId: string
  handle: string
  name: string
  zone: string
  profileUrl: string
  token: string
  expiresAt: number | null
}

/** A picture's bytes with what it shows in words. */
export interface MediaFile {
  bytes: Uint8Array
  type: string
  alt: string
}

/** One way of speaking to networks. Every connector passes the same contract test. */
export interface Connector {
  authorizeUrl(networkId: string, redirect: string, state: string): string
  exchange(networkId: string, code: string): Promise<Grant>
  publish(
    networkId: string,
    token: string,
    key: string,
    payload: Payload,
    media: readonly MediaFile[],
  ): Promise<{ outcome: Outcome; attempt: Attempt }>
  /** A post as the network has it; `shown` is null where it has none, or gives no answer that is understood. */
  read(
    networkId: string,
    token: string,
    remoteId: string,
  ): Promise<{ shown: ShownPost | null; attempt: Attempt }>
  takeDown(networkId: string, token: string, remoteId: string): Promise<Attempt>
  /** How often tags were posted with in the last seven days. */
  tagFigures(networkId: string, token: string, tags: readonly string[]): Promise<TagFigures>
}

const TIMEOUT = 8_000

const TokenAnswer = z.object({
  accessToken: z.string(),
  expiresAt: z.iso.datetime().nullable(),
  account: z.object({
    id: z.string(),
    handle: z.string(),
    name: z.string(),
    zone: z.string(),
    url: z.string(),
  }),
})
const PostAnswer = z.object({
  id: z.string(),
  url: z.string().nullable(),
  visibility: z.enum(['visible', 'waiting for a moderator']),
})
const ErrorAnswer = z.object({ error: z.string(), field: z.string().optional(), reason: z.string() })

const TROUBLES: Readonly<Record<CallTrouble, string>> = {
  'too slow': `No answer within ${TIMEOUT / 1000} seconds.`,
  'too large': 'The answer was longer than an answer of a network can be.',
  'broken off': 'The connection broke before an answer came.',
}

/** Speaks the stand-in networks' HTTP interface, each as its OpenAPI description says. */
export function httpConnector(origin: string, now: () => number): Connector {
  const base = (networkId: string): string => `${origin}${servicePath(networkId)}`

  async function call(
    method: string,
    url: string,
    token: string | null,
    body: unknown,
    headers: Record<string, string> = {},
  ): Promise<{ attempt: Attempt; retryAfter: string | null }> {
    const binary = body instanceof Uint8Array
    const started = performance.now()
    const attempt: Attempt = {
      at: new Date(now()).toISOString(),
      request: { method, url, body: binary ? `${body.byteLength} bytes` : (body ?? null) },
      answer: null,
      error: null,
      milliseconds: 0,
    }
    let retryAfter: string | null = null
    try {
      const {
        status,
        text,
        headers: answered,
      } = await callOutside(
        url,
        {
          method,
          headers: {
            ...(token ? { authorization: `Bearer ${token}` } : {}),
            ...(body === undefined ? {} : binary ? {} : { 'content-type': 'application/json' }),
            ...headers,
          },
          ...(body === undefined ? {} : { body: binary ? new Uint8Array(body) : JSON.stringify(body) }),
        },
        { milliseconds: TIMEOUT },
      )
      attempt.answer = { status, body: parseJson(text) }
      retryAfter = answered.get('retry-after')
    } catch (error) {
      attempt.error = TROUBLES[error instanceof CallFailed ? error.trouble : 'broken off']
    }
    attempt.milliseconds = Math.round(performance.now() - started)
    return { attempt, retryAfter }
  }

  return {
    authorizeUrl: (networkId, redirect, state) =>
      `${base(networkId)}/authorize?${new URLSearchParams({ redirect_uri: redirect, state }).toString()}`,

    async exchange(networkId, code) {
      const { attempt } = await call('POST', `${base(networkId)}/token`, null, { code })
      const answer = TokenAnswer.safeParse(attempt.answer?.body)
      if (attempt.answer?.status !== 200 || !answer.success)
        throw new Fault(
          'bad-answer',
          `${network(networkId).name} did not grant the account. Start the linking again.`,
          networkId,
        )
      const { account } = answer.data
      return {
        remoteId: account.id,
        handle: account.handle,
        name: account.name,
        zone: account.zone,
        profileUrl: account.url,
        token: answer.data.accessToken,
        expiresAt: answer.data.expiresAt ? Date.parse(answer.data.expiresAt) : null,
      }
    },

    async publish(networkId, token, key, payload, media) {
      const name = network(networkId).name
      const ids: { id: string; alt: string }[] = []
      for (const file of media) {
        const { attempt, retryAfter } = await call('POST', `${base(networkId)}/media`, token, file.bytes, {
          'content-type': file.type,
        })
        const stored = z.object({ id: z.string() }).safeParse(attempt.answer?.body)
        if (attempt.answer?.status !== 201 || !stored.success)
          return { outcome: outcomeOf(attempt, retryAfter, name), attempt }
        ids.push({ id: stored.data.id, alt: file.alt })
      }
      const { media: _, ...words } = payload
      const body = { ...words, media: ids }
      const { attempt, retryAfter } = await call('POST', `${base(networkId)}/posts`, token, body, {
        'idempotency-key': key,
      })
      const taken = PostAnswer.safeParse(attempt.answer?.body)
      const status = attempt.answer?.status
      if ((status === 200 || status === 201) && taken.success)
        return {
          outcome: {
            kind: 'published',
            remoteId: taken.data.id,
            publicUrl: taken.data.url,
            visibility: taken.data.visibility,
          },
          attempt,
        }
      return { outcome: outcomeOf(attempt, retryAfter, name), attempt }
    },

    async read(networkId, token, remoteId) {
      const { attempt } = await call(
        'GET',
        `${base(networkId)}/posts/${encodeURIComponent(remoteId)}`,
        token,
        undefined,
      )
      const shown = ShownPost.safeParse(attempt.answer?.body)
      return { shown: attempt.answer?.status === 200 && shown.success ? shown.data : null, attempt }
    },

    async takeDown(networkId, token, remoteId) {
      const { attempt } = await call(
        'DELETE',
        `${base(networkId)}/posts/${encodeURIComponent(remoteId)}`,
        token,
        undefined,
      )
      const status = attempt.answer?.status
      if (status !== 204 && status !== 404)
        throw new Fault(
          'bad-answer',
          `${network(networkId).name} did not take the post down: ${reasonOf(attempt, network(networkId).name)}`,
        )
      return attempt
    },

    async tagFigures(networkId, token, tags) {
      const query = new URLSearchParams(tags.map((t) => ['name', t])).toString()
      const { attempt } = await call('GET', `${base(networkId)}/tags?${query}`, token, undefined)
      const answer = z.object({ tags: TagFigures }).safeParse(attempt.answer?.body)
      if (attempt.answer?.status !== 200 || !answer.success)
        throw new Fault('bad-answer', reasonOf(attempt, network(networkId).name), networkId)
      return answer.data.tags
    },
  }
}

const RETRY = [1, 2, 4, 8, 15].map((minutes) => minutes * 60_000)

/** What an answer that is not a success means for the delivery. */
function outcomeOf(attempt: Attempt, retryAfter: string | null, name: string): Outcome {
  const status = attempt.answer?.status
  const reason = reasonOf(attempt, name)
  if (status === 401) {
    const withdrawn = /withdrawn/.test(reason)
    return { kind: 'unlinked', reason, state: withdrawn ? 'withdrawn' : 'expired' }
  }
  if (
    status !== undefined &&
    status >= 400 &&
    status < 500 &&
    status !== 408 &&
    status !== 425 &&
    status !== 429
  )
    return { kind: 'refused', reason }
  const seconds = waitOf(retryAfter) ?? 0
  return { kind: 'later', reason, afterMilliseconds: seconds > 0 ? seconds * 1000 : (RETRY[0] as number) }
}

function reasonOf(attempt: Attempt, name: string): string {
  if (attempt.error) return attempt.error
  const parsed = ErrorAnswer.safeParse(attempt.answer?.body)
  if (parsed.success) return `${name}: ${parsed.data.reason}`
  return `${name} answered ${attempt.answer?.status ?? 'nothing'} without a reason.`
}

/** How long to wait after so many tries, in milliseconds of the shared clock. */
export function backoff(tries: number): number {
  return RETRY[Math.min(tries, RETRY.length) - 1] ?? (RETRY[0] as number)
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return text.slice(0, 500)
  }
}
