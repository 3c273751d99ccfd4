import { z } from 'zod'
import { Fault } from '../../core/model'
import type { Database } from '../store/database'

/**
 * What the server keeps of an outside service: its settings and its key. The key is written only;
 * nothing gives it back. Settings that come without a key keep the one there is, unless they lead
 * to another place, which must not get it.
 */
export class ServiceSettings<T extends z.ZodType<{ address: string }>> {
  readonly #database: Database
  readonly #name: string
  readonly #stored: z.ZodObject<{ settings: T; key: z.ZodString }>

  constructor(database: Database, name: string, settings: T) {
    this.#database = database
    this.#name = name
    this.#stored = z.object({ settings, key: z.string() })
  }

  async read(): Promise<{ settings: z.infer<T>; key: string } | null> {
    const [row] = await this.#database.query<{ value: string }>(`select value from settings where key = $1`, [
      this.#name,
    ])
    return row ? (this.#stored.parse(JSON.parse(row.value)) as { settings: z.infer<T>; key: string }) : null
  }

  async keep(settings: z.infer<T>, key: string | undefined): Promise<void> {
    const before = await this.read()
    const same = before && new URL(before.settings.address).origin === new URL(settings.address).origin
    const kept = key ?? (same ? before.key : '')
    mindKey(settings.address, kept)
    await this.#database.query(
      `insert into settings (key, value) values ($1, $2) on conflict (key) do update set value = excluded.value`,
      [this.#name, JSON.stringify({ settings, key: kept })],
    )
  }

  async forget(): Promise<void> {
    await this.#database.query(`delete from settings where key = $1`, [this.#name])
  }
}

/** Refuses to send a key in the clear to any machine but this one. */
export function mindKey(address: string, key: string): void {
  const { protocol, hostname } = new URL(address)
  const here = hostname === 'localhost' || hostname === '127.0.0.1' || hostname === '[::1]'
  if (key && protocol === 'http:' && !here)
    throw new Fault(
      'bad-request',
      'A key is sent over https only, except to this machine. Give an address that begins with https.',
      'address',
    )
}
