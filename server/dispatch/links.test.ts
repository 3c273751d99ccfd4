import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { temporaryFolder } from '../../e2e/house'
import { openDatabase, type Database } from '../database'
import type { Grant } from './connector'
import { Links } from './links'

const T0 = Date.parse('2026-11-24T10:00:00.000Z')
const grant = (change: Partial<Grant> = {}): Grant => ({
  remoteId: 'r1',
  handle: 'the.yard',
  name: 'The Yard',
  zone: 'Europe/Lisbon',
  profileUrl: 'http://n.example/@the.yard',
  token: 'secret-1',
  expiresAt: null,
  ...change,
})

describe('linked accounts', () => {
  const folder = temporaryFolder()
  let database: Database
  let links: Links
  beforeAll(async () => {
    database = await openDatabase({ folder: folder.path })
    links = new Links(database)
  })
  afterAll(async () => {
    await database.close()
    folder.remove()
  })

  it('are kept with their token, which is never among what is told of them', async () => {
    const account = await links.keep('murmur', grant({ expiresAt: T0 + 1000 }), T0, 'chosen-id')
    expect(account).toEqual({
      id: 'chosen-id',
      network: 'murmur',
      remoteId: 'r1',
      handle: 'the.yard',
      name: 'The Yard',
      zone: 'Europe/Lisbon',
      profileUrl: 'http://n.example/@the.yard',
      state: 'linked',
      message: 'Linked.',
      since: '2026-11-24T10:00:00.000Z',
      expiresAt: '2026-11-24T10:00:01.000Z',
    })
    expect(await links.token('chosen-id')).toEqual({ network: 'murmur', token: 'secret-1' })
  })

  it('keep their id when the same login is linked again, with a new token and good health', async () => {
    await database.query(
      `update links set state = 'withdrawn', message = 'Gone.' where account = 'chosen-id'`,
    )
    const again = await links.keep('murmur', grant({ token: 'secret-2', handle: 'renamed' }), T0 + 5000)
    expect(again).toMatchObject({ id: 'chosen-id', handle: 'renamed', state: 'linked', expiresAt: null })
    expect((await links.token('chosen-id')).token).toBe('secret-2')
    expect(await links.all()).toHaveLength(1)
  })

  it('are others where the network or the login is another', async () => {
    const guild = await links.keep('guildhall', grant(), T0)
    const second = await links.keep('murmur', grant({ remoteId: 'r2', handle: 'a.second' }), T0)
    expect(new Set(['chosen-id', guild.id, second.id]).size).toBe(3)
    expect((await links.all()).map((a) => `${a.network} ${a.handle}`)).toEqual([
      'guildhall the.yard',
      'murmur a.second',
      'murmur renamed',
    ])
  })

  it('say what to do about one that is not there', async () => {
    for (const ask of [links.one('nobody'), links.token('nobody')])
      await expect(ask).rejects.toMatchObject({
        code: 'not-linked',
        message: expect.stringMatching(/Link it again/),
        where: 'nobody',
      })
  })

  it('are still there when the database is opened again, its schema brought up once', async () => {
    await database.close()
    database = await openDatabase({ folder: folder.path })
    links = new Links(database)
    expect(await links.all()).toHaveLength(3)
    const versions = await database.query<{ version: number }>('select version from schema_version')
    expect(versions.length).toBeGreaterThan(2)
    expect(versions.map((v) => v.version)).toEqual(versions.map((_, i) => i + 1))
  })
})
