import { z } from 'zod'
import { Fault } from '../../core/model'
import type { Settings } from '../store/settings'

/**
 * What the server keeps of an outside service: its settings and its key. The key is written only;
 * nothing gives it back, and all of it lies sealed. Settings that come without a key keep the one there is, unless they lead
 * to another place, which must not get it.
 */
export class ServiceSettings<T extends z.ZodType<{ address: string }>> {
  readonly #kept: Settings
  readonly #name: string
  readonly #stored: z.ZodObject<{ settings: T; key: z.ZodString }>

  constructor(kept: Settings, name: string, settings: T) {
    this.#kept = kept
    this.#name = name
    this.#stored = z.object({ settings, key: z.string() })
  }

  async read(): Promise<{ settings: z.infer<T>; key: string } | null> {
    const value = await this.#kept.readSealed(this.#name)
    return value === null
      ? null
      : (this.#stored.parse(JSON.parse(value)) as { settings: z.infer<T>; key: string })
  }

  /** What may be told of it: its settings, and whether there is a key. */
  async state(): Promise<{ settings: z.infer<T> | null; hasKey: boolean }> {
    const kept = await this.read()
    return { settings: kept?.settings ?? null, hasKey: Boolean(kept?.key) }
  }

  async keep(settings: z.infer<T>, key: string | undefined): Promise<void> {
    const before = await this.read()
    const same = before && new URL(before.settings.address).origin === new URL(settings.address).origin
    const kept = key ?? (same ? before.key : '')
    mindKey(settings.address, kept)
    await this.#kept.keepSealed(this.#name, JSON.stringify({ settings, key: kept }))
  }

  async forget(): Promise<void> {
    await this.#kept.forget(this.#name)
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
