import fc from 'fast-check'
import ICAL from 'ical.js'
import { describe, expect, it } from 'vitest'
import { daysOfOccasion } from '../occasions'
import { readOccasionCalendar, readQuietDays, writeCalendar } from '.'

const today = '2026-11-24'
const calendar = (...events: string[]): string =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//x//EN',
    ...events.flatMap((e) => ['BEGIN:VEVENT', ...e.trim().split(/\n\s*/), 'END:VEVENT']),
    'END:VCALENDAR',
  ].join('\r\n')

describe('quiet days from a calendar', () => {
  it('are its whole days: one, several, and every year', () => {
    const { days, left } = readQuietDays(
      calendar(
        'UID:1\nSUMMARY:Stocktaking\nDTSTART;VALUE=DATE:20270104\nDTEND;VALUE=DATE:20270105',
        'UID:2\nSUMMARY:Yard closed\nDTSTART;VALUE=DATE:20261224\nDTEND;VALUE=DATE:20270103',
        'UID:3\nSUMMARY:Founding day\nDTSTART;VALUE=DATE:20200301\nRRULE:FREQ=YEARLY',
      ),
      today,
    )
    expect(days).toEqual([
      { name: 'Stocktaking', day: { date: '2027-01-04' } },
      { name: 'Yard closed', day: { from: '2026-12-24', to: '2027-01-02' } },
      { name: 'Founding day', day: { yearly: '03-01' } },
    ])
    expect(left).toEqual([])
  })

  it('that move from year to year are worked out, without those taken out', () => {
    const { days } = readQuietDays(
      calendar(
        'UID:4\nSUMMARY:First Monday of May\nDTSTART;VALUE=DATE:20240506\nRRULE:FREQ=YEARLY;BYMONTH=5;BYDAY=1MO',
        'UID:5\nSUMMARY:Half days\nDTSTART;VALUE=DATE:20261204\nRRULE:FREQ=WEEKLY;COUNT=3\nEXDATE;VALUE=DATE:20261211',
      ),
      today,
    )
    expect(days.map((d) => d.day)).toEqual([
      { date: '2027-05-03' },
      { date: '2028-05-01' },
      { date: '2026-12-04' },
      { date: '2026-12-18' },
    ])
  })

  it('are those of the standard for rules that are rare', () => {
    const daysOf = (...lines: string[]) =>
      readQuietDays(calendar(['UID:9', 'SUMMARY:X', ...lines].join('\n')), today).days.map((d) => d.day)
    // The twentieth Monday of a year, not every Monday: 17 May 2027 and 15 May 2028, by counting on paper.
    expect(daysOf('DTSTART;VALUE=DATE:20260518', 'RRULE:FREQ=YEARLY;BYDAY=20MO')).toEqual([
      { date: '2027-05-17' },
      { date: '2028-05-15' },
    ])
    expect(daysOf('DTSTART;VALUE=DATE:19900101', 'RRULE:FREQ=DAILY').slice(0, 2)).toEqual([
      { date: '2026-11-24' },
      { date: '2026-11-25' },
    ])
    expect(daysOf('DTSTART;VALUE=DATE:20250301', 'RRULE:FREQ=YEARLY;BYMONTH=3,9;BYMONTHDAY=1')).toEqual([
      { date: '2027-03-01' },
      { date: '2027-09-01' },
      { date: '2028-03-01' },
      { date: '2028-09-01' },
    ])
    expect(daysOf('DTSTART;VALUE=DATE:20250301', 'RRULE:FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=1')).toEqual([
      { yearly: '03-01' },
    ])
  })

  it('follow what was cancelled, moved, added and taken out', () => {
    const { days, left } = readQuietDays(
      calendar(
        'UID:a\nSUMMARY:Weekly\nDTSTART;VALUE=DATE:20261201\nRRULE:FREQ=WEEKLY;COUNT=4\nRDATE;VALUE=DATE:20261225\nEXDATE;VALUE=DATE:20261222',
        'UID:a\nSUMMARY:Weekly, moved\nRECURRENCE-ID;VALUE=DATE:20261208\nDTSTART;VALUE=DATE:20261209',
        'UID:b\nSUMMARY:Off\nSTATUS:CANCELLED\nDTSTART;VALUE=DATE:20261210',
        'UID:c\nSUMMARY:No day\nDTSTART;VALUE=DATE:20261340',
        'UID:d\nSUMMARY:Never\nDTSTART;VALUE=DATE:20261201\nRRULE:FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30',
      ),
      today,
    )
    expect(days.map((d) => ('date' in d.day ? d.day.date : d.day))).toEqual([
      '2026-12-01',
      '2026-12-15',
      '2026-12-25',
      '2026-12-09',
    ])
    expect(left.map((l) => l.why)).toEqual([
      'It is cancelled.',
      'Its start is no day of the calendar.',
      expect.stringContaining('names no day'),
    ])
  })

  it('leave what is over and what has a time of day, and say why', () => {
    const { days, left } = readQuietDays(
      calendar(
        'UID:6\nSUMMARY:Last year\nDTSTART;VALUE=DATE:20251224',
        'UID:7\nSUMMARY:Meeting\nDTSTART:20261224T100000Z\nDTEND:20261224T110000Z',
      ),
      today,
    )
    expect(days).toEqual([])
    expect(left.map((l) => l.why)).toEqual([
      'It is over, or has no day in the next 2 years.',
      'It has a time of day, so it is not a whole day.',
    ])
  })

  it('of a file that is none are refused with a sentence', () => {
    for (const text of ['', 'date,name\n2026-12-24,Eve', 'BEGIN:VCARD\r\nVERSION:4.0\r\nFN:x\r\nEND:VCARD'])
      expect(() => readQuietDays(text, today)).toThrow(/\.ics and try again/)
  })
})

