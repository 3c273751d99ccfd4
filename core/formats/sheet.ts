import Papa from 'papaparse'
import { decodeText, resolveAddress, canonicalAddress, sameAddress } from '../feeds'
import { Fault, SHEET_FIELDS, type SheetField, type SheetReading, type SheetRow } from '../model'

/** A table as it stands in a file: the names of its columns, and its rows with their lines. */
export interface SheetTable {
  columns: string[]
  rows: { line: number; cells: string[] }[]
  delimiter: string
  /** Rows that could not be read, by line. */
  faults: RowFault[]
}

export interface RowFault {
  line: number
  reason: string
}

const ADDRESS = /^(?:https?:\/\/|www\.)\S+$/i

/**
 * Reads CSV with any delimiter, encoding and line ending, by Papa Parse. A first row without an
 * address in it is the header; a plain list of addresses needs none. Empty rows are passed over,
 * short ones filled. Throws `bad-file` where there is no table.
 */
export function parseSheet(bytes: Uint8Array): SheetTable {
  const text = decodeText(bytes).replace(/^\uFEFF/, '')
  if (!text.trim()) throw new Fault('bad-file', 'The file is empty.')
  if (text.slice(0, 2000).includes('\0'))
    throw new Fault(
      'bad-file',
      'This is not a text file. Export the sheet as CSV from your spreadsheet, and choose that file.',
    )
  // Excel writes the delimiter in a first line of its own.
  const named = /^sep=(.)\r?\n/i.exec(text)
  const body = named ? text.slice(named[0].length) : text
  const delimiter = named?.[1] ?? delimiterOf(body)
  const parsed = Papa.parse<string[]>(body, { skipEmptyLines: false, delimiter })
  const lines = linesOf(parsed.data, named ? 1 : 0)
  const glued = new Set(parsed.errors.flatMap((e) => (e.type === 'Quotes' ? [e.row ?? 0] : [])))
  const faults: RowFault[] = [...glued].map((row) => ({
    line: lines[row] ?? 1,
    reason:
      'A quotation mark opens here and is never closed, so rows run together; none of them is taken. Close it in the sheet.',
  }))
  const read = parsed.data
    .map((cells, i) => ({ line: lines[i] ?? i + 1, cells: cells.map((c) => c.trim()), glued: glued.has(i) }))
    .filter((r) => r.cells.some(Boolean))
  const first = read[0]
  if (!first) throw new Fault('bad-file', 'There is no row in this file.')
  const headless = first.cells.some((c) => ADDRESS.test(c))
  const columnCount = headless ? Infinity : first.cells.findLastIndex(Boolean) + 1
  const rows = read.filter((r) => {
    const surplus = r.cells.findLastIndex(Boolean) + 1 > columnCount
    if (surplus && !r.glued)
      faults.push({
        line: r.line,
        reason: `This row has ${r.cells.length} cells and the first one names ${columnCount}. A cell that holds ${DELIMITERS[delimiter] ?? 'the sign between cells'} wants quotation marks around it.`,
      })
    return !r.glued && !surplus
  })
  const width = Math.max(...rows.map((r) => r.cells.length))
  const columns = Array.from({ length: width }, (_, i) =>
    headless ? `Column ${i + 1}` : first.cells[i] || `Column ${i + 1}`,
  )
  const unique = columns.map((c, i) => (columns.indexOf(c) === i ? c : `${c} (${i + 1})`))
  return {
    columns: unique,
    rows: (headless ? rows : rows.slice(1)).map((r) => ({
      line: r.line,
      cells: Array.from({ length: width }, (_, i) => r.cells[i] ?? ''),
    })),
    delimiter,
    faults,
  }
}

const DELIMITERS: Readonly<Record<string, string>> = {
  ',': 'a comma',
  ';': 'a semicolon',
  '\t': 'a tab',
  '|': 'a bar',
}

