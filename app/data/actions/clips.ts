import {
  drawnCard,
  Fault,
  HOOK_MOST,
  type Card,
  type Cut,
  type FilmPart,
  type Look,
  type MediaSource,
  type Post,
  type PostMedia,
} from '../../../core/model'
import { clipBound, network } from '../../../core/networks'
import type { MadePicture } from '../../workers/blobs'
import type { Cards, ClipOrder } from '../../workers/cards'
import { cards, heavy } from '../../workers'
import { must, one } from '../store'
import { showPictures } from './postPictures'

/** What a clip is made of. */
type Moving = MediaSource & { from: 'moving' }
type OfFilm = MediaSource & { from: 'film' }

/** What a moving card of a post is made of. */
export function clipOrder(source: Moving, shape: PostMedia['shape'], look: Look, id: string): ClipOrder {
  const { card, hook } = source
  return { card, hook, look, shape, bound: clipBound(network(id)) }
}

/** The address under which the server gives a film of the web in parts. */
export function filmAddress(url: string): string {
  return `/api/intake/film?url=${encodeURIComponent(url)}`
}

/** A clip of a post, made. Throws (`bad-answer`) with a sentence what cannot be cut out of its film. */
export async function madeClip(post: Post, media: PostMedia, source: Moving | OfFilm): Promise<MadePicture> {
  const { look } = await must('brands', post.brand)
  const { shape, cut = null } = media
  const { maxBytes } = network(post.network).media
  if (source.from === 'moving') return cards().film(clipOrder(source, shape, look, post.network), maxBytes)
  // A worker of this page asks the page's own server.
  const address = new URL(filmAddress(source.url), location.href).href
  const { part } = source
  try {
    return part
      ? await cards().cut({ address, part, shape, cut, look, maxBytes })
      : await cards().whole(address, maxBytes)
  } catch (error) {
    if (error instanceof Error && error.name === 'CannotCut') throw new Fault('bad-answer', error.message)
    throw error
  }
}

/** How long a moving card plays, in seconds. */
export async function clipLasts(order: ClipOrder): Promise<number> {
  return cards().lasts(order)
}

/** What a moving card shows at a moment, in seconds, so many pixels wide. */
export async function clipFrame(order: ClipOrder, at: number, width: number): Promise<ImageBitmap> {
  return cards().frame(order, at, width)
}

/** What stands about a part of a film, as an image element shows it, and where the film stands in it. */
export async function clipPlate(...asked: Parameters<Cards['plate']>) {
  const { svg, plate } = await cards().plate(...asked)
  return { url: URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' })), plate }
}

/** What is said over a plate, as an image element shows it. */
export async function clipSaid(...asked: Parameters<Cards['said']>): Promise<string> {
  return URL.createObjectURL(new Blob([await cards().said(...asked)], { type: 'image/svg+xml' }))
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
  const card = first ? drawnCard(first.source) : null
  if (!card) throw new Fault('bad-request', 'Only a card can move. Choose a card first.')
  return card
}

/** Changes the words that a post's clip opens with, or that stand over its film; none for it to have none. */
export async function changeHook(id: string, index: number, hook: string): Promise<void> {
  const words = hook.trim()
  if (words.length > HOOK_MOST)
    throw new Fault('bad-request', `A clip opens with at most ${HOOK_MOST} characters. Shorten them.`)
  await changeMedia(id, index, 'Change what a clip opens with', ({ source, ...media }) =>
    source.from === 'moving'
      ? { ...media, source: { ...source, hook: words } }
      : {
          ...media,
          source: source.from === 'film' && source.part ? partly(source, { hook: words }) : source,
        },
  )
}

/** Lets a part of a film fill its clip, about a part of it that is chosen, or stand whole in the brand's frame. */
export async function fillClip(id: string, index: number, filled: boolean, cut: Cut | null): Promise<void> {
  await changeMedia(
    id,
    index,
    filled ? 'Let a film fill its clip' : 'Frame a film',
    ({ cut: _, ...media }) => ({
      ...media,
      source: media.source.from === 'film' ? partly(media.source, { filled }) : media.source,
      ...(filled && cut ? { cut } : {}),
    }),
  )
}

/**
 * Lets a part of a film begin and end at other moments, in seconds of the film. Refuses (`bad-request`) what ends before it
 * begins, or is shorter or longer than the network takes clips.
 */
export async function moveClip(id: string, index: number, start: number, end: number): Promise<void> {
  const profile = network((await must('posts', id)).network)
  const { least, most } = clipBound(profile)
  if (!(start >= 0 && end > start))
    throw new Fault('bad-request', 'A clip ends after it begins. Give the later moment second.')
  if (end - start < least || end - start > most)
    throw new Fault(
      'bad-request',
      `This would be ${(end - start).toFixed(1)} s long; ${profile.name} takes clips of ${least} to ${most} s.`,
    )
  await changeMedia(id, index, 'Move the ends of a clip', ({ source, ...media }) => ({
    ...media,
    source: source.from === 'film' ? partly(source, { start, end }) : source,
  }))
}

/** Changes what is said below a film, a line each; an empty line shows nothing. Refuses more or fewer lines than there are. */
export async function changeSubtitles(id: string, index: number, lines: readonly string[]): Promise<void> {
  const source = (await must('posts', id)).media[index]?.source
  const before = source?.from === 'film' ? (source.part?.subtitles ?? []) : []
  if (lines.length !== before.length)
    throw new Fault(
      'bad-request',
      `There are ${before.length} subtitles, a line each, and these are ${lines.length} lines. Leave one empty that is not to be shown.`,
    )
  const subtitles = before.map((s, i) => ({ ...s, text: (lines[i] ?? '').trim() }))
  await changeMedia(id, index, 'Change subtitles', ({ source: of, ...media }) => ({
    ...media,
    source: of.from === 'film' ? partly(of, { subtitles }) : of,
  }))
}

function partly(source: OfFilm, by: Partial<FilmPart>): OfFilm {
  return source.part ? { ...source, part: { ...source.part, ...by } } : source
}

async function changeMedia(
  id: string,
  index: number,
  label: string,
  change: (media: PostMedia) => PostMedia,
): Promise<void> {
  const post = await must('posts', id)
  const media = post.media.map((m, i) => (i === index ? { ...change(m), hash: null } : m))
  await showPictures(id, media, label)
}
