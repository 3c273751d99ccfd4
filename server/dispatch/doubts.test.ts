import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { handOver, openServers, temporaryFolder, type Page } from '../../e2e/servers'
import type { Attempt } from '../../core/model'
import type { Connector } from '../networks/connector'
import type { Registry } from '../networks/registry'
import type { Database } from '../store/database'
import { freshDatabase } from '../testing/freshSpool'
import { accountsOf, aGrant } from '../testing/parts'
import { Doubts } from './doubts'
import { LEASE } from '../store/deliveries'
import { Spool } from '../store/spool'

const T0 = Date.parse('2026-11-24T10:00:00Z')
const attempt = (answered: boolean): Attempt => ({
  at: new Date(T0).toISOString(),
  request: { method: 'POST', url: 'http://x', body: null },
  answer: answered ? { status: 503, body: null } : null,
  error: answered ? null : 'The connection broke before an answer came.',
  milliseconds: 1,
})
const LATER = { kind: 'later', reason: 'No answer.', afterMilliseconds: 60_000 } as const
const FOUND = { kind: 'published', remoteId: 'r1', publicUrl: 'http://x/r1', visibility: 'visible' } as const

describe('after a lost answer', () => {
  const folder = temporaryFolder()
  let database: Database
  let spool: Spool
  let doubts: Doubts
  let answer: Awaited<ReturnType<Connector['find']>>
  let asked: string[]
  beforeAll(async () => {
    database = await freshDatabase(folder.path)
    await accountsOf(database).keep('murmur', 'stand-in', aGrant(), T0, 'murmur-one')
  })
  afterAll(async () => {
    await database.close()
    folder.remove()
  })
  beforeEach(async () => {
    for (const table of ['deliveries', 'receipts']) await database.query(`delete from ${table}`)
    spool = new Spool(database)
    asked = []
    const find: Connector['find'] = (_login, key) => {
      asked.push(key)
      return Promise.resolve(answer)
    }
    const registry = { of: () => ({ find }) } as unknown as Registry
    doubts = new Doubts({ spool, accounts: accountsOf(database), registry, now: () => T0 + 1000 })
  })
  /** A post that was tried, its answers lost or not. */
  const tried = async (...answers: boolean[]): Promise<void> => {
    await spool.put([handOver('p', new Date(T0).toISOString())], 'ws')
    for (const [i, answered] of answers.entries()) {
      const claim = await spool.claim('murmur-one', 'me', T0 + i * 60_000, i * LEASE * 2)
      await spool.settle(claim!, 'me', [...claim!.attempts, attempt(answered)], LATER, T0 + i * 60_000)
    }
  }

  it('a post that stands is never called recalled: its receipt comes instead', async () => {
    await tried(false)
    answer = { found: FOUND, attempt: attempt(true) }
    expect(await doubts.recall('p')).toMatchObject({
      result: 'finished',
      receipt: { outcome: 'published', publicUrl: 'http://x/r1' },
    })
    expect(asked).toEqual(['ws:p:1'])
  })

  it('a later try that was answered does not take the doubt away, nor does an edit or another browser', async () => {
    await tried(false, true)
    answer = { found: FOUND, attempt: attempt(true) }
    const edit = handOver('p', new Date(T0).toISOString(), { revision: 2 })
    expect((await spool.put([edit], 'ws'))[0]?.result).toBe('already sending')
    await doubts.recallOthers('other')
    expect((await spool.receipts(0)).receipts).toMatchObject([{ outcome: 'published' }])
  })

  it('one that does not stand is recalled, and one that was answered is without asking', async () => {
    await tried(false)
    answer = { found: null, attempt: attempt(true) }
    expect((await doubts.recall('p')).result).toBe('recalled')
    await database.query(`delete from deliveries`)
    await tried(true)
    expect((await doubts.recall('p')).result).toBe('recalled')
    expect(asked).toHaveLength(1)
  })

  it('stays in doubt while nobody answers, and ends unsure where nobody can be asked', async () => {
    await tried(false)
    answer = { found: undefined, attempt: attempt(false) }
    expect((await doubts.recall('p')).result).toBe('already sending')
    expect((await spool.holds(['p'])).length).toBe(1)
    answer = { found: undefined, attempt: null }
    expect(await doubts.recall('p')).toMatchObject({
      result: 'finished',
      receipt: { outcome: 'unsure', reason: expect.stringContaining('may be public') },
    })
  })

  it('is known of a delivery whose server died over it', async () => {
    await spool.put([handOver('p', new Date(T0).toISOString())], 'ws')
    expect(await spool.claim('murmur-one', 'dead', T0, 0)).toMatchObject({ doubt: false })
    expect(await spool.claim('murmur-one', 'me', T0, LEASE + 1)).toMatchObject({ doubt: true })
  })
})

describe('at a stand-in network', () => {
  it('what was taken before the line broke is found, once, when it is recalled', async () => {
    const servers = await openServers()
    try {
      await fetch(`${servers.worldUrl}/control/trouble`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ network: 'murmur', kind: 'drop' }),
      })
      const now = Date.parse((await servers.call<{ now: string }>('GET', '/api/clock')).body.now)
      const due = new Date(now + 60_000).toISOString()
      await servers.call('PUT', '/api/spool/posts/lost', handOver('lost', due))
      await servers.call('POST', '/api/clock/advance', { to: due })
      expect((await servers.call<Page>('GET', '/api/spool/receipts')).body.receipts).toEqual([])
      expect(await servers.call('DELETE', '/api/spool/posts/lost')).toMatchObject({
        body: { result: 'finished', receipt: { outcome: 'published' } },
      })
      const page = await (await fetch(`${servers.worldUrl}/networks/murmur/@murmur.one`)).text()
      expect(page.split('The words of lost.')).toHaveLength(2)
    } finally {
      await servers.close()
    }
  })
})
