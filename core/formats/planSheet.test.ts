import fc from 'fast-check'
import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { readPlanSheet, writePlanSheet } from '.'

const zone = 'Europe/Lisbon'
const bytes = (text: string): Uint8Array => new TextEncoder().encode(text)
const known = new Map([
  ['a', { at: '2026-12-01T09:00:00.000Z', zone, movable: true }],
  ['b', { at: '2026-12-02T18:30:00.000Z', zone, movable: true }],
  ['gone', { at: '2026-11-02T09:00:00.000Z', zone, movable: false }],
  ['homeless', { at: null, zone, movable: true }],
])
const lines = [...known].map(([id, { at }]) => ({
  id,
  at,
  zone,
  account: '@yard',
  network: 'Murmur',
  state: 'approved',
  text: `Words of ${id}, "quoted"; and\na second line`,
}))
/** No date has strokes. */
const PLAIN = { monthFirst: null, doubt: null }
const read = (rows: string) => readPlanSheet(bytes(`post,date,time\n${rows}`), known)

describe('the plan as a sheet', () => {
  it('comes back without a change as it went out', () => {
    expect(readPlanSheet(bytes(writePlanSheet(lines)), known)).toEqual({
      changes: [],
      faults: [],
      same: 4,
      order: PLAIN,
    })
  })

  it('is in the order of its moments, what has no place last', () => {
    const { data } = Papa.parse<string[]>(writePlanSheet(lines).trimEnd())
    expect(data.slice(1).map(([id]) => id)).toEqual(['gone', 'a', 'b', 'homeless'])
  })

  it('gives out no line that a spreadsheet would run', () => {
    const [line] = lines
    expect(writePlanSheet([{ ...line!, text: '=HYPERLINK("x")' }])).toContain(`"'=HYPERLINK`)
  })

  it('comes back without a change whatever its posts are called and say, in every zone and hour', () => {
    const zones = ['Europe/Lisbon', 'America/New_York', 'Australia/Lord_Howe', 'Asia/Kathmandu', 'UTC']
    const row = fc.record({
      id: fc.stringMatching(/^[A-Za-z0-9_-]{1,12}$/),
      // About the hours that the clocks skip and repeat as well.
      at: fc.option(
        fc.date({ min: new Date('2026-03-01'), max: new Date('2027-04-30'), noInvalidDate: true }),
      ),
      zone: fc.constantFrom(...zones),
      // The signs by which other sheets part their cells, in any number.
      text: fc.oneof(
        fc.string({ unit: 'grapheme' }),
        fc
          .array(fc.constantFrom(';', '|', '\t', ',', 'word ', '\n', '"'), { maxLength: 30 })
          .map((t) => t.join('')),
      ),
    })
    fc.assert(
      fc.property(fc.uniqueArray(row, { selector: (r) => r.id, minLength: 1, maxLength: 12 }), (rows) => {
        const posts = rows.map((r) => ({ ...r, at: r.at && r.at.toISOString() }))
        const file = writePlanSheet(
          posts.map((p) => ({ ...p, account: '@yard', network: 'Murmur', state: 'approved' })),
        )
        const cells = Papa.parse<string[]>(file, { delimiter: ',' }).data.flat()
        expect(cells.filter((c) => /^[=+\-@\t\r]/.test(c))).toEqual([])
        const stand = new Map(posts.map((p) => [p.id, { at: p.at, zone: p.zone, movable: true }]))
        expect(readPlanSheet(bytes(file), stand)).toEqual({
          changes: [],
          faults: [],
          same: posts.length,
          order: PLAIN,
        })
      }),
      { numRuns: 200 },
    )
  })

  it('says which posts it wants elsewhere, in their account’s zone, whatever the order of its columns', () => {
    const sheet = 'time;post;note;date\n10:15;a;x;2026-12-04\n6:05 pm;homeless;;5.7.2027\n'
    expect(readPlanSheet(bytes(sheet), known)).toEqual({
      changes: [
        { id: 'a', at: '2026-12-04T10:15:00.000Z' },
        { id: 'homeless', at: '2027-07-05T17:05:00.000Z' },
      ],
      faults: [],
      same: 0,
      order: PLAIN,
    })
  })

  it('keeps the time where only the date was changed', () => {
    expect(read('b,2026-12-09,').changes).toEqual([{ id: 'b', at: '2026-12-09T18:30:00.000Z' }])
  })

  it('reads dates with strokes as the plan’s own dates say, whatever their numbers could be', () => {
    const posts = new Map(
      ['2026-11-03', '2026-12-05', '2026-12-06', '2026-12-07'].map((day, i) => [
        `p${i}`,
        { at: `${day}T09:00:00.000Z`, zone, movable: true },
      ]),
    )
    const sheet = (...dates: string[]) =>
      readPlanSheet(bytes(`post,date\n${dates.map((d, i) => `p${i},${d}`).join('\n')}\n`), posts)
    // Month first with no day above twelve: nothing changed.
    expect(sheet('11/3/2026', '12/5/2026', '12/6/2026', '12/7/2026')).toMatchObject({ same: 4, changes: [] })
    // Day first with a slip: the slip is a fault of its own, the others stand.
    expect(sheet('3/11/2026', '5/12/2026', '5/13/2026', '7/12/2026')).toMatchObject({
      same: 3,
      faults: [{ line: 4, reason: expect.stringContaining('5/13/2026') }],
    })
  })

  it('takes nothing where strokes could be either, until a person says which', () => {
    const rows = 'a,4/12/2026,\nb,5/13/2026,\nhomeless,13/5/2027,\n'
    const open = read(rows)
    expect(open).toMatchObject({ changes: [], same: 0, order: { monthFirst: null } })
    expect(open.order.doubt).toMatch(/“13\/5\/2027” and “5\/13\/2026”.*Choose/)
    const told = readPlanSheet(bytes(`post,date,time\n${rows}`), known, false)
    expect(told.changes.map((c) => c.at.slice(0, 10))).toEqual(['2026-12-04', '2027-05-13'])
    expect(told.faults).toHaveLength(1)
  })

  it('reads dates with strokes day first, unless only month first makes sense of them all', () => {
    expect(read('a,4/12/2026,').changes[0]?.at).toMatch(/^2026-12-04/)
    expect(read('a,12/4/2026,\nb,12/24/2026,').changes[0]?.at).toMatch(/^2026-12-04/)
  })

  it('takes the good lines and names the bad ones with line and reason', () => {
    const { changes, faults } = read(
      'a,2026-12-04,\nnobody,2026-12-04,\na,2026-12-05,\nb,the fourth,\ngone,2026-12-04,\nhomeless,2026-02-30,\n,2026-12-01,',
    )
    expect(changes.map((c) => c.id)).toEqual(['a'])
    expect(faults).toEqual([
      { line: 3, reason: 'There is no post “nobody” in this brand.' },
      { line: 4, reason: 'This post stands in the sheet twice; the first line counts.' },
      { line: 5, reason: '“the fourth” is not a date. Write it like 2026-12-04.' },
      { line: 6, reason: 'This post has gone out, or is set aside, so it stays.' },
      { line: 7, reason: '“2026-02-30” is not a date. Write it like 2026-12-04.' },
      { line: 8, reason: 'It names no post.' },
    ])
  })

  it('refuses an hour that summer time skips, an empty date, and a sheet without its columns', () => {
    expect(read('a,2027-03-28,01:30').faults[0]?.reason).toMatch(/clocks go forward/)
    expect(read('a,,').faults[0]?.reason).toMatch(/set it aside/)
    expect(readPlanSheet(bytes('post,when\na,2026-12-04'), known).faults).toEqual([
      { line: 1, reason: 'There is no column “date”. Keep the first line as it was given out.' },
    ])
    expect(() => readPlanSheet(bytes(''), known)).toThrow(/empty/)
  })

  it('reads whatever it is given without falling over', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.string(), { maxLength: 4 }), { minLength: 1, maxLength: 6 }),
        (rows) => {
          const sheet = `post,date,time\n${rows.map((r) => r.map((c) => `"${c.replaceAll('"', '""')}"`).join(',')).join('\n')}`
          const { changes } = readPlanSheet(bytes(sheet), known)
          for (const c of changes) expect(known.has(c.id)).toBe(true)
        },
      ),
      { numRuns: 200 },
    )
  })
})
