import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { temporaryFolder } from '../../e2e/servers'
import type { Attempt, ShortLink } from '../../core/model'
import { aPayload } from '../../core/model/samples'
import type { Measured } from '../networks/connector'
import type { Registry } from '../networks/registry'
import type { Accounts } from '../store/accounts'
import type { Database } from '../store/database'
import { Readings, type DueReading } from '../store/readings'
import { Spool } from '../store/spool'
import { freshDatabase } from '../testing/freshSpool'
import { accountsOf, aGrant } from '../testing/parts'
import { Measuring, whatToKeep } from './measuring'

const T0 = Date.parse('2026-11-24T10:00:00Z')
const MINUTE = 60_000
const HOUR = 60 * MINUTE
const DAY = 24 * HOUR
const due: DueReading = {
  post: 'p',
  generation: 1,
  account: 'acc',
  remoteId: 'r',
  publishedAt: T0,
  age: '1 h',
  shortLink: null,
}
const read: Measured = { kind: 'read', measures: { impressions: 7 } }
const later: Measured = { kind: 'later', reason: 'It is down.', afterMilliseconds: 5 * MINUTE }

/** What is kept of a due reading, in short: ages with figure or reason; then the next age and its hour. */
const kept = (came: Measured, hours: number, change: Partial<DueReading> = {}): string => {
  const { readings, next } = whatToKeep({ ...due, ...change }, came, T0 + hours * HOUR)
  const said = readings.map((r) => `${r.age}: ${r.measures?.impressions ?? r.reason}`)
  return [...said, next ? `next ${next.age} at ${(next.at - T0) / HOUR}` : 'end'].join('; ')
}

describe('what is kept of a reading', () => {
  it('is the answer under its age, and the next age comes', () => {
    expect(kept(read, 1)).toBe('1 h: 7; next 6 h at 6')
    expect(kept(read, 3.5)).toBe('1 h: 7; next 6 h at 6')
    expect(kept(read, 2160, { age: '90 d' })).toBe('90 d: 7; end')
  })

  it('is nothing under an age whose time went by', () => {
    expect(kept(read, 3.6)).toBe('1 h: Nobody asked at that time.; next 6 h at 6')
    expect(kept(read, 9)).toBe('1 h: Nobody asked at that time.; 6 h: 7; next 1 d at 24')
    expect(kept(later, 100)).toBe(
      '1 h: It is down.; 6 h: It is down.; 1 d: It is down.; next 3 d at ' + String(100 + 5 / 60),
    )
    expect(kept(read, 2881, { age: '90 d' })).toBe('90 d: Nobody asked at that time.; end')
  })

  it('waits as long as a network asks, at most an hour', () => {
    expect(kept(later, 1.5)).toBe(`next 1 h at ${1.5 + 5 / 60}`)
    expect(kept({ ...later, afterMilliseconds: 9 * DAY }, 1.5)).toBe('next 1 h at 2.5')
  })

  it('ends where the post is gone, or the network says nothing of it', () => {
    expect(kept({ kind: 'gone' }, 25, { age: '1 d' })).toBe('1 d: The network no longer has the post.; end')
    expect(kept({ kind: 'refused', reason: 'No counts here.' }, 1)).toBe('1 h: No counts here.; end')
  })
})

