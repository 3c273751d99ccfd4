import { z } from 'zod'
import { Fault, MakerSettings, type MakerOrder, type MakerState } from '../../core/model'
import type { Database } from '../store/database'
import { MakerUse } from '../store/makerUse'
import type { Settings } from '../store/settings'
import { callOutside, parseJson, waitOf, type Answer } from '../outside'
import { ServiceSettings } from './settings'

const TIMEOUT = 15_000

const Taken = z.object({ id: z.string().min(1).max(200) })
const Standing = z.object({
  state: z.enum(['waiting', 'ready', 'failed']),
  url: z.url().nullish(),
  reason: z.string().nullish(),
})
const Refusal = z.object({ error: z.object({ reason: z.string() }) })

/**
 * A service that makes pictures to order, over HTTP: `POST {address}/pictures` with a prompt and a size gives an id, `GET
 * {address}/pictures/{id}` says how it stands and, once it is ready, where it lies. The orders of a day are counted, and no more
 * are sent than its budget allows. Throws what went wrong, in words a person can act on.
 */
export class PictureMaker {
  readonly #settings: ServiceSettings<typeof MakerSettings>
  readonly #use: MakerUse
  readonly #now: () => number

  constructor(database: Database, kept: Settings, now: () => number) {
    this.#settings = new ServiceSettings(kept, 'maker', MakerSettings)
    this.#use = new MakerUse(database)
    this.#now = now
  }

  async state(): Promise<MakerState> {
    const day = this.#day()
    return {
      ...(await this.#settings.state()),
      day,
      pictures: await this.#use.of(day),
    }
  }

  async connect(settings: MakerSettings, key: string | undefined): Promise<void> {
    await this.#settings.keep(settings, key)
  }

  async disconnect(): Promise<void> {
    await this.#settings.forget()
  }

  /** Orders a picture; `size` is in pixels. Gives the order's id. */
  async order(prompt: string, size: { width: number; height: number }): Promise<string> {
    const { settings, key } = await this.#connected()
    if (!(await this.#use.take(this.#day(), settings.dailyPictures)))
      throw new Fault(
        'over-budget',
        `The budget of ${settings.dailyPictures} pictures for today is spent. Raise it under Services, or go on tomorrow.`,
      )
    const answer = await this.#call('/pictures', settings.address, key, {
      method: 'POST',
      body: JSON.stringify({ prompt, ...size }),
    })
    return this.#read(answer, settings.address, Taken).id
  }

  /** How an order stands. */
  async standing(id: string): Promise<MakerOrder> {
    const { settings, key } = await this.#connected()
    const answer = await this.#call(`/pictures/${encodeURIComponent(id)}`, settings.address, key, {})
    if (answer.status === 404)
      return {
        state: 'failed',
        url: null,
        reason: 'The service knows nothing of this order any more. Order it again.',
      }
    const { state, url = null, reason = null } = this.#read(answer, settings.address, Standing)
    if (state === 'ready' && !url)
      return {
        state: 'failed',
        url: null,
        reason: 'The service made a picture and does not say where it lies.',
      }
    return { state, url: url ?? null, reason: reason?.slice(0, 300) ?? null }
  }

  async #connected() {
    const kept = await this.#settings.read()
    if (!kept)
      throw new Fault('no-maker', 'No service that makes pictures is connected. Connect one under Services.')
    return kept
  }

  async #call(
    path: string,
    address: string,
    key: string,
    init: { method?: string; body?: string },
  ): Promise<Answer> {
    const { host } = new URL(address)
    const answer = await callOutside(
      `${address.replace(/\/+$/, '')}${path}`,
      {
        ...init,
        headers: {
          ...(init.body ? { 'content-type': 'application/json' } : {}),
          ...(key ? { authorization: `Bearer ${key}` } : {}),
        },
      },
      { milliseconds: TIMEOUT },
    ).catch(() => null)
    if (!answer)
      throw new Fault(
        'unreachable',
        `The service that makes pictures at ${host} does not answer. Try again later.`,
        address,
      )
    if (answer.status === 401 || answer.status === 403)
      throw new Fault(
        'not-linked',
        `The service that makes pictures at ${host} does not accept the key. Give it anew under Services.`,
      )
    if (answer.status === 429) {
      const seconds = waitOf(answer.headers.get('retry-after'))
      throw new Fault(
        'too-many',
        `The service that makes pictures at ${host} asks for fewer orders.${seconds ? ` Try again in ${seconds} seconds.` : ''}`,
      )
    }
    return answer
  }

  #read<T extends z.ZodType>(answer: Answer, address: string, form: T): z.infer<T> {
    const parsed = parseJson(answer.text)
    const read = form.safeParse(parsed)
    if (answer.ok && read.success) return read.data
    const reason = Refusal.safeParse(parsed).data?.error.reason.slice(0, 300)
    throw new Fault(
      'bad-answer',
      `The service that makes pictures at ${new URL(address).host} answered ${answer.status}${reason ? `: ${reason}` : ' in a form that is not understood. Check its address.'}`,
    )
  }

  #day(): string {
    return new Date(this.#now()).toISOString().slice(0, 10)
  }
}
