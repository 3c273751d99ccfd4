import type { Database } from './database'

/** Every table that holds what a person would miss, in an order in which they may be filled. */
export const TABLES: readonly string[] = [
  'settings',
  'accounts',
  'uploads',
  'media',
  'deliveries',
  'receipts',
  'readings',
  'followings',
  'writer_use',
  'maker_use',
  'link_pages',
  'calendars',
  'messages',
  'documents',
  'watched',
  'snapshots',
  'trials',
]

/** What only matters while something is under way. */
const PASSING = ['authorisations', 'rates']

/** Empties the spool: nothing was ever linked, handed over or said. Who has signed in stays so. */
export async function emptyTables(database: Database): Promise<void> {
  await database.transaction(async (tx) => {
    for (const table of [...TABLES, ...PASSING]) await tx.query(`delete from ${table}`)
  })
}
