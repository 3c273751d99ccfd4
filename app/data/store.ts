import { nanoid } from 'nanoid'
import {
  Fault,
  joinPiece,
  partPiece,
  quotable,
  TABLES,
  textId,
  type Change,
  type Row,
  type TableName,
  type WholePiece,
} from '../../core/model'
import { clockNow } from './clock'
import { staleColumns } from './columns'
import { database } from './database'
import { indexesOf } from './schema'
import { forget, isInMemory, isKept, keepUp, keptRows } from './kept'
import { readOf, refresh, type Touched } from './refresh'

/**
 * One record to write. `change` is given the record as it stands inside the transaction and gives
 * the new one, null to remove it, or undefined to leave it.
 */
interface WriteTo<T extends TableName> {
  table: T
  id: string
  change: (row: Row<T> | undefined) => Row<T> | null | undefined
}
/** A write to one of some tables: its change is always that of its own table's rows. */
type WriteOf<T extends TableName> = T extends TableName ? WriteTo<T> : never
export type Write = WriteOf<TableName>

// A table that is known only as one of several makes a write to one of them; the compiler cannot see that.
const written = <T extends TableName>(write: WriteTo<T>): WriteOf<T> => write as unknown as WriteOf<T>

/** A write of a known record as it is. */
export function put<T extends TableName>(table: T, row: Row<T>): WriteOf<T> {
  return written({ table, id: row.id, change: () => row })
}

/** A write that changes a record if it is there; a change to undefined leaves it. */
export function patch<T extends TableName>(
  table: T,
  id: string,
  change: (row: Row<T>) => Row<T> | undefined,
): WriteOf<T> {
  return written<T>({ table, id, change: (row) => (row ? change(row) : undefined) })
}

export function remove<T extends TableName>(table: T, id: string): WriteOf<T> {
  return written<T>({ table, id, change: (row) => (row ? null : undefined) })
}

/** A write to a table whose rows are not known here, as undo and its like make: they come from what was kept. */
export function rewrite(
  table: TableName,
  id: string,
  change: (row: Row<TableName> | undefined) => Row<TableName> | null | undefined,
): Write {
  return written<TableName>({ table, id, change })
}

/**
 * Who acts: a person, whose actions can be undone and carry a label, or the machine. An action that
 * is written in several parts names itself (`newAction`), and is undone as one.
 */
export type Actor = { brand: string; label: string; action?: string } | 'machine'

const UNDO_KEPT = 200

let lastChange = 0

/** The id of an action: it sorts after every earlier one of this tab, also within one millisecond. */
export function newAction(): string {
  lastChange = Math.max(clockNow(), lastChange + 1)
  return `${String(lastChange).padStart(15, '0')}-${nanoid(8)}`
}

/**
 * Writes all records of one action in one transaction, keeps its inverse for undo, and tells
 * every open tab which tables changed. Each row is checked against its schema; a wrong one, or a change that
 * throws, aborts the whole action. Gives the ids of the records that were written.
 */
