import { Fault } from '../core/model'
import type { Database } from './store/database'

/** Milliseconds since 1970 as the whole of Dripline sees them. No business rule reads another clock. */
export class Clock {
  #offset = 0
  readonly #database: () => Database
  readonly demo: boolean

  constructor(demo: boolean, database: () => Database) {
    this.demo = demo
    this.#database = database
  }

  get offset(): number {
    return this.#offset
  }

  now(): number {
    return Date.now() + this.#offset
  }

  /** Reads the persisted offset; in demo mode only there is one. */
  async load(): Promise<void> {
    if (!this.demo) return
    const [row] = await this.#database().query<{ value: string }>(
      `select value from settings where key = 'clock-offset'`,
    )
    this.#offset = row ? Number(row.value) : 0
  }

  /** Moves the clock forward to a moment. It never goes back. */
  async moveTo(moment: number): Promise<void> {
    if (!this.demo) throw new Fault('not-demo', 'The clock can be moved in the demo only.')
    const ahead = moment - this.now()
    if (ahead > 400 * 86_400_000)
      throw new Fault('bad-request', 'The clock moves at most 400 days at once.', 'to')
    if (ahead <= 0) return
    const offset = Math.ceil(this.#offset + ahead)
    await this.#database().query(
      `insert into settings (key, value) values ('clock-offset', $1) on conflict (key) do update set value = excluded.value`,
      [String(offset)],
    )
    this.#offset = offset
  }
}
