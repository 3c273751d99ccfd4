import useSWR, { mutate } from 'swr'
import {
  Fault,
  type ChatLine,
  type ChatMessage,
  type ChatSettings,
  type ChatState,
  type LibraryPicture,
  type MakerOrder,
  type MakerSettings,
  type MakerState,
  type PieceContent,
  type ShortLink,
  type ShortenerSettings,
  type ShortenerState,
  type StockPage,
  type StockPicture,
  type StockSettings,
  type StockState,
  type TagFigures,
  type WholePiece,
  type WriterAnswer,
  type WriterSettings,
  type WriterState,
} from '../../core/model'
import { SERVED } from '../../core/networks'
import { heavy } from '../workers'
import { takePicture } from './actions/library'
import { sourceBytes } from './actions/pictures'
import { call, get, post } from './api'

/* The outside services that the server speaks to: a connected writer, a shortener, the team chat, tag figures. */

const WRITER = '/api/writer'
const SHORTENER = '/api/shortener'
const STOCK = '/api/stock'
const MAKER = '/api/maker'
const CHAT = '/api/chat'

/** The connected writer and the words of today; undefined while it is asked for. */
export function useWriter(): WriterState | undefined {
  return useSWR(WRITER, () => get<WriterState>(WRITER)).data
}

export function useShortener(): ShortenerState | undefined {
  return useSWR(SHORTENER, () => get<ShortenerState>(SHORTENER)).data
}

/** Keeps how a writer is asked. Without a key the one there is stays; an empty one takes it away. */
export async function connectWriter(settings: WriterSettings, key?: string): Promise<void> {
  await mutate(WRITER, await call<WriterState>('PUT', WRITER, { settings, ...(key ? { key } : {}) }), false)
}

export async function disconnectWriter(): Promise<void> {
  await mutate(WRITER, await call<WriterState>('DELETE', WRITER), false)
}

/** One small question, to see that it answers. */
export async function tryWriter(): Promise<WriterAnswer> {
  try {
    return await post<WriterAnswer>(`${WRITER}/try`, {})
  } finally {
    await mutate(WRITER)
  }
}

/** Puts a question to the connected writer, through the server; `answers` is how many captions it is for. */
export function askWriter(messages: readonly ChatMessage[], answers = 1): Promise<WriterAnswer> {
  return post<WriterAnswer>(`${WRITER}/ask`, { messages, answers })
}

export async function connectShortener(settings: ShortenerSettings, key?: string): Promise<void> {
  const body = { settings, ...(key ? { key } : {}) }
  await mutate(SHORTENER, await call<ShortenerState>('PUT', SHORTENER, body), false)
}

export async function disconnectShortener(): Promise<void> {
  await mutate(SHORTENER, await call<ShortenerState>('DELETE', SHORTENER), false)
}

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

/** The connected team chat; undefined while it is asked for. */
export function useChat(): ChatState | undefined {
  return useSWR(CHAT, () => get<ChatState>(CHAT)).data
}

/** Connects a team chat by its secret address. */
export async function connectChat(settings: ChatSettings): Promise<void> {
  await mutate(CHAT, await call<ChatState>('PUT', CHAT, { settings }), false)
}

export async function disconnectChat(): Promise<void> {
  await mutate(CHAT, await call<ChatState>('DELETE', CHAT), false)
}

/** Says some lines in the team chat, each key once. */
export async function sayLines(messages: readonly ChatLine[]): Promise<void> {
  await post(`${CHAT}/messages`, { messages: messages.slice(0, 100) })
}

/** Says something in the team chat now; gives how it stands with the chat then. */
export async function sayInChat(key: string, text: string): Promise<ChatState> {
  const state = await post<ChatState>(`${CHAT}/messages`, { messages: [{ key, text }] })
  await mutate(CHAT, state, false)
  return state
}

/** Short links for addresses, by address. Throws where the shortener does not answer. */
export async function shortLinks(urls: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const { links } = await post<{ links: ShortLink[] }>(`${SHORTENER}/links`, { urls })
  return new Map(links.map((l, i) => [urls[i] ?? l.url, l.short]))
}

/** How often a short link was followed; null while that is not known. */
export function useClicks(short: string | null): number | null {
  const { data } = useSWR(
    short ? `${SHORTENER}/clicks ${short}` : null,
    () => post<{ links: ShortLink[] }>(`${SHORTENER}/clicks`, { links: [short] }),
    { shouldRetryOnError: false },
  )
  return data?.links.find((l) => l.short === short)?.clicks ?? null
}

/** How long figures are good for, in milliseconds. */
const FRESH = 3_600_000
const figures = new Map<string, { at: number; weekly: number | null }>()

/**
 * How often the hashtags of a piece are posted with on some networks. A network that tells nothing
 * is left out: tags are then chosen by the piece alone.
 */
export async function tagFiguresFor(
  piece: WholePiece,
  networks: readonly string[],
): Promise<Record<string, TagFigures>> {
  const tags = (await heavy().hashtags(piece as WholePiece & PieceContent)).slice(0, 40)
  const told: Record<string, TagFigures> = {}
  if (tags.length === 0) return told
  await Promise.all(
    [...new Set(networks)]
      .filter((id) => SERVED.some((n) => n.id === id))
      .map(async (id) => {
        const known = (tag: string) => {
          const figure = figures.get(`${id} ${tag}`)
          return figure && Date.now() - figure.at < FRESH ? figure : undefined
        }
        const unknown = tags.filter((t) => !known(t))
        if (unknown.length) {
          const answer = await post<{ figures: TagFigures }>(`/api/networks/${id}/tags`, {
            tags: unknown,
          }).catch(() => null)
          for (const tag of unknown)
            figures.set(`${id} ${tag}`, { at: Date.now(), weekly: answer?.figures[tag] ?? null })
        }
        told[id] = Object.fromEntries(
          tags.flatMap((t) => {
            const weekly = known(t)?.weekly
            return weekly === null || weekly === undefined ? [] : [[t, weekly]]
          }),
        )
      }),
  )
  return told
}
