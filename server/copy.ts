import { readFileSync, writeFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { asFault } from '../core/model'
import { readBackup, writeBackup } from './store/backup'
import { openDatabase } from './store/database'

/*
 * npm run backup FILE and npm run restore FILE: the whole spool into one file and back, while the server is stopped
 * (on PostgreSQL also while it runs). The key that secrets are sealed under is kept apart: the file “key” in the data
 * folder, or DRIPLINE_KEY.
 */

process.umask(0o077)
const [, , what, file] = process.argv
const folder = resolve(process.env['DATA_DIR'] ?? '.dripline')
try {
  if (!file || (what !== 'backup' && what !== 'restore'))
    throw new Error('Say which file: npm run backup FILE, or npm run restore FILE.')
  const database = await openDatabase({ url: process.env['DATABASE_URL'], folder })
  try {
    if (what === 'backup') {
      const bytes = await writeBackup(database, new Date().toISOString())
      writeFileSync(file, bytes, { mode: 0o600 })
      process.stdout.write(
        `The spool is in ${file} (${bytes.length} bytes). Keep its key apart: it is not in there.\n`,
      )
    } else process.stdout.write(`${await readBackup(database, readFileSync(file))} rows were restored.\n`)
  } finally {
    await database.close()
  }
} catch (error) {
  process.stderr.write(`${asFault(error).message}\n`)
  process.exit(1)
}
