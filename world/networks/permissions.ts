import { createHash, randomUUID } from 'node:crypto'
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import { z } from 'zod'
import type { ServedNetwork } from '../../core/networks'
import { escape, page } from '../html'
import type { WorldAccount } from '../state'
import { lookOf } from './looks'
import { publicUrl } from './pages'
import { html, refuse, type NetworkParts } from './parts'

const DAY = 86_400_000
const TOKEN_LIFE = 400 * DAY

/** Who may post: the page on which a person allows it, codes, and tokens with an end. Every interface has the same. */
export interface Permissions {
  logins(): WorldAccount[]
  /** A token for a code, once; null where the code is not known, or its proof (RFC 7636) is wrong. */
  exchange(code: string, verifier: string | null): Promise<Granted | null>
  /** The account that a request's token stands for, with the token's end; null after the refusal was sent. */
  bearer(
    request: FastifyRequest,
    reply: FastifyReply,
  ): Promise<{ account: WorldAccount; expiresAt: number } | null>
}

export interface Granted {
  account: WorldAccount
  token: string
  expiresAt: number
}

export function permissionRoutes(
  app: FastifyInstance,
  profile: ServedNetwork,
  { store, clock, accounts, origin }: NetworkParts,
): Permissions {
  const base = profile.service.path
  const look = lookOf(profile.id)
  const logins = (): WorldAccount[] => accounts.filter((a) => a.network === profile.id)

  app.get(`${base}/authorize`, async (request, reply) => {
    const asked = z
      .object({ redirect_uri: z.string(), state: z.string(), code_challenge: z.string().default('') })
      .parse(request.query)
    const now = await clock.now()
    const allowed = (a: WorldAccount): boolean =>
      store.state.tokens.some((t) => t.account === a.id && !t.withdrawn && t.expiresAt > now)
    const proposed = logins().find((a) => !allowed(a)) ?? logins()[0]
    const choices = logins()
      .map(
        (a) =>
          `<label><input type="radio" name="account" value="${a.id}" ${a === proposed ? 'checked' : ''}> <b>${escape(a.name)}</b> @${escape(a.handle)}<br><span class="small">${escape(a.about)}${allowed(a) ? ' Dripline may post to it already.' : ''}</span></label>`,
      )
      .join('')
    const kept = Object.entries(asked)
      .map(([name, value]) => `<input type="hidden" name="${name}" value="${escape(value)}">`)
      .join('')
    return html(
      reply,
      page(
        `Allow Dripline on ${profile.name}`,
        `<header>${profile.name}</header><main><h1>Let Dripline post for you on ${profile.name}?</h1><p>You are signed in as Lantern &amp; Lathe. Choose the account it may post to. You can withdraw this at any time.</p>
<form method="post" action="${base}/authorize">${choices}${kept}
<p><button class="yes" name="allow" value="yes">Allow</button> <button name="allow" value="no">Do not allow</button></p></form></main>`,
        look,
      ),
    )
  })

  app.post(`${base}/authorize`, async (request, reply) => {
    const form = z
      .object({
        account: z.string(),
        redirect_uri: z.string(),
        state: z.string(),
        allow: z.string(),
        code_challenge: z.string().default(''),
      })
      .parse(request.body)
    const to = new URL(form.redirect_uri)
    to.searchParams.set('state', form.state)
    if (form.allow === 'yes' && logins().some((a) => a.id === form.account))
      to.searchParams.set('code', mint(form.account, form.code_challenge))
    else to.searchParams.set('error', 'declined')
    return reply.redirect(to.href, 303)
  })

  app.post(`${base}/demo-code`, async (request) => {
    const { account: named } = z.object({ account: z.string() }).parse(request.body)
    // An account of a site of one's own is named by its address.
    const account = logins().find((a) => a.id === named || publicUrl(profile, a, origin) === named)
    return { code: mint(account?.id ?? named, '') }
  })

  function mint(account: string, challenge: string): string {
    const code = randomUUID()
    store.state.codes.push({ code, account, challenge })
    store.save()
    return code
  }

  return {
    logins,

    async exchange(code, verifier) {
      const known = store.state.codes.find((c) => c.code === code)
      const account = logins().find((a) => a.id === known?.account)
      if (!known || !account) return null
      const proof = createHash('sha256')
        .update(verifier ?? '')
        .digest('base64url')
      if (known.challenge && proof !== known.challenge) return null
      store.state.codes = store.state.codes.filter((c) => c !== known)
      const expiresAt = (await clock.now()) + TOKEN_LIFE
      const token = randomUUID()
      store.state.tokens.push({ token, account: account.id, expiresAt, withdrawn: false })
      store.save()
      return { account, token, expiresAt }
    },

    async bearer(request, reply) {
      const token = /^Bearer (.+)$/.exec(request.headers.authorization ?? '')?.[1]
      const known = store.state.tokens.find((t) => t.token === token)
      const account = logins().find((a) => a.id === known?.account)
      if (!known || !account) await refuse(reply, 401, 'unknown_token', 'The token is not known here.')
      else if (known.withdrawn) await refuse(reply, 401, 'withdrawn', 'The permission was withdrawn.')
      else if (known.expiresAt < (await clock.now()))
        await refuse(reply, 401, 'expired', 'The token has expired.')
      else return { account, expiresAt: known.expiresAt }
      return null
    },
  }
}
