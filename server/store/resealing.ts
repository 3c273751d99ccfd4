import type { Database } from './database'
import { isSealed, type Secrets } from './secrets'

/** Settings that prove something, by their names. */
const SEALED = ['writer', 'shortener', 'chat']

/**
 * Brings every secret under the present key, in one transaction: what lies in the clear, from before secrets were sealed,
 * and what another known key sealed. Gives how many there were.
 */
export async function resealAll(database: Database, secrets: Secrets): Promise<number> {
  const renew = (value: string): string | null => {
    if (secrets.isPresent(value)) return null
    return secrets.seal(isSealed(value) ? secrets.open(value) : value)
  }
  return database.transaction(async (tx) => {
    let renewed = 0
    for (const { account, secret } of await tx.query<{ account: string; secret: string }>(
      `select account, secret from accounts for update`,
    )) {
      const sealed = renew(secret)
      if (sealed === null) continue
      await tx.query(`update accounts set secret = $2 where account = $1`, [account, sealed])
      renewed++
    }
    for (const name of SEALED) {
      const [row] = await tx.query<{ value: string }>(`select value from settings where key = $1`, [name])
      const sealed = row ? renew(row.value) : null
      if (sealed === null) continue
      await tx.query(`update settings set value = $2 where key = $1`, [name, sealed])
      renewed++
    }
    return renewed
  })
}
