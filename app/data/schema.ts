import type { IDBPDatabase } from 'idb'
import { upgradeRows, type RawRows } from '../../core/formats'
import type { Row, TableName } from '../../core/model'
import type { KeptColumns } from '../../core/results'

/** One step of a migration, written as data so that it can be read, tested and replayed. */
export type Step =
  | { do: 'create store'; store: string }
  | { do: 'create index'; store: string; index: string; path: string }
  /** Rewrites the rows of these stores as the schema of bundles does (core/formats/upgrade.ts). */
  | { do: 'upgrade rows'; stores: readonly string[]; from: number; to: number }

export interface Migration {
  version: number
  steps: readonly Step[]
}

/** The tables of the first version; later ones come with their own migration. */
const FIRST = [
  ['workspace', []],
  ['brands', []],
  ['accounts', ['brand']],
  ['sources', ['brand']],
  ['pieces', ['brand', 'source']],
  ['passages', ['piece', 'brand']],
  ['pipelines', ['brand']],
  ['drips', ['brand', 'piece']],
  ['posts', ['brand', 'drip', 'account', 'piece', 'state']],
  ['receipts', ['brand', 'post']],
  ['changes', ['brand']],
  ['media', []],
] as const

/** Words apart from pieces, sketches for doubles, rows of content sheets, word lists. */
const INTAKE = [
  ['texts', ['piece', 'brand']],
  ['sketches', ['brand']],
  ['sheetRows', ['source', 'brand']],
  ['wordLists', ['brand']],
] as const

const create = (stores: readonly (readonly [string, readonly string[]])[]): Step[] =>
  stores.flatMap(([store, indexes]) => [
    { do: 'create store', store },
    ...indexes.map((index): Step => ({ do: 'create index', store, index, path: index })),
  ])

/** Every migration there has been, oldest first. A store's key is its rows' `id`. */
export const MIGRATIONS: readonly Migration[] = [
  { version: 1, steps: [...create(FIRST), { do: 'create store', store: 'blobs' }] },
  // The folder for weekly bundles: a handle that only this browser understands, so no bundle has it.
  { version: 2, steps: [{ do: 'create store', store: 'handles' }] },
  {
    version: 3,
    steps: [
      ...create(INTAKE),
      {
        do: 'upgrade rows',
        stores: ['pieces', 'sources', 'pipelines', 'posts', 'drips', ...INTAKE.map(([name]) => name)],
        from: 1,
        to: 2,
      },
    ],
  },
  // Voices, briefs, and captions with titles, parts and tags.
  { version: 4, steps: [{ do: 'upgrade rows', stores: ['brands', 'posts'], from: 2, to: 3 }] },
  // Who wrote a caption, short links, and looking at the pages that links lead to.
  { version: 5, steps: [{ do: 'upgrade rows', stores: ['brands', 'posts', 'pieces'], from: 3, to: 4 }] },
  // First and last days, warm-up, run windows, and what the planner's soft rules count.
  {
    version: 6,
    steps: [
      {
        do: 'upgrade rows',
        stores: ['brands', 'accounts', 'pipelines', 'drips', 'posts', 'pieces'],
        from: 4,
        to: 5,
      },
    ],
  },
  // Recurring posts, groups of accounts, and the end of what was begun.
  {
    version: 7,
    steps: [
      ...create([['recurrences', ['brand']]]),
      {
        do: 'upgrade rows',
        stores: ['brands', 'accounts', 'pipelines', 'drips', 'posts'],
        from: 5,
        to: 6,
      },
    ],
  },
  // Captions without glue: closing lines with conditions, no opener of ours.
  { version: 8, steps: [{ do: 'upgrade rows', stores: ['brands', 'posts'], from: 6, to: 7 }] },
  // Pipelines of rows: what each takes in, makes and releases, and what came of its runs; remarks on posts.
  {
    version: 9,
    steps: [
      ...create([['runs', ['brand', 'pipeline']]]),
      { do: 'upgrade rows', stores: ['pipelines', 'drips', 'posts', 'runs'], from: 7, to: 8 },
    ],
  },
  // What follows a pipeline's work, pieces that pipelines hand on, and notices.
  {
    version: 10,
    steps: [
      { do: 'upgrade rows', stores: ['workspace', 'pipelines', 'pieces', 'drips', 'posts'], from: 8, to: 9 },
    ],
  },
  // Accounts by several connectors, and places of a login.
  { version: 11, steps: [{ do: 'upgrade rows', stores: ['accounts'], from: 9, to: 10 }] },
  // What readers do with published posts.
  {
    version: 12,
    steps: [
      ...create([['readings', ['brand', 'post']]]),
      { do: 'upgrade rows', stores: ['workspace'], from: 10, to: 11 },
    ],
  },
  // Several pictures to a post, and cards in a brand's look.
  { version: 13, steps: [{ do: 'upgrade rows', stores: ['posts', 'brands'], from: 11, to: 12 }] },
  // A library of pictures.
  {
    version: 14,
    steps: [
      ...create([['pictures', ['brand']]]),
      { do: 'upgrade rows', stores: ['pictures'], from: 12, to: 13 },
    ],
  },
  // Days of the year worth a post.
  {
    version: 15,
    steps: [
      ...create([['occasions', ['brand']]]),
      { do: 'upgrade rows', stores: ['occasions'], from: 13, to: 14 },
    ],
  },
  // How many follow each account; readings by when they were taken.
  {
    version: 16,
    steps: [
      ...create([['followings', ['brand']]]),
      { do: 'create index', store: 'readings', index: 'takenAt', path: 'takenAt' },
      { do: 'upgrade rows', stores: ['workspace', 'followings'], from: 14, to: 15 },
    ],
  },
  // Readings of a brand in columns: made of the readings, so no bundle has them.
  { version: 17, steps: [{ do: 'create store', store: 'columns' }] },
]

