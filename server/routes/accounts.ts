import { randomBytes, randomUUID } from 'node:crypto'
import { z } from 'zod'
import { Fault, Id, Linkable, LinkedAccount, PlainLink, TagFigures } from '../../core/model'
import { network } from '../../core/networks'
import type { App, Context } from '../context'
import { mindKey } from '../services/settings'
import { typed } from './typed'
import { mustOwn } from './workspace'

const Back = z
  .string()
  .regex(/^\/[\w/-]*$/)
  .default('/dispatch/accounts')

/** Linking accounts, through a page of the network's own or by an address, and how the linked ones are. */
export function accountRoutes(app: App, context: Context): void {
  const { registry } = context
  const redirect = `${context.origin}/api/link/callback`

  typed(app).get(
    '/api/link/:network/start',
    {
      schema: {
        summary:
          'Send the person to the page on which they allow an account; `site` is their own site, by Micropub',
        params: z.object({ network: Id }),
        querystring: z.object({ brand: Id, back: Back, site: z.string().max(2000).optional() }),
      },
    },
    async (request, reply) => {
      const { authorisations } = context.parts()
      const profile = network(request.params.network)
      const { site = null, brand, back } = request.query
      const known = registry.linkable.find((l) => l.network === profile.id)
      if (site === null && !known)
        throw new Fault(
          'bad-request',
          `${profile.name} has no page here on which an account is allowed. Link your own site by Micropub, a system by a webhook, or publish by hand.`,
          profile.id,
        )
      const connector = site === null && known ? known.connector : 'micropub'
      const state = randomUUID()
      const { address, kept } = await registry
        .of(connector)
        .authorise({ network: profile.id, redirect, state, site: site ?? known?.site ?? null })
      await authorisations.begin(state, { connector, network: profile.id, brand, back, kept })
      return reply.redirect(address)
    },
  )

  typed(app).get(
    '/api/link/callback',
    {
      schema: {
        summary: 'Where the authorisation page sends the person back to',
        querystring: z.object({
          state: z.string(),
          code: z.string().optional(),
          error: z.string().optional(),
        }),
      },
    },
    async (request, reply) => {
      const { state, code } = request.query
      const begun = await context.parts().authorisations.take(state)
      if (!begun)
        throw new Fault(
          'bad-request',
          'This linking was not begun here or took longer than 15 minutes. Start it again.',
          'state',
        )
      const to = new URLSearchParams({ brand: begun.brand })
      if (code) {
        const grant = await registry
          .of(begun.connector)
          .grant({ network: begun.network, redirect, code, kept: begun.kept })
        const account = await context
          .parts()
          .accounts.keep(begun.network, begun.connector, grant, context.clock.now())
        to.set('linked', account.id)
      } else to.set('declined', begun.network)
      return reply.redirect(`${begun.back}?${to.toString()}`)
    },
  )

  typed(app).get(
    '/api/networks',
    {
      schema: {
        summary: 'The networks with a page of their own on which an account is allowed',
        response: { 200: z.object({ linkable: z.array(Linkable) }) },
      },
    },
    () => ({ linkable: [...registry.linkable] }),
  )

  typed(app).post(
    '/api/accounts',
    {
      schema: {
        summary:
          'Link a system by a signed webhook, or an account that is served by hand; the secret is told this once',
        body: PlainLink,
        response: { 200: z.object({ account: LinkedAccount, secret: z.string().nullable() }) },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      const { connector, name, zone, address } = request.body
      const profile = network(request.body.network)
      const secret = connector === 'webhook' ? randomBytes(32).toString('base64url') : ''
      if (connector === 'webhook' && !URL.canParse(address))
        throw new Fault(
          'bad-request',
          'Give the address to which posts are sent, beginning with https.',
          'address',
        )
      if (connector === 'webhook') mindKey(address, secret)
      const grant = {
        remoteId: connector === 'webhook' ? address : randomUUID(),
        handle: name.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '.'),
        name,
        zone,
        // Where a webhook is sent to is nobody else's to read.
        profileUrl: connector === 'hand' && URL.canParse(address) ? address : '',
        secret,
        settings: { address },
        targets: [],
        expiresAt: null,
      }
      const { accounts } = context.parts()
      return {
        account: await accounts.keep(profile.id, connector, grant, context.clock.now()),
        secret: secret || null,
      }
    },
  )

  typed(app).post(
    '/api/accounts/:id/targets',
    {
      schema: {
        summary: 'Choose places of a login; each gets an account of its own',
        params: z.object({ id: Id }),
        body: z.object({ targets: z.array(z.string()).min(1).max(100) }),
        response: { 200: z.object({ accounts: z.array(LinkedAccount) }) },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      const { accounts } = context.parts()
      return { accounts: await accounts.chooseTargets(request.params.id, request.body.targets) }
    },
  )

  typed(app).post(
    '/api/accounts/:id/check',
    {
      schema: {
        summary: 'Ask the network now how a login is',
        params: z.object({ id: Id }),
        response: { 200: LinkedAccount },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      const { accounts, health } = context.parts()
      if (!(await health.check(request.params.id)))
        throw new Fault('unreachable', 'There was no answer, so nothing is known. Try again in a moment.')
      return accounts.one(request.params.id)
    },
  )

  typed(app).post(
    '/api/networks/:network/tags',
    {
      schema: {
        summary: 'How often tags were posted with in the last seven days, by the network’s own figures',
        params: z.object({ network: Id }),
        body: z.object({ tags: z.array(z.string().min(1).max(100)).min(1).max(100) }),
        response: { 200: z.object({ figures: TagFigures }) },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      const profile = network(request.params.network)
      const { accounts } = context.parts()
      const linked = (await accounts.all()).find(
        (a) => a.network === profile.id && a.state === 'linked' && a.capabilities.tagFigures,
      )
      if (!linked)
        throw new Fault('not-linked', `No account is linked on ${profile.name} that tells figures.`)
      const login = await accounts.login(linked.id)
      return { figures: await registry.of(login.connector).tagFigures(login, request.body.tags) }
    },
  )

  typed(app).get(
    '/api/accounts',
    {
      schema: {
        summary: 'The linked accounts and their health',
        response: { 200: z.object({ accounts: z.array(LinkedAccount) }) },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      return { accounts: await context.parts().accounts.all() }
    },
  )

  typed(app).delete(
    '/api/accounts/:id',
    {
      schema: {
        summary: 'Forget an account and its secret',
        params: z.object({ id: Id }),
        response: { 200: z.object({ id: Id }) },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      await context.parts().accounts.forget(request.params.id)
      return { id: request.params.id }
    },
  )
}
