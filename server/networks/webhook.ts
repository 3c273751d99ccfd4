import { createHmac } from 'node:crypto'
import { z } from 'zod'
import { Fault } from '../../core/model'
import { network } from '../../core/networks'
import { caller, outcomeOf, type Called } from './calls'
import type { Connector, Login, Sent } from './connector'
import { mindKey } from '../services/settings'

/** What a receiver may answer: the post's id and where it stands. */
const Answer = z.object({ id: z.string().optional(), url: z.string().nullable().optional() })

/**
 * Feeds any other system: each post is one POST of JSON, signed with HMAC-SHA-256 over the time and the body, so that the
 * receiver knows who sent it and that it is not an old one sent again (docs/webhook.md).
 */
export function webhookConnector(now: () => number): Connector {
  const call = caller(now)
  const no = (): Promise<never> =>
    Promise.reject(new Fault('bad-request', 'A webhook is linked by its address, and asked for nothing.'))

  async function say(login: Login, body: unknown, key: string): Promise<Called> {
    const address = login.settings['address'] ?? ''
    mindKey(address, login.secret)
    const words = JSON.stringify(body)
    const at = String(Math.floor(now() / 1000))
    return call('POST', address, {
      body: { json: body },
      headers: {
        'idempotency-key': key,
        'dripline-time': at,
        'dripline-signature': signatureOf(login.secret, at, words),
      },
    })
  }

  return {
    id: 'webhook',
    capabilities: {
      publishes: true,
      reads: false,
      takesDown: true,
      measures: false,
      tagFigures: false,
      targets: 'required',
    },
    authorise: no,
    grant: no,

    async check(login) {
      const called = await say(login, { event: 'check' }, `check:${now()}`)
      const status = called.attempt.answer?.status
      if (status !== undefined && status >= 200 && status < 300)
        return { state: 'linked', message: 'Linked.' }
      return status === 401 || status === 403 || status === 410
        ? { state: 'withdrawn', message: reasonOf(called, login) }
        : null
    },

    async publish(login, key, payload, media): Promise<Sent> {
      const body = {
        event: 'publish',
        key,
        network: login.network,
        account: login.remoteId,
        post: {
          ...payload,
          media: media.map(({ hash, type, alt, bytes }) => ({
            hash,
            type,
            alt,
            base64: Buffer.from(bytes).toString('base64'),
          })),
        },
      }
      const called = await say(login, body, key)
      called.attempt.request.body = { ...body, post: payload }
      const { answer } = called.attempt
      if (answer && answer.status >= 200 && answer.status < 300) {
        const said = Answer.safeParse(answer.body)
        return {
          outcome: {
            kind: 'published',
            remoteId: (said.success ? said.data.id : undefined) ?? key,
            publicUrl: (said.success ? said.data.url : undefined) ?? null,
            visibility: 'visible',
          },
          attempts: [called.attempt],
        }
      }
      const outcome = outcomeOf(called, reasonOf(called, login), 'withdrawn')
      return {
        outcome:
          answer?.status === 410
            ? { kind: 'unlinked', reason: reasonOf(called, login), state: 'withdrawn' }
            : outcome,
        attempts: [called.attempt],
      }
    },

    find: () => Promise.resolve({ found: undefined, attempt: null }),
    read: no,
    measures: no,

    async takeDown(login, remoteId) {
      const called = await say(login, { event: 'take down', id: remoteId }, `down:${remoteId}`)
      const status = called.attempt.answer?.status ?? 0
      if ((status < 200 || status >= 300) && status !== 404 && status !== 410)
        throw new Fault('bad-answer', `It was not taken down: ${reasonOf(called, login)}`)
      return called.attempt
    },

    tagFigures: no,
  }
}

/** The signature of a body sent at a moment (seconds since 1970, as text): HMAC-SHA-256 in hexadecimal (RFC 2104). */
export function signatureOf(secret: string, at: string, body: string): string {
  return `sha256=${createHmac('sha256', secret).update(`${at}.${body}`).digest('hex')}`
}

function reasonOf({ attempt }: Called, login: Login): string {
  if (attempt.error) return attempt.error
  const said = z
    .object({ reason: z.string() })
    .or(z.object({ error: z.string() }))
    .safeParse(attempt.answer?.body)
  const who = `The receiver for ${network(login.network).name}`
  if (said.success) return `${who}: ${'reason' in said.data ? said.data.reason : said.data.error}`
  return `${who} answered ${attempt.answer?.status ?? 'nothing'}.`
}
