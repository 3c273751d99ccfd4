import { createHash, randomBytes } from 'node:crypto'
import { z } from 'zod'
import { Fault, type Attempt, type Payload, type ShownPost, type Target } from '../../core/model'
import { network } from '../../core/networks'
import type { World } from '../intake/addresses'
import { mindKey } from '../services/settings'
import { caller, outcomeOf, type Called } from './calls'
import type { Before, Connector, Found, Grant, Health, Login, MediaFile, NotDone, Sent } from './connector'
import { discover } from './discover'

const TokenAnswer = z.object({
  access_token: z.string(),
  token_type: z.string().default('Bearer'),
  me: z.string(),
  expires_in: z.number().optional(),
  refresh_token: z.string().optional(),
  profile: z.object({ name: z.string().optional() }).optional(),
})
const ConfigAnswer = z.object({
  'media-endpoint': z.string().optional(),
  'syndicate-to': z.array(z.object({ uid: z.string(), name: z.string() })).default([]),
})
const ErrorAnswer = z.object({ error: z.string(), error_description: z.string().optional() })
const Entry = z.object({ properties: z.record(z.string(), z.array(z.unknown())) })
const SCOPE = 'create update delete media profile'

/** What is kept of a permission; sealed as one secret. */
const Kept = z.object({ access: z.string(), refresh: z.string().nullable() })

interface Parts {
  now: () => number
  /** Where this server answers: its name as a client. */
  origin: string
  world: string | null
}

/**
 * Posts to a person's own site by Micropub (W3C Recommendation, 23 May 2017), allowed by IndieAuth with PKCE (RFC 7636).
 * Micropub knows no idempotency key: each post carries ours as its `uid`, and after a lost answer the site is asked
 * for its latest posts before anything is sent again; a site that cannot list them leaves the delivery unsure.
 */
