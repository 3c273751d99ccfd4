import { createHash, randomBytes } from 'node:crypto'
import type { Database } from './database'

/** How long who signed in stays so, in real milliseconds: thirty days. */
export const SESSION = 30 * 86_400_000

/** Who signed in. Only a hash of each session's token is kept, so that nobody signs in with what stands here. */
export class Sessions {
  readonly #database: Database

  constructor(database: Database) {
    this.#database = database
  }

  /** Begins a session and gives its token, 256 random bits. Those that are over are forgotten. */
  async begin(realNow: number): Promise<string> {
    const token = randomBytes(32).toString('base64url')
    await this.#database.query(`delete from sessions where until <= $1`, [realNow])
    await this.#database.query(`insert into sessions (hash, until) values ($1, $2)`, [
      hashOf(token),
      realNow + SESSION,
    ])
    return token
  }

  async has(token: string, realNow: number): Promise<boolean> {
    const found = await this.#database.query(`select 1 from sessions where hash = $1 and until > $2`, [
      hashOf(token),
      realNow,
    ])
    return found.length > 0
  }

  async end(token: string): Promise<void> {
    await this.#database.query(`delete from sessions where hash = $1`, [hashOf(token)])
  }
}

function hashOf(token: string): string {
  return createHash('sha256').update(token).digest('hex')
}
