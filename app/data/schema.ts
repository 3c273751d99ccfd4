import type { IDBPDatabase } from 'idb'
import { TABLE_NAMES, type Row, type TableName } from '../../core/model'

/** One step of a migration, written as data so that it can be read, tested and replayed. */
export type Step =
  { do: 'create store'; store: string } | { do: 'create index'; store: string; index: string; path: string }

export interface Migration {
  version: number
  steps: readonly Step[]
}

const INDEXES: readonly [TableName, readonly string[]][] = [
  ['accounts', ['brand']],
  ['sources', ['brand']],
  ['pieces', ['brand', 'source']],
  ['passages', ['piece', 'brand']],
  ['pipelines', ['brand']],
  ['drips', ['brand', 'piece']],
  ['posts', ['brand', 'drip', 'account', 'piece', 'state']],
  ['receipts', ['brand', 'post']],
  ['changes', ['brand']],
]

/** Every migration there has been, oldest first. A store's key is its rows' `id`. */
export const MIGRATIONS: readonly Migration[] = [
  {
    version: 1,
    steps: [
      ...TABLE_NAMES.map((store): Step => ({ do: 'create store', store })),
      { do: 'create store', store: 'blobs' },
      ...INDEXES.flatMap(([store, names]) =>
        names.map((index): Step => ({ do: 'create index', store, index, path: index })),
      ),
    ],
  },
  // The folder for weekly bundles: a handle that only this browser understands, so no bundle has it.
  { version: 2, steps: [{ do: 'create store', store: 'handles' }] },
]

export const DATABASE_VERSION = Math.max(...MIGRATIONS.map((m) => m.version))

/** Shape of the database for idb's types. */
export type Schema = { [T in TableName]: { key: string; value: Row<T>; indexes: Record<string, string> } } & {
  blobs: { key: string; value: { id: string; blob: Blob }; indexes: Record<string, string> }
  handles: {
    key: string
    value: { id: string; handle: FileSystemDirectoryHandle }
    indexes: Record<string, string>
  }
}

/** Runs the migrations after `from`, up to `to`, within an upgrade transaction. */
export function migrate(
  database: IDBPDatabase<Schema>,
  transaction: { objectStore(name: string): unknown },
  from: number,
  to: number,
): void {
  const raw = database as unknown as IDBPDatabase
  for (const migration of MIGRATIONS.filter((m) => m.version > from && m.version <= to))
    for (const step of migration.steps) {
      if (step.do === 'create store') raw.createObjectStore(step.store, { keyPath: 'id' })
      else (transaction.objectStore(step.store) as IDBObjectStore).createIndex(step.index, step.path)
    }
}
