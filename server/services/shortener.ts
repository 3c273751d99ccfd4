import { z } from 'zod'
import { Fault, ShortenerSettings, ShortLink, type ShortenerState, type ToShorten } from '../../core/model'
import type { Settings } from '../store/settings'
import { callOutside, parseJson } from '../outside'
import { ServiceSettings } from './settings'

const TIMEOUT = 8_000

/**
 * A shortener over HTTP: `POST {address}` with `{ links: [{ url, key }] }` gives a short link for each, always the
 * same for the same address and key and another for another; `GET {address}?short=…` (repeated) gives how often they
 * were followed.
 */
export class Shortener {
  readonly #settings: ServiceSettings<typeof ShortenerSettings>

  constructor(kept: Settings) {
    this.#settings = new ServiceSettings(kept, 'shortener', ShortenerSettings)
  }

  state(): Promise<ShortenerState> {
    return this.#settings.state()
  }

  async connect(settings: ShortenerSettings, key: string | undefined): Promise<void> {
    await this.#settings.keep(settings, key)
  }

  async disconnect(): Promise<void> {
    await this.#settings.forget()
  }

  /** Short links for addresses, in their order. */
  shorten(links: readonly ToShorten[]): Promise<ShortLink[]> {
    return this.#call(
      (address) => [address, { method: 'POST', body: JSON.stringify({ links }) }],
      links.length,
    )
  }

  /** The same links with their clicks as they stand. */
  clicks(shorts: readonly string[]): Promise<ShortLink[]> {
    const query = new URLSearchParams(shorts.map((s) => ['short', s])).toString()
    return this.#call((address) => [`${address}?${query}`, {}], null)
  }

  async #call(
    request: (address: string) => [string, { method?: string; body?: string }],
    count: number | null,
  ): Promise<ShortLink[]> {
    const kept = await this.#settings.read()
    if (!kept) throw new Fault('no-shortener', 'No shortener is connected. Connect one under Services.')
    const [url, init] = request(kept.settings.address)
    const { host } = new URL(url)
    const response = await callOutside(
      url,
      {
        ...init,
        headers: {
          ...(init.body ? { 'content-type': 'application/json' } : {}),
          ...(kept.key ? { authorization: `Bearer ${kept.key}` } : {}),
        },
      },
      { milliseconds: TIMEOUT },
    ).catch(() => null)
    if (!response)
      throw new Fault(
        'unreachable',
        `The shortener at ${host} does not answer. Long links are used meanwhile.`,
      )
    if (response.status === 401 || response.status === 403)
      throw new Fault(
        'not-linked',
        `The shortener at ${host} does not accept the key. Give it anew under Services.`,
      )
    const answer = z.object({ links: z.array(ShortLink) }).safeParse(parseJson(response.text))
    if (!response.ok || !answer.success || (count !== null && answer.data.links.length !== count))
      throw new Fault(
        'bad-answer',
        `The shortener at ${host} answered ${response.status} in a form that is not understood. Check its address.`,
      )
    return answer.data.links
  }
}
