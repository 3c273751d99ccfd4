import Papa from 'papaparse'
import { asFault, Fault, type Occasion } from '../model'
import { nextDayOf, occasionText, readOccasionDay, type OccasionGiven } from '../occasions'
import { strokeOrder } from '../planning'
import { guarded } from './planSheet'
import { parseSheet, type RowFault } from './sheet'

/** An occasion as a sheet has it. */
export type SheetOccasion = OccasionGiven & Pick<Occasion, 'again'>

const COLUMNS = ['name', 'day', 'next', 'words', 'lines', 'every year'] as const
/** What parts the lines of an occasion in its cell. */
const BETWEEN = ' | '

/** What each column may be called. */
const NAMED = {
  name: /^(?:names?|titles?|occasions?|events?|subject|summary)$/i,
  day: /^(?:days?|dates?|when|on|start(?: date)?)$/i,
  words: /^(?:words?|themes?|key ?words?|tags?|topics?)$/i,
  lines: /^(?:lines?|greetings?|texts?|captions?)$/i,
  again: /^(?:every year|again|yearly|repeats?)$/i,
} as const

/** Occasions as CSV (RFC 4180), in the order of their next days, in words that `readOccasionSheet` reads again. */
export function writeOccasionSheet(
  occasions: readonly SheetOccasion[],
  { zone, today }: { zone: string; today: string },
): string {
  const rows = occasions
    .map((o) => ({ o, next: nextDayOf(o.on, zone, today) ?? '' }))
    .sort((a, b) => (a.next || '~').localeCompare(b.next || '~') || a.o.name.localeCompare(b.o.name))
    .map(({ o, next }) => [
      guarded(o.name),
      occasionText(o.on),
      next,
      guarded(o.theme.join(', ')),
      guarded(o.lines.join(BETWEEN)),
      o.again ? 'yes' : '',
    ])
  return `${Papa.unparse([[...COLUMNS], ...rows], { newline: '\r\n' })}\r\n`
}

/**
 * The occasions of a sheet (CSV), whose columns may come in any order; only a name and a day must be there. Rows of one name
 * with dates become one occasion. A row that cannot be read is listed with its line and the reason; the others are taken.
 * Refuses (`bad-file`) what is no table, or has no such columns.
 * @param today the local date
 * @param zone the brand's zone, by which dates with strokes are read where the rows leave it open
 */
export function readOccasionSheet(
  bytes: Uint8Array,
  { zone, today }: { zone: string; today: string },
): { occasions: SheetOccasion[]; faults: RowFault[] } {
  const table = parseSheet(bytes)
  const column = (pattern: RegExp): number => table.columns.findIndex((c) => pattern.test(c.trim()))
  const at = {
    name: column(NAMED.name),
    day: column(NAMED.day),
    words: column(NAMED.words),
    lines: column(NAMED.lines),
    again: column(NAMED.again),
  }
  if (at.name < 0 || at.day < 0)
    throw new Fault(
      'bad-file',
      `There is no column “${at.name < 0 ? 'name' : 'day'}” in this sheet. Its first row names the columns: name and day, and if you like words, lines and every year.`,
    )
  const { monthFirst, doubt } = strokeOrder(
    table.rows.map((r) => r.cells[at.day] ?? ''),
    { zone },
  )
  if (doubt !== null) throw new Fault('bad-file', doubt)
  const faults: RowFault[] = [...table.faults]
  const taken = new Map<string, SheetOccasion>()
  for (const { line, cells } of table.rows) {
    const cell = (i: number): string => (i < 0 ? '' : (cells[i] ?? '').trim().replace(/^'(?=[=+\-@])/, ''))
    const read = rowOf(cell(at.name), cell(at.day), today, monthFirst ?? false)
    if ('reason' in read) {
      faults.push({ line, reason: read.reason })
      continue
    }
    const before = taken.get(read.name)
    if (before && 'dates' in before.on && 'dates' in read.on)
      before.on = { dates: [...new Set([...before.on.dates, ...read.on.dates])].sort() }
    else if (before) faults.push({ line, reason: `“${read.name}” stands in the sheet already.` })
    else
      taken.set(read.name, {
        ...read,
        theme: partsOf(cell(at.words), /[,;]/),
        lines: partsOf(cell(at.lines), /\s\|\s|\n/),
        again: /^(?:yes|y|true|1|x)$/i.test(cell(at.again)),
      })
  }
  return { occasions: [...taken.values()], faults: faults.sort((a, b) => a.line - b.line) }
}

/** The name and the days of a row, or why it has none. */
function rowOf(
  name: string,
  day: string,
  today: string,
  monthFirst: boolean,
): Pick<Occasion, 'name' | 'on'> | { reason: string } {
  if (!name) return { reason: 'It has no name.' }
  if (name.length > 120) return { reason: 'Its name has more than 120 characters. Shorten it.' }
  if (!day) return { reason: `“${name}” has no day.` }
  try {
    return { name, on: readOccasionDay(day, today, monthFirst) }
  } catch (error) {
    return { reason: asFault(error).message }
  }
}

const partsOf = (cell: string, between: RegExp): string[] => [
  ...new Set(
    cell
      .split(between)
      .map((p) => p.trim())
      .filter(Boolean),
  ),
]
