import { z } from 'zod'
import { Fault, Measures, ShownPost, TagFigures, Target, type Attempt, type Payload } from '../../core/model'
import { network, servicePath } from '../../core/networks'
import { caller, outcomeOf, type Called } from './calls'
import type { Before, Connector, Found, Grant, MediaFile, NotDone, Outcome, Sent } from './connector'

const TokenAnswer = z.object({
  accessToken: z.string(),
  expiresAt: z.iso.datetime().nullable(),
  account: z.object({
    id: z.string(),
    handle: z.string(),
    name: z.string(),
    zone: z.string(),
    url: z.string(),
    targets: z.array(Target).default([]),
  }),
})
const AccountAnswer = z.object({
  expiresAt: z.iso.datetime().nullable(),
  followers: z.int().min(0).nullable().default(null),
  targets: z.array(z.object({ id: z.string(), followers: z.int().min(0).optional() })).default([]),
})
const PostAnswer = z.object({
  id: z.string(),
  url: z.string().nullable(),
  visibility: z.enum(['visible', 'waiting for a moderator']),
})
const ErrorAnswer = z.object({ error: z.string(), field: z.string().optional(), reason: z.string() })

/**
 * Speaks the stand-in networks' HTTP interface, each as its OpenAPI description says. The networks differ by their
 * profiles alone. `world` is where the stand-in world answers; no other file knows it as a place for posts.
 */
