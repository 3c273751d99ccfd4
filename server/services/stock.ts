import { z } from 'zod'
import { Fault, StockSettings, type StockPage, type StockState } from '../../core/model'
import type { Settings } from '../store/settings'
import { callOutside, parseJson, waitOf } from '../outside'
import { ServiceSettings } from './settings'

const TIMEOUT = 10_000
const A_PAGE = 20

/** How a stock's interface is asked, and what its answers mean. Another kind of stock is another one of these. */
export interface StockForm {
  request(address: string, words: string, page: number): string
  /** Null for an answer in a form that is not understood. */
  read(answer: unknown): StockPage | null
}

const Answer = z.object({
  total: z.int().min(0),
  page: z.int().min(1),
  pages: z.int().min(0),
  collection: z.string().optional(),
  results: z.array(
    z.object({
      id: z.string(),
      title: z.string(),
      width: z.int().positive(),
      height: z.int().positive(),
      preview: z.url(),
      file: z.url(),
      page: z.url().nullish(),
      author: z.object({ name: z.string() }).nullish(),
      licence: z.object({ name: z.string(), attribution: z.boolean() }),
      collection: z.string().default(''),
    }),
  ),
})

/**
 * The form of the stand-in: `GET {address}/search?query=…&page=…&per_page=…` gives pages of pictures, each with its author and
 * licence and whether that asks for a credit.
 */
export const PLAIN_FORM: StockForm = {
  request: (address, words, page) =>
    `${address.replace(/\/+$/, '')}/search?${new URLSearchParams({ query: words, page: String(page), per_page: String(A_PAGE) }).toString()}`,
  read: (answer) => {
    const parsed = Answer.safeParse(answer)
    if (!parsed.success) return null
    const { total, page, pages, results } = parsed.data
    return {
      total,
      page,
      pages,
      pictures: results.map(({ page: about, author, licence, collection, id, title, ...rest }) => ({
        ...rest,
        id: id.slice(0, 200),
        title: title.slice(0, 400),
        credit: {
          author: (author?.name ?? '').slice(0, 120),
          from: collection.slice(0, 120),
          licence: licence.name.slice(0, 120),
          page: about ?? null,
          mustShow: licence.attribution,
        },
      })),
    }
  },
}

/** A stock of pictures over HTTP, in one form or another. Throws what went wrong, in words a person can act on. */
export class Stock {
  readonly #settings: ServiceSettings<typeof StockSettings>
  readonly #form: StockForm

  constructor(kept: Settings, form: StockForm = PLAIN_FORM) {
    this.#settings = new ServiceSettings(kept, 'stock', StockSettings)
    this.#form = form
  }

  state(): Promise<StockState> {
    return this.#settings.state()
  }

  async connect(settings: StockSettings, key: string | undefined): Promise<void> {
    await this.#settings.keep(settings, key)
  }

  async disconnect(): Promise<void> {
    await this.#settings.forget()
  }

  /** A page of the pictures that some words find; all of them, where there are no words. */
  async search(words: string, page: number): Promise<StockPage> {
    const kept = await this.#settings.read()
    if (!kept) throw new Fault('no-stock', 'No stock of pictures is connected. Connect one under Services.')
    const url = this.#form.request(kept.settings.address, words, page)
    const { host } = new URL(url)
    const response = await callOutside(
      url,
      { headers: kept.key ? { authorization: `Bearer ${kept.key}` } : {} },
      { milliseconds: TIMEOUT },
    ).catch(() => null)
    if (!response)
      throw new Fault('unreachable', `The stock at ${host} does not answer. Try again later.`, url)
    if (response.status === 401 || response.status === 403)
      throw new Fault(
        'not-linked',
        `The stock at ${host} does not accept the key. Give it anew under Services.`,
      )
    if (response.status === 429) {
      const seconds = waitOf(response.headers.get('retry-after'))
      throw new Fault(
        'too-many',
        `The stock at ${host} asks to be searched less often.${seconds ? ` Try again in ${seconds} seconds.` : ''}`,
      )
    }
    const found = response.ok ? this.#form.read(parseJson(response.text)) : null
    if (!found)
      throw new Fault(
        'bad-answer',
        `The stock at ${host} answered ${response.status} in a form that is not understood. Check its address.`,
      )
    return found
  }
}
