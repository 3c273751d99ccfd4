import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { followersSheet } from '../formats'
import { followersOf, type Followed } from './followers'
import { grownWords } from './words'

const DAY = 86_400_000
const at = (day: string): number => Date.parse(`${day}T00:00:00Z`)
const accounts = [
  { id: 'a', network: 'murmur', zone: 'UTC' },
  { id: 'b', network: 'guildhall', zone: 'Pacific/Auckland' },
]
const figures = (account: string, of: Readonly<Record<string, number>>) =>
  Object.entries(of).map(([day, followers]) => ({ account, day, followers }))
const march = { from: at('2026-03-01'), to: at('2026-03-11'), network: null, account: null }

describe('how many follow', () => {
  it('is the last figure, how it grew in the span and in the one before, and each day of it', () => {
    const known = figures('a', {
      '2026-02-19': 100,
      '2026-02-28': 118,
      '2026-03-02': 121,
      '2026-03-03': 120,
      '2026-03-06': 130,
      '2026-03-09': 141,
      '2026-03-12': 900,
    })
    const [{ days, ...told }, ...rest] = followersOf(known, accounts, march) as [Followed]
    expect(rest).toEqual([])
    expect(days[0]?.day).toBe('2026-03-02')
    expect(days.map((d) => d.followers)).toEqual([121, 120, null, null, 130, null, null, 141, null])
    expect(told).toEqual({
      account: 'a',
      followers: 141,
      day: '2026-03-09',
      // From the figure that stood when the span began.
      growth: { since: '2026-02-28', by: 23, from: 118 },
      before: { since: '2026-02-19', by: 18, from: 100 },
    })
  })

  it('counts from the first figure there is, and of one alone says nothing', () => {
    const known = figures('a', { '2026-02-24': 90, '2026-03-04': 100, '2026-03-08': 97 })
    expect(followersOf(known, accounts, march)[0]).toMatchObject({
      growth: { since: '2026-03-04', by: -3, from: 100 },
      before: null,
    })
    expect(followersOf(figures('a', { '2026-03-04': 5 }), accounts, march)[0]).toMatchObject({
      followers: 5,
      growth: null,
    })
    expect(followersOf(figures('a', { '2026-02-24': 90 }), accounts, march)).toEqual([])
  })

  it('goes by the days of each account’s own zone, and by what is asked', () => {
    // In Auckland the span ends at one in the afternoon of the eleventh.
    const known = [...figures('b', { '2026-03-11': 7 }), ...figures('a', { '2026-03-11': 8 })]
    expect(followersOf(known, accounts, march).map((f) => f.account)).toEqual(['b'])
    expect(followersOf(known, accounts, { ...march, network: 'murmur' })).toEqual([])
    expect(followersOf(known, accounts, { ...march, account: 'b' })).toHaveLength(1)
  })

  it('adds up: what spans that follow one another grew by is what the whole grew by', () => {
    fc.assert(
      fc.property(
        fc.array(fc.nat(5000), { minLength: 40, maxLength: 40 }),
        fc.integer({ min: 1, max: 9 }),
        (of, length) => {
          const start = at('2026-01-01')
          const known = of.map((followers, i) => ({
            account: 'a',
            day: new Date(start + i * DAY).toISOString().slice(0, 10),
            followers,
          }))
          const grown = (from: number, days: number) =>
            followersOf(known, accounts, {
              ...march,
              from: start + from * DAY,
              to: start + (from + days) * DAY,
            })[0]
          const [one, two] = [grown(10, length), grown(10 + length, length)]
          // A span of days ends with its last day's figure; the next begins a day later.
          const whole = (of[10 + 2 * length - 1] as number) - (of[10] as number)
          const step = (of[10 + length] as number) - (of[10 + length - 1] as number)
          expect((one?.growth?.by ?? 0) + step + (two?.growth?.by ?? 0)).toBe(whole)
        },
      ),
    )
  })
})

it('is written as a sheet, a line an account and day, in which no name is a formula', () => {
  const known = figures('a', { '2026-03-08': 1200, '2026-03-10': 1204 })
  expect(followersSheet(followersOf(known, accounts, march), new Map([['a', '=1+1']]))).toBe(
    "account,day,followers\r\n'=1+1,2026-03-08,1200\r\n'=1+1,2026-03-09,\r\n'=1+1,2026-03-10,1204\r\n",
  )
})

it('is told with its share, and since when where it is not known from the beginning of the span', () => {
  const from = at('2026-03-01')
  const told = (since: string, by: number, start: number): string =>
    grownWords({ day: '2026-03-10', growth: { since, by, from: start } }, from)
  // By hand: 23 of 118 are 19.49 in a hundred.
  expect(told('2026-02-28', 23, 118)).toBe('+23 (+19.5 %)')
  expect(told('2026-03-03', -3, 150)).toBe('−3 (−2 %)')
  expect(told('2026-03-04', 1500, 0)).toBe('+1,500 since 4 March 2026')
  expect(told('2026-03-01', 0, 9)).toBe('±0')
  expect(grownWords({ day: '2026-03-10', growth: null }, from)).toBe('counted on 10 March 2026 only')
})
