import { accessSync, chmodSync, constants, mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import pg from 'pg'
import { Fault } from '../core/model'
import { lockFolder } from './lock'

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
  close(): Promise<void>
}

/** Every change of the schema there has been, oldest first; a database runs those it lacks. */
const MIGRATIONS = [
  `
create table if not exists settings (key text primary key, value text not null);
create table if not exists links (
  account text primary key, network text not null, remote_id text not null, handle text not null,
  name text not null, zone text not null, profile_url text not null, token text not null,
  state text not null, message text not null, since bigint not null, expires_at bigint
);
create table if not exists media (hash text primary key, type text not null, bytes bytea not null);
create table if not exists deliveries (
  post text not null, generation int not null, revision int not null, workspace text not null, account text not null,
  due_at bigint not null, gap_minutes int not null, payload text not null, state text not null,
  tries int not null default 0, next_try_at bigint not null, lease_until bigint not null default 0,
  lease_owner text not null default '', attempts text not null default '[]',
  published_at bigint, remote_id text, public_url text,
  finished_at bigint, reason text not null default '', visibility text,
  primary key (post, generation)
);
create index if not exists deliveries_work on deliveries (account, state, next_try_at);
create table if not exists receipts (cursor bigserial primary key, post text not null, body text not null);
`,
  `
create table if not exists writer_use (day text primary key, words bigint not null, questions int not null);
create table if not exists link_pages (brand text primary key, name text not null, links text not null);
`,
  `
create table if not exists calendars (
  brand text primary key, secret text not null unique, name text not null, entries text not null
);
`,
  `
create table if not exists messages (
  key text primary key, text text not null, at bigint not null, tries int not null default 0,
  next_try_at bigint not null, done_at bigint, reason text not null default ''
);
create index if not exists messages_waiting on messages (next_try_at) where done_at is null;
create table if not exists documents (
  id text primary key, secret text not null unique, kind text not null, title text not null,
  home text not null, items int not null, publications text not null
);
create table if not exists watched (
  source text primary key, url text not null, every_minutes int not null, etag text, last_modified text,
  hash text not null, next_at bigint not null, failures int not null
);
create table if not exists snapshots (id bigserial primary key, source text not null, at bigint not null, text text not null);
create index if not exists snapshots_source on snapshots (source, id);
create table if not exists trials (
  id text primary key, account text not null, payload text not null, begun_at bigint not null, remote_id text
);
`,
]

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
      try {
        await client.query('begin')
        const result = await work({ query: on(client) })
        await client.query('commit')
        return result
      } catch (error) {
        await client.query('rollback').catch(() => undefined)
        throw error
      } finally {
        client.release()
      }
    },
    close: () => pool.end(),
  }
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
  const lite = new PGlite(join(folder, 'spool'))
  try {
    await lite.waitReady
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
    close: async () => {
      await lite.close()
      await release()
    },
  }
}
