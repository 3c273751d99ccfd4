import useSWR, { mutate } from 'swr'
import type {
  ChatLine,
  ChatMessage,
  ChatSettings,
  ChatState,
  PieceContent,
  ShortLink,
  ToShorten,
  ShortenerSettings,
  ShortenerState,
  TagFigures,
  WholePiece,
  WriterAnswer,
  WriterSettings,
  WriterState,
} from '../../core/model'
import { SERVED } from '../../core/networks'
import { heavy } from '../workers'
import { call, get, post } from './api'

/* The outside services that the server speaks to: a connected writer, a shortener, the team chat, tag figures. */

const WRITER = '/api/writer'
const SHORTENER = '/api/shortener'
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

/** Short links, in order. Throws where the shortener does not answer. */
export async function shortLinks(links: readonly ToShorten[]): Promise<string[]> {
  const made = await post<{ links: ShortLink[] }>(`${SHORTENER}/links`, { links })
  return made.links.map((l) => l.short)
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
