import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { aSheetRow } from '../model/samples'
import { guessReading, mergeRows, nextRow, parseSheet, readSheet } from '.'

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text)
const rowsOf = (text: string | Uint8Array) => {
  const table = parseSheet(typeof text === 'string' ? bytes(text) : text)
  return { table, ...readSheet(table, guessReading(table)) }
}
const A = 'https://yard.example/a'
const B = 'https://yard.example/b'

describe('sheets of every make', () => {
  it.each<[string, string | Uint8Array, number]>([
    ['commas', `URL,Title,Status\n${A},Larch,ready\n${B},Oak,draft\n`, 2],
    ['semicolons', `URL;Title;Status\n${A};Larch;ready\n${B};Oak;draft\n`, 2],
    ['tabs', `URL\tTitle\tStatus\n${A}\tLarch\tready\n${B}\tOak\tdraft\n`, 2],
    ['bars', `URL|Title|Status\n${A}|Larch|ready\n${B}|Oak|draft\n`, 2],
    [
      'a line that names the delimiter',
      `sep=;\r\nURL;Title;Status\r\n${A};Larch;ready\r\n${B};Oak;draft\r\n`,
      2,
    ],
    [
      'another order of columns',
      `Status,Headline,Tags,Link\nready,Larch,"timber, oak",${A}\ndraft,Oak,,${B}\n`,
      2,
    ],
    ['a byte-order mark', `\uFEFFURL,Title,Status\n${A},Larch,ready\n${B},Oak,draft\n`, 2],
    ['empty rows and short rows', `URL,Title,Status\n\n${A},Larch,ready\n,,\n${B}\n`, 2],
    ['a plain list of addresses', `${A}\n${B}\n`, 2],
    ['addresses without a scheme', 'URL,Title\nwww.yard.example/a,Larch\n', 1],
    [
      'UTF-16, as spreadsheets write it',
      new Uint8Array([
        0xff,
        0xfe,
        ...new Uint8Array(
          Uint16Array.from([...`URL\tTitle\n${A}\tLärche`].map((c) => c.charCodeAt(0))).buffer,
        ),
      ]),
      1,
    ],
    [
      'Windows-1252',
      Uint8Array.from(
        [...`URL,Title\n${A},L`].map((c) => c.charCodeAt(0)).concat([0xe4, 0x72, 0x63, 0x68, 0x65]),
      ),
      1,
    ],
    [
      'quoted cells with breaks and quotes',
      `URL,Title,Status\n${A},"Larch\nor ""oak""",ready\n${B},Oak,draft\n`,
      2,
    ],
  ])('%s', (_, text, count) => {
    const { rows, faults } = rowsOf(text)
    expect(faults).toEqual([])
    expect(rows).toHaveLength(count)
    expect(rows[0]?.address).toMatch(/yard\.example\/a$/)
  })

  it('takes title, tags and ready status from their columns, and keeps the others by name', () => {
    const { rows } = rowsOf(
      `Link,Name,State,Tags,Notes,Distance km\n${A}?utm_source=x,Larch,Yes,"timber; oak",wait,12\n`,
    )
    expect(rows).toEqual([
      {
        address: A,
        title: 'Larch',
        status: 'Yes',
        ready: true,
        categories: ['timber', 'oak'],
        notes: 'wait',
        fields: { 'Distance km': '12' },
      },
    ])
  })

  it('names the line and the reason of every bad row, and takes the good ones', () => {
    const { rows, faults } = rowsOf(
      `URL,Title\n${A},"two\nlines"\nnot an address,x\n,y\n${A}#top,again\n${B},good\n`,
    )
    expect(rows.map((r) => r.address)).toEqual([A, B])
    expect(faults.map((f) => [f.line, f.reason.split('.')[0]])).toEqual([
      [4, '“not an address” is not a web address'],
      [5, 'There is no address in this row'],
      [6, 'The same address stands in line 2 already'],
    ])
  })

  it('says where a quotation mark is never closed', () => {
    const { faults } = rowsOf(`URL,Title\n${A},"open\n${B},x\n`)
    expect(faults[0]?.reason).toMatch(/never closed/)
  })

  it('takes no row that a lost quotation mark glued to others, and none with more cells than there are columns', () => {
    expect(rowsOf(`URL,Title\n${A},Larch\n${B},"open\nhttps://yard.example/c,x\n`).rows).toHaveLength(1)
    const { rows, faults } = rowsOf(`URL,Title\n${A},Larch, or oak\n${B},Oak\n`)
    expect(rows.map((r) => r.address)).toEqual([B])
    expect(faults).toEqual([{ line: 2, reason: expect.stringContaining('wants quotation marks') }])
  })

  it('knows what parts its cells by its first row, whatever the cells hold', () => {
    const text = 'a; b; c | d | e; f'
    const { rows } = rowsOf(`URL,Notes\n${A},${text}\n${B},${text}\n`)
    expect(rows.map((r) => r.notes)).toEqual([text, text])
    expect(rowsOf(`URL;Notes\n${A};one, two, three\n${B};one, two\n`).rows[1]?.notes).toBe('one, two')
  })

  it('refuses what is no sheet with what to do', () => {
    expect(() => parseSheet(bytes('  \n '))).toThrow(/empty/)
    expect(() => parseSheet(new Uint8Array([80, 75, 3, 4, 0, 0]))).toThrow(/Export the sheet as CSV/)
  })

  it('a sheet without a status column is ready as a whole; one whose words are unknown is not', () => {
    expect(rowsOf(`URL\n${A}\n`).rows[0]?.ready).toBe(true)
    expect(rowsOf(`URL,Status\n${A},hm\n`).rows[0]?.ready).toBe(false)
  })
})