/** The fields of a table's records by which it can be read. */
export function indexesOf(table: TableName): readonly string[] {
  return INDEXES.get(table) ?? []
}
const INDEXES = new Map<string, string[]>()
for (const step of MIGRATIONS.flatMap((m) => m.steps))
  if (step.do === 'create index') INDEXES.set(step.store, [...(INDEXES.get(step.store) ?? []), step.path])

export const DATABASE_VERSION = Math.max(...MIGRATIONS.map((m) => m.version))

/** Shape of the database for idb's types. */
export type Schema = { [T in TableName]: { key: string; value: Row<T>; indexes: Record<string, string> } } & {
  blobs: { key: string; value: { id: string; blob: Blob }; indexes: Record<string, string> }
  handles: {
    key: string
    value: { id: string; handle: FileSystemDirectoryHandle }
    indexes: Record<string, string>
  }
  columns: { key: string; value: KeptColumns; indexes: Record<string, string> }
}

/** Runs the migrations after `from`, up to `to`, within an upgrade transaction. */
export async function migrate(
  database: IDBPDatabase<Schema>,
  transaction: { objectStore(name: string): unknown },
  from: number,
  to: number,
): Promise<void> {
  const raw = database as unknown as IDBPDatabase
  const store = (name: string) => transaction.objectStore(name) as RawStore
  for (const migration of MIGRATIONS.filter((m) => m.version > from && m.version <= to))
    for (const step of migration.steps) {
      if (step.do === 'create store') raw.createObjectStore(step.store, { keyPath: 'id' })
      else if (step.do === 'create index') store(step.store).createIndex(step.index, step.path)
      else {
        const rows: RawRows = {}
        for (const name of step.stores) rows[name] = await store(name).getAll()
        const upgraded = upgradeRows(rows, step.from, step.to)
        for (const name of step.stores) for (const row of upgraded[name] ?? []) await store(name).put(row)
      }
    }
}

interface RawStore {
  createIndex(name: string, path: string): void
  getAll(): Promise<RawRows[string]>
  put(row: unknown): Promise<unknown>
}