describe('occasions from a calendar', () => {
  it('keep the rule by which they come each year, and single days of one name are one', () => {
    const { occasions, left } = readOccasionCalendar(
      calendar(
        'UID:1\nSUMMARY:Founding day\nDTSTART;VALUE=DATE:19700301\nRRULE:FREQ=YEARLY',
        'UID:2\nSUMMARY:Regatta\nDTSTART;VALUE=DATE:20200606\nRRULE:FREQ=YEARLY;BYMONTH=6;BYDAY=1SA',
        'UID:3\nSUMMARY:Spring tide\nDTSTART;VALUE=DATE:20270308',
        'UID:4\nSUMMARY:Spring tide\nDTSTART;VALUE=DATE:20280326',
        'UID:5\nSUMMARY:Fair\nDTSTART;VALUE=DATE:20260810\nDTEND;VALUE=DATE:20260814\nRRULE:FREQ=YEARLY;INTERVAL=2',
        'UID:6\nSUMMARY:Meeting\nDTSTART:20270101T100000Z',
        'UID:7\nSUMMARY:Long ago\nDTSTART;VALUE=DATE:20200101',
        'UID:8\nSUMMARY:Market\nDTSTART;VALUE=DATE:20260504\nRRULE:FREQ=MONTHLY;BYDAY=1MO',
      ),
      today,
    )
    const of = (name: string) => occasions.find((o) => o.name === name)?.on
    expect(of('Founding day')).toEqual({ rule: 'FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=1', from: '2026-01-01' })
    expect(of('Regatta')).toEqual({ rule: 'FREQ=YEARLY;BYMONTH=6;BYDAY=1SA', from: '2026-01-01' })
    expect(of('Spring tide')).toEqual({ dates: ['2027-03-08', '2028-03-26'] })
    expect(of('Fair')).toEqual({ rule: 'FREQ=YEARLY;INTERVAL=2;BYMONTH=8;BYMONTHDAY=10', from: '2026-08-10' })
    expect(of('Market')).toMatchObject({ dates: expect.arrayContaining(['2026-12-07', '2027-01-04']) })
    expect(left.map((l) => l.name)).toEqual(['Meeting', 'Long ago'])
  })

  it('stand on the day to which one of them was moved, and not on the day that was taken out', () => {
    const { occasions } = readOccasionCalendar(
      calendar(
        'UID:1\nSUMMARY:Supper\nDTSTART;VALUE=DATE:20200301\nRRULE:FREQ=YEARLY',
        'UID:1\nSUMMARY:Supper\nRECURRENCE-ID;VALUE=DATE:20270301\nDTSTART;VALUE=DATE:20270304',
        'UID:2\nSUMMARY:Open day\nDTSTART;VALUE=DATE:20200501\nRRULE:FREQ=YEARLY\nEXDATE;VALUE=DATE:20270501',
      ),
      today,
    )
    const days = occasions.map((o) => [o.name, daysOfOccasion(o.on, 'UTC', today, '2028-11-24')])
    expect(days).toEqual([
      ['Supper', ['2027-03-04', '2028-03-01']],
      ['Open day', ['2028-05-01']],
    ])
  })

  it('are on the days that another reader of calendars works out', () => {
    const rule = fc.oneof(
      fc.constant('FREQ=YEARLY'),
      fc.integer({ min: 2, max: 4 }).map((n) => `FREQ=YEARLY;INTERVAL=${n}`),
      fc
        .tuple(fc.integer({ min: 1, max: 12 }), fc.constantFrom('1MO', '-1FR', '3SU', '2WE'))
        .map(([m, d]) => `FREQ=YEARLY;BYMONTH=${m};BYDAY=${d}`),
      fc.integer({ min: 1, max: 365 }).map((n) => `FREQ=YEARLY;BYYEARDAY=${n}`),
      fc.integer({ min: 1, max: 12 }).map((m) => `FREQ=YEARLY;BYMONTH=${m};BYMONTHDAY=-1`),
    )
    const start = fc
      .integer({ min: 0, max: 2400 })
      .map((n) => new Date(Date.UTC(2020, 0, 1) + n * 86_400_000))
    fc.assert(
      fc.property(rule, start, (written, at) => {
        const first = at.toISOString().slice(0, 10)
        fc.pre(!first.endsWith('02-29'))
        const { occasions } = readOccasionCalendar(
          calendar(`UID:1\nSUMMARY:A day\nDTSTART;VALUE=DATE:${first.replaceAll('-', '')}\nRRULE:${written}`),
          today,
        )
        const iterator = ICAL.Recur.fromString(written).iterator(ICAL.Time.fromDateString(first))
        const expected: string[] = []
        for (let day = iterator.next(); day && day.toString() <= '2031-12-31'; day = iterator.next())
          if (day.toString() >= today) expected.push(day.toString())
        expect(daysOfOccasion(occasions[0]!.on, 'UTC', today, '2031-12-31')).toEqual(expected)
      }),
      { numRuns: 150 },
    )
  })
})

