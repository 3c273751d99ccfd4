import { isClip, isWholeFilm, mediaCount, type Post, type PostMedia } from '../model'
import { network, shownOn } from './known'
import type { NetworkProfile } from './profile'
import { chooseShape, type Shape } from './shape'

/** The format of a post of several pictures that readers leaf through. */
const SLIDES = 'carousel'

/** The formats of a post of one clip, of pages in one file, and of one picture or clip without words. */
const CLIP = 'clip'
const DOCUMENT = 'document'
export const STORY = 'story'

/**
 * The format that a post goes out in: that of its wording; where that is the network's usual one, a clip where it shows one,
 * and slides or a document where it shows several pictures or cards, if the network has such.
 */
export function formatOf({
  network: id,
  media,
  wording,
}: Pick<Post, 'network' | 'media' | 'wording'>): string {
  const { formats } = network(id)
  const { format } = wording
  if (format !== formats[0]) return format
  if (media.some((m) => isClip(m) && !isWholeFilm(m)) && formats.includes(CLIP)) return CLIP
  if (media.length < 2) return format
  if (formats.includes(SLIDES)) return SLIDES
  return formats.includes(DOCUMENT) && media.every((m) => m.source.from === 'card') ? DOCUMENT : format
}

/** Whether the cards of a post go out as the pages of one file. */
export function isDocument(post: Pick<Post, 'network' | 'media' | 'wording'>): boolean {
  return formatOf(post) === DOCUMENT
}

/** How many pictures, clips and pages of a document a post has, as its network counts them. */
export function mediaIn(post: Pick<Post, 'network' | 'media' | 'wording'>): {
  pictures: number
  clips: number
  pages: number
} {
  if (isDocument(post)) return { pictures: 0, clips: 0, pages: post.media.length }
  return { ...mediaCount(post.media), pages: 0 }
}

/** What a post shows in the shape that its format asks for: of a story the first alone, as tall as its network has them. */
export function shownIn(
  post: { network: string; wording: Pick<Post['wording'], 'format'> },
  media: readonly PostMedia[],
): PostMedia[] {
  const story = post.wording.format === STORY ? network(post.network).media.story : null
  if (!story) return [...media]
  return media.slice(0, 1).map((m): PostMedia => {
    if (m.shape?.width === story.shape.width && m.shape.height === story.shape.height) return m
    const { cut: _, ...rest } = m
    return { ...rest, shape: story.shape, hash: null }
  })
}

/** How many slides a network takes that are leafed through, be they pictures or pages; 0 where it shows none so. */
export function mostSlides(networkId: string): number {
  const { formats, media } = network(networkId)
  return media.document?.pages ?? (formats.includes(SLIDES) ? media.pictures.most : 0)
}

/** Where a network takes pictures of any shape, a card is square. */
const SQUARE = { width: 1, height: 1 }

/** The shape of a card: the tallest that the network takes, which fills most of a screen. */
export function cardShape(profile: NetworkProfile): Shape {
  return tallestOf(profile.media.shapes) ?? SQUARE
}

/** Where a network takes clips of any shape but no pictures, one is as tall as a telephone. */
const TALL = { width: 9, height: 16 }

/** The shape of a clip: the tallest that the network takes; where it takes any, tall if it shows nothing still, else square. */
export function clipShape(profile: NetworkProfile): Shape {
  return tallestOf(profile.media.clip?.shapes ?? []) ?? (shownOn(profile).moving ? TALL : SQUARE)
}

function tallestOf(shapes: readonly Shape[]): Shape | undefined {
  return [...shapes].sort((a, b) => b.height / b.width - a.height / a.width)[0]
}

/** What a post shows as its network's usual post does, after it was a story. */
export function noStory(media: readonly PostMedia[], networkId: string): PostMedia[] {
  const profile = network(networkId)
  return media.map((m): PostMedia => {
    const { cut: _, ...rest } = m
    const drawn = m.source.from === 'card' ? cardShape(profile) : chooseShape(null, profile.media.shapes)
    return { ...rest, shape: isClip(m) ? clipShape(profile) : drawn, hash: null }
  })
}
