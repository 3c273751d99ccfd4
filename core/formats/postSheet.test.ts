import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anAccount } from '../model/samples'
import {
  emptyPostSheet,
  guessPostColumns,
  parseSheet,
  POST_FIELDS,
  readPostSheet,
  type PostSheetReading,
} from '.'
import { readClock, readDate } from '../planning'

const accounts = [
  anAccount({ id: 'one', network: 'murmur', handle: 'the.yard', groups: ['Boats'], zone: 'Europe/Lisbon' }),
  anAccount({
    id: 'two',
    network: 'guildhall',
    handle: 'the.yard',
    groups: ['Boats', 'Trade'],
    zone: 'Europe/Lisbon',
  }),
  anAccount({ id: 'far', network: 'murmur', handle: 'far.yard', zone: 'Pacific/Auckland' }),
]
const known = { accounts, now: '2026-11-25T10:00:00.000Z' }
const read = (text: string, change: Partial<PostSheetReading> = {}) => {
  const table = parseSheet(new TextEncoder().encode(text))
  return readPostSheet(
    table,
    { columns: guessPostColumns(table), monthFirst: null, accounts: [], ...change },
    known,
  )
}
const why = (text: string): string[] => read(text).faults.map((f) => `${f.line}: ${f.reason}`)

describe('a sheet of posts', () => {
  it('is read whatever the order and the names of its columns', () => {
    const { rows, faults } = read(
      'Where;Image;Tags;Caption;Datum;Clock;Website\n@far.yard;https://a.example/x.png;"boats, #keels";"A seam;\nand more";4.12.2026;9:05 pm;www.a.example/steam\n',
    )
    expect(faults).toEqual([])
    expect(rows).toEqual([
      {
        line: 2,
        row: {
          words: {
            title: null,
            text: 'A seam;\nand more\n\n#boats #keels',
            link: 'https://www.a.example/steam',
            picture: { url: 'https://a.example/x.png', alt: '' },
          },
          accounts: ['far'],
          on: { date: '2026-12-04', time: '21:05' },
          earliest: null,
          latest: null,
        },
      },
    ])
  })

  it('without a first row of names is read by what stands in it', () => {
    const { rows } = read('2026-12-04,A seam that stays shut,https://a.example/x,@far.yard\n')
    expect(rows[0]?.row).toMatchObject({
      words: { text: 'A seam that stays shut', link: 'https://a.example/x' },
      accounts: ['far'],
      on: { date: '2026-12-04', time: null },
    })
  })

  it.each([
    ['@far.yard', ['far']],
    ['the.yard', ['one', 'two']],
    ['@the.yard on Guildhall', ['two']],
    ['Murmur', ['one', 'far']],
    ['boats', ['one', 'two']],
    ['Trade; far.yard', ['two', 'far']],
    ['ALL', ['one', 'two', 'far']],
  ])('takes “%s” for its accounts', (name, ids) => {
    expect(read(`text,accounts\nA seam,${name}\n`).rows[0]?.row.accounts.toSorted()).toEqual(ids.toSorted())
  })

  it('takes the good rows and names the bad ones by line and reason', () => {
    expect(
      why(
        [
          'text,date,time,accounts,link,picture,not before,not after',
          ',2026-12-04,,all,,,,',
          'A,2026-13-04,,all,,,,',
          'B,2026-12-04,25:00,all,,,,',
          'C,,9:00,all,,,,',
          'D,2026-12-04,,nobody,,,,',
          'E,2026-12-04,,,,,,',
          'F,2026-11-25,09:59,the.yard,,,,',
          'G,2026-12-04,,all,nowhere,,,',
          'H,2026-12-04,,all,,picture.png,,',
          'I,2026-12-04,,all,,,2026-12-09,2026-12-01',
          'J,2026-12-04,,all,,,,',
          'J,2026-12-04,,all,,,,',
        ].join('\n'),
      ).map((line) => line.slice(0, 44)),
    ).toEqual([
      '2: There are no words in this row. Write the',
      '3: “2026-13-04” is not a date. Write it like',
      '4: “25:00” is not a time. Write it like 09:0',
      '5: It has a time but no date.',
      '6: There is no account or group “nobody”. Kn',
      '7: It names no account. Write a handle, a ne',
      '8: 2026-11-25 09:59 has passed.',
      '9: “nowhere” is not a web address. A link lo',
      '10: “picture.png” is not the address of a pi',
      '11: Its last day lies before its first.',
      '13: The same post stands in line 12 already.',
    ])
  })

  it('knows that it is tomorrow already where an account is', () => {
    expect(why('text,date,accounts\nA,2026-11-25,the.yard\nB,2026-11-24,far.yard\n')).toEqual([
      '3: 2026-11-24 has passed.',
    ])
  })

  it('names a time that the clocks skip', () => {
    expect(
      why('text,date,time,accounts\nA,2027-03-28,01:30,the.yard\nB,2027-03-28,02:30,the.yard\n'),
    ).toEqual(['2: 2027-03-28 has no 01:30 in Europe/Lisbon: the clocks go forward then.'])
  })

  it('gives rows without accounts those that were chosen for them', () => {
    expect(read('text\nA seam\n', { accounts: ['two'] }).rows[0]?.row).toMatchObject({
      accounts: ['two'],
      on: null,
    })
  })

  it('takes nothing where its dates speak against each other or against the accounts’ place', () => {
    for (const dates of [
      ['13/12/2026', '12/13/2026'],
      ['4/12/2026', '5/12/2026', '12/13/2026'],
    ]) {
      const found = read(`text,date,accounts\n${dates.map((d, i) => `Words ${i},${d},all`).join('\n')}\n`)
      expect(found).toMatchObject({ rows: [], monthFirst: null })
      expect(found.doubt).toMatch(/Choose whether the day or the month comes first/)
    }
  })

  it('reads dates with strokes as it is told, or as only makes sense, and says how', () => {
    const sheet = 'text,date,accounts\nA,4/12/2026,all\n'
    expect(read(sheet)).toMatchObject({ monthFirst: false, rows: [{ row: { on: { date: '2026-12-04' } } }] })
    expect(read(sheet, { monthFirst: true })).toMatchObject({ monthFirst: true, faults: [{ line: 2 }] })
    expect(read('text,date,accounts\nA,12/24/2026,all\nB,12/4/2026,all\n')).toMatchObject({
      monthFirst: true,
      rows: [{ row: { on: { date: '2026-12-24' } } }, { row: { on: { date: '2026-12-04' } } }],
    })
    expect(read('text,date,accounts\nA,2026-12-04,all\n').monthFirst).toBeNull()
  })

  it('takes a moment with its offset as that moment', () => {
    expect(read('text,date,accounts\nA,2026-12-04T09:30:00+02:00,all\n').rows[0]?.row.on).toEqual({
      at: '2026-12-04T07:30:00.000Z',
    })
  })

  it('that is the empty form has every column and no row', () => {
    const table = parseSheet(new TextEncoder().encode(emptyPostSheet()))
    expect(Object.keys(guessPostColumns(table))).toEqual([...POST_FIELDS])
    expect(table.rows).toEqual([])
  })

  it('never throws over what stands in its cells', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.string(), { minLength: 3, maxLength: 3 }), { maxLength: 8 }),
        (cells) => {
          const rows = cells.map((line, i) => ({ line: i + 2, cells: line }))
          const table = { columns: ['text', 'date', 'accounts'], rows, delimiter: ',', faults: [] }
          const columns = { text: 'text', date: 'date', accounts: 'accounts' } as const
          const result = readPostSheet(table, { columns, monthFirst: null, accounts: ['one'] }, known)
          expect(result.rows.length + result.faults.length).toBe(cells.length)
        },
      ),
    )
  })
})

