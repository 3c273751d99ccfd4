import { once } from 'node:events'
import type { ChildProcess } from 'node:child_process'
import type { FastifyInstance } from 'fastify'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  caller,
  handOver,
  LOGINS,
  spawnServer,
  startWorld,
  temporaryFolder,
  until,
  type Page,
} from '../../e2e/servers'
import { freePort } from '../../e2e/ports'
import { layFreshSpool } from '../testing/freshSpool'

const HOUR = 3_600_000

describe('a server that is killed', () => {
  const folder = temporaryFolder()
  let world: FastifyInstance
  let server: ChildProcess
  let port: number
  let worldPort: number
  let call: ReturnType<typeof caller>

  beforeAll(async () => {
    port = await freePort()
    worldPort = await freePort()
    world = await startWorld({ port: worldPort, serverPort: port, folder: folder.path })
    call = caller(port)
    await layFreshSpool(folder.path)
    server = await spawnServer({ port, worldPort, dataDir: folder.path })
    await call('POST', '/api/workspace/claim', { id: 'ws' })
    await call('POST', '/api/demo/link', {
      accounts: LOGINS.map((a) => ({ id: a.id, network: a.network, remoteId: a.id })),
    })
  })
  afterAll(async () => {
    server.kill('SIGKILL')
    await world.close()
    folder.remove()
  })

  const kill = async (): Promise<void> => {
    server.kill('SIGKILL')
    await once(server, 'exit')
  }
  const restart = async (): Promise<void> => {
    server = await spawnServer({ port, worldPort, dataDir: folder.path })
  }
  const now = async (): Promise<number> =>
    Date.parse((await call<{ now: string }>('GET', '/api/clock')).body.now)
  const publicPosts = async (handle: string): Promise<number> => {
    const page = await (await fetch(`http://localhost:${worldPort}/networks/murmur/@${handle}`)).text()
    return page.split('<article').length - 1
  }
  const outcomes = async (): Promise<string[]> =>
    (await call<Page>('GET', '/api/spool/receipts')).body.receipts.map((r) => `${r.post} ${r.outcome}`)

  it('between hand-over and publication loses and doubles nothing', async () => {
    const due = (await now()) + HOUR
    for (const [i, id] of ['a', 'b', 'c'].entries()) {
      const entry = handOver(id, new Date(due + i * 60_000).toISOString())
      expect((await call('PUT', `/api/spool/posts/${id}`, entry)).body).toMatchObject({ result: 'taken' })
    }
    await kill()
    await restart()
    expect((await call('POST', '/api/spool/held', { posts: ['a', 'b', 'c', 'ghost'] })).body).toEqual({
      held: ['a', 'b', 'c'],
    })
    for (const minutes of [0, 1, 2])
      await call('POST', '/api/clock/advance', { to: new Date(due + minutes * 60_000).toISOString() })
    expect(await outcomes()).toEqual(['a published', 'b published', 'c published'])
    expect(await publicPosts('murmur.one')).toBe(3)
    // The app, which did not hear of it, hands one over again: it stays out once.
    const again = handOver('a', new Date(due).toISOString(), { revision: 2 })
    expect((await call('PUT', '/api/spool/posts/a', again)).body).toMatchObject({
      result: 'finished',
      receipt: { outcome: 'published' },
    })
    expect(await publicPosts('murmur.one')).toBe(3)
  })

  it('in the middle of a publication is taken up within half a minute, and the post is out once', async () => {
    await world.inject({
      method: 'POST',
      url: '/control/trouble',
      payload: { network: 'murmur', kind: 'slow', count: 1 },
    })
    const due = new Date((await now()) + 1000).toISOString()
    await call('PUT', '/api/spool/posts/d', handOver('d', due, { account: 'murmur-two' }))
    // The network takes four seconds over it; the server dies after one.
    const moving = call('POST', '/api/clock/advance', { to: due }).catch(() => null)
    await new Promise((resolve) => setTimeout(resolve, 1500))
    await kill()
    await moving
    await restart()
    await until(async () => (await outcomes()).includes('d published'), 30_000)
    expect(await publicPosts('murmur.two')).toBe(1)
    const { receipts } = (await call<Page>('GET', '/api/spool/receipts')).body
    const [receipt, ...more] = receipts.filter((r) => r.post === 'd')
    expect(more).toEqual([])
    // The network had it from the dead server: it answers 200, the same post as before, not 201.
    expect(receipt?.attempts.at(-1)?.answer?.status).toBe(200)
  })
})
