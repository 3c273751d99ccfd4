import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addDays, occurrences, recurringOf, ruleOf, ruleWords, type Recurring } from '.'

const START = '2026-11-25'
const weekly: Recurring = { unit: 'WEEKLY', interval: 1, weekdays: [], monthly: 'day', end: null }

describe('the days of a rule', () => {
  it.each([
    ['FREQ=WEEKLY;BYDAY=MO,TH', ['2026-11-26', '2026-11-30', '2026-12-03', '2026-12-07']],
    ['FREQ=WEEKLY;INTERVAL=2', ['2026-11-25', '2026-12-09']],
    ['FREQ=DAILY;COUNT=2', ['2026-11-25', '2026-11-26']],
    ['FREQ=DAILY;UNTIL=20261127', ['2026-11-25', '2026-11-26', '2026-11-27']],
    ['FREQ=MONTHLY;BYDAY=-1FR', ['2026-11-27']],
    ['FREQ=MONTHLY;BYMONTHDAY=1,5', ['2026-12-01', '2026-12-05']],
    ['RRULE:FREQ=YEARLY', ['2026-11-25']],
  ])('%s', (rule, days) => {
    expect(occurrences(rule, START, null, '2026-12-09')).toEqual(days)
  })

  it('skip the months that lack the day, and count from the start', () => {
    expect(occurrences('FREQ=MONTHLY;BYMONTHDAY=31', START, null, '2027-06-01')).toEqual([
      '2026-12-31',
      '2027-01-31',
      '2027-03-31',
      '2027-05-31',
    ])
    expect(occurrences('FREQ=DAILY;COUNT=5', START, '2026-11-27', '2027-01-01')).toEqual([
      '2026-11-28',
      '2026-11-29',
    ])
  })

  it('go on where they were left, whatever the cut', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('FREQ=WEEKLY;BYDAY=TU,SA', 'FREQ=DAILY;INTERVAL=3', 'FREQ=MONTHLY;BYMONTHDAY=-1,7'),
        fc.nat(120),
        (rule, cut) => {
          const middle = addDays(START, cut)
          const end = addDays(START, 150)
          expect([
            ...occurrences(rule, START, null, middle),
            ...occurrences(rule, START, middle, end),
          ]).toEqual(occurrences(rule, START, null, end))
        },
      ),
    )
  })

  it.each([
    ['nonsense', /“NONSENSE” is no part of a rule/],
    ['FREQ=HOURLY', /no frequency/],
    ['FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO', /counted through the year/],
    ['FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30', /names no day/],
    ['FREQ=WEEKLY;BYDAY=XX', /BYDAY takes weekdays/],
    ['FREQ=DAILY;BYHOUR=9', /set the time beside it/],
  ])('of %s are refused with what is wrong', (rule, why) => {
    expect(() => occurrences(rule, START, null, '2027-01-01')).toThrow(why)
  })
})

/** Examples of RFC 5545, section 3.8.5.3, with the days that it says they name. */
describe('the examples of RFC 5545', () => {
  it.each([
    [
      'FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13',
      '1997-09-02',
      '1998-02-13 1998-03-13 1998-11-13 1999-08-13 2000-10-13',
    ],
    [
      'FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8',
      '1996-11-05',
      '1996-11-05 2000-11-07',
    ],
    ['FREQ=MONTHLY;COUNT=3;BYDAY=TU,WE,TH;BYSETPOS=3', '1997-09-04', '1997-09-04 1997-10-07 1997-11-06'],
    [
      'FREQ=YEARLY;INTERVAL=3;COUNT=10;BYYEARDAY=1,100,200',
      '1997-01-01',
      '1997-01-01 1997-04-10 1997-07-19 2000-01-01 2000-04-09 2000-07-18',
    ],
    [
      'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO',
      '1997-08-05',
      '1997-08-05 1997-08-10 1997-08-19 1997-08-24',
    ],
    [
      'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU',
      '1997-08-05',
      '1997-08-05 1997-08-17 1997-08-19 1997-08-31',
    ],
    [
      'FREQ=MONTHLY;BYMONTHDAY=-3;COUNT=6',
      '1997-09-28',
      '1997-09-28 1997-10-29 1997-11-28 1997-12-29 1998-01-29 1998-02-26',
    ],
    [
      'FREQ=MONTHLY;INTERVAL=18;COUNT=10;BYMONTHDAY=10,11,12,13,14,15',
      '1997-09-10',
      '1997-09-10 1997-09-11 1997-09-12 1997-09-13 1997-09-14 1997-09-15 1999-03-10 1999-03-11 1999-03-12 1999-03-13',
    ],
    ['FREQ=YEARLY;COUNT=4;BYMONTH=6,7', '1997-06-10', '1997-06-10 1997-07-10 1998-06-10 1998-07-10'],
    [
      'FREQ=MONTHLY;COUNT=10;INTERVAL=2;BYDAY=1SU,-1SU',
      '1997-09-07',
      '1997-09-07 1997-09-28 1997-11-02 1997-11-30 1998-01-04 1998-01-25 1998-03-01 1998-03-29 1998-05-03 1998-05-31',
    ],
    [
      'FREQ=MONTHLY;BYDAY=-2MO;COUNT=6',
      '1997-09-22',
      '1997-09-22 1997-10-20 1997-11-17 1997-12-22 1998-01-19 1998-02-16',
    ],
  ])('%s', (rule, start, days) => {
    expect(occurrences(rule, start, null, '2000-12-31').join(' ')).toBe(days)
  })
})

