import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { handOver, temporaryFolder } from '../../e2e/servers'
import { Spool } from './spool'
import { accountsOf, aGrant } from '../testing/parts'
import { readBackup, writeBackup } from './backup'
import { openDatabase, type Database } from './database'
import { freshDatabase, layFreshSpool } from '../testing/freshSpool'
import { figures } from './figures'
import { Media } from './media'
import { Readings } from './readings'
import { whatToKeep } from '../dispatch/measuring'

const T0 = Date.parse('2026-11-24T10:00:00Z')
let folders: ReturnType<typeof temporaryFolder>[]
let database: Database
beforeEach(async () => {
  folders = [temporaryFolder(), temporaryFolder()]
  database = await freshDatabase(folders[0]!.path)
  await accountsOf(database).keep('murmur', 'stand-in', aGrant({ secret: 'token-7' }), T0, 'murmur-one')
  await new Media(database).keep('f'.repeat(64), 'image/png', new Uint8Array([0, 255, 7]))
  const spool = new Spool(database)
  for (const [i, id] of ['out', 'refused', 'due', 'later'].entries())
    await spool.put(
      [handOver(id, new Date(T0 + i * 60_000 + (id === 'later' ? 1e9 : 0)).toISOString())],
      'ws',
    )
  const out = await spool.claim('murmur-one', 'me', T0, 0)
  const found = { kind: 'published', remoteId: 'r', publicUrl: null, visibility: 'visible' } as const
  await spool.settle(out!, 'me', [], found, T0)
  const readings = new Readings(database)
  const [first] = await readings.claim(T0 + 3_600_000, 0, 1)
  await readings.keep([whatToKeep(first!, { kind: 'read', measures: { impressions: 3 } }, T0 + 3_600_000)])
  const refused = await spool.claim('murmur-one', 'me', T0 + 60_000, 0)
  await spool.settle(refused!, 'me', [], { kind: 'refused', reason: 'No.' }, T0 + 60_000)
})
afterEach(async () => {
  await database.close()
  for (const f of folders) f.remove()
})
const dump = async (of: Database): Promise<string> =>
  JSON.stringify(
    await Promise.all(
      ['accounts', 'deliveries', 'receipts', 'readings', 'media', 'settings'].map((t) =>
        of.query(`select * from ${t} order by 1`),
      ),
    ),
  )

describe('a backup of the spool', () => {
  it('brings every row back, byte for byte, and goes on counting where it was', async () => {
    const bytes = await writeBackup(database, '2026-11-24T10:00:00.000Z')
    const other = await freshDatabase(folders[1]!.path)
    await readBackup(other, bytes)
    expect(await dump(other)).toBe(await dump(database))
    expect((await accountsOf(other).login('murmur-one')).secret).toBe('token-7')
    const spool = new Spool(other)
    expect((await spool.receipts(0)).receipts.map((r) => `${r.post} ${r.outcome}`)).toEqual([
      'out published',
      'refused failed',
    ])
    const readings = new Readings(other)
    expect((await readings.page(0)).readings).toMatchObject([
      { id: 'out:1:1 h', measures: { impressions: 3 } },
    ])
    const due = await spool.claim('murmur-one', 'me', T0 + 120_000, 1e9)
    await spool.settle(due!, 'me', [], { kind: 'refused', reason: 'No.' }, T0)
    expect((await spool.receipts(2)).receipts).toHaveLength(1)
    await expect(readBackup(other, bytes)).rejects.toThrow(/Restore into an empty one/)
    await other.close()
  })

  it('is refused whole where it is broken off, of another schema, or no backup', async () => {
    const bytes = await writeBackup(database, '')
    const other = await freshDatabase(folders[1]!.path)
    const line = (rows: object[]) => gzipSync(rows.map((r) => JSON.stringify(r)).join('\n'))
    for (const [bad, words] of [
      [bytes.subarray(0, bytes.length - 9), /broken off/],
      [Buffer.from('hello'), /no backup/],
      [line([{ format: 'other' }]), /no backup/],
      [line([{ format: 'dripline-spool', schema: 99 }]), /newer Dripline/],
      [line([{ format: 'dripline-spool', schema: 1 }]), /older Dripline/],
    ] as const)
      await expect(readBackup(other, bad)).rejects.toThrow(words)
    expect(await other.query('select * from accounts')).toEqual([])
    await other.close()
  })

  it('is made and restored by command', async () => {
    await database.close()
    const file = join(folders[1]!.path, 'spool.gz')
    const run = (what: string, folder: string) =>
      String(
        execFileSync(process.execPath, ['--import', 'tsx', 'server/copy.ts', what, file], {
          cwd: join(import.meta.dirname, '../..'),
          env: { ...process.env, DATA_DIR: folder },
        }),
      )
    expect(run('backup', folders[0]!.path)).toMatch(/Keep its key apart/)
    await layFreshSpool(folders[1]!.path)
    expect(run('restore', folders[1]!.path)).toMatch(/rows were restored/)
    database = await openDatabase({ folder: folders[1]!.path })
    expect(await figures(database, T0 + 180_000, T0)).toEqual([
      { network: 'murmur', waiting: 2, due: 1, held: 0, sent: 1, failed: 1, late: 0, broken: 0 },
    ])
    await accountsOf(database).setState('murmur-one', 'expired', 'It ran out.', T0)
    expect(await figures(database, T0 + 180_000, T0 + 1)).toMatchObject([
      { waiting: 0, due: 0, held: 2, sent: 0, failed: 1, broken: 1 },
    ])
  })
})
