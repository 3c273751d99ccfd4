import { gunzipSync, gzipSync } from 'node:zlib'
import { Fault } from '../../core/model'
import type { Database, Queryable, Value } from './database'
import { MIGRATIONS } from './migrations'
import { TABLES } from './tables'

/** Columns that hold bytes, and those that the database counts by itself. */
const BYTES = new Set(['bytes'])
const COUNTED: Record<string, string> = {
  receipts: 'cursor',
  readings: 'cursor',
  followings: 'cursor',
  snapshots: 'id',
}

/**
 * The whole spool as one file: gzip over JSON lines, the first a header, then one a row. It is the same for both engines,
 * so a spool may move from one to the other. Secrets stay sealed; the key is not in it.
 */
export async function writeBackup(database: Database, now: string): Promise<Buffer> {
  const lines = [JSON.stringify({ format: 'dripline-spool', schema: MIGRATIONS.length, writtenAt: now })]
  await database.transaction(async (tx) => {
    for (const table of TABLES)
      for (const row of await tx.query(`select * from ${table}`))
        lines.push(JSON.stringify({ table, row: packed(row) }))
  })
  return gzipSync(Buffer.from(`${lines.join('\n')}\n`))
}

/** Fills an empty spool from a backup, whole or not at all. Throws `bad-file`, or `bad-request` where something is there. */
export async function readBackup(database: Database, bytes: Uint8Array): Promise<number> {
  const lines = linesOf(bytes)
  const [first, ...rest] = lines
  const header = first as { format?: unknown; schema?: unknown } | undefined
  if (header?.format !== 'dripline-spool') throw new Fault('bad-file', 'This file is no backup of a spool.')
  if (header.schema !== MIGRATIONS.length)
    throw new Fault(
      'bad-file',
      `The backup was made by ${Number(header.schema) > MIGRATIONS.length ? 'a newer' : 'an older'} Dripline (schema ${String(header.schema)}; this one has ${MIGRATIONS.length}). Restore it with that one.`,
    )
  const rows = rest as { table: string; row: Record<string, unknown> }[]
  await database.transaction(async (tx) => {
    for (const table of ['deliveries', 'accounts', 'settings'])
      if ((await tx.query(`select 1 from ${table} limit 1`)).length)
        throw new Fault(
          'bad-request',
          'There is a spool in this data folder already. Restore into an empty one, so that nothing is lost.',
        )
    for (const { table, row } of rows) await insert(tx, table, row)
    for (const [table, column] of Object.entries(COUNTED))
      await tx.query(
        `select setval(pg_get_serial_sequence('${table}', '${column}'), greatest((select max(${column}) from ${table}), 1))`,
      )
  })
  return rows.length
}

function linesOf(bytes: Uint8Array): unknown[] {
  try {
    return gunzipSync(bytes)
      .toString('utf8')
      .split('\n')
      .filter(Boolean)
      .map((line) => JSON.parse(line) as unknown)
  } catch {
    throw new Fault('bad-file', 'This file is no backup of a spool, or it is broken off.')
  }
}

async function insert(tx: Queryable, table: string, row: Record<string, unknown>): Promise<void> {
  if (!TABLES.includes(table))
    throw new Fault('bad-file', `The backup names a table that is not known: ${table}.`)
  const columns = Object.keys(row)
  if (columns.some((c) => !/^[a-z_]+$/.test(c)))
    throw new Fault('bad-file', 'The backup names a column that is not known.')
  await tx.query(
    `insert into ${table} (${columns.join(', ')}) values (${columns.map((_, i) => `$${i + 1}`).join(', ')})`,
    columns.map((c) => (BYTES.has(c) ? Buffer.from(String(row[c]), 'base64') : (row[c] as Value))),
  )
}

function packed(row: Record<string, unknown>): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(row).map(([name, value]) => [
      name,
      BYTES.has(name)
        ? Buffer.from(value as Uint8Array).toString('base64')
        : typeof value === 'bigint'
          ? String(value)
          : value,
    ]),
  )
}
