import {
  Fault,
  HOOK_MOST,
  type Card,
  type Look,
  type MediaSource,
  type Post,
  type PostMedia,
} from '../../../core/model'
import { network } from '../../../core/networks'
import type { MadePicture } from '../../workers/blobs'
import type { ClipOrder } from '../../workers/cards'
import { cards, heavy } from '../../workers'
import { must, one } from '../store'
import { showPictures } from './postPictures'

/** A clip's source of a moving card. */
type Moving = MediaSource & { from: 'moving' }

/** What a moving card of a post is made of. */
export function clipOrder(source: Moving, shape: PostMedia['shape'], look: Look, id: string): ClipOrder {
  const { clip } = network(id).media
  const { card, hook } = source
  return { card, hook, look, shape, bound: { least: clip?.least ?? 1, most: clip?.most ?? 60 } }
}

/** The clip of a moving card of a post, made. */
export async function filmed(post: Post, { shape }: PostMedia, source: Moving): Promise<MadePicture> {
  const { look } = await must('brands', post.brand)
  return cards().film(clipOrder(source, shape, look, post.network), network(post.network).media.maxBytes)
}

/** How long a moving card plays, in seconds. */
export async function clipLasts(order: ClipOrder): Promise<number> {
  return cards().lasts(order)
}

/** What a moving card shows at a moment, in seconds, so many pixels wide. */
export async function clipFrame(order: ClipOrder, at: number, width: number): Promise<ImageBitmap> {
  return cards().frame(order, at, width)
}

/** Lets a post's card move: a clip takes the place of all its pictures. Refuses it where the network takes no clips. */
export async function letMove(id: string): Promise<void> {
  const post = await must('posts', id)
  const { name, media } = network(post.network)
  if (media.clips.most === 0) throw new Fault('bad-request', `${name} takes no clips.`)
  const title = post.piece ? ((await one('pieces', post.piece))?.title ?? '') : ''
  const clip = await heavy().clipMedia(firstCard(post), title, post.network)
  await showPictures(id, [clip], 'Let a card move')
}

/** Shows the card of a clip still again. Refuses it where the network takes no pictures. */
export async function keepStill(id: string): Promise<void> {
  const post = await must('posts', id)
  const { name, media } = network(post.network)
  if (media.pictures.most === 0) throw new Fault('bad-request', `${name} takes nothing but clips.`)
  const { look } = await must('brands', post.brand)
  const still = await heavy().cardPictures(firstCard(post), post.network, look.sign)
  await showPictures(id, still, 'Keep a card still')
}

function firstCard({ media: [first] }: Post): Card {
  if (!first || first.source.from === 'address')
    throw new Fault('bad-request', 'Only a card can move. Choose a card first.')
  return first.source.card
}

/** Changes the words that a post's clip opens with; none for it to begin with its card. */
export async function changeHook(id: string, index: number, hook: string): Promise<void> {
  const words = hook.trim()
  if (words.length > HOOK_MOST)
    throw new Fault('bad-request', `A clip opens with at most ${HOOK_MOST} characters. Shorten them.`)
  const post = await must('posts', id)
  const media = post.media.map((m, i): PostMedia =>
    i === index && m.source.from === 'moving'
      ? { ...m, source: { ...m.source, hook: words }, hash: null }
      : m,
  )
  await showPictures(id, media, 'Change what a clip opens with')
}
