import { spawnSync } from 'node:child_process'
import { rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterEach, describe, expect, it } from 'vitest'
import { caller, handOver, temporaryFolder } from '../../e2e/servers'
import { seededRandom } from '../../core/planning'
import { startPostgres, type TestPostgres } from '../testing/postgres'
import { sumOf, whole } from './load'
import { CountingNetwork } from './network'
import { Yard } from './yard'

const MINUTE = 60_000
const folders: ReturnType<typeof temporaryFolder>[] = []
let yard: Yard
let postgres: TestPostgres | null = null

async function open(accounts: number, network: CountingNetwork, databaseUrl?: string): Promise<void> {
  const folder = temporaryFolder()
  folders.push(folder)
  yard = new Yard({ folder: folder.path, accounts, network, ...(databaseUrl ? { databaseUrl } : {}) })
  await yard.open()
}
afterEach(async () => {
  await yard.close()
  postgres?.stop()
  postgres = null
  for (const folder of folders.splice(0)) folder.remove()
})

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds))
/** Moves the clock on, whatever becomes of the answer. */
const advance = async (minutes: number): Promise<void> => {
  const to = new Date((await yard.now()) + minutes * MINUTE).toISOString()
  await yard.call('POST', '/api/clock/advance', { to })
}

describe('the sum is the same', () => {
  it('where the server is killed at thirty random moments', async () => {
    const chance = seededRandom(30)
    const posts = 900
    await open(30, new CountingNetwork(0.05, seededRandom(1)))
    await yard.handOver(posts, (await yard.now()) + MINUTE, 30 * MINUTE)
    for (let n = 0; n < 30; n++) {
      void advance(1).catch(() => undefined)
      await pause(chance() * 1_000)
      await yard.kill(yard.servers.at(-1)!)
      await yard.start()
    }
    expect(sumOf(yard, posts, await yard.receipts(posts))).toEqual(whole(posts))
  })

  it('where PostgreSQL is restarted under two servers', async () => {
    postgres = startPostgres()
    if (!postgres) throw new Error('PostgreSQL could not be started here.')
    const posts = 600
    await open(20, new CountingNetwork(0.05, seededRandom(2)), postgres.url)
    await yard.start()
    await yard.handOver(posts, (await yard.now()) + MINUTE, 30 * MINUTE)
    for (let n = 0; n < 6; n++) {
      void advance(5).catch(() => undefined)
      await pause(300)
      postgres.restart()
      await pause(500)
    }
    expect(sumOf(yard, posts, await yard.receipts(posts))).toEqual(whole(posts))
  })

  it('where the network is down for an hour', async () => {
    const posts = 200
    await open(10, new CountingNetwork())
    await yard.handOver(posts, (await yard.now()) + MINUTE, 20 * MINUTE)
    yard.network.down = true
    for (let minutes = 0; minutes < 60; minutes += 5) await advance(5)
    expect(yard.network.taken).toEqual([])
    yard.network.down = false
    expect(sumOf(yard, posts, await yard.receipts(posts))).toEqual(whole(posts))
  })

  it('where a token runs out in the middle of a batch and the account is linked again', async () => {
    const posts = 200
    await open(4, new CountingNetwork())
    await yard.handOver(posts, (await yard.now()) + MINUTE, 20 * MINUTE)
    await advance(10)
    yard.network.expire('account-1')
    await advance(15)
    const of = (account: string) => yard.network.taken.filter((t) => t.account === account).length
    expect(of('account-0')).toBe(50)
    expect(of('account-1')).toBeLessThan(30)
    await yard.link(['account-1'])
    expect(sumOf(yard, posts, await yard.receipts(posts))).toEqual(whole(posts))
  })

  it('where the disk is full for a while', async ({ skip }) => {
    const folder = temporaryFolder()
    folders.push(folder)
    const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=96m', 'none', folder.path]).status === 0
    skip(!mounted, 'No file system of a fixed size can be mounted here.')
    try {
      const posts = 400
      const network = new CountingNetwork()
      yard = new Yard({ folder: folder.path, accounts: 10, network })
      await yard.open()
      await yard.handOver(posts, (await yard.now()) + MINUTE, 20 * MINUTE)
      const filler = join(folder.path, 'filler')
      // Until nothing more fits.
      for (let n = 0; n < 2000; n++)
        try {
          writeFileSync(filler, Buffer.alloc(64 * 1024), { flag: 'a' })
        } catch {
          break
        }
      await advance(10).catch(() => undefined)
      // What is handed over now is taken and then kept, or refused with a sentence.
      let taken = 0
      const answers = new Set<string>()
      for (let n = 0; n < 50; n++) {
        const more = handOver(`q${n}`, new Date(await yard.now()).toISOString(), { account: 'account-0' })
        more.payload.text = 'Long words. '.repeat(1000)
        const { body } = await yard.call('PUT', `/api/spool/posts/${more.id}`, more)
        answers.add(String(body['result'] ?? body['message']))
        if (body['result'] === 'taken') taken++
      }
      expect([...answers].filter((a) => a !== 'taken')).toEqual([expect.stringContaining('disk is full')])
      rmSync(filler)
      await yard.kill(yard.servers.at(-1)!)
      await yard.start()
      const all = posts + taken
      expect(sumOf(yard, all, await yard.receipts(all))).toEqual({
        ...whole(all),
        inversions: expect.any(Number),
      })
    } finally {
      await yard.close()
      spawnSync('umount', [folder.path])
    }
  })
})

describe('after a lost answer the post is out once, and what is said is true', () => {
  const DUE = MINUTE
  /** One post, taken by the network, whose answer is lost. */
  const lost = async (): Promise<void> => {
    await open(1, new CountingNetwork(1, seededRandom(3), ['lost after']))
    const due = new Date((await yard.now()) + DUE).toISOString()
    await yard.call('PUT', '/api/spool/posts/p', handOver('p', due, { account: 'account-0' }))
    await advance(1.5)
    expect(yard.network.taken).toHaveLength(1)
    expect((await yard.call<{ receipts: unknown[] }>('GET', '/api/spool/receipts')).body.receipts).toEqual([])
  }
  const end = async (): Promise<void> => {
    expect(sumOf(yard, 1, await yard.receipts(1, 60_000))).toEqual(whole(1))
    expect(yard.network.taken[0]!.text).toBe('The words of p.')
  }

  it('when it is recalled', async () => {
    await lost()
    expect((await yard.call('DELETE', '/api/spool/posts/p')).body).toMatchObject({
      result: 'finished',
      receipt: { outcome: 'published' },
    })
    await end()
  })

  it('when it is edited', async () => {
    await lost()
    const due = new Date((await yard.now()) + 60 * MINUTE).toISOString()
    const edit = handOver('p', due, { account: 'account-0', revision: 2 })
    edit.payload.text = 'Other words.'
    expect((await yard.call('PUT', '/api/spool/posts/p', edit)).body).toMatchObject({
      result: 'already sending',
    })
    await end()
  })

  it('when another browser takes over', async () => {
    await lost()
    const other = caller(yard.port, 'other')
    expect((await other('POST', '/api/workspace/claim', { id: 'other', takeOver: true })).status).toBe(200)
    const { body } = await other<{ receipts: { outcome: string }[] }>('GET', '/api/spool/receipts')
    expect(body.receipts).toMatchObject([{ post: 'p', outcome: 'published' }])
    expect(yard.network.taken).toHaveLength(1)
  })

  it('when its account is linked again', async () => {
    await lost()
    yard.network.expire('account-0')
    await yard.link(['account-0'])
    await end()
  })
})