describe('importing again', () => {
  const owner = { brand: 'brand', source: 'source', newId: () => 'new' }
  const draft = (change: object = {}) => ({
    address: A,
    title: 'Larch',
    status: 'ready',
    ready: true,
    categories: [],
    notes: '',
    fields: {},
    ...change,
  })

  it('merges by address, in whatever clothes, and changes only what changed', () => {
    const standing = [
      aSheetRow({ id: 'a', address: A, title: 'Larch', piece: 'p' }),
      aSheetRow({ id: 'b', address: B, title: 'Oak', place: 1 }),
    ]
    const merge = mergeRows(
      standing,
      [
        draft(),
        draft({ address: 'http://www.yard.example/b/', title: 'Old oak' }),
        draft({ address: 'https://yard.example/c' }),
      ],
      owner,
    )
    expect(merge.same).toBe(1)
    expect(merge.changed).toEqual([{ ...standing[1], title: 'Old oak' }])
    expect(merge.added.map((r) => [r.address, r.place])).toEqual([['https://yard.example/c', 2]])
  })

  it('takes ready rows one at a time, the oldest first, and a mended one again', () => {
    const rows = [
      aSheetRow({ id: 'late', place: 3 }),
      aSheetRow({ id: 'draft', place: 0, ready: false }),
      aSheetRow({ id: 'taken', place: 1, piece: 'p' }),
      aSheetRow({ id: 'bad', place: 1, trouble: 'It is gone.' }),
      aSheetRow({ id: 'next', place: 2 }),
    ]
    expect(nextRow(rows)?.id).toBe('next')
    expect(nextRow([])).toBeNull()
    const held = aSheetRow({ address: A, ready: false, status: 'draft', trouble: 'It is gone.' })
    expect(mergeRows([held], [draft()], owner).changed[0]?.trouble).toBeNull()
  })

  it('importing the same sheet twice adds nothing, whatever stands in it', () => {
    const cell = fc.string({ maxLength: 12 }).map((s) => s.replace(/["\r\n,;|\t]/g, ' '))
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.webUrl(), cell, cell), { maxLength: 8 }), (list) => {
        const text = ['URL,Title,Status', ...list.map((r) => r.map((c) => `"${c}"`).join(','))].join('\n')
        const { rows } = rowsOf(text)
        let n = 0
        const once = mergeRows([], rows, { ...owner, newId: () => `r${n++}` })
        expect(mergeRows(once.added, rows, owner)).toEqual({
          added: [],
          changed: [],
          same: once.added.length,
        })
      }),
      { numRuns: 60 },
    )
  })
})

it('guesses the title by what stands in a column where no name tells', () => {
  const table = parseSheet(
    new TextEncoder().encode(
      'Woche;Überschrift;Adresse;Stand\n49;Reading a sky;https://a.example/1;fertig\n50;Warden;https://a.example/2;fertig\n51;Water on the ridge;https://a.example/3;Entwurf\n',
    ),
  )
  expect(guessReading(table).columns).toMatchObject({ title: 'Überschrift', address: 'Adresse' })
})
