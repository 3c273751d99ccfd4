import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { HandOver } from '../../core/model'
import { openDatabase, type Database } from './database'
import { freshDatabase, layFreshSpool } from '../testing/freshSpool'
import { aPayload } from '../../core/model/samples'
import { accountsOf, aGrant } from '../testing/parts'
import { startPostgres } from '../testing/postgres'
import { LEASE } from './deliveries'
import { hasMedia, Media } from './media'
import { take } from './rates'
import { Spool } from './spool'

const T0 = Date.parse('2026-11-24T10:00:00Z')
const MINUTE = 60_000
const HASH = 'a'.repeat(64)

function entry(id: string, change: Partial<HandOver> = {}): HandOver {
  return {
    id,
    generation: 1,
    revision: 1,
    account: 'acc',
    dueAt: new Date(T0).toISOString(),
    gapMinutes: 60,
    payload: aPayload({ text: `Words of ${id}` }),
    shortLink: null,
    ...change,
  }
}

const postgres = startPostgres()
if (!postgres)
  process.stderr.write(
    '\nNOTICE: PostgreSQL could not be started here, so the spool is tested on PGlite alone.\n\n',
  )
const folder = mkdtempSync(join(tmpdir(), 'dripline-lite-'))

afterAll(() => {
  postgres?.stop()
  rmSync(folder, { recursive: true, force: true })
})