describe('a date', () => {
  it.each([
    ['2026-12-04', '2026-12-04'],
    ['2026/12/4', '2026-12-04'],
    ['4.12.2026', '2026-12-04'],
    ['04-12-26', '2026-12-04'],
    ['4 December 2026', '2026-12-04'],
    ['4th Dec 2026', '2026-12-04'],
    ['Friday, 4 December 2026', '2026-12-04'],
    ['4-Dec-26', '2026-12-04'],
    ['Dec 4, 2026', '2026-12-04'],
    ['December 4th, 2026', '2026-12-04'],
    ['2026-12-04 09:30', '2026-12-04'],
    ['46360', '2026-12-04'],
    ['46360.375', '2026-12-04'],
    ['31.2.2026', null],
    ['the fourth', null],
    ['4 Foo 2026', null],
    ['', null],
  ])('“%s” is %s', (text, date) => {
    expect(readDate(text, false)).toBe(date)
  })

  it('in any of its forms is the same day', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date('2001-01-01'), max: new Date('2099-12-31'), noInvalidDate: true }),
        (day) => {
          const iso = day.toISOString().slice(0, 10)
          const [y, m, d] = iso.split('-').map(Number) as [number, number, number]
          const forms = [
            `${d}.${m}.${y}`,
            `${d}/${m}/${y}`,
            day.toLocaleDateString('en-GB', { dateStyle: 'long', timeZone: 'UTC' }),
          ]
          for (const form of forms) expect([form, readDate(form, false)]).toEqual([form, iso])
          expect(readDate(`${m}/${d}/${y}`, true)).toBe(iso)
          expect(
            readDate(day.toLocaleDateString('en-US', { dateStyle: 'long', timeZone: 'UTC' }), false),
          ).toBe(iso)
        },
      ),
    )
  })
})

it.each([
  ['9:05', '09:05'],
  ['09.05', '09:05'],
  ['9h05', '09:05'],
  ['0905', '09:05'],
  ['9:05:30', '09:05'],
  ['9:05 pm', '21:05'],
  ['12 am', '00:00'],
  ['12 p.m.', '12:00'],
  ['9', null],
  ['13 pm', null],
  ['24:00', null],
])('the time “%s” is %s', (text, time) => {
  expect(readClock(text)).toBe(time)
})