export async function commit(actor: Actor, list: readonly Write[]): Promise<Set<string>> {
  if (list.length === 0) return new Set()
  const db = await database()
  const tables = [
    ...new Set<TableName>([
      ...list.map((w) => w.table),
      ...(actor === 'machine' ? [] : (['changes'] as const)),
    ]),
  ]
  // Columns that were made of readings hold no longer where one of these changes.
  const tx = db.transaction(tables.includes('readings') ? [...tables, 'columns'] : tables, 'readwrite')
  const entries: Change['entries'] = []
  const written: Written[] = []
  try {
    for (const write of list) {
      const store = tx.objectStore(write.table)
      const before = (await store.get(write.id)) as Row<TableName> | undefined
      const after = (write.change as (row: unknown) => unknown)(before)
      if (after === undefined) continue
      const row = after === null ? null : TABLES[write.table].parse(after)
      if (row === null) await store.delete(write.id)
      else await store.put(row as never)
      entries.push({ store: write.table, id: write.id, before: before ?? null, after: after ?? null })
      written.push({ table: write.table, id: write.id, before: before ?? null, row })
    }
    for (const brand of brandsRead(written)) await tx.objectStore('columns').put(staleColumns(brand))
    if (actor !== 'machine' && entries.length) {
      const changes = tx.objectStore('changes')
      const id = actor.action ?? newAction()
      const begun = (await changes.get(id)) as Change | undefined
      const change: Change = {
        id,
        brand: actor.brand,
        at: new Date(clockNow()).toISOString(),
        // The first part of an action names it.
        label: begun?.label ?? actor.label,
        undone: false,
        entries: joined(begun?.entries ?? [], entries),
      }
      await changes.put(change)
      written.push({ table: 'changes', id: change.id, before: begun ?? null, row: change })
      const keys = await changes.getAllKeys()
      for (const key of keys.slice(0, Math.max(0, keys.length - UNDO_KEPT))) await changes.delete(key)
    }
    await tx.done
  } catch (error) {
    try {
      tx.abort()
    } catch {
      // it has been aborted already
    }
    await tx.done.catch(() => undefined)
    throw error
  }
  announceRows(written, actor === 'machine')
  return new Set(entries.map((e) => e.id))
}

/** The brands of which readings that were there changed or went. */
function brandsRead(written: readonly Written[]): Set<string> {
  const gone = written.filter((w) => w.table === 'readings' && w.before !== null)
  return new Set(gone.map((w) => (w.before as Row<'readings'>).brand))
}

/** What several parts of one action come to: each record as it was before the first, and after the last. */
function joined(before: Change['entries'], more: Change['entries']): Change['entries'] {
  const key = (e: Change['entries'][number]): string => `${e.store} ${e.id}`
  const all = new Map(before.map((e) => [key(e), e]))
  for (const entry of more) all.set(key(entry), { ...entry, before: (all.get(key(entry)) ?? entry).before })
  return [...all.values()]
}

/** A row as it was before and as it was written; null where there was none, or none is left. */
interface Written {
  table: TableName
  id: string
  before: Row<TableName> | null
  row: Row<TableName> | null
}

/**
 * Says which rows were written: what is kept in memory follows, and the hooks that read the tables, here and in every
 * other tab; what the machine wrote shows a moment later where it writes much.
 */
export function announceRows(written: readonly Written[], byMachine = true): void {
  for (const { table, id, row } of written) keepUp(table, id, row)
  const tablesOf = (rows: readonly Written[]): TableName[] => [...new Set(rows.map((w) => w.table))]
  const changed = tablesOf(written.filter((w) => w.before !== null))
  spread({ tables: tablesOf(written), changed, reads: readsOf(written), byMachine })
}

/** The reads that would give another answer since some rows were written: of the table, of the record, by its indexes. */
function readsOf(written: readonly Written[]): Set<string> {
  const reads = new Set<string>()
  for (const { table, id, before, row } of written) {
    reads.add(readOf(table))
    reads.add(readOf(table, 'id', id))
    for (const index of indexesOf(table))
      for (const state of [before, row])
        if (state) reads.add(readOf(table, index, (state as unknown as Record<string, unknown>)[index]))
  }
  return reads
}

const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('dripline')
channel?.addEventListener('message', (event: MessageEvent<Touched>) => {
  forget(event.data.tables)
  tell(event.data)
})

/** Says that a transaction of its own wrote these tables: they are read anew, here and in every other tab. */
export function announce(tables: readonly TableName[]): void {
  forget(tables)
  spread({ tables, changed: tables, reads: null, byMachine: false })
}

/** Refreshes the hooks whose answers changed, here and in every other tab. */
function spread(touched: Touched): void {
  if (touched.tables.length === 0) return
  tell(touched)
  channel?.postMessage(touched)
}

type Watcher = (tables: readonly TableName[], changed: readonly TableName[]) => void
const watchers = new Set<Watcher>()

