import type { Row, TableName } from '../../core/model'

/*
 * A workspace has ten thousand posts, and many actions read them all; reading them from the
 * database takes a good part of a second. So the table is kept in memory, brought up to date with
 * every write of this tab, and forgotten when something else may have written it.
 */

const KEPT: ReadonlySet<TableName> = new Set<TableName>(['posts'])

/** Whether a table is kept in memory. */
export function isKept(table: TableName): boolean {
  return KEPT.has(table)
}

/** Whether a table is in memory already. */
export function isInMemory(table: TableName): boolean {
  return tables.has(table)
}

type AnyRow = Row<TableName>
interface Table {
  rows: Map<string, AnyRow>
  /** In the order of their ids, as the database gives them; null while it has to be made anew. */
  list: AnyRow[] | null
}

const tables = new Map<TableName, Table>()

/** A table on its way from the database, with what this tab wrote meanwhile. */
interface Reading {
  rows: Promise<AnyRow[]>
  writes: { id: string; row: AnyRow | null }[]
}
const readings = new Map<TableName, Reading>()

/** The rows of a table in the order of their ids, from memory or by `read`. The list is the caller's own. */
export async function keptRows<T extends TableName>(
  table: T,
  read: () => Promise<Row<T>[]>,
): Promise<Row<T>[]> {
  let kept = tables.get(table)
  if (!kept) {
    let reading = readings.get(table)
    if (!reading) readings.set(table, (reading = { rows: read() as Promise<AnyRow[]>, writes: [] }))
    kept = await settled(table, reading)
  }
  kept.list ??= [...kept.rows.values()].sort((a, b) => (a.id < b.id ? -1 : 1))
  return [...kept.list] as Row<T>[]
}

/** A table once it was read, with what was written meanwhile; kept unless it was forgotten meanwhile. */
async function settled(table: TableName, reading: Reading): Promise<Table> {
  try {
    const rows = await reading.rows
    const already = tables.get(table)
    if (already && readings.get(table) !== reading) return already
    const fresh: Table = { rows: new Map(rows.map((r) => [r.id, r])), list: null }
    for (const { id, row } of reading.writes) apply(fresh, id, row)
    if (readings.get(table) === reading) tables.set(table, fresh)
    return fresh
  } finally {
    if (readings.get(table) === reading) readings.delete(table)
  }
}

function apply(kept: Table, id: string, row: AnyRow | null): void {
  if (row) kept.rows.set(id, row)
  else kept.rows.delete(id)
  kept.list = null
}

/** Brings what is kept up to date with a write of this tab; null where the row is gone. */
export function keepUp(table: TableName, id: string, row: AnyRow | null): void {
  if (!KEPT.has(table)) return
  readings.get(table)?.writes.push({ id, row })
  const kept = tables.get(table)
  if (kept) apply(kept, id, row)
}

/** Forgets tables that somebody else wrote, or a transaction of its own. */
export function forget(names: readonly TableName[]): void {
  for (const table of names) {
    readings.delete(table)
    tables.delete(table)
  }
}
