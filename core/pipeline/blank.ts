import {
  alikeIn,
  cardAlt,
  HOOK_MOST,
  type Account,
  type Brand,
  type Card,
  type Layout,
  type Look,
  type Make,
  type Piece,
  type Post,
  type PostMedia,
  type WholePiece,
} from '../model'
import { cardShape, clipShape, mostSlides, chooseShape, clipBound, network, shownOn } from '../networks'
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

/** A wording that only takes the place of one that is still to be written; no two of them may be alike. */
export function nothingYet(text: string): Post['wording'] {
  return {
    by: 'built-in',
    angle: null,
    format: 'post',
    title: null,
    summary: null,
    text,
    parts: [],
    tags: [],
    poll: [],
    firstComment: null,
    hashtags: [],
    spans: [],
    closing: null,
    score: 0,
  }
}

/**
 * A picture of a piece, or of anywhere with an address, as a post on a network shows it; `otherwise` is told of it to those who cannot
 * see it where nothing is said of it.
 */
export function mediaOf(
  image: Pick<Piece['images'][number], 'url' | 'alt' | 'caption' | 'width' | 'height' | 'seen'>,
  otherwise: string,
  networkId: string,
): PostMedia {
  const size = image.width && image.height ? { width: image.width, height: image.height } : null
  return {
    source: { from: 'address', url: image.url },
    alt: proposedAlt(image, otherwise),
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

/** A card as a post on a network shows it: in the tallest shape that the network takes, which fills most of a screen. */
export function cardMedia(card: Card, networkId: string): PostMedia {
  return {
    source: { from: 'card', card },
    alt: cardAlt(card),
    shape: cardShape(network(networkId)),
    hash: null,
  }
}

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
 * What a post shows of its piece's film: all of it where the network takes chapters and the film has them, else, and where it
 * is `inPart`, the part in which its passage is said. Null where there is no film to be had, or no part of a length that the
 * network takes.
 */
export function filmMedia(
  piece: Pick<WholePiece, 'title' | 'text' | 'sentences' | 'video'>,
  passage: { start: number; end: number } | null,
  networkId: string,
  inPart: boolean,
): PostMedia | null {
  const { video, title } = piece
  const profile = network(networkId)
  if (!video?.url || profile.media.clips.most === 0) return null
  const { url, sound } = video
  // A recording has no pictures to be shown whole.
  if (!inPart && !sound && profile.chapters && chapterLines(video, profile.chapters) !== null)
    return { source: { from: 'film', url, part: null }, alt: `The film “${title}”`, shape: null, hash: null }
  const hook = title.length > HOOK_MOST ? '' : title
  const part = passage && filmPartOf(piece, passage, hook, clipBound(profile))
  return (
    part && {
      source: { from: 'film', url, part },
      alt: `A part of the ${sound ? 'recording' : 'film'} “${title}”: ${part.subtitles.map((s) => s.text).join(' ')}`,
      shape: clipShape(profile),
      hash: null,
    }
  )
}

/** What of a look decides which cards a post has: the brand's own line, and whether links stand on cards as codes. */
export type CardLook = Pick<Look, 'sign' | 'codes'>

/** A card as a post on a network gets it: with the link as a code, where the brand wishes that and links cannot be followed. */
function coded(card: Card, networkId: string, look: CardLook): Card {
  return look.codes && !network(networkId).link.live ? { ...card, code: true } : card
}

/**
 * What a card becomes with a post: a clip where the network takes nothing else that is seen, else pictures (`cardPictures`).
 * `title` is that of its piece.
 */
export function cardShown(card: Card, title: string, networkId: string, look: CardLook): PostMedia[] {
  return shownOn(network(networkId)).moving
    ? [clipMedia(coded(card, networkId, look), title, networkId)]
    : cardPictures(card, networkId, look)
}

/** A card in one picture, whatever its network shows usually, as a story has it. */
export function wholeCard(card: Card, networkId: string, look: CardLook): PostMedia[] {
  return [cardMedia(coded(card, networkId, look), networkId)]
}

/**
 * A card as the pictures of a post: as slides where it is a list or steps and the network shows several pictures, or the
 * pages of a document, as one post to be leafed through, else as it is.
 */
export function cardPictures(card: Card, networkId: string, look: CardLook): PostMedia[] {
  const { document } = network(networkId).media
  const whole = coded(card, networkId, look)
  const slides = slidesOf(whole, look.sign, mostSlides(networkId))
  if (!slides) return [cardMedia(whole, networkId)]
  const pages = slides.map((slide) => cardMedia(slide, networkId))
  return document ? pages.map((page) => ({ ...page, shape: document.shape })) : pages
}

/** The layouts of the cards that may be made for a brand's posts, by a pipeline's say. */
export function layoutsFor(brand: Pick<Brand, 'look'>, make: Pick<Make, 'pictures'>): readonly Layout[] {
  return make.pictures === 'piece and cards' || make.pictures === 'cards' ? brand.look.layouts : []
}

/** A piece with the pictures that a pipeline takes from it. */
export function withPictures<P extends Pick<Piece, 'images'>>(piece: P, make: Pick<Make, 'pictures'>): P {
  return make.pictures === 'none' || make.pictures === 'cards' ? { ...piece, images: [] } : piece
}
