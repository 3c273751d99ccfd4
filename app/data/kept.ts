import type { Row, TableName } from '../../core/model'
import { readOf } from './refresh'

/*
 * A workspace has ten thousand posts and more, and many screens and actions read them all; reading them from the
 * database takes a good part of a second. So the table is kept in memory, and the part of a brand, brought up to date with
 * every write of this tab, and forgotten when something else may have written it. A row that nobody wrote is the same object in
 * both, and a list in which nothing changed the same list: by that it is told that there is nothing new.
 */

const KEPT: ReadonlySet<TableName> = new Set<TableName>(['posts'])

/** Whether a table is kept in memory. */
export function isKept(table: TableName): boolean {
  return KEPT.has(table)
}

/** Whether the whole of a table is in memory already. */
export function isInMemory(table: TableName): boolean {
  return kept.has(readOf(table))
}

type AnyRow = Row<TableName>

/** What part of a table is kept: the records whose indexed field has a value. */
export interface Part {
  index: string
  value: string
}

/** A table in memory, or a part of it. */
interface Kept {
  table: TableName
  part: Part | null
  rows: Map<string, AnyRow>
  /** In the order of their ids, as the database gives them; null while it has to be made anew. */
  list: readonly AnyRow[] | null
}

/** What is in memory, by what is read of it (`readOf`). */
const kept = new Map<string, Kept>()

/** What is on its way from the database, with what this tab wrote meanwhile. */
interface Reading {
  table: TableName
  part: Part | null
  rows: Promise<AnyRow[]>
  writes: { id: string; row: AnyRow | null }[]
}
const readings = new Map<string, Reading>()

/**
 * The rows of a table or of a part of it in the order of their ids, from memory or by `read`. The list is the same for all who
 * ask, and cannot be changed.
 */
export async function keptRows<T extends TableName>(
  table: T,
  part: Part | null,
  read: () => Promise<Row<T>[]>,
): Promise<readonly Row<T>[]> {
  const key = readOf(table, part?.index, part?.value)
  let found = kept.get(key) ?? (part && ofWhole(key, table, part))
  if (!found) {
    let reading = readings.get(key)
    if (!reading)
      readings.set(key, (reading = { table, part, rows: read() as Promise<AnyRow[]>, writes: [] }))
    found = await settled(key, reading)
  }
  found.list ??= Object.freeze([...found.rows.values()].sort((a, b) => (a.id < b.id ? -1 : 1)))
  return found.list as readonly Row<T>[]
}

/** A part of a table that is in memory as a whole; undefined where it is not. */
function ofWhole(key: string, table: TableName, part: Part): Kept | undefined {
  const whole = kept.get(readOf(table))
  if (!whole) return undefined
  const rows = new Map([...whole.rows].filter(([, row]) => isOf(part, row)))
  const found: Kept = { table, part, rows, list: null }
  kept.set(key, found)
  return found
}

function isOf(part: Part | null, row: AnyRow): boolean {
  return part === null || (row as unknown as Record<string, unknown>)[part.index] === part.value
}

/** What was read, with what was written meanwhile; kept unless it was forgotten meanwhile. */
async function settled(key: string, reading: Reading): Promise<Kept> {
  const { table, part } = reading
  try {
    const rows = await reading.rows
    const isNews = readings.get(key) === reading
    const already = kept.get(key) ?? (part && isNews ? ofWhole(key, table, part) : undefined)
    if (already) return already
    const parts = isNews ? [...kept.values()].filter((k) => k.table === table) : []
    const known = (row: AnyRow): AnyRow =>
      parts.reduce<AnyRow | undefined>((same, k) => same ?? k.rows.get(row.id), undefined) ?? row
    const fresh: Kept = { table, part, rows: new Map(rows.map((r) => [r.id, known(r)])), list: null }
    for (const { id, row } of reading.writes) apply(fresh, id, row)
    if (isNews) kept.set(key, fresh)
    return fresh
  } finally {
    if (readings.get(key) === reading) readings.delete(key)
  }
}

function apply(to: Kept, id: string, row: AnyRow | null): void {
  if (row && isOf(to.part, row)) to.rows.set(id, row)
  else if (!to.rows.delete(id)) return
  to.list = null
}

/** Brings what is kept up to date with a write of this tab; null where the row is gone. */
export function keepUp(table: TableName, id: string, row: AnyRow | null): void {
  for (const reading of readings.values()) if (reading.table === table) reading.writes.push({ id, row })
  for (const some of kept.values()) if (some.table === table) apply(some, id, row)
}

/** Forgets tables that somebody else wrote, or a transaction of its own. */
export function forget(tables: readonly TableName[]): void {
  for (const of of [kept, readings])
    for (const [key, { table }] of of) if (tables.includes(table)) of.delete(key)
}
