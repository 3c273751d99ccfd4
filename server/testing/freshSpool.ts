import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, renameSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { openDatabase, type Database } from '../store/database'
import { openEmbedded } from '../store/embedded'

const PACKAGES = join(import.meta.dirname, '../../node_modules')
const CACHE = join(PACKAGES, '.cache/dripline')

/** Lays an empty spool into a data folder: a copy of one that is made once for all tests, since making one takes seconds. */
export async function layFreshSpool(folder: string): Promise<void> {
  const about = JSON.parse(readFileSync(join(PACKAGES, '@electric-sql/pglite/package.json'), 'utf8')) as {
    version: string
  }
  const made = join(CACHE, `spool-${about.version}`)
  if (!existsSync(made)) await make(made)
  mkdirSync(folder, { recursive: true })
  cpSync(made, join(folder, 'spool'), { recursive: true })
}

/** Opens the embedded database of a data folder that has none yet. */
export async function freshDatabase(folder: string): Promise<Database> {
  await layFreshSpool(folder)
  return openDatabase({ folder })
}

/** Several may make it at once: the first to be done gives it its name. */
async function make(path: string): Promise<void> {
  mkdirSync(CACHE, { recursive: true })
  const own = mkdtempSync(join(CACHE, 'making-'))
  const engine = await openEmbedded(join(own, 'spool'))
  await engine.close()
  if (!existsSync(path)) renameSync(join(own, 'spool'), path)
  rmSync(own, { recursive: true, force: true })
}
