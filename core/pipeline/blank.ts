import {
  alikeIn,
  isWholeFilm,
  cardAlt,
  HOOK_MOST,
  isClip,
  type Account,
  type Brand,
  type Card,
  type Layout,
  type Make,
  type Piece,
  type Post,
  type PostMedia,
  type WholePiece,
} from '../model'
import { chooseShape, clipBound, network, shownOn, type NetworkProfile, type Shape } from '../networks'
import { filmPartOf, proposedAlt, slidesOf } from '../pictures'
import { chapterLines } from '../setting'

/** What tells one new post from another. */
type Given = Pick<Post, 'id' | 'brand' | 'wording' | 'wished'> & Partial<Post>

/** A post as it is before anything was done with it: without a place, a draft, for one account. */
export function blankPost(account: Pick<Account, 'id' | 'network'>, given: Given): Post {
  return {
    drip: null,
    pipeline: null,
    piece: null,
    pieceRevision: 1,
    beat: 0,
    recurrence: null,
    occurrence: null,
    account: account.id,
    network: account.network,
    passage: null,
    others: [],
    edited: false,
    fallback: null,
    link: null,
    shortLink: null,
    linkCheck: null,
    media: [],
    checks: [],
    accepted: [],
    remarks: [],
    at: null,
    earliest: null,
    latest: null,
    priority: 0,
    reasons: [],
    state: 'draft',
    held: null,
    pinned: false,
    generation: 1,
    revision: 0,
    publishedAt: null,
    publicUrl: null,
    visibility: null,
    failure: null,
    followed: [],
    ...given,
  }
}

/** A picture of a piece, or of anywhere with an address, as a post on a network shows it. */
export function mediaOf(
  image: Pick<Piece['images'][number], 'url' | 'alt' | 'caption' | 'width' | 'height' | 'seen'>,
  title: string,
  networkId: string,
): PostMedia {
  const size = image.width && image.height ? { width: image.width, height: image.height } : null
  return {
    source: { from: 'address', url: image.url },
    alt: proposedAlt(image, title),
    shape: chooseShape(size, network(networkId).media.shapes),
    ...(image.seen?.print ? { print: image.seen.print } : {}),
    hash: null,
  }
}

/** By what the pictures of posts and of a piece are known among them, like ones by one key. */
export function alikeWith(piece: Pick<Piece, 'images'>, posts: readonly Post[]): (key: string) => string {
  const ofPiece = piece.images.flatMap(({ url, seen }) =>
    seen?.print ? [{ key: url, print: seen.print }] : [],
  )
  return alikeIn(
    posts.flatMap((p) => p.media),
    ofPiece,
  )
}

/** Where a network takes pictures of any shape, a card is square. */
const SQUARE = { width: 1, height: 1 }

/** A card as a post on a network shows it: in the tallest shape that the network takes, which fills most of a screen. */
export function cardMedia(card: Card, networkId: string): PostMedia {
  const shape = tallestOf(network(networkId).media.shapes) ?? SQUARE
  return { source: { from: 'card', card }, alt: cardAlt(card), shape, hash: null }
}

/** Where a network takes clips of any shape but no pictures, one is as tall as a telephone. */
const TALL = { width: 9, height: 16 }

/**
 * A card as a clip that shows it moving, in the tallest shape that the network takes. It opens with the title of its piece,
 * unless the card says what it is of by itself.
 */
export function clipMedia(card: Card, title: string, networkId: string): PostMedia {
  const profile = network(networkId)
  const opens = card.layout === 'title' || card.head !== '' ? '' : title.trim()
  return {
    source: { from: 'moving', card, hook: opens.length > HOOK_MOST ? '' : opens },
    alt: cardAlt(card),
    shape: clipShape(profile),
    hash: null,
  }
}

/**
 * What a post shows of its piece's film: all of it where the network takes chapters and the film has them, else the part in
 * which its passage is said. Null where there is no film to be had, or no part of a length that the network takes.
 */
export function filmMedia(
  piece: Pick<WholePiece, 'title' | 'text' | 'sentences' | 'video'>,
  passage: { start: number; end: number } | null,
  networkId: string,
): PostMedia | null {
  const { video, title } = piece
  const profile = network(networkId)
  if (!video?.url || profile.media.clips.most === 0) return null
  const { url } = video
  if (profile.chapters && chapterLines(video, profile.chapters) !== null)
    return { source: { from: 'film', url, part: null }, alt: `The film “${title}”`, shape: null, hash: null }
  const hook = title.length > HOOK_MOST ? '' : title
  const part = passage && filmPartOf(piece, passage, hook, clipBound(profile))
  return (
    part && {
      source: { from: 'film', url, part },
      alt: `A part of the film “${title}”: ${part.subtitles.map((s) => s.text).join(' ')}`,
      shape: clipShape(profile),
      hash: null,
    }
  )
}

/** The shape of a clip: the tallest that the network takes; where it takes any, tall if it shows nothing still, else square. */
function clipShape(profile: NetworkProfile): Shape {
  return tallestOf(profile.media.clip?.shapes ?? []) ?? (shownOn(profile).moving ? TALL : SQUARE)
}

function tallestOf(shapes: readonly Shape[]): Shape | undefined {
  return [...shapes].sort((a, b) => b.height / b.width - a.height / a.width)[0]
}

/**
 * What a card becomes with a post: a clip where the network takes nothing else that is seen, else pictures (`cardPictures`).
 * `title` is that of its piece, `line` the brand's own.
 */
export function cardShown(card: Card, title: string, networkId: string, line: string): PostMedia[] {
  return shownOn(network(networkId)).moving
    ? [clipMedia(card, title, networkId)]
    : cardPictures(card, networkId, line)
}

/**
 * A card as the pictures of a post: as slides where it is a list or steps and the network shows several pictures as one
 * post to be leafed through, else as it is. `line` is the brand's own, for the last slide.
 */
export function cardPictures(card: Card, networkId: string, line: string): PostMedia[] {
  const { formats, media } = network(networkId)
  const slides = formats.includes(SLIDES) ? slidesOf(card, line, media.pictures.most) : null
  return (slides ?? [card]).map((slide) => cardMedia(slide, networkId))
}

/** The format of a post of several pictures that readers leaf through. */
const SLIDES = 'carousel'

/** The format of a post of one clip. */
const CLIP = 'clip'

/**
 * The format that a post goes out in: that of its wording; where that is the network's usual one, a clip where it shows one,
 * and slides where it shows several pictures, if the network has such.
 */
export function formatOf(post: Pick<Post, 'network' | 'media' | 'wording'>): string {
  const { formats } = network(post.network)
  const { format } = post.wording
  if (post.media.some((m) => isClip(m) && !isWholeFilm(m)) && format === formats[0] && formats.includes(CLIP))
    return CLIP
  return post.media.length > 1 && format === formats[0] && formats.includes(SLIDES) ? SLIDES : format
}

/** The layouts of the cards that may be made for a brand's posts, by a pipeline's say. */
export function layoutsFor(brand: Pick<Brand, 'look'>, make: Pick<Make, 'pictures'>): readonly Layout[] {
  return make.pictures === 'piece and cards' || make.pictures === 'cards' ? brand.look.layouts : []
}

/** A piece with the pictures that a pipeline takes from it. */
export function withPictures<P extends Pick<Piece, 'images'>>(piece: P, make: Pick<Make, 'pictures'>): P {
  return make.pictures === 'none' || make.pictures === 'cards' ? { ...piece, images: [] } : piece
}
