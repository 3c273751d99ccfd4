import { describe, expect, it } from 'vitest'
import { NOTICE_KINDS } from '../../core/model'
import { aDrip, aPiece, aPipeline, aPost, anAccount } from '../../core/model/samples'
import { lastSummaryDue, noticesOf, standingOf } from './notices'

const now = Date.parse('2026-11-25T10:00:00.000Z')
const at = (hours: number) => new Date(now + hours * 3_600_000).toISOString()
const rows = (change: Partial<Parameters<typeof noticesOf>[1]> = {}) => ({
  posts: [],
  pipelines: [],
  pieces: [],
  accounts: [],
  sources: [],
  drips: [],
  occasions: [],
  now,
  zone: 'UTC',
  ...change,
})
const keys = (change: Parameters<typeof rows>[0], kinds = [...NOTICE_KINDS]) =>
  noticesOf({ name: 'Yard' }, rows(change), kinds).map((n) => n.key)

describe('notices', () => {
  it('tell of each refused post once a generation, and of an account once each time it drops off', () => {
    const failed = aPost({ id: 'p', state: 'failed', generation: 2, failure: 'Murmur: Too long.' })
    const hand = anAccount({ id: 'hand', connector: 'hand' })
    const due = aPost({
      id: 'due',
      account: 'hand',
      state: 'approved',
      held: { reason: 'Now.', since: at(0) },
    })
    expect(keys({ posts: [due], accounts: [hand] }, ['things that wait'])).toEqual(['hand due 1'])
    const broken = anAccount({
      health: { state: 'expired', since: at(-1), message: 'It expired.', endsAt: null },
    })
    expect(keys({ posts: [failed], accounts: [broken] })).toEqual(['failed p 2', `account account ${at(-1)}`])
    expect(noticesOf({ name: 'Yard' }, rows({ posts: [failed] }), [...NOTICE_KINDS])[0]?.text).toMatch(
      /^Yard: A post was refused\. Murmur: Too long\. “/,
    )
    expect(keys({ posts: [failed], accounts: [broken] }, ['broken accounts'])).toHaveLength(1)
    expect(keys({ accounts: [{ ...broken, endedAt: at(0) }] })).toEqual([])
  })

  it('tell of captions only once they have waited more than two days, and of a pipeline that runs dry', () => {
    const waits = (hours: number) => ({
      drips: [aDrip({ id: 'd', createdAt: at(-hours) })],
      posts: [aPost({ drip: 'd', state: 'for review' })],
      pieces: [aPiece()],
    })
    expect(keys(waits(47))).toEqual([])
    expect(keys(waits(49))).toEqual(['waits d'])
    expect(keys({ pipelines: [aPipeline({ id: 'l' })] })).toEqual(['dry l'])
    expect(keys({ pipelines: [aPipeline({ id: 'l', on: false })] })).toEqual([])
  })
})

describe('a summary', () => {
  const due = (how: 'daily' | 'weekly', moment: string, zone = 'UTC') =>
    new Date(lastSummaryDue(how, Date.parse(moment), zone)).toISOString()

  it('is due at eight on the brand’s clock, also across a change of the clocks', () => {
    expect(due('daily', '2026-11-25T07:59:59.000Z')).toBe('2026-11-24T08:00:00.000Z')
    expect(due('daily', '2026-11-25T08:00:00.000Z')).toBe('2026-11-25T08:00:00.000Z')
    // Wednesday; the Monday before is the 23rd.
    expect(due('weekly', '2026-11-25T12:00:00.000Z')).toBe('2026-11-23T08:00:00.000Z')
    expect(due('weekly', '2026-11-23T07:00:00.000Z')).toBe('2026-11-16T08:00:00.000Z')
    // Clocks in Lisbon went back on 25 October 2026.
    expect(due('daily', '2026-10-24T12:00:00.000Z', 'Europe/Lisbon')).toBe('2026-10-24T07:00:00.000Z')
    expect(due('daily', '2026-10-25T12:00:00.000Z', 'Europe/Lisbon')).toBe('2026-10-25T08:00:00.000Z')
  })

  it('says what went out, what is planned for a week, and what waits', () => {
    const posts = [
      aPost({ id: 'c', state: 'handed over', at: at(24) }),
      aPost({ id: 'd', state: 'approved', at: at(24 * 8) }),
    ]
    expect(standingOf({ name: 'Yard' }, rows({ posts }), 1)).toBe(
      'Yard: 1 post went out, 1 post is planned for the next seven days. Nothing waits for you.',
    )
  })
})
