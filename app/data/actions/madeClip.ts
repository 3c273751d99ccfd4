import { hasCode, type Look, type MediaSource, type Post, type PostMedia } from '../../../core/model'
import { clipBound, network } from '../../../core/networks'
import type { MadePicture } from '../../workers/blobs'
import type { ClipOrder } from '../../workers/cards'
import { cards, proxy } from '../../workers'
import { must } from '../store'
import { cardsFor } from './drawing'
import { asCut, filmOf } from './films'

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
  try {
    const drawing = await cardsFor(look)
    if (source.from === 'moving') {
      const order = clipOrder(source, shape, look, post.network, link)
      return await drawing.moving(order, maxBytes, id, proxy(far))
    }
    const { part, url } = source
    const film = await filmOf(url)
    if (!part) return await drawing.whole(film, maxBytes)
    return await drawing.cut({ film, part, shape, cut, look, maxBytes }, id, proxy(far))
  } catch (error) {
    throw asCut(error)
  } finally {
    signal?.removeEventListener('abort', stop)
  }
}
