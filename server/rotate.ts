import { resolve } from 'node:path'
import { asFault } from '../core/model'
import { openDatabase } from './store/database'
import { resealAll } from './store/resealing'
import { adoptNextKey, keysOf, nextKey, Secrets } from './store/secrets'

/*
 * npm run rotate-key: brings every secret under a new key, while the server is stopped. Broken off at any moment, either
 * key opens what it sealed, and the command may be given again. A key from the environment (DRIPLINE_KEY) is changed to
 * DRIPLINE_NEW_KEY.
 */

process.umask(0o077)
const folder = resolve(process.env['DATA_DIR'] ?? '.dripline')
const [given, fresh] = [process.env['DRIPLINE_KEY'], process.env['DRIPLINE_NEW_KEY']]
try {
  if (given && !fresh)
    throw new Error(
      'The key comes from DRIPLINE_KEY. Give the new one as DRIPLINE_NEW_KEY (32 bytes in base64).',
    )
  const database = await openDatabase({ url: process.env['DATABASE_URL'], folder })
  try {
    const next = given && fresh ? Buffer.from(fresh, 'base64') : nextKey(folder)
    const renewed = await resealAll(database, new Secrets([next, ...keysOf(folder, given)]))
    if (!given) adoptNextKey(folder)
    process.stdout.write(
      `${renewed} secrets are under a new key${given ? ': start the server with DRIPLINE_KEY set to it' : ''}.\n`,
    )
  } finally {
    await database.close()
  }
} catch (error) {
  process.stderr.write(`${asFault(error).message}\n`)
  process.exit(1)
}
