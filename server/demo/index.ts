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

/** An account of the demo's workspace: a login of the stand-in world, or one of its places. */
const DemoAccount = z.object({
  id: Id,
  network: Id,
  remoteId: z.string(),
  target: z.string().nullable().default(null),
  /** Whether its permission has run out. */
  expired: z.boolean().default(false),
})
type DemoAccount = z.infer<typeof DemoAccount>

/** Accounts by the login that they share. */
function loginsOf(accounts: readonly DemoAccount[]): [DemoAccount, ...DemoAccount[]][] {
  const logins = new Map<string, [DemoAccount, ...DemoAccount[]]>()
  for (const account of accounts) {
    const key = `${account.network} ${account.remoteId}`
    const known = logins.get(key)
    if (known) known.push(account)
    else logins.set(key, [account])
  }
  return [...logins.values()]
}

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
        body: z.object({ accounts: z.array(DemoAccount) }),
        response: { 200: z.object({ accounts: z.array(LinkedAccount) }) },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      const accounts: LinkedAccount[] = []
      for (const login of loginsOf(request.body.accounts)) accounts.push(...(await link(login)))
      return { accounts }
    },
  )

  /** Links a login with its places, each under the id that the demo's workspace has for it. */
  async function link(login: readonly [DemoAccount, ...DemoAccount[]]): Promise<LinkedAccount[]> {
    const [first] = login
    const at = `${world}${servicePath(first.network)}`
    const response = await fetch(`${at}/demo-code`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ account: first.remoteId }),
    })
    const { code } = z.object({ code: z.string() }).parse(await response.json())
    const connector = network(first.network).service?.connector ?? 'stand-in'
    const grant = await context.registry.of(connector).grant({
      network: first.network,
      redirect: '',
      code,
      kept: { micropub: `${at}/micropub`, token: `${at}/token` },
    })
    const { accounts } = context.parts()
    const linked = await accounts.keep(first.network, connector, grant, context.clock.now(), first.id)
    if (first.expired) {
      await fetch(`${world}/control/trouble`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ network: first.network, account: first.remoteId, kind: 'expire' }),
      })
      await context.parts().health.check(linked.id)
    }
    const places = login.flatMap(({ id, target }) => (target === null ? [] : [[target, id] as const]))
    if (places.length === 0) return [await accounts.one(linked.id)]
    const own = new Map(places)
    return accounts.chooseTargets(linked.id, [...own.keys()], own)
  }

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
