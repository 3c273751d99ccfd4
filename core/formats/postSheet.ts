import Papa from 'papaparse'
import { resolveAddress } from '../feeds'
import type { Account } from '../model'
import { network } from '../networks'
import { fromWall, toWall } from '../planning'
import type { HandRow } from '../pipeline'
import { readClock, readDate, strokeOrder } from '../planning'
import type { RowFault, SheetTable } from './sheet'

/** The columns of a sheet of posts. */
export const POST_FIELDS = [
  'date',
  'time',
  'text',
  'title',
  'link',
  'picture',
  'alt',
  'accounts',
  'hashtags',
  'not before',
  'not after',
] as const
export type PostField = (typeof POST_FIELDS)[number]

const NAMES: Record<PostField, RegExp> = {
  date: /^(?:date|day|when|on|publish(?:ing)? date|scheduled?(?: (?:for|at|date))?|date ?(?:and|&|\/) ?time|datetime|datum)$/i,
  time: /^(?:time|hour|clock|at|publish(?:ing)? time|scheduled time|uhrzeit)$/i,
  text: /^(?:text|caption|message|post|copy|content|body|words|description)$/i,
  title: /^(?:title|headline|titel)$/i,
  link: /^(?:link|url|address|web ?address|web ?site|page)$/i,
  picture:
    /^(?:picture|image|photo|media|picture (?:address|url|link)|image (?:address|url|link)|media (?:address|url))s?$/i,
  alt: /^(?:alt|alt(?:ernative)? ?text|picture (?:text|description)|image description)$/i,
  accounts: /^(?:accounts?|groups?|accounts? or groups?|networks?|channels?|where|to|profiles?)$/i,
  hashtags: /^(?:hash ?tags?|tags?)$/i,
  'not before': /^(?:not before|earliest|first day)$/i,
  'not after': /^(?:not after|latest|last day|until|expires?)$/i,
}

/** A sheet of posts with nothing in it yet but the names of its columns. */
export function emptyPostSheet(): string {
  return `${Papa.unparse([[...POST_FIELDS]])}\r\n`
}