/** What the name of a column looks like: a few words, no sentence. */
const NAME = /^[\p{L}\p{N}#@?][^,;|\t\n]{0,40}$/u

/** So many rows are looked at to find what parts the cells. */
const LOOKED = 200

/**
 * What parts the cells of a table: that by which the first row is names, as far as may be, and by which most
 * rows have as many cells as it. What stands in the cells does not vote: captions are full of commas.
 */
function delimiterOf(text: string): string {
  const weighed = Object.keys(DELIMITERS).map((delimiter) => {
    const rows = Papa.parse<string[]>(text, { delimiter, preview: LOOKED, skipEmptyLines: 'greedy' }).data
    const [first = [], ...others] = rows
    if (first.length < 2) return { delimiter, weight: -1 }
    const names = first.filter((c) => NAME.test(c.trim())).length / first.length
    const agree = others.filter((r) => r.length === first.length).length / Math.max(1, others.length)
    return { delimiter, weight: 2 * names + agree + first.length / 1000 }
  })
  const best = weighed.reduce((a, b) => (b.weight > a.weight ? b : a))
  return best.weight < 0 ? ',' : best.delimiter
}

/** The line at which each row begins; quoted cells may hold line breaks of their own. */
function linesOf(rows: readonly string[][], before: number): number[] {
  let line = 1 + before
  return rows.map((cells) => {
    const at = line
    line += 1 + cells.reduce((sum, c) => sum + (c.match(/\r\n|\n|\r/g)?.length ?? 0), 0)
    return at
  })
}

const NAMES: Record<SheetField, RegExp> = {
  address: /^(?:url|link|links|address|web ?address|permalink|page|href|adresse)$/i,
  title: /^(?:title|headline|name|article|post|piece|titel|titre)$/i,
  status: /^(?:status|state|stage|ready\??|done\??|progress)$/i,
  categories: /^(?:categor(?:y|ies)|tags?|topics?|labels?|keywords?)$/i,
  notes: /^(?:notes?|comments?|remarks?|memo|description)$/i,
}

/** Words of a status that mean the row may be taken. */
const READY = [
  'ready',
  'yes',
  'y',
  'true',
  '1',
  'x',
  'done',
  'approved',
  'final',
  'go',
  'published',
  'publish',
  'live',
]

/** Which column is which field, guessed by names and by what stands in them. */
export function guessReading(table: SheetTable): SheetReading {
  const columns: SheetReading['columns'] = {}
  for (const field of SHEET_FIELDS) {
    const name = table.columns.find((c) => NAMES[field].test(c.trim()))
    if (name !== undefined) columns[field] = name
  }
  if (columns.address === undefined) {
    const share = (i: number): number => table.rows.filter((r) => ADDRESS.test(r.cells[i] ?? '')).length
    const best = table.columns.map((name, i) => ({ name, n: share(i) })).sort((a, b) => b.n - a.n)[0]
    if (best && best.n > 0) columns.address = best.name
  }
  if (columns.title === undefined) {
    // A title says something else in every row, in a few words.
    const taken = new Set(Object.values(columns))
    const name = table.columns.find((c, i) => {
      const cells = table.rows.flatMap((r) => r.cells[i]?.trim() || [])
      const letters = cells.filter((t) => /\p{L}{3}/u.test(t) && t.length <= 160).length
      return (
        !taken.has(c) &&
        cells.length >= table.rows.length * 0.8 &&
        letters === cells.length &&
        new Set(cells).size >= cells.length * 0.9 &&
        cells.join('').length >= cells.length * 6
      )
    })
    if (name !== undefined) columns.title = name
  }
  const status = table.columns.indexOf(columns.status ?? '')
  const found = new Set(table.rows.map((r) => (r.cells[status] ?? '').toLowerCase()))
  return { columns, ready: READY.filter((w) => found.has(w)).slice(0, 6) }
}

/** A row of a sheet before it has an owner. */
export type SheetRowDraft = Pick<
  SheetRow,
  'address' | 'title' | 'status' | 'ready' | 'categories' | 'notes' | 'fields'
>

/**
 * The rows of a table by a reading of its columns. A sheet without a status column is ready as a
 * whole; rows without an address that can be followed, and addresses that stand in it twice, are
 * listed with their line and reason, and the others taken.
 */
export function readSheet(
  table: SheetTable,
  reading: SheetReading,
): { rows: SheetRowDraft[]; faults: RowFault[] } {
  const index = Object.fromEntries(
    SHEET_FIELDS.map((f) => [f, table.columns.indexOf(reading.columns[f] ?? '\0')]),
  ) as Record<SheetField, number>
  const used = new Set(Object.values(index))
  const faults = [...table.faults]
  const rows: SheetRowDraft[] = []
  const seen = new Map<string, number>()
  for (const { line, cells } of table.rows) {
    const cell = (field: SheetField): string => cells[index[field]] ?? ''
    const written = cell('address')
    const address = resolveAddress(/^www\./i.test(written) ? `https://${written}` : written)
    if (!address) {
      faults.push({
        line,
        reason: written
          ? `“${written.slice(0, 60)}” is not a web address. It should look like https://example.org/page.`
          : 'There is no address in this row.',
      })
      continue
    }
    const key = sameAddress(address)
    const first = seen.get(key)
    if (first !== undefined) {
      faults.push({ line, reason: `The same address stands in line ${first} already.` })
      continue
    }
    seen.set(key, line)
    const status = cell('status')
    const wanted = reading.ready.map((w) => w.toLowerCase().trim())
    rows.push({
      address: canonicalAddress(address),
      title: cell('title'),
      status,
      ready: index.status < 0 || wanted.includes(status.toLowerCase()),
      categories: cell('categories')
        .split(/[,;|]/)
        .map((c) => c.trim())
        .filter(Boolean),
      notes: cell('notes'),
      fields: Object.fromEntries(
        table.columns.flatMap((name, i) => (used.has(i) || !cells[i] ? [] : [[name, cells[i]]])),
      ),
    })
  }
  return { rows, faults: faults.sort((a, b) => a.line - b.line) }
}

/** What an import does to the rows that are there: by address, only what changed. */
export interface SheetMerge {
  added: SheetRow[]
  changed: SheetRow[]
  same: number
}

export function mergeRows(
  standing: readonly SheetRow[],
  incoming: readonly SheetRowDraft[],
  owner: { brand: string; source: string; newId: () => string },
): SheetMerge {
  const known = new Map(standing.map((r) => [sameAddress(r.address), r]))
  let place = Math.max(-1, ...standing.map((r) => r.place))
  const merge: SheetMerge = { added: [], changed: [], same: 0 }
  for (const draft of incoming) {
    const before = known.get(sameAddress(draft.address))
    if (!before) {
      const { newId, ...ids } = owner
      merge.added.push({ ...draft, ...ids, id: newId(), place: ++place, piece: null, trouble: null })
      continue
    }
    const after: SheetRow = { ...before, ...draft, address: before.address }
    if (!before.ready && after.ready) after.trouble = null
    if (JSON.stringify(sorted(after)) === JSON.stringify(sorted(before))) merge.same++
    else merge.changed.push(after)
  }
  return merge
}

const sorted = (row: SheetRow): [string, unknown][] =>
  Object.entries(row)
    .map(([k, v]): [string, unknown] => [k, k === 'fields' ? Object.entries(v as object).sort() : v])
    .sort(([a], [b]) => (a < b ? -1 : 1))
