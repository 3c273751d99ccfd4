import useSWR, { mutate } from 'swr'
import {
  Fault,
  type LibraryPicture,
  type MakerOrder,
  type MakerSettings,
  type MakerState,
  type StockPage,
  type StockPicture,
  type StockSettings,
  type StockState,
} from '../../core/model'
import { takePicture } from './actions/library'
import { sourceBytes } from './actions/pictures'
import { call, get, post } from './api'

/* The outside services that pictures come from: a stock, and one that makes them to order. */

const STOCK = '/api/stock'
const MAKER = '/api/maker'

/** The connected stock of pictures; undefined while it is asked for. */
export function useStock(): StockState | undefined {
  return useSWR(STOCK, () => get<StockState>(STOCK)).data
}

export async function connectStock(settings: StockSettings, key?: string): Promise<void> {
  const body = { settings, ...(key ? { key } : {}) }
  await mutate(STOCK, await call<StockState>('PUT', STOCK, body), false)
}

export async function disconnectStock(): Promise<void> {
  await mutate(STOCK, await call<StockState>('DELETE', STOCK), false)
}

/** A page of the pictures that words find in the stock. */
export function searchStock(words: string, page: number): Promise<StockPage> {
  return post<StockPage>(`${STOCK}/search`, { words, page })
}

/** Takes a picture of the stock into the library of a brand, with its author and licence. */
export async function takeFromStock(
  brand: string,
  { title, file, credit }: StockPicture,
): Promise<LibraryPicture> {
  return takePicture(brand, await sourceBytes(file), { origin: 'stock', title, alt: title, credit })
}

/** The service that makes pictures to order; undefined while it is asked for. */
export function useMaker(): MakerState | undefined {
  return useSWR(MAKER, () => get<MakerState>(MAKER)).data
}

export async function connectMaker(settings: MakerSettings, key?: string): Promise<void> {
  const body = { settings, ...(key ? { key } : {}) }
  await mutate(MAKER, await call<MakerState>('PUT', MAKER, body), false)
}

export async function disconnectMaker(): Promise<void> {
  await mutate(MAKER, await call<MakerState>('DELETE', MAKER), false)
}

/** How often it is asked how an order stands, and after how long it is given up, in milliseconds. */
const ASKED = 700
const GIVEN_UP = 180_000

/**
 * Orders a picture in a size (pixels), waits until it is made, and takes it into the library of a brand. `signal` ends the
 * waiting. Throws what went wrong, in words a person can act on.
 */
export async function orderPicture(
  brand: string,
  words: string,
  size: { width: number; height: number },
  signal: AbortSignal,
): Promise<LibraryPicture> {
  const { id } = await post<{ id: string }>(`${MAKER}/orders`, { words, ...size }).finally(() =>
    mutate(MAKER),
  )
  const until = Date.now() + GIVEN_UP
  for (;;) {
    await new Promise((resolve) => setTimeout(resolve, ASKED))
    if (signal.aborted) throw new Fault('bad-request', 'The order was given up; what it cost is counted.')
    const { state, url, reason } = await get<MakerOrder>(`${MAKER}/orders/${encodeURIComponent(id)}`)
    if (state === 'failed')
      throw new Fault(
        'bad-answer',
        `The picture was not made. ${reason ?? 'Order it again, in other words.'}`,
      )
    if (state === 'ready' && url) {
      const title = words.replace(/\s+/g, ' ').slice(0, 80)
      return takePicture(brand, await sourceBytes(url), { origin: 'order', title })
    }
    if (Date.now() > until)
      throw new Fault('too-slow', 'The picture is not made after three minutes. Order it again later.')
  }
}
