import { mutate } from 'swr'
import type { TableName } from '../../core/model'

/** What was written: the tables, of these the ones in which rows that were there changed or went, and what reads of them are touched; null where all may be. */
export interface Touched {
  tables: readonly TableName[]
  changed: readonly TableName[]
  reads: ReadonlySet<string> | null
  byMachine: boolean
}

/** A read as `Touched` names it: of a table; of a record by its id; of what has a value in an index. */
export function readOf(table: string, index?: unknown, value?: unknown): string {
  return index === undefined ? table : `${table} ${String(index)} ${String(value)}`
}

/** Whether a read, as a hook names it (a table; or an index and its value besides), may have another answer now. */
export function isTouched(
  read: readonly unknown[],
  { tables, reads }: Pick<Touched, 'tables' | 'reads'>,
): boolean {
  const [table, index, value] = read
  if (!tables.includes(table as TableName)) return false
  return reads === null || reads.has(readOf(String(table), index, value))
}

/** So long the screen rests between two refreshes while the machine writes on and on, in milliseconds. */
const REST = 1000

let waiting: Touched[] = []
let timer: ReturnType<typeof setTimeout> | null = null
let last = 0

/**
 * Refreshes the hooks whose answers changed: at once after a person's action and after a single write of the machine,
 * once a second while it writes much, so that the page stays awake.
 */
export function refresh(touched: Touched): void {
  waiting.push(touched)
  const rest = touched.byMachine ? last + REST - Date.now() : 0
  if (rest <= 0) flush()
  else timer ??= setTimeout(flush, rest)
}

function flush(): void {
  if (timer !== null) clearTimeout(timer)
  timer = null
  last = Date.now()
  const all = waiting
  waiting = []
  void mutate((key) => Array.isArray(key) && key[0] === 'rows' && all.some((t) => isTouched(key.slice(1), t)))
}