/**
 * Calls back after every write, in whichever tab it was made, with the tables, and with those of them in which rows that were there
 * changed or went. Gives a function that ends it.
 */
export function onWrite(watcher: Watcher): () => void {
  watchers.add(watcher)
  return () => watchers.delete(watcher)
}

function tell(touched: Touched): void {
  for (const watcher of watchers) watcher(touched.tables, touched.changed)
  refresh(touched)
}

/** One record, or undefined. */
export async function one<T extends TableName>(table: T, id: string): Promise<Row<T> | undefined> {
  return (await database()).get(table, id as never) as Promise<Row<T> | undefined>
}

/** One record, or a fault that says it is gone. */
export async function must<T extends TableName>(table: T, id: string): Promise<Row<T>> {
  const row = await one(table, id)
  if (!row)
    throw new Fault(
      'not-found',
      'This is no longer there: it was removed, perhaps in another tab.',
      `${table} ${id}`,
    )
  return row
}

/** The records of a table, or those whose indexed field has a value. The list is the caller's own. */
export async function all<T extends TableName>(table: T, index?: string, value?: string): Promise<Row<T>[]> {
  return [...(await shared(table, index, value))]
}

/** As `all`; of a table that is kept in memory the same list for all who ask, as long as nothing in it was written. */
export async function shared<T extends TableName>(
  table: T,
  index?: string,
  value?: string,
): Promise<readonly Row<T>[]> {
  const db = await database()
  if (index === undefined)
    return isKept(table)
      ? keptRows(table, null, () => inBatches(db, table))
      : (db.getAll(table) as Promise<Row<T>[]>)
  const read = () => db.getAllFromIndex(table, index as never, value as never) as Promise<Row<T>[]>
  if (!isKept(table)) return read()
  // A brand's are asked for again and again; other parts are quickly read, or picked out where the whole is there.
  if (index === 'brand') return keptRows(table, { index, value: String(value) }, read)
  return isInMemory(table)
    ? (await shared(table)).filter((r) => (r as Record<string, unknown>)[index] === value)
    : read()
}

/** So many records are read at once, so that the page stays awake while a large table comes in. */
const BATCH = 1000

/** A whole table, in the order of its ids, read a batch at a time within one transaction. */
async function inBatches<T extends TableName>(
  db: Awaited<ReturnType<typeof database>>,
  table: T,
): Promise<Row<T>[]> {
  const { store } = db.transaction(table)
  const rows: Row<T>[] = []
  for (;;) {
    const last = rows.at(-1)
    const range = last && IDBKeyRange.lowerBound(last.id, true)
    const batch = (await store.getAll(range as never, BATCH)) as Row<T>[]
    for (const row of batch) rows.push(row)
    if (batch.length < BATCH) return rows
  }
}

/** A piece with its words: those of its present revision, or of the one that is asked for. */
export async function wholePiece(id: string, revision?: number): Promise<WholePiece> {
  const piece = await must('pieces', id)
  const text =
    (await one('texts', textId(id, revision ?? piece.revision))) ??
    // Words of a revision that was not kept: what the piece says now is nearest.
    (await must('texts', textId(id, piece.revision)))
  return joinPiece(piece, text)
}

/** The writes that keep a whole piece: the piece, and its words beside it. */
export function putPiece(whole: WholePiece): Write[] {
  const { piece, text } = partPiece(whole)
  return [put('pieces', piece), put('texts', text)]
}

/** The words of some pieces in their present revisions, by piece. */
export async function textsOf(
  pieces: readonly { id: string; revision: number }[],
): Promise<Map<string, string>> {
  const db = await database()
  const tx = db.transaction('texts')
  const rows = await Promise.all(pieces.map((p) => tx.store.get(textId(p.id, p.revision))))
  return new Map(rows.flatMap((row) => (row ? [[row.piece, quotable(row)] as const] : [])))
}