describe.each([
  ['PGlite', { folder }],
  ['PostgreSQL', postgres ? { folder, url: postgres.url } : null],
] as const)('the spool on %s', (_name, options) => {
  const test = options ? it : it.skip
  let database: Database
  let spool: Spool

  beforeAll(async () => {
    if (!options) return
    if (!('url' in options)) await layFreshSpool(options.folder)
    database = await openDatabase(options)
  })
  afterAll(() => database?.close())
  beforeEach(async () => {
    if (!options) return
    for (const table of ['deliveries', 'receipts', 'accounts', 'media', 'rates'])
      await database.query(`delete from ${table}`)
    spool = new Spool(database)
    await accountsOf(database).keep('murmur', 'stand-in', aGrant(), T0, 'acc')
  })

  const published = {
    kind: 'published',
    remoteId: 'r1',
    publicUrl: 'http://x/r1',
    visibility: 'visible',
  } as const

  test('takes a post once, refuses an older revision, and takes a newer one', async () => {
    expect((await spool.put([entry('p')], 'ws'))[0]?.result).toBe('taken')
    expect((await spool.put([entry('p')], 'ws'))[0]?.result).toBe('taken')
    expect((await spool.put([entry('p', { revision: 3 })], 'ws'))[0]?.result).toBe('taken')
    expect((await spool.put([entry('p', { revision: 2 })], 'ws'))[0]?.result).toBe('older revision')
  })

  test('refuses unknown accounts and missing media', async () => {
    expect((await spool.put([entry('p', { account: 'nobody' })], 'ws'))[0]?.result).toBe('not linked')
    const payload = { ...entry('p').payload, media: [{ hash: HASH, alt: '' }] }
    expect((await spool.put([entry('p', { payload })], 'ws'))[0]?.result).toBe('media missing')
    await database.query(`insert into media (hash, type, bytes) values ($1, 'image/png', $2)`, [
      HASH,
      new Uint8Array([1, 2, 3]),
    ])
    expect((await spool.put([entry('p', { payload })], 'ws'))[0]?.result).toBe('taken')
  })

  test('keeps media until their posts are out, and forgets them a day after they came', async () => {
    const media = new Media(database)
    const [due, out, loose] = ['a', 'b', 'c'].map((letter) => letter.repeat(64)) as [string, string, string]
    for (const hash of [due, out, loose]) await media.keep(hash, 'video/mp4', new Uint8Array([1]), T0)
    const showing = (hash: string) => ({ ...entry('p').payload, media: [{ hash, alt: '' }] })
    await spool.put([entry('out', { payload: showing(out), gapMinutes: 0 })], 'ws')
    await spool.put(
      [entry('due', { payload: showing(due), dueAt: new Date(T0 + 60 * MINUTE).toISOString() })],
      'ws',
    )
    const claim = await spool.claim('acc', 'me', T0, 0)
    await spool.settle(claim!, 'me', [], published, T0)
    await media.uploads('acc', T0).keep(out, 'remote')
    const day = 24 * 60 * MINUTE
    expect(await media.clear(T0 + day)).toBe(0)
    // One that comes again is on its way again.
    await media.keep(loose, 'video/mp4', new Uint8Array([1]), T0 + day)
    expect(await media.clear(T0 + day + 1)).toBe(1)
    expect([
      await hasMedia(database, due),
      await hasMedia(database, out),
      await hasMedia(database, loose),
    ]).toEqual([true, false, true])
    expect(await media.uploads('acc', T0).known(out)).toBeNull()
  })

  test('gives nothing before its time, then the oldest, one at a time an account', async () => {
    await spool.put([entry('later', { dueAt: new Date(T0 + 5 * MINUTE).toISOString(), gapMinutes: 0 })], 'ws')
    await spool.put([entry('first', { gapMinutes: 0 })], 'ws')
    expect(await spool.claim('acc', 'me', T0 - 1, 0)).toBeNull()
    const claim = await spool.claim('acc', 'me', T0 + 6 * MINUTE, 0)
    expect(claim).toMatchObject({ post: 'first', tries: 1 })
    expect(await spool.claim('acc', 'other', T0 + 6 * MINUTE, 1)).toBeNull()
    expect(await spool.accountsDue(T0 + 6 * MINUTE, 1)).toEqual([])
    await spool.settle(claim!, 'me', [], published, T0 + 6 * MINUTE)
    expect(await spool.claim('acc', 'other', T0 + 6 * MINUTE, 2)).toMatchObject({ post: 'later' })
  })

  test('says of what is refused which part of it breaks the rule, where the reason does not', async () => {
    const reasons = []
    for (const [i, reason] of ['Too long.', 'The title is too long.'].entries()) {
      await spool.put([entry(`p${i}`, { gapMinutes: 0 })], 'ws')
      const claim = await spool.claim('acc', 'me', T0 + i, 0)
      const setback = await spool.settle(
        claim!,
        'me',
        [],
        { kind: 'refused', reason, field: 'title' },
        T0 + i,
      )
      reasons.push(setback?.reason)
    }
    expect(reasons).toEqual(['Too long. Field: title.', 'The title is too long.'])
    expect((await spool.receipts(0)).receipts.map((r) => r.reason)).toEqual(reasons)
  })

  test('lets two servers that claim at once have one delivery between them', async () => {
    await spool.put([entry('p')], 'ws')
    const claims = await Promise.all(['a', 'b', 'c', 'd'].map((owner) => spool.claim('acc', owner, T0, 0)))
    expect(claims.filter(Boolean)).toHaveLength(1)
  })

  test('gives a crashed server’s delivery to another once the lease is over, with the same key', async () => {
    await spool.put([entry('p')], 'ws')
    const lost = await spool.claim('acc', 'dead', T0, 0)
    expect(await spool.claim('acc', 'alive', T0, LEASE - 1)).toBeNull()
    const taken = await spool.claim('acc', 'alive', T0 + 20_000, LEASE)
    expect(taken).toMatchObject({ post: 'p', generation: lost?.generation, tries: 2 })
    // The dead one wakes up and reports: nobody believes it.
    await spool.settle(lost!, 'dead', [], { kind: 'refused', reason: 'no' }, T0)
    await spool.settle(taken!, 'alive', [], published, T0 + 20_000)
    const page = await spool.receipts(0)
    expect(page.receipts.map((r) => r.outcome)).toEqual(['published'])
  })

  test('is not kept from it by a lease of before the machine’s clock was set back, nor by its rates', async () => {
    await spool.put([entry('p')], 'ws')
    const hour = 60 * MINUTE
    expect(await spool.claim('acc', 'dead', T0, hour)).toMatchObject({ post: 'p' })
    expect(await spool.claim('acc', 'alive', T0, 0)).toMatchObject({ post: 'p', doubt: true })
    const keys = [{ key: 'k', burst: 1, perMinute: 60 }]
    const take1 = (real: number) => database.transaction((tx) => take(tx, [{ row: 'x', keys }], real))
    expect(await take1(hour)).toEqual(['x'])
    expect(await take1(0)).toEqual([])
    expect(await take1(1000)).toEqual(['x'])
  })

  test('sends up to two hours late and keeps the gap, and holds what is later', async () => {
    await spool.put([entry('old', { dueAt: new Date(T0 - 121 * MINUTE).toISOString() })], 'ws')
    await spool.put([entry('a', { dueAt: new Date(T0 - 120 * MINUTE).toISOString() })], 'ws')
    await spool.put([entry('b', { dueAt: new Date(T0 - 100 * MINUTE).toISOString() })], 'ws')
    const claim = await spool.claim('acc', 'me', T0, 0)
    expect(claim?.post).toBe('a')
    await spool.settle(claim!, 'me', [], published, T0)
    expect(await spool.claim('acc', 'me', T0, 1)).toBeNull()
    expect(await spool.nextAt(T0)).toBe(T0 + 60 * MINUTE)
    const { receipts } = await spool.receipts(0)
    expect(receipts.map((r) => [r.post, r.outcome])).toEqual([
      ['old', 'late'],
      ['a', 'published'],
    ])
  })

  test('tries again for two hours, then fails with the reason', async () => {
    await spool.put([entry('p')], 'ws')
    const later = { kind: 'later', reason: 'Down.', afterMilliseconds: 15 * MINUTE } as const
    let tries = 0
    for (let now = T0; now < T0 + 240 * MINUTE; now += 15 * MINUTE) {
      const claim = await spool.claim('acc', 'me', now, now)
      if (!claim) break
      expect(claim.tries).toBe(++tries)
      await spool.settle(claim, 'me', [], later, now)
    }
    // At 0, 15, 30 … 120 minutes.
    expect(tries).toBe(9)
    const { receipts } = await spool.receipts(0)
    expect(receipts).toMatchObject([{ outcome: 'failed', reason: 'Down. It was tried 9 times.' }])
  })

  test('tries again what was tried before, however late it is by then', async () => {
    await spool.put([entry('p')], 'ws')
    const claim = await spool.claim('acc', 'me', T0, 0)
    const later = { kind: 'later', reason: 'Come in three hours.', afterMilliseconds: 180 * MINUTE } as const
    await spool.settle(claim!, 'me', [], later, T0)
    expect(await spool.claim('acc', 'me', T0 + 180 * MINUTE, 1)).toMatchObject({ post: 'p', tries: 2 })
    expect((await spool.receipts(0)).receipts).toEqual([])
  })

  test('lets nothing overtake a post that waits for its next try, and keeps the gap for that, too', async () => {
    const due = (minutes: number) => ({
      dueAt: new Date(T0 + minutes * MINUTE).toISOString(),
      gapMinutes: 30,
    })
    await spool.put([entry('first', due(0))], 'ws')
    await spool.put([entry('second', due(1))], 'ws')
    const claim = await spool.claim('acc', 'me', T0 + MINUTE, 0)
    expect(claim?.post).toBe('first')
    const later = { kind: 'later', reason: 'Down.', afterMilliseconds: 10 * MINUTE } as const
    await spool.settle(claim!, 'me', [], later, T0 + MINUTE)
    expect(await spool.claim('acc', 'me', T0 + 10 * MINUTE, 1)).toBeNull()
    expect(await spool.accountsDue(T0 + 10 * MINUTE, 1)).toEqual([])
    expect(await spool.isSettled(T0 + 10 * MINUTE)).toBe(true)
    expect(await spool.nextAt(T0 + 10 * MINUTE)).toBe(T0 + 11 * MINUTE)
    const again = await spool.claim('acc', 'me', T0 + 11 * MINUTE, 2)
    expect(again).toMatchObject({ post: 'first', tries: 2 })
    await spool.settle(again!, 'me', [], published, T0 + 11 * MINUTE)
    expect(await spool.claim('acc', 'me', T0 + 40 * MINUTE, 3)).toBeNull()
    const second = await spool.claim('acc', 'me', T0 + 41 * MINUTE, 4)
    expect(second?.post).toBe('second')
    await spool.settle(second!, 'me', [], later, T0 + 41 * MINUTE)
    // What was published meanwhile, by a person's word at another server, moves the next try as well.
    await database.query(`update deliveries set published_at = $1 where post = 'first'`, [T0 + 45 * MINUTE])
    expect(await spool.claim('acc', 'me', T0 + 52 * MINUTE, 5)).toBeNull()
    expect((await spool.claim('acc', 'me', T0 + 75 * MINUTE, 6))?.post).toBe('second')
  })

  test('settles and claims for many accounts at once as it does for each', async () => {
    const ids = ['a', 'b', 'c', 'd']
    for (const id of ids) {
      await accountsOf(database).keep('murmur', 'stand-in', aGrant({ remoteId: id }), T0, id)
      for (const n of [1, 2]) await spool.put([entry(`${id}${n}`, { account: id, gapMinutes: 0 })], 'ws')
    }
    const at = (owner: string, realNow: number) => ({ owner, now: T0, realNow })
    const first = await spool.round([], [...ids, 'acc', 'nobody'], at('me', 0))
    expect([...first.claims.values()].map((c) => c.post).sort()).toEqual(['a1', 'b1', 'c1', 'd1'])
    const outcomes = [
      published,
      { kind: 'refused', reason: 'Not so\0.' },
      { kind: 'later', reason: 'Down.', afterMilliseconds: MINUTE },
      { kind: 'unlinked', reason: 'Withdrawn\0.', state: 'withdrawn' },
    ] as const
    const settlements = ids.map((id, i) => ({
      claim: first.claims.get(id)!,
      attempts: [],
      outcome: outcomes[i]!,
    }))
    const strange = await spool.round(settlements, [], at('another', 1))
    expect(strange.setbacks).toEqual([null, null, null, null])
    const second = await spool.round(settlements, ids, at('me', 1))
    expect(second.setbacks.map((s) => s?.what ?? null)).toEqual([null, 'failed', null, 'unlinked'])
    expect([...second.claims.values()].map((c) => c.post).sort()).toEqual(['a2', 'b2'])
    const { receipts } = await spool.receipts(0)
    expect(receipts.map((r) => `${r.post} ${r.outcome} ${r.reason}`)).toEqual([
      'a1 published The network took it.',
      'b1 failed Not so\ufffd.',
    ])
  })

  test('keeps to its rates: so many at once, then as they come back, over all servers', async () => {
    const account = (id: string) => ({ key: `account ${id}`, burst: 2, perMinute: 60 })
    const all = { key: 'network', burst: 3, perMinute: 30 }
    const asks = (...ids: string[]) => ids.map((id) => ({ row: id, keys: [account(id), all] }))
    const through = (real: number, ...ids: string[]) =>
      database.transaction((tx) => take(tx, asks(...ids), real))
    expect(await through(0, 'a', 'a', 'a', 'b', 'b')).toEqual(['a', 'a', 'b'])
    // Half a second later an account has half a token more, the network a quarter.
    expect(await through(500, 'a', 'b')).toEqual([])
    expect(await through(2_000, 'a', 'b')).toEqual(['a'])
    expect(await through(60_000, 'b', 'b', 'b', 'c', 'c')).toEqual(['b', 'b', 'c'])
  })

  test('ends unsure, not failed, where the last of its tries may have arrived', async () => {
    await spool.put([entry('p')], 'ws')
    const lost = {
      at: new Date(T0).toISOString(),
      request: { method: 'POST', url: 'http://x', body: null },
      answer: null,
      error: 'The connection broke.',
      milliseconds: 1,
    }
    for (let i = 0; i < 6; i++) {
      const now = T0 + i * 24 * MINUTE
      const claim = await spool.claim('acc', 'me', now, now)
      const later = { kind: 'later', reason: 'Lost.', afterMilliseconds: 24 * MINUTE } as const
      await spool.settle(claim!, 'me', [...claim!.attempts, lost], later, now)
    }
    expect((await spool.receipts(0)).receipts).toMatchObject([
      { outcome: 'unsure', reason: expect.stringContaining('may have it all the same') },
    ])
  })

  test('keeps an account’s posts while its permission is lost', async () => {
    await spool.put([entry('p')], 'ws')
    const claim = await spool.claim('acc', 'me', T0, 0)
    await spool.settle(claim!, 'me', [], { kind: 'unlinked', reason: 'Withdrawn.', state: 'withdrawn' }, T0)
    expect(await spool.accountsDue(T0, LEASE * 9)).toEqual([])
    expect(await spool.isSettled(T0)).toBe(true)
    // A job that was sent before finds nothing, neither to send nor to call late.
    expect(await spool.claim('acc', 'other', T0 + 9 * 3_600_000, LEASE * 9)).toBeNull()
    expect((await spool.receipts(0)).receipts).toEqual([])
    expect((await accountsOf(database).all())[0]).toMatchObject({ state: 'withdrawn', message: 'Withdrawn.' })
    await accountsOf(database).keep('murmur', 'stand-in', aGrant(), T0)
    expect(await spool.accountsDue(T0, LEASE * 9)).toEqual(['acc'])
  })

  test('recalls what waits, not what is being sent or out, and takes it again afterwards', async () => {
    await spool.put([entry('p')], 'ws')
    expect((await spool.recall('p')).result).toBe('recalled')
    expect(await spool.claim('acc', 'me', T0, 0)).toBeNull()
    expect((await spool.recall('ghost')).result).toBe('unknown')
    expect((await spool.put([entry('p', { revision: 2 })], 'ws'))[0]?.result).toBe('taken')
    const claim = await spool.claim('acc', 'me', T0, 0)
    expect((await spool.recall('p')).result).toBe('already sending')
    expect((await spool.put([entry('p', { revision: 3 })], 'ws'))[0]?.result).toBe('already sending')
    await spool.settle(claim!, 'me', [], published, T0)
    expect(await spool.recall('p')).toMatchObject({ result: 'finished', receipt: { outcome: 'published' } })
    const { receipts } = await spool.receipts(0)
    expect(receipts).toMatchObject([{ outcome: 'published', revision: 2 }])
    expect((await spool.put([entry('p', { revision: 4 })], 'ws'))[0]?.result).toBe('finished')
    expect((await spool.put([entry('p', { generation: 2, revision: 4 })], 'ws'))[0]?.result).toBe('taken')
  })

  test('keeps receipts until they are acknowledged', async () => {
    await spool.put([entry('p')], 'ws')
    await spool.settle((await spool.claim('acc', 'me', T0, 0))!, 'me', [], published, T0)
    const page = await spool.receipts(0)
    expect((await spool.receipts(0)).receipts).toHaveLength(1)
    await spool.acknowledge(page.cursor)
    expect((await spool.receipts(0)).receipts).toHaveLength(0)
  })

  test('rolls a transaction back whole', async () => {
    await expect(
      database.transaction(async (tx) => {
        await tx.query(`insert into settings (key, value) values ('x', 'y')`)
        throw new Error('stop')
      }),
    ).rejects.toThrow('stop')
    expect(await database.query(`select * from settings where key = 'x'`)).toEqual([])
  })
})