describe('a calendar of posts', () => {
  const text = 'Twenty seconds; not a minute, and “no” more.\nRead on: https://yard.example/steam'
  const file = writeCalendar(
    'Oakum Yard',
    [
      {
        id: 'b',
        account: 'account',
        at: '2026-12-01T09:05:00.000Z',
        title: 'Second',
        text,
        url: null,
        certain: false,
      },
      {
        id: 'a',
        account: 'account',
        at: '2026-11-25T17:00:00.000Z',
        title: 'Murmur @yard: Twenty seconds',
        text,
        url: 'https://yard.example/steam',
        certain: true,
      },
    ],
    '2026-11-24T10:00:00.000Z',
  )

  it('comes back from a reader as it was written, in the order of its moments', () => {
    const events = new ICAL.Component(ICAL.parse(file) as never)
      .getAllSubcomponents('vevent')
      .map((c) => new ICAL.Event(c))
    expect(events.map((e) => [e.uid, e.startDate.toString(), e.description])).toEqual([
      ['a@dripline', '2026-11-25T17:00:00Z', text],
      ['b@dripline', '2026-12-01T09:05:00Z', text],
    ])
    expect(file).toContain('STATUS:TENTATIVE')
  })

  it('comes back whatever its posts say, on lines that every reader takes', () => {
    const odd = [
      '\n',
      '\r\n',
      '\\n',
      '\\',
      ';',
      ',',
      ':',
      '"',
      '\t',
      '\u000b',
      '\u0007',
      '\u2028',
      ' ',
      'a',
      '🪵',
    ]
    const words = fc
      .oneof(
        fc.string({ unit: 'grapheme', maxLength: 200 }),
        fc.array(fc.constantFrom(...odd), { maxLength: 80 }).map((signs) => signs.join('')),
      )
      .filter((s) => s.trim() !== '')
    const bare = (text: string): string =>
      text.replaceAll('\r\n', '\n').replaceAll('\u000b', '').replaceAll('\u0007', '')
    fc.assert(
      fc.property(words, words, fc.webUrl({ withQueryParameters: true }), (title, said, url) => {
        const entry = { id: 'a', account: 'b', at: '2026-12-01T09:05:00.000Z', certain: true }
        const made = writeCalendar(title, [{ ...entry, title, text: said, url }], '2026-11-24T10:00:00.000Z')
        // Lines end with both signs, and no sign of control stands in them (RFC 5545, 3.1).
        expect(made.replaceAll('\r\n', '')).not.toMatch(/(?!\t)\p{Cc}/u)
        for (const line of made.split('\r\n'))
          expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75)
        const [event] = new ICAL.Component(ICAL.parse(made) as never)
          .getAllSubcomponents('vevent')
          .map((c) => new ICAL.Event(c))
        expect([event?.summary, event?.description, event?.component.getFirstPropertyValue('url')]).toEqual([
          bare(title),
          bare(said),
          url,
        ])
      }),
      { numRuns: 200 },
    )
  })

  it('lets no address begin a line of its own', () => {
    const url = 'https://yard.example/a\r\nATTENDEE:mailto:x@y.example'
    const made = writeCalendar(
      'Yard',
      [{ id: 'a', account: 'b', at: '2026-12-01T09:05:00.000Z', title: 'T', text: 'T', url, certain: true }],
      '2026-11-24T10:00:00.000Z',
    )
    expect(made).not.toMatch(/^ATTENDEE/m)
    expect(made.replaceAll('\r\n ', '')).toContain('URL:https://yard.example/a%0D%0AATTENDEE')
  })

  it('ends its lines and folds them as the standard asks', () => {
    expect(file.replaceAll('\r\n', '')).not.toMatch(/[\r\n]/)
    for (const line of file.split('\r\n'))
      expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75)
  })
})
