import { Following, type FollowingPage } from '../../core/model'
import { toWall } from '../../core/planning'
import type { Followers } from '../networks/connector'
import type { Accounts } from './accounts'
import { written } from './deliveries'
import type { Database } from './database'
import { Outbox } from './outbox'

/** How many follow the accounts, kept until the app has it. */
export class Followings {
  readonly #database: Database
  readonly #accounts: Accounts
  readonly #outbox: Outbox<typeof Following>

  constructor(database: Database, accounts: Accounts) {
    this.#database = database
    this.#accounts = accounts
    this.#outbox = new Outbox(database, 'followings', Following)
  }

  /** Keeps what a network said of the login of an account: of each of its accounts that is linked here, under the day in its zone. */
  async keep(account: string, followers: Followers, now: number): Promise<void> {
    const all = await this.#accounts.all()
    const asked = all.find((a) => a.id === account)
    const followings = all
      .filter(
        (a) =>
          a.network === asked?.network && a.connector === asked.connector && a.remoteId === asked.remoteId,
      )
      .flatMap(({ id, zone, target }): Following[] => {
        const count = target === null ? followers.own : followers.places[target.id]
        const day = toWall(now, zone).date
        return count == null
          ? []
          : [
              {
                id: `${id}:${day}`,
                account: id,
                day,
                takenAt: new Date(now).toISOString(),
                followers: count,
              },
            ]
      })
    if (followings.length === 0) return
    await this.#database.query(
      `insert into followings (body) select r.body from json_to_recordset($1::json) as r(body text)`,
      [written(followings.map((f) => ({ body: written(f) })))],
    )
  }

  /** Followings after a cursor, the oldest first. */
  async page(after: number, limit = 500): Promise<FollowingPage> {
    const { cursor, items: followings } = await this.#outbox.after(after, limit)
    return { cursor, followings }
  }

  /** Forgets followings up to a cursor: the app has them. */
  acknowledge(cursor: number): Promise<void> {
    return this.#outbox.acknowledge(cursor)
  }
}
