import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { temporaryFolder } from '../../e2e/servers'
import type { Health } from '../networks/connector'
import type { Registry } from '../networks/registry'
import type { Chat } from '../services/chat'
import type { Accounts } from '../store/accounts'
import type { Database } from '../store/database'
import { freshDatabase } from '../testing/freshSpool'
import { accountsOf, aGrant } from '../testing/parts'
import { Followings } from '../store/followings'
import { HealthWatch } from './health'

const T0 = Date.parse('2026-11-24T10:00:00Z')
const HOUR = 3_600_000
const DAY = 24 * HOUR

describe('the watch over logins', () => {
  const folder = temporaryFolder()
  let database: Database
  let accounts: Accounts
  let now = T0
  const asked: string[] = []
  const told: string[] = []
  let health: Health = null
  let watch: HealthWatch
  let followings: Followings

  beforeAll(async () => {
    database = await freshDatabase(folder.path)
    accounts = accountsOf(database)
    for (const [id, days] of [
      ['soon', 6.9],
      ['later', 7.1],
      ['never', null],
    ] as const)
      await accounts.keep(
        'murmur',
        'stand-in',
        aGrant({ remoteId: id, handle: id, expiresAt: days === null ? null : T0 + days * DAY }),
        T0,
        id,
      )
    const check = ({ account }: { account: string }) => {
      asked.push(account)
      return Promise.resolve(health)
    }
    const notice = (_kind: string, { text }: { text: string }) => {
      told.push(text)
      return Promise.resolve()
    }
    watch = new HealthWatch({
      accounts,
      registry: { of: () => ({ check }) } as unknown as Registry,
      chat: { notice } as unknown as Chat,
      followings: (followings = new Followings(database, accounts)),
      now: () => now,
    })
  })
  afterAll(async () => {
    await database.close()
    folder.remove()
  })

  it('tells once of a permission that ends within seven days', async () => {
    await watch.look()
    expect(told).toEqual([
      'The permission for Murmur (@soon) ends on 2026-12-01. Link it again before that, and nothing has to wait.',
    ])
    now = T0 + 6 * HOUR
    await watch.look()
    expect(told).toHaveLength(2)
    expect(told[1]).toContain('@later')
    await watch.look()
    expect(told).toHaveLength(2)
  })

  it('asks each once a day, and once an hour before a hand-over', async () => {
    now = T0 + DAY - 1
    await watch.look()
    expect(asked).toEqual([])
    now = T0 + DAY
    await watch.look()
    expect(asked.sort()).toEqual(['later', 'never', 'soon'])
    now += HOUR
    await watch.freshen(['never'])
    expect(asked).toHaveLength(3)
    now += 1
    await watch.freshen(['never', 'never'])
    expect(asked).toHaveLength(4)
  })

  it('writes down what it hears, and changes nothing where nobody answers', async () => {
    expect(await watch.check('never')).toBe(false)
    expect((await accounts.one('never')).state).toBe('linked')
    health = { state: 'withdrawn', message: 'It was withdrawn.' }
    expect(await watch.check('never')).toBe(true)
    expect(await accounts.one('never')).toMatchObject({ state: 'withdrawn', message: 'It was withdrawn.' })
  })

  it('keeps how many follow a login and its places, under the day in their zone, until the app has it', async () => {
    expect((await followings.page(0)).followings).toEqual([])
    const targets = ['page', 'group', 'silent'].map((id) => ({ id, name: id, kind: 'page' }))
    const zone = 'Pacific/Auckland'
    await accounts.keep(
      'hearthside',
      'stand-in',
      aGrant({ remoteId: 'hearth', zone, targets }),
      now,
      'hearth',
    )
    await accounts.chooseTargets('hearth', ['page', 'group', 'silent'])
    // In Auckland, thirteen hours ahead in December, it is the 25th.
    now = Date.parse('2026-12-24T12:00:00Z')
    health = {
      state: 'linked',
      message: 'Linked.',
      followers: { own: 900, places: { page: 400, group: 30 } },
    }
    await watch.check('hearth')
    const { cursor, followings: told } = await followings.page(0)
    const places = new Map((await accounts.all()).map((a) => [a.id, a.target?.id]))
    expect(told.map((f) => [places.get(f.account), f.day, f.followers]).sort()).toEqual([
      ['group', '2026-12-25', 30],
      ['page', '2026-12-25', 400],
    ])
    await watch.check('soon')
    const [own] = (await followings.page(cursor)).followings
    expect(own).toEqual({
      id: 'soon:2026-12-24',
      account: 'soon',
      day: '2026-12-24',
      takenAt: '2026-12-24T12:00:00.000Z',
      followers: 900,
    })
    await followings.acknowledge(cursor)
    expect((await followings.page(0)).followings).toHaveLength(1)
  })

  it('is next needed after a day, by all that will need it within the hour', async () => {
    const last = Date.parse('2026-12-24T12:00:00Z')
    now = last
    await watch.look()
    expect(await watch.nextAt(last)).toBe(last + DAY)
    expect(await watch.nextAt(last + 3 * DAY)).toBe(last + 3 * DAY + 1)
    now = last + 30 * 60_000
    await watch.check('soon')
    now = last + HOUR + 1
    await watch.check('later')
    asked.length = 0
    now = last + DAY
    await watch.look()
    // The login with three places is asked by one of them.
    expect(asked).toHaveLength(2)
    expect(asked).toContain('soon')
  })
})
