import { accessSync, chmodSync, constants, mkdirSync } from 'node:fs'
import { join } from 'node:path'
import type { PGlite } from '@electric-sql/pglite'
import pg from 'pg'
import { Fault } from '../../core/model'
import { openEmbedded } from './embedded'
import { lockFolder } from './lock'
import { MIGRATIONS } from './migrations'
import { log } from '../log'

/** Values that both engines take as parameters. */
export type Value = string | number | boolean | null | Uint8Array

/** Runs one statement and gives its rows. */
export interface Queryable {
  query<R = Record<string, unknown>>(text: string, values?: readonly Value[]): Promise<R[]>
}

/** The spool's database: PGlite in a folder, or PostgreSQL. Same statements, same tests. */
export interface Database extends Queryable {
  engine: 'pglite' | 'postgres'
  transaction<T>(work: (tx: Queryable) => Promise<T>): Promise<T>
  /** What pg-boss wants of its `db` option. Parameterless text may hold several statements. */
  executeSql(text: string, values?: unknown[]): Promise<{ rows: unknown[] }>
  /**
   * Clears away what changed rows left behind and counts anew, so that what is looked for is found as fast as before.
   * PostgreSQL does it by itself; the embedded engine has nobody for it.
   */
  tidy(): Promise<void>
  close(): Promise<void>
}

/**
 * Opens the database and brings its schema up. A folder belongs to one process: two on one PGlite
 * folder silently lose rows, so it is locked (`lockFolder`).
 */
export async function openDatabase(options: { url?: string | undefined; folder: string }): Promise<Database> {
  const database = options.url ? openPostgres(options.url) : await openPglite(options.folder)
  await migrate(database)
  return database
}

/** Brings the schema up, one server at a time where several share a database. */
async function migrate(database: Database): Promise<void> {
  await database.executeSql(`create table if not exists schema_version (version int primary key)`)
  const [row] = await database.query<{ version: number | null }>(
    `select max(version) as version from schema_version`,
  )
  for (const [index, sql] of MIGRATIONS.entries()) {
    if (index < (row?.version ?? 0)) continue
    await database.executeSql(sql)
    await database.query(`insert into schema_version (version) values ($1) on conflict do nothing`, [
      index + 1,
    ])
  }
}

function openPostgres(url: string): Database {
  const pool = new pg.Pool({ connectionString: url, max: 8 })
  // A connection that breaks while nobody uses it is replaced by the next that is asked for.
  pool.on('error', broke)
  const on =
    (client: pg.Pool | pg.PoolClient): Queryable['query'] =>
    async <R>(text: string, values: readonly Value[] = []) =>
      (await client.query(text, values.map(toBuffer))).rows as R[]
  return {
    engine: 'postgres',
    query: on(pool),
    executeSql: async (text, values) => {
      const result = (await (values?.length ? pool.query(text, values) : pool.query(text))) as
        pg.QueryResult | pg.QueryResult[]
      return { rows: Array.isArray(result) ? result.flatMap((r) => r.rows as unknown[]) : result.rows }
    },
    transaction: async (work) => {
      const client = await pool.connect()
      // The statement that is under way hears of it, too.
      client.on('error', broke)
      try {
        await client.query('begin')
        const result = await work({ query: on(client) })
        await client.query('commit')
        return result
      } catch (error) {
        await client.query('rollback').catch(() => undefined)
        throw error
      } finally {
        client.off('error', broke)
        client.release()
      }
    },
    tidy: () => Promise.resolve(),
    close: () => pool.end(),
  }
}

function broke(error: Error): void {
  log.warn({ err: error }, 'A connection to the database broke.')
}

function toBuffer(value: Value): Value | Buffer {
  return value instanceof Uint8Array ? Buffer.from(value) : value
}

async function openPglite(folder: string): Promise<Database> {
  try {
    mkdirSync(folder, { recursive: true })
    // Whoever made the folder: what is in it is nobody else's to read.
    chmodSync(folder, 0o700)
    accessSync(folder, constants.W_OK)
  } catch {
    throw new Fault(
      'not-ready',
      `The data folder ${folder} cannot be written. Give it to the user who runs the server, or set DATA_DIR to another one.`,
      folder,
    )
  }
  const release = await lockFolder(folder)
  let lite: PGlite
  try {
    lite = await openEmbedded(join(folder, 'spool'))
  } catch (error) {
    await release()
    throw error
  }
  return {
    engine: 'pglite',
    query: async <R>(text: string, values: readonly Value[] = []) =>
      (await lite.query<R>(text, [...values])).rows,
    executeSql: async (text, values) => {
      if (values?.length) return lite.query(text, values)
      const results = await lite.exec(text)
      return { rows: results.flatMap((r) => r.rows as unknown[]) }
    },
    transaction: (work) =>
      lite.transaction((tx) =>
        work({
          query: async <R>(text: string, values: readonly Value[] = []) =>
            (await tx.query<R>(text, [...values])).rows,
        }),
      ),
    tidy: async () => {
      // Each by itself: it cannot run in a transaction, which several statements together are.
      for (const table of ['deliveries', 'receipts', 'rates']) await lite.exec(`vacuum analyze ${table}`)
    },
    close: async () => {
      await lite.close()
      await release()
    },
  }
}