export function micropubConnector({ now, origin, world }: Parts): Connector {
  const call = caller(now)
  const client = `${origin}/`
  const reach: World | null = world
    ? { host: new URL(world).hostname, port: Number(new URL(world).port) }
    : null

  /** The site's configuration (5.2 of the recommendation): where media go, and where it passes posts on to. */
  async function config(
    endpoint: string,
    token: string,
  ): Promise<{ called: Called; media: string; targets: Target[] }> {
    const called = await call('GET', withQuery(endpoint, { q: 'config' }), { token })
    const said = ConfigAnswer.safeParse(called.attempt.answer?.body)
    return {
      called,
      media: (said.success ? said.data['media-endpoint'] : undefined) ?? '',
      targets: said.success
        ? said.data['syndicate-to'].map((t) => ({ id: t.uid, name: t.name, kind: 'passed on to' }))
        : [],
    }
  }

  /** Asks for a token; `refresh_token` and `code` alike. */
  async function token(
    endpoint: string,
    form: Record<string, string>,
  ): Promise<z.infer<typeof TokenAnswer> | null> {
    mindKey(endpoint, 'secret')
    const { attempt } = await call('POST', endpoint, { body: { form: new URLSearchParams(form) } })
    const said = TokenAnswer.safeParse(attempt.answer?.body)
    return attempt.answer?.status === 200 && said.success ? said.data : null
  }

  async function upload(login: Login, media: readonly MediaFile[], before: Before) {
    const attempts: Attempt[] = []
    const photos: { value: string; alt: string }[] = []
    const endpoint = login.settings['media'] ?? ''
    for (const { hash, bytes, type, alt } of media) {
      let where = await before.known(hash)
      if (where === null) {
        const name = `${hash.slice(0, 16)}.${type.split('/')[1] ?? 'png'}`
        const called = await call('POST', endpoint, {
          token: accessOf(login),
          body: { file: bytes, type, name },
        })
        attempts.push(called.attempt)
        where = called.headers.get('location')
        if (called.attempt.answer?.status !== 201 || !where) return { photos, attempts, failed: called }
        where = new URL(where, endpoint).href
        await before.keep(hash, where)
      }
      photos.push({ value: where, alt })
    }
    return { photos, attempts, failed: null }
  }

  /** Looks among the site's latest posts for one under our key; undefined where it cannot list them. */
  async function find(
    login: Login,
    key: string,
  ): Promise<{ url: string | null | undefined; attempt: Attempt }> {
    const { attempt } = await call('GET', withQuery(endpointOf(login), { q: 'source', limit: '50' }), {
      token: accessOf(login),
    })
    const said = z.object({ items: z.array(Entry) }).safeParse(attempt.answer?.body)
    if (attempt.answer?.status !== 200 || !said.success) return { url: undefined, attempt }
    const found = said.data.items.find((e) => e.properties['uid']?.[0] === key)
    return { url: found ? text(found.properties['url']) : null, attempt }
  }

  return {
    id: 'micropub',
    capabilities: {
      publishes: true,
      reads: true,
      takesDown: true,
      measures: true,
      tagFigures: false,
      targets: 'optional',
    },

    async authorise({ redirect, state, site }) {
      if (!site) throw new Fault('bad-request', 'Give the address of your site.', 'site')
      const { me, micropub, authorization, token: tokens } = await discover(site, reach)
      const verifier = randomBytes(32).toString('base64url')
      const challenge = createHash('sha256').update(verifier).digest('base64url')
      const address = withQuery(authorization, {
        response_type: 'code',
        client_id: client,
        redirect_uri: redirect,
        state,
        code_challenge: challenge,
        code_challenge_method: 'S256',
        scope: SCOPE,
        me,
      })
      return { address, kept: { me, micropub, token: tokens, verifier } }
    },

    async grant({ network: id, redirect, code, kept }): Promise<Grant> {
      const { micropub = '', token: tokens = '', verifier = '' } = kept
      mindKey(micropub, 'secret')
      const granted = await token(tokens, {
        grant_type: 'authorization_code',
        code,
        client_id: client,
        redirect_uri: redirect,
        code_verifier: verifier,
      })
      if (!granted)
        throw new Fault('bad-answer', 'The site did not grant the permission. Start the linking again.', id)
      const { media, targets } = await config(micropub, granted.access_token)
      const { host, pathname } = new URL(granted.me)
      const handle = pathname.length > 1 ? (pathname.split('/').pop() ?? '').replace(/^@/, '') || host : host
      return {
        remoteId: granted.me,
        handle,
        name: granted.profile?.name ?? handle,
        zone: 'UTC',
        profileUrl: granted.me,
        secret: JSON.stringify({ access: granted.access_token, refresh: granted.refresh_token ?? null }),
        settings: { endpoint: micropub, token: tokens, media },
        targets,
        expiresAt: granted.expires_in === undefined ? null : now() + granted.expires_in * 1000,
      }
    },

    async check(login): Promise<Health> {
      const { refresh } = keptOf(login)
      if (refresh !== null) {
        const renewed = await token(login.settings['token'] ?? '', {
          grant_type: 'refresh_token',
          refresh_token: refresh,
          client_id: client,
        })
        if (renewed)
          return {
            state: 'linked',
            message: 'Linked.',
            expiresAt: renewed.expires_in === undefined ? null : now() + renewed.expires_in * 1000,
            secret: JSON.stringify({
              access: renewed.access_token,
              refresh: renewed.refresh_token ?? refresh,
            }),
          }
      }
      const { called } = await config(endpointOf(login), accessOf(login))
      if (called.attempt.answer?.status === 200) return { state: 'linked', message: 'Linked.' }
      const outcome = meaning(called, login)
      return outcome.kind === 'unlinked' ? { state: outcome.state, message: outcome.reason } : null
    },

    async publish(login, key, payload, media, before): Promise<Sent> {
      const attempts: Attempt[] = []
      if (before.doubt) {
        const { url, attempt } = await find(login, key)
        attempts.push(attempt)
        if (url === undefined)
          return {
            outcome: {
              kind: 'unsure',
              reason:
                'No answer came when it was sent, and the site does not list its posts: it may stand there. Look, and say whether it does, or try again.',
            },
            attempts,
          }
        if (url !== null) return { outcome: published(url), attempts }
      }
      const uploaded = await upload(login, media, before)
      attempts.push(...uploaded.attempts)
      if (uploaded.failed) return { outcome: meaning(uploaded.failed, login), attempts }
      const called = await call('POST', endpointOf(login), {
        token: accessOf(login),
        body: {
          json: { type: ['h-entry'], properties: entryOf(payload, key, uploaded.photos, login.target) },
        },
      })
      attempts.push(called.attempt)
      const status = called.attempt.answer?.status
      const location = called.headers.get('location')
      if ((status === 201 || status === 202) && location)
        return { outcome: published(new URL(location, endpointOf(login)).href), attempts }
      return { outcome: meaning(called, login), attempts }
    },

    async find(login, key) {
      const { url, attempt } = await find(login, key)
      return { found: url ? published(url) : url === null ? null : undefined, attempt }
    },

    async read(login, remoteId) {
      const { attempt } = await call('GET', withQuery(endpointOf(login), { q: 'source', url: remoteId }), {
        token: accessOf(login),
      })
      const said = Entry.safeParse(attempt.answer?.body)
      return { shown: attempt.answer?.status === 200 && said.success ? shownOf(said.data) : null, attempt }
    },

    async measures(login, remoteId) {
      const { measures: kinds } = network(login.network)
      const query = { q: 'source', url: remoteId, 'properties[]': kinds.map((m) => `x-${m}`) }
      const called = await call('GET', withQuery(endpointOf(login), query), { token: accessOf(login) })
      const status = called.attempt.answer?.status
      if (status === 404 || status === 410) return { kind: 'gone' }
      const said = Entry.safeParse(called.attempt.answer?.body)
      if (status !== 200 || !said.success) return meaning(called, login)
      const counted = kinds.flatMap((m) => {
        const count = z.coerce.number().int().min(0).safeParse(said.data.properties[`x-${m}`]?.[0])
        return count.success ? [[m, count.data] as const] : []
      })
      return counted.length
        ? { kind: 'read', measures: Object.fromEntries(counted) }
        : { kind: 'refused', reason: 'This site does not say how its posts are read.' }
    },

    async takeDown(login, remoteId) {
      const called = await call('POST', endpointOf(login), {
        token: accessOf(login),
        body: { json: { action: 'delete', url: remoteId } },
      })
      const status = called.attempt.answer?.status ?? 0
      if ((status < 200 || status >= 300) && status !== 404 && status !== 410)
        throw new Fault('bad-answer', `The site did not take the post down: ${reasonOf(called, login)}`)
      return called.attempt
    },

    tagFigures: () =>
      Promise.reject(new Fault('bad-request', 'A site of one’s own knows nothing of the tags of others.')),
  }
}

