import fc from 'fast-check'
import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import type { OccasionDay } from '../model'
import { readOccasionSheet, writeOccasionSheet, type SheetOccasion } from '.'

const of = { zone: 'Europe/Lisbon', today: '2026-11-30' }
const read = (text: string, zone = of.zone) =>
  readOccasionSheet(new TextEncoder().encode(text), { ...of, zone })

describe('a sheet of occasions', () => {
  it('comes back as it was given out, whatever stands in it', () => {
    // Names are one however their spaces stand; commas part the words of a theme, bars its lines.
    const word = fc.stringMatching(/^[\p{L}\p{N}“”’=+@-][\p{L}\p{N} “”’"!?.-]{0,20}[\p{L}\p{N}]$/u)
    const day = fc.constantFrom<OccasionDay>(
      { sun: 'June solstice' },
      { clocks: 'back' },
      { dates: ['2027-04-05', '2028-04-03'] },
      { rule: 'FREQ=YEARLY;BYMONTH=4;BYDAY=1MO', from: '2026-01-01' },
      { rule: 'FREQ=YEARLY;INTERVAL=2;BYMONTH=4;BYMONTHDAY=5', from: '2025-04-05' },
    )
    const some: fc.Arbitrary<SheetOccasion> = fc.record({
      name: word,
      on: day,
      theme: fc.uniqueArray(word, { maxLength: 3 }),
      lines: fc.uniqueArray(word, { maxLength: 3 }),
      again: fc.boolean(),
    })
    fc.assert(
      fc.property(
        fc.uniqueArray(some, { minLength: 1, maxLength: 6, selector: (o) => o.name }),
        (occasions) => {
          const sheet = writeOccasionSheet(occasions, of)
          const { occasions: back, faults } = read(sheet)
          expect(faults).toEqual([])
          const byName = (a: SheetOccasion, b: SheetOccasion): number => (a.name < b.name ? -1 : 1)
          expect([...back].sort(byName)).toEqual([...occasions].sort(byName))
          // Nothing in it is a formula to a spreadsheet.
          for (const row of Papa.parse<string[]>(sheet.trim()).data)
            for (const cell of row) expect(cell).not.toMatch(/^[=+@-]/)
        },
      ),
    )
  })

  it('is read by its columns in any order and under other names, dates of one name together', () => {
    const { occasions, faults } = read(
      'When;Keywords;Occasion\n21 December;frost, cold;Winter solstice\n5.4.2027;;Hut Opening\n3.4.2028;;Hut Opening\n',
    )
    expect(faults).toEqual([])
    expect(occasions.map(({ name, on, theme }) => ({ name, on, theme }))).toEqual([
      {
        name: 'Winter solstice',
        on: { rule: 'FREQ=YEARLY;BYMONTH=12;BYMONTHDAY=21', from: '2026-01-01' },
        theme: ['frost', 'cold'],
      },
      { name: 'Hut Opening', on: { dates: ['2027-04-05', '2028-04-03'] }, theme: [] },
    ])
  })

  it('takes dates with strokes as the place writes them, and none where they speak against each other', () => {
    const dates = (text: string, zone: string): unknown => read(text, zone).occasions.map((o) => o.on)
    const sheet = 'name,day\nOpening,4/5/2027\n'
    expect(dates(sheet, 'Europe/Lisbon')).toEqual([{ dates: ['2027-05-04'] }])
    expect(dates(sheet, 'America/New_York')).toEqual([{ dates: ['2027-04-05'] }])
    expect(() => read('name,day\nOne,13/5/2027\nTwo,5/13/2027\n')).toThrow(
      /cannot be written the same way round/,
    )
  })

  it('lists what cannot be read by line, and takes the rest', () => {
    const { occasions, faults } = read(
      'name,day\nGood,21 December\nNo day,\n,1 May\nBad,soon\nGood,1 May\nLast,last Friday of May\n',
    )
    expect(occasions.map((o) => o.name)).toEqual(['Good', 'Last'])
    expect(faults.map((f) => f.line)).toEqual([3, 4, 5, 6])
    expect(faults[2]?.reason).toMatch(/“soon” is no day/)
    expect(() => read('title\nA day\n')).toThrow(/no column “day”/)
    expect(() => read('')).toThrow(/empty/)
  })
})
