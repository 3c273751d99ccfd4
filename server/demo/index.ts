import { z } from 'zod'
import { Fault, Id, LinkedAccount } from '../../core/model'
import { network, servicePath } from '../../core/networks'
import type { App, Context } from '../context'
import { typed } from '../routes/typed'
import { mustOwn } from '../routes/workspace'
import { emptyTables } from '../store/tables'
import { jumpRoutes } from './clock'
import { MovableClock } from './movableClock'

export { MovableClock }

/** Everything that is demo: the seed, its accounts, moving the clock, starting again. A real run does not load it. */
export function demo(app: App, context: Context, world: string, clock: MovableClock): void {
  jumpRoutes(app, context, world, clock)

  typed(app).get(
    '/api/demo/seed',
    { schema: { summary: 'The demo’s workspace as a bundle' } },
    async (_request, reply) => {
      const response = await fetch(`${world}/demo/seed.zip`, { signal: AbortSignal.timeout(30_000) }).catch(
        () => null,
      )
      if (!response?.ok)
        throw new Fault(
          'unreachable',
          'The stand-in world does not answer. Start the demo again with npm start.',
        )
      return reply.header('content-type', 'application/zip').send(Buffer.from(await response.arrayBuffer()))
    },
  )

  typed(app).get(
    '/api/demo',
    { schema: { summary: 'Which demo the world plays', response: { 200: z.object({ seed: Id }) } } },
    async () => {
      const response = await fetch(`${world}/demo`, { signal: AbortSignal.timeout(3000) }).catch(() => null)
      if (!response?.ok)
        throw new Fault(
          'unreachable',
          'The stand-in world does not answer. Start the demo again with npm start.',
        )
      return z.object({ seed: Id }).parse(await response.json())
    },
  )

  typed(app).post(
    '/api/demo/link',
    {
      schema: {
        summary: 'Link the demo’s own accounts without the authorisation page',
        body: z.object({ accounts: z.array(z.object({ id: Id, network: Id, remoteId: z.string() })) }),
        response: { 200: z.object({ accounts: z.array(LinkedAccount) }) },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      const accounts: LinkedAccount[] = []
      for (const { id, network: networkId, remoteId } of request.body.accounts) {
        const response = await fetch(`${world}${servicePath(networkId)}/demo-code`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ account: remoteId }),
        })
        const { code } = z.object({ code: z.string() }).parse(await response.json())
        const connector = network(networkId).service?.connector ?? 'stand-in'
        const at = `${world}${servicePath(networkId)}`
        const grant = await context.registry.of(connector).grant({
          network: networkId,
          redirect: '',
          code,
          kept: { micropub: `${at}/micropub`, token: `${at}/token` },
        })
        accounts.push(
          await context.parts().accounts.keep(networkId, connector, grant, context.clock.now(), id),
        )
      }
      return { accounts }
    },
  )

  typed(app).post(
    '/api/demo/restart',
    {
      schema: {
        summary: 'Empty the spool, set the clock back to the present, and start the world afresh',
        response: { 200: z.object({ seed: Id }) },
      },
    },
    async () => {
      await emptyTables(context.parts().database)
      await clock.load()
      const response = await fetch(`${world}/control/restart`, { method: 'POST' })
      return z.object({ seed: Id }).parse(await response.json())
    },
  )
}
