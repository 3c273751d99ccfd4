import {
  LAYOUTS,
  pictureKey,
  showings,
  type Brand,
  type Layout,
  type Passage,
  type Post,
  type PostMedia,
  type WholePiece,
} from '../model'
import { network } from '../networks'
import { cardsFor, rankPictures } from '../pictures'
import { cardMedia, mediaOf } from './blank'

/** A picture that a post may show. */
export interface PictureOption {
  media: PostMedia
  /** Which account shows the same one too near, and how many days from this post; null where none does. */
  near: { account: string; days: number } | null
}

/**
 * The pictures that a post may show: those of its piece and the cards that its words make, the best first, and after them
 * those that stand too near already.
 */
export function pictureOptions(
  post: Post,
  piece: WholePiece,
  passage: Passage | null,
  brand: Pick<Brand, 'look' | 'weights'>,
  standing: readonly Post[],
): PictureOption[] {
  const day = (post.publishedAt ?? post.at ?? post.wished).slice(0, 10)
  const cards = cardsOf(post, piece, brand.look.layouts)
  const wish = {
    words: `${post.wording.text} ${passage?.text ?? ''}`,
    place: passage,
    account: post.account,
    network: post.network,
    day: 0,
    needed: network(post.network).media.pictures.least > 0,
    cards: cards.map((card) => pictureKey({ from: 'card', card })),
  }
  const others = standing.filter((p) => p.id !== post.id)
  const ranked = rankPictures(piece, wish, showings(others, day), brand.weights.pictureDays)
  return ranked.flatMap(({ choice, near }) => {
    const card = 'card' in choice ? cards[choice.card] : undefined
    const image = 'image' in choice ? piece.images[choice.image] : undefined
    const media = card ? cardMedia(card, post.network) : image && mediaOf(image, piece.title, post.network)
    return media ? [{ media, near: near && { account: near.account, days: near.day } }] : []
  })
}

/** The cards of a post's words: of the layouts that its brand uses, then of the others. */
function cardsOf(post: Post, piece: WholePiece, layouts: readonly Layout[]) {
  const others = LAYOUTS.filter((l) => !layouts.includes(l))
  return [...cardsFor(post.wording, piece, layouts), ...cardsFor(post.wording, piece, others)]
}

/**
 * The pictures of a post once it has another wording: a card that was made of the old words becomes the one that is made of
 * the new ones; anything else stays.
 */
export function mediaAfter(post: Post, wording: Post['wording'], piece: WholePiece): PostMedia[] {
  const before = new Set(
    cardsFor(post.wording, piece, LAYOUTS).map((card) => pictureKey({ from: 'card', card })),
  )
  return post.media.map((media) => {
    if (media.source.from !== 'card' || !before.has(pictureKey(media.source))) return media
    const { layout } = media.source.card
    const cards = cardsFor(wording, piece, LAYOUTS)
    const card = cards.find((c) => c.layout === layout) ?? cards[0]
    return card ? cardMedia(card, post.network) : media
  })
}
