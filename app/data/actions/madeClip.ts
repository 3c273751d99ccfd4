import { Fault, hasCode, type Look, type MediaSource, type Post, type PostMedia } from '../../../core/model'
import { clipBound, network } from '../../../core/networks'
import type { MadePicture } from '../../workers/blobs'
import type { ClipOrder } from '../../workers/cards'
import { cards, proxy } from '../../workers'
import { must } from '../store'
import { cardsFor } from './drawing'

/** What a clip is made of. */
type Moving = MediaSource & { from: 'moving' }
export type OfFilm = MediaSource & { from: 'film' }

/** What a moving card of a post on a network is made of; `link` is what a code on it leads to. */
export function clipOrder(
  source: Moving,
  shape: PostMedia['shape'],
  look: Look,
  networkId: string,
  link: string | null,
): ClipOrder {
  const { card, hook } = source
  const bound = clipBound(network(networkId))
  return { card, hook, look, shape, bound, link: hasCode(card) ? link : null }
}

/** The address under which the server gives a film of the web in parts. */
export function filmAddress(url: string): string {
  return `/api/intake/film?url=${encodeURIComponent(url)}`
}

/** What is told of pictures and clips while they are made, a part of 1, and what stops it. */
export interface Making {
  far?: (part: number) => void
  signal?: AbortSignal
}

let asked = 0

/**
 * A clip of a post, made; `link` is what a code on it leads to. Throws (`bad-answer`) with a sentence what cannot be cut out of
 * its film or was stopped.
 */
export async function madeClip(
  post: Post,
  media: PostMedia,
  source: Moving | OfFilm,
  link: string | null,
  { far = () => undefined, signal }: Making,
): Promise<MadePicture> {
  const id = ++asked
  const stop = (): void => void cards().stop(id)
  signal?.addEventListener('abort', stop)
  if (signal?.aborted) stop()
  const { look } = await must('brands', post.brand)
  const { shape, cut = null } = media
  const { maxBytes } = network(post.network).media
  // A worker of this page asks the page's own server.
  const addressOf = (url: string): string => new URL(filmAddress(url), location.href).href
  try {
    const drawing = await cardsFor(look)
    if (source.from === 'moving') {
      const order = clipOrder(source, shape, look, post.network, link)
      return await drawing.moving(order, maxBytes, id, proxy(far))
    }
    const { part, url } = source
    if (!part) return await drawing.whole(addressOf(url), maxBytes)
    const order = { address: addressOf(url), part, shape, cut, look, maxBytes }
    return await drawing.cut(order, id, proxy(far))
  } catch (error) {
    if (error instanceof Error && error.name === 'CannotCut') throw new Fault('bad-answer', error.message)
    throw error
  } finally {
    signal?.removeEventListener('abort', stop)
  }
}
