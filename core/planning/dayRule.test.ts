import fc from 'fast-check'
import rrule from 'rrule'
import { describe, expect, it } from 'vitest'
import { occurrences } from '.'

/** The days of a rule as another library has them. */
function elsewhere(rule: string, start: string, to: string): string[] {
  const until = rule.replace(/UNTIL=(\d{8})/, 'UNTIL=$1T000000Z')
  return rrule
    .rrulestr(`DTSTART:${start.replaceAll('-', '')}T000000Z\nRRULE:${until}`)
    .between(new Date(`${start}T00:00:00Z`), new Date(`${to}T00:00:00Z`), true)
    .map((d) => d.toISOString().slice(0, 10))
}

const some = <T>(values: readonly T[], most = 3) =>
  fc.uniqueArray(fc.constantFrom(...values), { minLength: 1, maxLength: most })
const upTo = (n: number): number[] => Array.from({ length: n }, (_, i) => i + 1)
const both = (n: number): number[] => upTo(n).flatMap((i) => [i, -i])
const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']
const part = (name: string, values: fc.Arbitrary<readonly (string | number)[]>, often: number) =>
  fc.option(values, { freq: often, nil: null }).map((v) => (v ? [`${name}=${v.join(',')}`] : []))

const rules = fc.constantFrom('DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY').chain((frequency) => {
  const numbered = frequency === 'MONTHLY' || frequency === 'YEARLY'
  const which = fc
    .tuple(fc.constantFrom(1, 2, 3, 4, 5, -1, -2), fc.constantFrom(...WEEKDAYS))
    .map((d) => d.join(''))
  return fc
    .tuple(
      part(
        'INTERVAL',
        fc.integer({ min: 1, max: 5 }).map((n) => [n]),
        1,
      ),
      part('BYMONTH', some(upTo(12)), 1),
      frequency === 'WEEKLY' ? fc.constant([]) : part('BYMONTHDAY', some(both(31)), 1),
      frequency === 'YEARLY' ? part('BYYEARDAY', some(both(366)), 1) : fc.constant([]),
      // The other library takes "MO,1TU" for both at once and not for either, so they are not mixed.
      part(
        'BYDAY',
        numbered
          ? fc.oneof(some(WEEKDAYS), fc.uniqueArray(which, { minLength: 1, maxLength: 2 }))
          : some(WEEKDAYS),
        2,
      ),
      part('WKST', some(WEEKDAYS, 1), 1),
      fc.oneof(
        fc.constant([]),
        fc.integer({ min: 1, max: 9 }).map((n) => [`COUNT=${n}`]),
        fc.constantFrom([`UNTIL=20290301`], [`UNTIL=20271231`]),
      ),
      // A second place that is the same day comes twice there, so there is one.
      part(
        'BYSETPOS',
        fc.constantFrom(1, 2, -1, -2).map((n) => [n]),
        1,
      ),
    )
    .map((parts) => [`FREQ=${frequency}`, ...parts.flat()].join(';'))
})

describe('a rule of days', () => {
  it('names the days that another library says, or is refused', () => {
    let agreed = 0
    fc.assert(
      fc.property(rules, fc.integer({ min: 0, max: 1000 }), (rule, n) => {
        const start = new Date(Date.UTC(2026, 0, 1 + n)).toISOString().slice(0, 10)
        let mine: string[]
        try {
          mine = occurrences(rule, start, null, '2030-12-31')
        } catch (refused) {
          expect(String(refused)).toMatch(/names no day|counts through|at most 5/)
          // What is refused for naming none names none there either.
          if (String(refused).includes('names no day'))
            expect(elsewhere(rule, start, '2030-12-31')).toEqual([])
          return
        }
        agreed++
        expect(mine).toEqual(elsewhere(rule, start, '2030-12-31'))
      }),
      { numRuns: 400 },
    )
    expect(agreed).toBeGreaterThan(200)
  })

  it.each([
    ['FREQ=DAILY;BYMONTHDAY=-1', '2026-01-31 2026-02-28 2026-03-31'],
    ['FREQ=YEARLY;BYMONTHDAY=2', '2026-01-02 2026-02-02 2026-03-02'],
    ['FREQ=MONTHLY;BYMONTH=3,12,1;BYMONTHDAY=5', '2026-01-05 2026-03-05 2026-12-05'],
    ['FREQ=YEARLY;BYDAY=20MO', '2026-05-18 2027-05-17 2028-05-15'],
    ['FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29', '2028-02-29 2032-02-29 2036-02-29'],
    ['FREQ=MONTHLY;BYDAY=MO,1FR;BYMONTH=1', '2026-01-02 2026-01-05 2026-01-12'],
  ])('%s begins with the days of the standard', (rule, days) => {
    expect(occurrences(rule, '2026-01-01', null, '2036-12-31').slice(0, 3).join(' ')).toBe(days)
  })

  it.each([
    ['FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30', /names no day/],
    ['FREQ=YEARLY;BYMONTH=12,2;BYDAY=1TH;BYSETPOS=-3', /names no day/],
    ['FREQ=DAILY;INTERVAL=0', /INTERVAL takes whole numbers from 1/],
    ['FREQ=DAILY;COUNT=0', /COUNT takes whole numbers from 1/],
    ['FREQ=DAILY;COUNT=2;UNTIL=20270101', /ends twice/],
    ['FREQ=WEEKLY;BYDAY=1MO', /goes with FREQ=MONTHLY or FREQ=YEARLY/],
    ['FREQ=WEEKLY;BYMONTHDAY=3', /a week has no days of the month/],
    ['FREQ=DAILY;UNTIL=20260231', /UNTIL takes a day/],
    ['FREQ=DAILY;MOON=FULL', /“MOON=FULL” is no part/],
    ['FREQ=DAILY;FREQ=WEEKLY', /stands in it twice/],
    ['FREQ=DAILY;BYSETPOS=1', /counts through what another part names/],
    ['FREQ=MONTHLY;BYDAY=6MO', /at most 5/],
    ['FREQ=DAILY;WKST=XX', /WKST takes a weekday/],
  ])('%s is refused with what is wrong', (rule, why) => {
    expect(() => occurrences(rule, '2026-01-01', null, '2036-12-31')).toThrow(why)
  })
})
