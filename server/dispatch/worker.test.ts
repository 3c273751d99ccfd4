import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { temporaryFolder } from '../../e2e/servers'
import type { HandOver } from '../../core/model'
import { SYSTEM_CLOCK } from '../clock'
import type { Database } from '../store/database'
import { freshDatabase } from '../testing/freshSpool'
import { aPayload } from '../../core/model/samples'
import type { Registry } from '../networks/registry'
import { Media } from '../store/media'
import { accountsOf, aGrant } from '../testing/parts'
import { Spool } from '../store/spool'
import { Worker } from './worker'

/** What the stand-in for a connector does with a post of an account: takes it, never answers, or wants to be asked later. */
type Way = 'takes it' | 'stalls' | 'asks for a week' | 'asks for a second'

const ACCOUNTS = ['a', 'b', 'c', 'd', 'e', 'f', 'quick']
let folder: ReturnType<typeof temporaryFolder>
let database: Database
let spool: Spool
let worker: Worker
let published: string[]
let way: (words: string) => Way
let free: (() => void)[]

beforeEach(async () => {
  folder = temporaryFolder()
  database = await freshDatabase(folder.path)
  spool = new Spool(database)
  published = []
  free = []
  const accounts = accountsOf(database)
  for (const id of ACCOUNTS)
    await accounts.keep('murmur', 'stand-in', aGrant({ remoteId: id, handle: id }), Date.now(), id)
  worker = new Worker({
    database,
    spool,
    accounts,
    media: new Media(database),
    clock: SYSTEM_CLOCK,
    longest: 1_000,
    chance: () => 0.5,
    registry: {
      of: () => ({
        publish: async (_login: unknown, _key: string, payload: { text: string }) => {
          const what = way(payload.text)
          if (what.startsWith('asks')) {
            const afterMilliseconds = what === 'asks for a week' ? 7 * 86_400_000 : 1000
            return { outcome: { kind: 'later', reason: 'Too many.', afterMilliseconds }, attempts: [] }
          }
          if (what === 'stalls') await new Promise<void>((resolve) => free.push(resolve))
          else published.push(payload.text)
          return {
            outcome: { kind: 'published', remoteId: payload.text, publicUrl: null, visibility: 'visible' },
            attempts: [],
          }
        },
      }),
    } as unknown as Registry,
  })
})
afterEach(async () => {
  for (const go of free) go()
  await worker.stop()
  await database.close()
  folder.remove()
})

const post = (account: string, words: string): HandOver => ({
  id: words,
  generation: 1,
  revision: 1,
  account,
  dueAt: new Date(Date.now() - 1000).toISOString(),
  gapMinutes: 0,
  shortLink: null,
  payload: aPayload({ text: words }),
})
const until = async (done: () => boolean, milliseconds: number): Promise<boolean> => {
  for (const end = Date.now() + milliseconds; Date.now() < end && !done();)
    await new Promise((resolve) => setTimeout(resolve, 50))
  return done()
}

describe('a post whose picture is not here any more', () => {
  it('fails with that reason, once, and the next one goes out', async () => {
    way = () => 'takes it'
    const hash = 'e'.repeat(64)
    await new Media(database).keep(hash, 'image/png', new Uint8Array([1]))
    const bare = post('a', 'with a picture')
    await spool.put([{ ...bare, payload: { ...bare.payload, media: [{ hash, alt: '' }] } }], 'ws')
    await database.query('delete from media')
    await spool.put([post('a', 'without one')], 'ws')
    await worker.start()
    expect(await until(() => published.length === 1, 10_000)).toBe(true)
    expect(published).toEqual(['without one'])
    expect((await spool.receipts(0)).receipts.map((r) => [r.post, r.outcome, r.reason])).toEqual(
      expect.arrayContaining([['with a picture', 'failed', 'Its picture did not arrive. Try it again.']]),
    )
  })
})

describe('networks that want to be asked later', () => {
  it('are, a tenth later by chance: at most after an hour, at least after a minute', async () => {
    way = (words) => (words === 'patient' ? 'asks for a week' : 'asks for a second')
    await spool.put([post('a', 'patient')], 'ws')
    await spool.put([post('b', 'hasty')], 'ws')
    const began = Date.now()
    await worker.start()
    const rows = () =>
      database.query<{ post: string; next_try_at: string | number }>(
        `select post, next_try_at from deliveries where tries = 1 and state = 'waiting' order by post`,
      )
    let found = await rows()
    for (const end = Date.now() + 10_000; Date.now() < end && found.length < 2; found = await rows())
      await new Promise((resolve) => setTimeout(resolve, 50))
    const took = Date.now() - began
    const [hasty, patient] = found.map((row) => Number(row.next_try_at) - began)
    for (const [wait, minutes] of [
      [hasty, 1.1],
      [patient, 66],
    ] as const) {
      expect(wait).toBeGreaterThanOrEqual(minutes * 60_000)
      expect(wait).toBeLessThanOrEqual(minutes * 60_000 + took)
    }
  })
})

describe('networks that never answer', () => {
  it('take no other account’s turn, however many they are', async () => {
    way = (words) => (words.startsWith('quick') ? 'takes it' : 'stalls')
    for (const account of ACCOUNTS.slice(0, -1)) await spool.put([post(account, `post of ${account}`)], 'ws')
    await worker.start()
    expect(await until(() => free.length === 6, 10_000)).toBe(true)
    for (const n of [1, 2, 3]) await spool.put([post('quick', `quick ${n}`)], 'ws')
    expect(await until(() => published.length === 3, 10_000)).toBe(true)
    expect(published).toEqual(['quick 1', 'quick 2', 'quick 3'])
  })

  it('keep their lease for a while only: then the delivery is free to be claimed anew', async () => {
    way = () => 'stalls'
    await spool.put([post('a', 'post of a')], 'ws')
    await worker.start()
    expect(await until(() => free.length === 1, 10_000)).toBe(true)
    // Leases are told in real time: half a minute on, one that is no longer renewed is over.
    await new Promise((resolve) => setTimeout(resolve, 6_500))
    expect(await spool.accountsDue(Date.now(), Date.now() + 15_000)).toEqual(['a'])
  })
})
