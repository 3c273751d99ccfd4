import { openDB, type IDBPDatabase } from 'idb'
import { DATABASE_VERSION, migrate, type Schema } from './schema'

const NAME = 'dripline'
let opened: Promise<IDBPDatabase<Schema>> | null = null

/** The workspace's database in this browser, opened once. */
export function database(): Promise<IDBPDatabase<Schema>> {
  opened ??= openDB<Schema>(NAME, DATABASE_VERSION, {
    upgrade: (db, from, to, transaction) => migrate(db, transaction as never, from, to ?? DATABASE_VERSION),
    blocking: (_current, _blocked, event) => {
      opened = null
      ;(event.target as IDBDatabase).close()
    },
    terminated: () => {
      opened = null
    },
  })
  return opened
}
