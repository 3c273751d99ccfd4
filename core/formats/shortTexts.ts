import { decodeText } from '../feeds'
import { Fault } from '../model'
import { parseSheet, type SheetTable } from './sheet'

/** What a column of short texts may be called. */
const NAMED = /^(?:texts?|words?|sayings?|quotes?|facts?|tips?|captions?)$/i

/** The longest text that is a short one, in characters. */
export const LONGEST_TEXT = 500
const SHORTEST = 12
/** So many are taken at once. */
const MOST = 1000

/** Short texts of one's own, and how many of them came twice. */
export interface ShortTexts {
  texts: string[]
  doubles: number
}

/**
 * Short texts as they were written or pasted: parted by blank lines where there are any, else one a line. Refuses
 * (`bad-file`) with a sentence what is none.
 */
export function readShortTexts(written: string): ShortTexts {
  const text = written.replace(/\r\n?/g, '\n').trim()
  const parted = /\n[ \t]*\n/.test(text) ? text.split(/\n(?:[ \t]*\n)+/) : text.split('\n')
  return sound(parted.map((t) => t.trim().replace(/^[-*•]\s+/, '')))
}

/**
 * Short texts out of a file: of a sheet (CSV) those of the column that is called text, saying, fact, tip or the like, else of the
 * one with the longest cells; of any other text file as if it were pasted. Refuses (`bad-file`) with a sentence what is none.
 */
export function shortTextsOf(name: string, bytes: Uint8Array): ShortTexts {
  if (!/\.(?:csv|tsv|tab)$/i.test(name)) return readShortTexts(decodeText(bytes).replace(/^\uFEFF/, ''))
  const table = parseSheet(bytes)
  const named = table.columns.findIndex((c) => NAMED.test(c.trim()))
  if (named >= 0) return sound(table.rows.map((r) => r.cells[named] ?? ''))
  const column = longestColumn(table)
  // Without a name for it, the first row is a text like the others, unless it is far shorter.
  const head = table.columns[column] ?? ''
  const texts = table.rows.map((r) => r.cells[column] ?? '')
  return sound(head.trim().length >= SHORTEST ? [head, ...texts] : texts)
}

function longestColumn({ columns, rows }: SheetTable): number {
  const long = columns.map((_, i) => rows.reduce((sum, r) => sum + (r.cells[i] ?? '').length, 0))
  return long.indexOf(Math.max(...long))
}

function sound(read: readonly string[]): ShortTexts {
  // A text is one paragraph.
  const texts = read.map((t) => t.trim().replace(/\s+/g, ' ')).filter(Boolean)
  const once = [...new Map(texts.map((t) => [t.toLowerCase(), t])).values()]
  const bad = once.find((t) => t.length > LONGEST_TEXT || t.length < SHORTEST)
  const shown = (t: string): string => (t.length > 40 ? `${t.slice(0, 40)}…` : t)
  if (once.length === 0)
    throw new Fault('bad-file', 'There is no text in it. Write one a line, or part them by blank lines.')
  if (bad !== undefined)
    throw new Fault(
      'bad-file',
      bad.length < SHORTEST
        ? `“${shown(bad)}” is too short to be a post: a text wants at least a few words. Mend it or take it out.`
        : `“${shown(bad)}” has ${bad.length} characters; a short text has at most ${LONGEST_TEXT}. Part longer ones by blank lines, or take the writing in under Intake.`,
    )
  if (once.length > MOST)
    throw new Fault(
      'bad-file',
      `These are ${once.length} texts; at most ${MOST} make one collection. Make several.`,
    )
  return { texts: once, doubles: texts.length - once.length }
}