describe('a recurrence of the form', () => {
  it.each<[Partial<Recurring>, string, string, string]>([
    [{}, 'FREQ=WEEKLY;BYDAY=WE', 'every week on Wednesday', '2026-11-25'],
    [
      { weekdays: [4, 1], interval: 2 },
      'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,TH',
      'every 2 weeks on Monday and Thursday',
      '2026-11-26',
    ],
    [{ unit: 'MONTHLY' }, 'FREQ=MONTHLY;BYMONTHDAY=25', 'every month on the 25th of the month', '2026-11-25'],
    [
      { unit: 'MONTHLY', monthly: 'weekday' },
      'FREQ=MONTHLY;BYDAY=4WE',
      'every month on the 4th Wednesday',
      '2026-11-25',
    ],
    [{ unit: 'DAILY', end: { count: 3 } }, 'FREQ=DAILY;COUNT=3', 'every day, 3 times', '2026-11-25'],
    [
      { unit: 'YEARLY', end: { until: '2030-01-01' } },
      'FREQ=YEARLY;UNTIL=20300101',
      'every year, until 2030-01-01',
      '2026-11-25',
    ],
  ])('%j', (change, rule, words, first) => {
    const made = ruleOf({ ...weekly, ...change }, START)
    expect(made).toBe(rule)
    expect(ruleWords(made)).toBe(words)
    expect(occurrences(made, START, null, '2027-01-01')[0]).toBe(first)
  })

  it('on the last days of a month means the last of that weekday', () => {
    expect(ruleOf({ ...weekly, unit: 'MONTHLY', monthly: 'weekday' }, '2026-12-30')).toBe(
      'FREQ=MONTHLY;BYDAY=-1WE',
    )
  })

  it('is read back out of its rule, and out of no other', () => {
    fc.assert(
      fc.property(
        fc.record<Recurring>({
          unit: fc.constantFrom('DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY'),
          interval: fc.integer({ min: 1, max: 99 }),
          weekdays: fc.uniqueArray(fc.integer({ min: 1, max: 7 })),
          monthly: fc.constantFrom('day', 'weekday'),
          end: fc.constantFrom(null, { count: 5 }, { until: '2027-03-01' }),
        }),
        fc.integer({ min: 0, max: 800 }),
        (asked, n) => {
          const from = addDays(START, n)
          const rule = ruleOf(asked, from)
          const read = recurringOf(rule, from)
          expect(read && ruleOf(read, from)).toBe(rule)
        },
      ),
    )
    for (const rule of [
      'FREQ=MONTHLY;BYDAY=-2MO',
      'FREQ=WEEKLY;BYDAY=MO;WKST=SU',
      'often',
      'BYDAY=MO;FREQ=WEEKLY',
    ])
      expect(recurringOf(rule, START)).toBeNull()
  })

  it('on a rule that a person wrote says what it can', () => {
    for (const [rule, words] of [
      ['FREQ=YEARLY;BYMONTH=3,11;BYMONTHDAY=1', 'every year in March and November on the 1st of the month'],
      ['FREQ=MONTHLY;BYDAY=-2MO', 'every month on the 2nd last Monday'],
      ['FREQ=MONTHLY;BYMONTHDAY=-1', 'every month on the last day of the month'],
      ['FREQ=YEARLY;BYYEARDAY=1,100', 'every year on day 1 and day 100 of the year'],
      ['FREQ=MONTHLY;BYDAY=TU,WE;BYSETPOS=-1', 'every month on Tuesday and Wednesday of these the last'],
    ] as const)
      expect(ruleWords(rule)).toBe(words)
  })
})