/** A post as the properties of an h-entry; what it does not have is left out. */
function entryOf(
  { title, summary, text: words, tags, link }: Payload,
  uid: string,
  photo: readonly { value: string; alt: string }[],
  target: string | null,
): Record<string, unknown[]> {
  return {
    content: [words],
    uid: [uid],
    ...(title ? { name: [title] } : {}),
    ...(summary ? { summary: [summary] } : {}),
    ...(tags.length ? { category: [...tags] } : {}),
    ...(photo.length ? { photo: [...photo] } : {}),
    ...(link ? { canonical: [link] } : {}),
    ...(target ? { 'mp-syndicate-to': [target] } : {}),
  }
}

function shownOf({ properties }: z.infer<typeof Entry>): ShownPost {
  return {
    title: text(properties['name']),
    text: text(properties['content']) ?? '',
    parts: [],
    poll: [],
    firstComment: null,
    pictures: properties['photo']?.length ?? 0,
  }
}

/** The first value of a property as text: itself, or what an object of it holds. */
function text(values: readonly unknown[] | undefined): string | null {
  const value = values?.[0]
  if (typeof value === 'string') return value
  const held = z
    .object({ value: z.string() })
    .or(z.object({ html: z.string() }))
    .safeParse(value)
  return held.success ? ('value' in held.data ? held.data.value : held.data.html) : null
}

function published(url: string): Found {
  return { kind: 'published', remoteId: url, publicUrl: url, visibility: 'visible' }
}

function endpointOf(login: Login): string {
  return login.settings['endpoint'] ?? ''
}

function keptOf(login: Login): z.infer<typeof Kept> {
  return Kept.parse(JSON.parse(login.secret))
}

function accessOf(login: Login): string {
  return keptOf(login).access
}

/** An address with more in its query; what stands there already stays. */
function withQuery(address: string, query: Readonly<Record<string, string | readonly string[]>>): string {
  const url = new URL(address)
  for (const [key, value] of Object.entries(query)) {
    url.searchParams.delete(key)
    for (const one of [value].flat()) url.searchParams.append(key, one)
  }
  return url.href
}

/** What an answer that is no success means, by the errors of the recommendation (3.7). */
function meaning(called: Called, login: Login): NotDone {
  const reason = reasonOf(called, login)
  const error = ErrorAnswer.safeParse(called.attempt.answer?.body)
  const code = error.success ? error.data.error : ''
  if (called.attempt.answer?.status === 403 || code === 'insufficient_scope')
    return { kind: 'unlinked', reason, state: 'withdrawn' }
  return outcomeOf(called, reason, 'expired')
}

function reasonOf({ attempt }: Called, login: Login): string {
  if (attempt.error) return attempt.error
  const said = ErrorAnswer.safeParse(attempt.answer?.body)
  const who = login.settings['endpoint']
    ? new URL(login.settings['endpoint']).host
    : network(login.network).name
  if (said.success) return `${who}: ${said.data.error_description ?? said.data.error}`
  return `${who} answered ${attempt.answer?.status ?? 'nothing'} without a reason.`
}
