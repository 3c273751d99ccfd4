import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plan } from '.'

/*
 * Windows, held against looking at every minute of them. What the planner does with a minute is worked out here
 * from the words of the rule alone: so many minutes from each other post of the account.
 */

const DAY = '2026-11-25'
const clock = (minute: number): string =>
  `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`
const moment = (minute: number): string => `${DAY}T${clock(minute)}:00Z`

/** Where a post goes in a window of one day, in minutes of the day; null where it has no place. */
function placed(
  window: { from: number; to: number },
  gapMinutes: number,
  others: readonly number[],
  zone = 'UTC',
): number | null {
  const { posts } = plan({
    now: '2026-11-24T08:00:00Z',
    accounts: [
      {
        id: 'a',
        network: 'murmur',
        zone,
        gapMinutes,
        slots: [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({
          weekday,
          from: clock(window.from),
          to: clock(window.to),
        })),
      },
    ],
    posts: [
      { id: 'p', account: 'a', wished: DAY, earliest: DAY, latest: DAY },
      ...others.map((at, i) => ({ id: `o${i}`, account: 'a', wished: DAY, pinnedAt: moment(at) })),
    ],
  })
  const at = posts.find((p) => p.id === 'p')?.at
  return at ? (Date.parse(at) - Date.parse(`${DAY}T00:00:00Z`)) / 60_000 : null
}

describe('a window', () => {
  it('has a place in its one free minute', () => {
    // Two hours after 09:58 and before 13:58: 11:58, and no other.
    expect(placed({ from: 600, to: 809 }, 120, [598, 838])).toBe(718)
    expect(placed({ from: 600, to: 809 }, 121, [598, 838])).toBeNull()
  })

  it('has a place wherever a search minute by minute finds one, and only there', () => {
    const given = fc.record({
      from: fc.integer({ min: 60, max: 1200 }),
      length: fc.integer({ min: 1, max: 230 }),
      gap: fc.integer({ min: 1, max: 260 }),
      others: fc.uniqueArray(fc.integer({ min: 0, max: 1439 }), { maxLength: 6 }),
    })
    let free = 0
    let full = 0
    fc.assert(
      fc.property(given, ({ from, length, gap, others }) => {
        const to = Math.min(1439, from + length)
        // A window in which another post stands is taken by it.
        const outside = others.filter((at) => at < from || at > to)
        const minutes = Array.from({ length: to - from + 1 }, (_, i) => from + i)
        const legal = minutes.filter((m) => outside.every((at) => Math.abs(at - m) >= gap))
        const at = placed({ from, to }, gap, outside)
        if (legal.length) free++
        else full++
        if (legal.length === 0) expect(at).toBeNull()
        else expect(legal).toContain(at)
      }),
      { numRuns: 400 },
    )
    expect(Math.min(free, full)).toBeGreaterThan(40)
  })

  it('that the clocks cut opens up to the very minute', () => {
    // London, 29 March 2026: 01:00 to 01:59 do not exist, so 00:59 is the last minute of 00:00–01:30.
    const at = (latest: string, earliest: string) =>
      plan({
        now: '2026-03-20T08:00:00Z',
        accounts: [
          {
            id: 'a',
            network: 'murmur',
            zone: 'Europe/London',
            slots: [{ weekday: 7, from: '00:00', to: '01:30' }],
          },
        ],
        posts: [{ id: 'p', account: 'a', wished: '2026-03-29', earliest, latest }],
      }).posts[0]?.at
    expect(at('2026-03-29T00:59:00Z', '2026-03-29T00:59:00Z')).toBe('2026-03-29T00:59:00.000Z')
    expect(at('2026-03-29T01:30:00Z', '2026-03-29T01:00:00Z')).toBeNull()
  })
})

it('a wish however far away is worth less than having a place', () => {
  const { posts } = plan({
    now: '2026-11-24T08:00:00Z',
    accounts: [{ id: 'a', network: 'murmur', zone: 'UTC', slots: [{ weekday: 3, at: '09:00' }] }],
    posts: [{ id: 'p', account: 'a', wished: '2080-01-01', latest: '2026-11-30' }],
  })
  expect(posts[0]?.at).toBe('2026-11-25T09:00:00.000Z')
})
