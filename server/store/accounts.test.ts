import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { temporaryFolder } from '../../e2e/servers'
import { openDatabase, type Database } from '../store/database'
import { freshDatabase } from '../testing/freshSpool'
import { accountsOf, aGrant } from '../testing/parts'
import type { Accounts } from './accounts'

const T0 = Date.parse('2026-11-24T10:00:00.000Z')
const grant = (change: Parameters<typeof aGrant>[0] = {}) =>
  aGrant({
    remoteId: 'r1',
    handle: 'the.yard',
    name: 'The Yard',
    zone: 'Europe/Lisbon',
    profileUrl: 'http://n.example/@the.yard',
    secret: 'secret-1',
    ...change,
  })

describe('linked accounts', () => {
  const folder = temporaryFolder()
  let database: Database
  let accounts: Accounts
  beforeAll(async () => {
    database = await freshDatabase(folder.path)
    accounts = accountsOf(database)
  })
  afterAll(async () => {
    await database.close()
    folder.remove()
  })

  it('are kept with their token, which is never among what is told of them', async () => {
    const account = await accounts.keep(
      'murmur',
      'stand-in',
      grant({ expiresAt: T0 + 1000 }),
      T0,
      'chosen-id',
    )
    expect(account).toEqual({
      id: 'chosen-id',
      network: 'murmur',
      connector: 'stand-in',
      capabilities: expect.objectContaining({ publishes: true }),
      remoteId: 'r1',
      target: null,
      targets: [],
      handle: 'the.yard',
      name: 'The Yard',
      zone: 'Europe/Lisbon',
      profileUrl: 'http://n.example/@the.yard',
      state: 'linked',
      message: 'Linked.',
      since: '2026-11-24T10:00:00.000Z',
      expiresAt: '2026-11-24T10:00:01.000Z',
    })
    expect(await accounts.login('chosen-id')).toMatchObject({ network: 'murmur', secret: 'secret-1' })
    const [row] = await database.query('select * from accounts')
    expect(JSON.stringify(row)).not.toContain('secret-1')
  })

  it('keep their id when the same login is linked again, with a new token and good health', async () => {
    await database.query(
      `update accounts set state = 'withdrawn', message = 'Gone.' where account = 'chosen-id'`,
    )
    const again = await accounts.keep(
      'murmur',
      'stand-in',
      grant({ secret: 'secret-2', handle: 'renamed' }),
      T0 + 5000,
    )
    expect(again).toMatchObject({ id: 'chosen-id', handle: 'renamed', state: 'linked', expiresAt: null })
    expect((await accounts.login('chosen-id')).secret).toBe('secret-2')
    expect(await accounts.all()).toHaveLength(1)
  })

  it('are others where the network or the login is another', async () => {
    const guild = await accounts.keep('guildhall', 'stand-in', grant(), T0)
    const second = await accounts.keep(
      'murmur',
      'stand-in',
      grant({ remoteId: 'r2', handle: 'a.second' }),
      T0,
    )
    expect(new Set(['chosen-id', guild.id, second.id]).size).toBe(3)
    expect((await accounts.all()).map((a) => `${a.network} ${a.handle}`)).toEqual([
      'guildhall the.yard',
      'murmur a.second',
      'murmur renamed',
    ])
  })

  it('are one for each place that was chosen, sharing what happens to their login', async () => {
    const targets = ['Seams', 'Frames', 'Oars'].map((name) => ({
      id: name.toLowerCase(),
      name,
      kind: 'rack',
    }))
    const racks = (await accounts.keep('rackwell', 'stand-in', grant({ targets }), T0)).id
    const chosen = await accounts.chooseTargets(racks, ['oars', 'seams'])
    expect(chosen.map((a) => a.target?.name).sort()).toEqual(['Oars', 'Seams'])
    expect(chosen.some((a) => a.id === racks)).toBe(true)
    const again = await accounts.chooseTargets(racks, ['seams', 'frames'])
    expect(again.map((a) => a.target?.id).sort()).toEqual(['frames', 'seams'])
    const all = (await accounts.all()).filter((a) => a.network === 'rackwell')
    expect(all).toHaveLength(3)
    await accounts.setState(racks, 'expired', 'It ran out.', T0)
    const states = async () =>
      (await accounts.all()).filter((a) => a.network === 'rackwell').map((a) => a.state)
    expect(await states()).toEqual(['expired', 'expired', 'expired'])
    await accounts.keep('rackwell', 'stand-in', grant({ targets, secret: 'fresh' }), T0 + 1)
    expect(await states()).toEqual(['linked', 'linked', 'linked'])
    for (const { id } of all) expect((await accounts.login(id)).secret).toBe('fresh')
    await accounts.forget(racks)
    expect(await states()).toHaveLength(2)
    const left = all.find((a) => a.id !== racks)
    await expect(accounts.chooseTargets(left?.id ?? '', ['attic'])).rejects.toMatchObject({
      where: 'attic',
    })
    for (const { id } of all) await accounts.forget(id)
  })

  it('are told of once where their permission ends within a week, and looked at once a day', async () => {
    const week = T0 + 7 * 86_400_000
    const { id } = await accounts.keep('courier', 'stand-in', grant({ expiresAt: T0 + 6 * 86_400_000 }), T0)
    expect(await accounts.endingSoon(week, T0)).toContain(id)
    expect(await accounts.endingSoon(week, T0)).toEqual([])
    const day = T0 + 86_400_000
    expect(await accounts.unchecked(day)).toContain(id)
    await accounts.checked(id, { state: 'linked', message: '', expiresAt: week * 2, secret: 'renewed' }, day)
    expect(await accounts.unchecked(day - 1)).not.toContain(id)
    expect(await accounts.login(id)).toMatchObject({ secret: 'renewed' })
    expect((await accounts.one(id)).expiresAt).toBe(new Date(week * 2).toISOString())
    await accounts.checked(id, null, day + 1)
    expect((await accounts.one(id)).state).toBe('linked')
    await accounts.checked(id, { state: 'withdrawn', message: 'Withdrawn.' }, day + 2)
    expect(await accounts.one(id)).toMatchObject({ state: 'withdrawn', message: 'Withdrawn.' })
    await accounts.forget(id)
  })

  it('say what to do about one that is not there', async () => {
    for (const ask of [accounts.one('nobody'), accounts.login('nobody')])
      await expect(ask).rejects.toMatchObject({
        code: 'not-linked',
        message: expect.stringMatching(/Link it again/),
        where: 'nobody',
      })
  })

  it('are still there when the database is opened again, its schema brought up once', async () => {
    await database.close()
    database = await openDatabase({ folder: folder.path })
    accounts = accountsOf(database)
    expect(await accounts.all()).toHaveLength(3)
    const versions = await database.query<{ version: number }>('select version from schema_version')
    expect(versions.length).toBeGreaterThan(2)
    expect(versions.map((v) => v.version)).toEqual(versions.map((_, i) => i + 1))
  })
})