describe('readings on the server', () => {
  const folder = temporaryFolder()
  let database: Database
  let accounts: Accounts
  let spool: Spool
  let readings: Readings
  let measuring: Measuring
  let now = T0
  let answer: (remoteId: string) => Measured = () => read
  let counts = true
  let clicks: (shorts: readonly string[]) => Promise<ShortLink[]> = () =>
    Promise.reject(new Error('It is down.'))
  const asked: string[] = []

  const publish = async (id: string, account: string, shortLink: string | null = null): Promise<void> => {
    const dueAt = new Date(now).toISOString()
    await spool.put(
      [{ id, generation: 1, revision: 1, account, dueAt, gapMinutes: 0, payload: aPayload(), shortLink }],
      'w',
    )
    const claim = await spool.claim(account, 'o', now, Date.now())
    if (!claim) throw new Error('It was not claimed.')
    const outcome = {
      kind: 'published',
      remoteId: `at ${id}`,
      publicUrl: null,
      visibility: 'visible',
    } as const
    await spool.settle(claim, 'o', [], outcome, now)
  }
  const deletion = (): Attempt => ({
    at: new Date(now).toISOString(),
    request: { method: 'DELETE', url: '', body: null },
    answer: null,
    error: null,
    milliseconds: 1,
  })
  const collected = async (): Promise<string[]> => {
    const page = await readings.page(0)
    await readings.acknowledge(page.cursor)
    return page.readings.map((r) => `${r.post} ${r.age} ${r.measures?.impressions ?? r.reason}`).sort()
  }
  const at = async (hours: number): Promise<string[]> => {
    now = T0 + hours * HOUR
    await measuring.look()
    return collected()
  }

  beforeAll(async () => {
    database = await freshDatabase(folder.path)
    accounts = accountsOf(database)
    spool = new Spool(database)
    readings = new Readings(database)
    for (const id of ['one', 'two'])
      await accounts.keep('murmur', 'stand-in', aGrant({ remoteId: id }), T0, id)
    measuring = new Measuring({
      readings,
      accounts,
      registry: {
        of: () => ({
          capabilities: { measures: counts },
          measures: (_login: unknown, remoteId: string) => {
            asked.push(remoteId)
            return Promise.resolve(answer(remoteId))
          },
        }),
      } as unknown as Registry,
      shortener: { clicks: (shorts) => clicks(shorts) },
      now: () => now,
    })
    await publish('a', 'one')
    await publish('b', 'two')
    now += MINUTE
    await publish('c', 'one')
  })
  afterAll(async () => {
    await database.close()
    folder.remove()
  })

  it('are taken at their ages, once, and kept until the app has them', async () => {
    expect(await at(0.9)).toEqual([])
    expect(await at(1)).toEqual(['a 1 h 7', 'b 1 h 7'])
    expect(await at(1.5)).toEqual(['c 1 h 7'])
    expect(await at(5.9)).toEqual([])
    now = T0 + 6.1 * HOUR
    await measuring.look()
    const [first, again] = [await readings.page(0), await readings.page(0)]
    expect(first.readings).toHaveLength(3)
    expect(again).toEqual(first)
    expect(await readings.page(first.cursor)).toEqual({ cursor: first.cursor, readings: [] })
    await collected()
    expect(await collected()).toEqual([])
  })

  it('wait for a network that is down, and ask it no more for the others of the account', async () => {
    asked.length = 0
    answer = (id) => (id === 'at b' ? read : later)
    expect(await at(25)).toEqual(['b 1 d 7'])
    expect(asked.sort()).toEqual(['at a', 'at b'])
    answer = () => read
    expect(await at(25 + 4 / 60)).toEqual([])
    expect(await at(25 + 5 / 60)).toEqual(['a 1 d 7', 'c 1 d 7'])
  })

  it('stop while a permission is gone, which is written down, and are missing for that time', async () => {
    answer = () => ({ kind: 'unlinked', reason: 'It ran out.', state: 'expired' })
    expect(await at(73)).toEqual([])
    expect((await accounts.one('one')).state).toBe('expired')
    asked.length = 0
    expect(await at(170)).toEqual([])
    expect(asked).toEqual([])
    for (const id of ['one', 'two'])
      await accounts.keep('murmur', 'stand-in', aGrant({ remoteId: id }), now, id)
    answer = () => read
    expect((await at(171)).filter((r) => r.startsWith('a'))).toEqual([
      'a 3 d Nobody asked at that time.',
      'a 7 d 7',
    ])
  })

  it('end with a post that was taken down', async () => {
    await spool.takenDown('a', 1, deletion(), now)
    expect((await at(721)).map((r) => r.slice(0, 6))).toEqual(['b 30 d', 'c 30 d'])
  })

  it('come no more of what was taken down while it was asked for', async () => {
    now = T0 + 4 * DAY
    await publish('d', 'one')
    now += HOUR
    const [due] = await readings.claim(now, Date.now(), 9)
    await spool.takenDown('d', 1, deletion(), now)
    await readings.keep([whatToKeep(due!, read, now)])
    now += 6 * HOUR
    expect(await readings.claim(now, Date.now() + 999_999, 9)).toEqual([])
    await collected()
    now = T0 + 721 * HOUR
  })

  it('say how often a post’s own short link was followed, whatever its network counts', async () => {
    const own = 'https://s.example/e'
    now = T0 + 30 * DAY
    await publish('e', 'one', own)
    await publish('f', 'one')
    const seen = async (hours: number) => {
      now = T0 + 30 * DAY + hours * HOUR
      await measuring.look()
      const { cursor, readings: taken } = await readings.page(0)
      await readings.acknowledge(cursor)
      return taken.filter((r) => 'ef'.includes(r.post)).map((r) => [r.post, r.age, r.measures, r.reason])
    }
    const shorts: string[] = []
    clicks = (of) => {
      shorts.push(...of)
      return Promise.resolve(of.map((short) => ({ short, url: 'https://yard.example', clicks: 4 })))
    }
    expect(await seen(1)).toEqual([
      ['e', '1 h', { impressions: 7, 'link clicks': 4 }, ''],
      ['f', '1 h', { impressions: 7 }, ''],
    ])
    expect(shorts).toEqual([own])
    // A shortener that is silent leaves the clicks out, and nothing else.
    clicks = () => Promise.reject(new Error('It is down.'))
    expect((await seen(6)).map((r) => r[2])).toEqual([{ impressions: 7 }, { impressions: 7 }])
    clicks = () => Promise.resolve([{ short: own, url: 'https://yard.example', clicks: 9 }])
    counts = false
    expect(await seen(24)).toEqual([
      ['e', '1 d', { 'link clicks': 9 }, ''],
      ['f', '1 d', null, 'This account does not say how its posts are read.'],
    ])
    counts = true
    now = T0 + 721 * HOUR
    await spool.takenDown('e', 1, deletion(), now)
    await collected()
  })

  it('tell when one would soon be missed', async () => {
    // Of the 90th day the 120th is the last; the last chance is ten minutes before.
    expect(await readings.lastChance(now)).toBe(T0 + 120 * DAY - 10 * MINUTE)
  })

  it('belong to one server at a time, until its lease is over', async () => {
    now = T0 + 91 * DAY
    const [first, second] = await Promise.all([readings.claim(now, 1000, 1), readings.claim(now, 1000, 9)])
    expect([...first, ...second].map((d) => d.post).sort()).toEqual(['b', 'c'])
    expect(await readings.claim(now, 100_000, 9)).toEqual([])
    expect(await readings.claim(now, 121_001, 9)).toHaveLength(2)
  })
})