/** Which column is which field, by names; a sheet without a first row of names by what stands in it. */
export function guessPostColumns(table: SheetTable): Partial<Record<PostField, string>> {
  const columns: Partial<Record<PostField, string>> = {}
  for (const field of POST_FIELDS) {
    const name = table.columns.find((c) => NAMES[field].test(c.trim()))
    if (name !== undefined) columns[field] = name
  }
  const free = (): { name: string; cells: string[] }[] =>
    table.columns.flatMap((name, i) =>
      Object.values(columns).includes(name)
        ? []
        : [{ name, cells: table.rows.flatMap((r) => r.cells[i]?.trim() || []) }],
    )
  const guess = (field: PostField, is: (cell: string) => boolean): void => {
    if (columns[field] !== undefined) return
    const found = free().find((c) => c.cells.length > 0 && c.cells.filter(is).length > c.cells.length / 2)
    if (found) columns[field] = found.name
  }
  guess('date', (c) => readDate(c, false) !== null || readDate(c, true) !== null)
  guess('time', (c) => readClock(c) !== null)
  guess('picture', (c) => /^https?:\S+\.(?:png|jpe?g|webp|gif|avif)(?:\?\S*)?$/i.test(c))
  guess('link', (c) => /^https?:\/\/\S+$/i.test(c))
  guess('hashtags', (c) => /^#\S+(?:[\s,]+#?\S+)*$/.test(c))
  guess('accounts', (c) => /^@\S+/.test(c))
  if (columns.text === undefined) {
    const longest = free().sort((a, b) => b.cells.join('').length - a.cells.join('').length)[0]
    if (longest?.cells.some((c) => /\p{L}{2}/u.test(c))) columns.text = longest.name
  }
  return columns
}

export interface PostSheetReading {
  columns: Partial<Record<PostField, string>>
  /** Whether 4/12 is the twelfth of April; null lets the sheet and the accounts' place say. */
  monthFirst: boolean | null
  /** The accounts of a row that names none. */
  accounts: readonly string[]
}

/**
 * The posts of a sheet. Its columns stand in any order and its dates in any form that people
 * write (see `readDate`), with the time beside them or in a column of its own; a row without a
 * date is one that goes where the others of its kind go. Accounts are named by handle, by handle
 * and network, by network, by group, or as "all". A row that cannot be taken is a fault with its
 * line and the reason; the good ones are given. `now` is ISO 8601.
 */
export function readPostSheet(
  table: SheetTable,
  reading: PostSheetReading,
  known: { accounts: readonly Account[]; now: string },
): {
  rows: { line: number; row: HandRow }[]
  faults: RowFault[]
  /** How dates like 4/12 were read; null where there is none, or where that is in doubt and nothing is taken. */
  monthFirst: boolean | null
  doubt: string | null
} {
  const faults: RowFault[] = [...table.faults]
  const index = (field: PostField): number => table.columns.indexOf(reading.columns[field] ?? '\0')
  const dates = table.rows.map((r) => r.cells[index('date')] ?? '')
  const settled = strokeOrder(dates, { zone: known.accounts[0]?.zone ?? null })
  const order =
    reading.monthFirst === null || (settled.monthFirst === null && settled.doubt === null)
      ? settled
      : { monthFirst: reading.monthFirst, doubt: null }
  if (order.doubt !== null) return { rows: [], faults, ...order }
  const american = order.monthFirst ?? false
  const rows: { line: number; row: HandRow }[] = []
  const seen = new Map<string, number>()
  for (const { line, cells } of table.rows) {
    const cell = (field: PostField): string => (cells[index(field)] ?? '').trim()
    const read = readRow(cell, american, reading.accounts, known)
    if (typeof read === 'string') {
      faults.push({ line, reason: read })
      continue
    }
    const key = JSON.stringify([read.words.text, read.accounts, read.on])
    const first = seen.get(key)
    if (first !== undefined) {
      faults.push({ line, reason: `The same post stands in line ${first} already.` })
      continue
    }
    seen.set(key, line)
    rows.push({ line, row: read })
  }
  return {
    rows,
    faults: faults.sort((a, b) => a.line - b.line),
    ...order,
  }
}

/** A row as it is meant, or why it cannot be taken. */
function readRow(
  cell: (field: PostField) => string,
  american: boolean,
  fallback: readonly string[],
  known: { accounts: readonly Account[]; now: string },
): HandRow | string {
  const text = cell('text').replace(/\r\n?/g, '\n')
  if (!text) return 'There are no words in this row. Write the caption in the column “text”.'
  const accounts = cell('accounts') ? accountsNamed(cell('accounts'), known.accounts) : [...fallback]
  if (typeof accounts === 'string') return accounts
  if (accounts.length === 0)
    return 'It names no account. Write a handle, a network, a group, or “all”, or choose accounts for such rows above.'
  const on = readMoment(cell('date'), cell('time'), american)
  if (typeof on === 'string') return on
  const zones = known.accounts.filter((a) => accounts.includes(a.id)).map((a) => a.zone)
  const over = (zone: string): boolean => {
    const wall = toWall(Date.parse(known.now), zone)
    if (on === null) return false
    if ('at' in on) return on.at < known.now
    return on.date < wall.date || (on.date === wall.date && on.time !== null && on.time < wall.time)
  }
  if (on && 'date' in on && on.time) {
    const { date, time } = on
    const skipping = zones.find((zone) => fromWall(date, time, zone) === null)
    if (skipping) return `${date} has no ${time} in ${skipping}: the clocks go forward then.`
  }
  if (zones.some(over)) return `${cell('date')}${cell('time') ? ` ${cell('time')}` : ''} has passed.`
  const link = address(cell('link'))
  if (link === undefined)
    return `“${cell('link').slice(0, 60)}” is not a web address. A link looks like https://example.org/page.`
  const picture = address(cell('picture'))
  if (picture === undefined)
    return `“${cell('picture').slice(0, 60)}” is not the address of a picture. It looks like https://example.org/picture.jpg.`
  const bounds = (['not before', 'not after'] as const).map((field) =>
    cell(field) ? readDate(cell(field), american) : undefined,
  )
  if (bounds.includes(null)) return 'Its first or last day is not a date. Write it like 2026-12-04.'
  const [earliest = null, latest = null] = bounds
  if (earliest && latest && earliest > latest) return 'Its last day lies before its first.'
  return {
    words: {
      title: cell('title') || null,
      text: withHashtags(text, cell('hashtags')),
      link,
      picture: picture ? { url: picture, alt: cell('alt') } : null,
    },
    accounts,
    on,
    earliest,
    latest,
  }
}

/** A web address, null where the cell is empty, undefined where it is none. */
function address(cell: string): string | null | undefined {
  if (!cell) return null
  return resolveAddress(/^www\./i.test(cell) ? `https://${cell}` : cell) ?? undefined
}

function readMoment(date: string, time: string, american: boolean): HandRow['on'] | string {
  if (!date) return time ? 'It has a time but no date.' : null
  // A moment with its offset is the same everywhere.
  if (/^\d{4}-\d\d-\d\dT\d\d:\d\d(?::\d\d(?:\.\d+)?)?(?:Z|[+-]\d\d:?\d\d)$/.test(date))
    return { at: new Date(date).toISOString() }
  const day = readDate(date, american)
  if (!day) return `“${date}” is not a date. Write it like 2026-12-04.`
  const beside = /(?:[T ,]\s*)(\d{1,2}[:.h]\d{2}(?::\d{2})?\s*(?:[ap]\.?m\.?)?|\d{1,2}\s*[ap]\.?m\.?)$/i.exec(
    date,
  )?.[1]
  const said = time || beside || ''
  if (!said) return { date: day, time: null }
  const clock = readClock(said.trim())
  return clock ? { date: day, time: clock } : `“${said}” is not a time. Write it like 09:05.`
}

/** A text with the tags of a row behind it, those left out that it has already. */
function withHashtags(text: string, tags: string): string {
  const missing = tags
    .split(/[\s,;|]+/)
    .filter(Boolean)
    .map((t) => `#${t.replace(/^#+/, '')}`)
    .filter((t) => !text.toLowerCase().split(/\s+/).includes(t.toLowerCase()))
  return missing.length ? `${text.trimEnd()}\n\n${[...new Set(missing)].join(' ')}` : text
}

/** The accounts that a cell names, or which word of it names none. */
function accountsNamed(cell: string, accounts: readonly Account[]): string[] | string {
  const found = new Set<string>()
  for (const name of cell.split(/[,;|\n]+/).map((n) => n.trim())) {
    if (!name) continue
    const bare = plain(name)
    const matches = accounts.filter(
      (a) =>
        bare === 'all' ||
        bare === plain(a.handle) ||
        bare === plain(network(a.network).name) ||
        bare === a.network ||
        bare === plain(`${a.handle} ${network(a.network).name}`) ||
        bare === plain(`${network(a.network).name} ${a.handle}`) ||
        bare === plain(`${a.handle} on ${network(a.network).name}`) ||
        bare === plain(a.name) ||
        a.groups.some((g) => plain(g) === bare),
    )
    if (matches.length === 0) {
      const words = [...new Set(accounts.flatMap((a) => [`@${a.handle}`, ...a.groups]))]
      return `There is no account or group “${name}”. Known are ${words.slice(0, 8).join(', ')}${words.length > 8 ? ' and others' : ''}, the networks’ names, and “all”.`
    }
    for (const a of matches) found.add(a.id)
  }
  return [...found]
}

function plain(name: string): string {
  return name.toLowerCase().replace(/@/g, '').replace(/\s+/g, ' ').trim()
}