export function standInConnector(world: string, now: () => number): Connector {
  const base = (networkId: string): string => `${world}${servicePath(networkId)}`
  const call = caller(now)

  /** Before what was not uploaded before, in order; gives the network's ids, or what stands in the way. */
  async function upload(
    where: string,
    token: string,
    media: readonly MediaFile[],
    before: Before,
  ): Promise<{ ids: { id: string; alt: string }[]; attempts: Attempt[]; failed: Called | null }> {
    const ids: { id: string; alt: string }[] = []
    const attempts: Attempt[] = []
    for (const { hash, bytes, type, alt } of media) {
      let id = await before.known(hash)
      if (id === null) {
        const called = await call('POST', `${where}/media`, { token, body: { bytes, type } })
        attempts.push(called.attempt)
        const stored = z.object({ id: z.string() }).safeParse(called.attempt.answer?.body)
        if (called.attempt.answer?.status !== 201 || !stored.success) return { ids, attempts, failed: called }
        id = stored.data.id
        await before.keep(hash, id)
      }
      ids.push({ id, alt })
    }
    return { ids, attempts, failed: null }
  }

  return {
    id: 'stand-in',
    capabilities: {
      publishes: true,
      reads: true,
      takesDown: true,
      measures: true,
      tagFigures: true,
      targets: 'required',
    },

    authorise: ({ network: id, redirect, state }) =>
      Promise.resolve({
        address: `${base(id)}/authorize?${new URLSearchParams({ redirect_uri: redirect, state }).toString()}`,
        kept: {},
      }),

    async grant({ network: id, code }): Promise<Grant> {
      const { attempt } = await call('POST', `${base(id)}/token`, { body: { json: { code } } })
      const answer = TokenAnswer.safeParse(attempt.answer?.body)
      if (attempt.answer?.status !== 200 || !answer.success)
        throw new Fault(
          'bad-answer',
          `${network(id).name} did not grant the account. Start the linking again.`,
          id,
        )
      const { account } = answer.data
      return {
        remoteId: account.id,
        handle: account.handle,
        name: account.name,
        zone: account.zone,
        profileUrl: account.url,
        secret: answer.data.accessToken,
        settings: {},
        targets: account.targets,
        expiresAt: answer.data.expiresAt ? Date.parse(answer.data.expiresAt) : null,
      }
    },

    async check(login) {
      const { name } = network(login.network)
      const called = await call('GET', `${base(login.network)}/account`, { token: login.secret })
      const answer = AccountAnswer.safeParse(called.attempt.answer?.body)
      if (called.attempt.answer?.status === 200 && answer.success)
        return {
          state: 'linked',
          message: 'Linked.',
          expiresAt: answer.data.expiresAt ? Date.parse(answer.data.expiresAt) : null,
          followers: {
            own: answer.data.followers,
            places: Object.fromEntries(
              answer.data.targets.flatMap(({ id, followers }) =>
                followers === undefined ? [] : [[id, followers]],
              ),
            ),
          },
        }
      const outcome = meaning(called, name)
      return outcome.kind === 'unlinked' ? { state: outcome.state, message: outcome.reason } : null
    },

    async publish(login, key, payload: Payload, media, before): Promise<Sent> {
      const { name } = network(login.network)
      const where = base(login.network)
      const uploaded = await upload(where, login.secret, media, before)
      if (uploaded.failed) return { outcome: meaning(uploaded.failed, name), attempts: uploaded.attempts }
      const called = await call('POST', `${where}/posts`, {
        token: login.secret,
        body: { json: { ...payload, target: login.target, media: uploaded.ids } },
        headers: { 'idempotency-key': key },
      })
      const { answer } = called.attempt
      const taken = PostAnswer.safeParse(answer?.body)
      const outcome: Outcome =
        (answer?.status === 200 || answer?.status === 201) && taken.success
          ? standing(taken.data)
          : meaning(called, name)
      return { outcome, attempts: [...uploaded.attempts, called.attempt] }
    },

    async find(login, key) {
      const query = new URLSearchParams({ key }).toString()
      const { attempt } = await call('GET', `${base(login.network)}/posts?${query}`, { token: login.secret })
      const { answer } = attempt
      if (answer?.status === 404) return { found: null, attempt }
      const taken = PostAnswer.safeParse(answer?.body)
      return { found: answer?.status === 200 && taken.success ? standing(taken.data) : undefined, attempt }
    },

    async read(login, remoteId) {
      const { attempt } = await call('GET', postAt(base(login.network), remoteId), { token: login.secret })
      const shown = ShownPost.safeParse(attempt.answer?.body)
      return { shown: attempt.answer?.status === 200 && shown.success ? shown.data : null, attempt }
    },

    async measures(login, remoteId) {
      const called = await call('GET', `${postAt(base(login.network), remoteId)}/measures`, {
        token: login.secret,
      })
      const { name } = network(login.network)
      const status = called.attempt.answer?.status
      const said = z.object({ measures: Measures }).safeParse(called.attempt.answer?.body)
      if (status === 200 && said.success) return { kind: 'read', measures: said.data.measures }
      return status === 404 ? { kind: 'gone' } : meaning(called, name)
    },

    async takeDown(login, remoteId) {
      const { name } = network(login.network)
      const called = await call('DELETE', postAt(base(login.network), remoteId), { token: login.secret })
      const status = called.attempt.answer?.status
      if (status !== 204 && status !== 404)
        throw new Fault('bad-answer', `${name} did not take the post down: ${reasonOf(called, name)}`)
      return called.attempt
    },

    async tagFigures(login, tags) {
      const query = new URLSearchParams(tags.map((t) => ['name', t])).toString()
      const called = await call('GET', `${base(login.network)}/tags?${query}`, { token: login.secret })
      const answer = z.object({ tags: TagFigures }).safeParse(called.attempt.answer?.body)
      if (called.attempt.answer?.status !== 200 || !answer.success)
        throw new Fault('bad-answer', reasonOf(called, network(login.network).name), login.network)
      return answer.data.tags
    },
  }
}

function standing({ id, url, visibility }: z.infer<typeof PostAnswer>): Found {
  return { kind: 'published', remoteId: id, publicUrl: url, visibility }
}

function postAt(base: string, remoteId: string): string {
  return `${base}/posts/${encodeURIComponent(remoteId)}`
}

/** What an answer that is no success means; the network's code says whether a permission ran out or was withdrawn. */
function meaning(called: Called, name: string): NotDone {
  const error = ErrorAnswer.safeParse(called.attempt.answer?.body)
  const code = error.success ? error.data.error : ''
  return outcomeOf(
    called,
    reasonOf(called, name),
    code === 'withdrawn' ? 'withdrawn' : 'expired',
    error.success ? error.data.field : undefined,
  )
}

function reasonOf({ attempt }: Called, name: string): string {
  if (attempt.error) return attempt.error
  const parsed = ErrorAnswer.safeParse(attempt.answer?.body)
  if (parsed.success) return `${name}: ${parsed.data.reason}`
  return `${name} answered ${attempt.answer?.status ?? 'nothing'} without a reason.`
}