it('refuses a second process on one PGlite folder with the holder’s number, and takes one after a kill', async () => {
  const shared = mkdtempSync(join(tmpdir(), 'dripline-lock-'))
  const program = (then: string): ChildProcess =>
    spawn(process.execPath, [
      '--import',
      'tsx',
      '-e',
      `import('${join(import.meta.dirname, 'lock.ts')}').then((m) => m.lockFolder('${shared}')).then(() => { console.log('held'); ${then} }, (e) => { console.log(e.message); process.exit(3) })`,
    ])
  const said = async (child: ChildProcess): Promise<string> => String((await once(child.stdout!, 'data'))[0])
  // Three at once: one has it, and says who it is.
  const three = [1, 2, 3].map(() => program('setInterval(() => undefined, 1000)'))
  const answers = await Promise.all(three.map(said))
  const holder = three[answers.findIndex((a) => a.startsWith('held'))]!
  expect(answers.filter((a) => a.startsWith('held'))).toHaveLength(1)
  for (const a of answers.filter((answer) => !answer.startsWith('held')))
    expect(a).toContain(`in use by process ${holder.pid}`)
  holder.kill('SIGKILL')
  await once(holder, 'exit')
  const database = await freshDatabase(shared)
  expect(statSync(shared).mode & 0o077).toBe(0)
  await database.close()
  rmSync(shared, { recursive: true, force: true })
})
