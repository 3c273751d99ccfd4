import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { openServers, temporaryFolder } from '../../e2e/servers'
import type { Trial } from '../../core/model'
import type { Database } from '../store/database'
import { freshDatabase } from '../testing/freshSpool'
import { aPayload } from '../../core/model/samples'
import { makeRegistry } from '../networks/registry'
import { Media } from '../store/media'
import { accountsOf } from '../testing/parts'
import { Trials } from './trials'

/* Test deliveries to the stand-in networks: what they hold afterwards is read off their public pages. */

let servers: Awaited<ReturnType<typeof openServers>>
beforeAll(async () => {
  servers = await openServers()
})
afterAll(() => servers.close())

const payload = (text: string) => aPayload({ text, firstComment: 'More in the journal.' })
let n = 0
const tryOn = async (text: string, account = 'murmur-one') =>
  (
    await servers.call<Trial>('POST', '/api/spool/trials', {
      id: `trial ${n++}`,
      account,
      payload: payload(text),
    })
  ).body
const page = async (network = 'murmur', login = 'murmur.one'): Promise<string> =>
  (await fetch(`${servers.worldUrl}/networks/${network}/@${login}`)).text()
const trouble = (kind: string, network = 'murmur') =>
  fetch(`${servers.worldUrl}/control/trouble`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ network, kind }),
  })

describe('a test delivery', () => {
  it('is really sent, shown as it arrived, and gone afterwards', async () => {
    const trial = await tryOn('Oak rots slowly.')
    expect(trial).toMatchObject({
      arrived: true,
      takenDown: true,
      shown: { text: 'Oak rots slowly.', firstComment: 'More in the journal.', pictures: 0 },
    })
    expect(trial.attempts.map((a) => [a.request.method, a.answer?.status])).toEqual([
      ['POST', 201],
      ['GET', 200],
      ['DELETE', 204],
    ])
    expect(await page()).not.toContain('Oak rots slowly.')
  })

  it('that the network refuses says why, and leaves nothing behind', async () => {
    const trial = await tryOn('x'.repeat(400))
    expect(trial).toMatchObject({ arrived: false, takenDown: true, shown: null })
    expect(trial.message).toMatch(/^Murmur: .*300/)
    await trouble('fail')
    expect(await tryOn('Down for now.')).toMatchObject({ arrived: false, takenDown: true })
    expect(await page()).not.toContain('Down for now.')
  })

  it('is for accounts of the workspace that are linked', async () => {
    const body = { id: 'x', account: 'nobody', payload: payload('x') }
    expect((await servers.call('POST', '/api/spool/trials', body)).status).toBe(409)
    const other = { 'x-dripline-workspace': 'other' }
    expect((await servers.call('POST', '/api/spool/trials', body, other)).body).toMatchObject({
      code: 'wrong-workspace',
    })
  })
})

describe('what a test delivery left standing', () => {
  const folder = temporaryFolder()
  let database: Database
  let trials: Trials
  beforeAll(async () => {
    database = await freshDatabase(folder.path)
    const accounts = accountsOf(database)
    const registry = makeRegistry({ now: () => Date.now(), origin: '', world: servers.worldUrl })
    trials = new Trials({
      database,
      accounts,
      media: new Media(database),
      registry,
      now: () => Date.now(),
    })
    const code = await fetch(`${servers.worldUrl}/networks/guildhall/demo-code`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ account: 'guildhall-one' }),
    })
    const { code: grant } = (await code.json()) as { code: string }
    const asked = { network: 'guildhall', redirect: '', code: grant, kept: {} }
    await accounts.keep(
      'guildhall',
      'stand-in',
      await registry.of('stand-in').grant(asked),
      Date.now(),
      'hall',
    )
  })
  afterAll(async () => {
    await database.close()
    folder.remove()
  })
  beforeEach(async () => {
    await database.query(`delete from trials`)
  })
  const standing = () => page('guildhall', 'guildhall.one')

  it('since the line broke before its answer, is found by its key and taken down', async () => {
    await trouble('drop', 'guildhall')
    expect(await trials.run('dropped', 'hall', payload('Taken and not answered.'))).toMatchObject({
      arrived: false,
      takenDown: false,
    })
    expect(await standing()).toContain('Taken and not answered.')
    // One that was begun just now is not touched: it may be under way.
    expect(await trials.sweep()).toBe(0)
    expect(await standing()).toContain('Taken and not answered.')
    expect(await trials.sweep(Date.now() + 1)).toBe(0)
    expect(await standing()).not.toContain('Taken and not answered.')
    expect(await database.query(`select * from trials`)).toEqual([])
  })

  it('since a crash came between, is taken down when the server is up again', async () => {
    await trials.run('first', 'hall', payload('Stands.'))
    await database.query(`insert into trials (id, account, payload, begun_at) values ($1, $2, $3, $4)`, [
      'never sent',
      'hall',
      JSON.stringify(payload('Never sent.')),
      Date.now() - 100_000,
    ])
    expect(await trials.sweep()).toBe(0)
    expect(await standing()).not.toContain('Never sent.')
    expect(await database.query(`select * from trials`)).toEqual([])
  })
})
