import { randomUUID } from 'node:crypto'
import { z } from 'zod'
import { Fault, Id, LinkedAccount, TagFigures } from '../../core/model'
import { network } from '../../core/networks'
import type { App, Context } from '../server'
import { httpConnector } from '../dispatch/connector'
import { typed } from './typed'
import { mustOwn } from './workspace'

const STATE_LIFE = 15 * 60_000

/** Linking accounts through the network's own authorisation page, and how the linked ones are. */
export function linkRoutes(app: App, context: Context): void {
  const connector = httpConnector(context.options.worldUrl ?? context.origin, () => context.clock.now())
  const pending = new Map<string, { network: string; brand: string; back: string; until: number }>()

  typed(app).get(
    '/api/link/:network/start',
    {
      schema: {
        summary: 'Send the person to the network’s authorisation page',
        params: z.object({ network: Id }),
        querystring: z.object({
          brand: Id,
          back: z
            .string()
            .regex(/^\/[\w/-]*$/)
            .default('/dispatch/accounts'),
        }),
      },
    },
    async (request, reply) => {
      context.house()
      const profile = network(request.params.network)
      const state = randomUUID()
      const now = Date.now()
      for (const [key, value] of pending) if (value.until < now) pending.delete(key)
      pending.set(state, {
        network: profile.id,
        brand: request.query.brand,
        back: request.query.back,
        until: now + STATE_LIFE,
      })
      return reply.redirect(connector.authorizeUrl(profile.id, `${context.origin}/api/link/callback`, state))
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
      const known = pending.get(state)
      pending.delete(state)
      if (!known)
        throw new Fault(
          'bad-request',
          'This linking was not begun here or took longer than 15 minutes. Start it again.',
          'state',
        )
      const to = new URLSearchParams({ brand: known.brand })
      if (code) {
        const grant = await connector.exchange(known.network, code)
        const account = await context.house().links.keep(known.network, grant, context.clock.now())
        to.set('linked', account.id)
      } else to.set('declined', known.network)
      return reply.redirect(`${known.back}?${to.toString()}`)
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
      const { links } = context.house()
      const linked = (await links.all()).find((a) => a.network === profile.id && a.state === 'linked')
      if (!linked)
        throw new Fault('not-linked', `No account is linked on ${profile.name}, so it tells no figures.`)
      const { token } = await links.token(linked.id)
      return { figures: await connector.tagFigures(profile.id, token, request.body.tags) }
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
      return { accounts: await context.house().links.all() }
    },
  )

  typed(app).delete(
    '/api/accounts/:id',
    {
      schema: {
        summary: 'Forget an account and its token',
        params: z.object({ id: Id }),
        response: { 200: z.object({ id: Id }) },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      await context.house().links.forget(request.params.id)
      return { id: request.params.id }
    },
  )
}
