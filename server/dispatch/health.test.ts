import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { temporaryFolder } from '../../e2e/servers'
import type { Health } from '../networks/connector'
import type { Registry } from '../networks/registry'
import type { Chat } from '../services/chat'
import type { Accounts } from '../store/accounts'
import type { Database } from '../store/database'
import { freshDatabase } from '../testing/freshSpool'
import { accountsOf, aGrant } from '../testing/parts'
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
    now = T0 + DAY
    await watch.look()
    expect(asked).toEqual([])
    now = T0 + DAY + 1
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
})
