import {
  codedCard,
  momentOf,
  LAYOUTS,
  firstPicture,
  layoutOf,
  pictureKey,
  showings,
  type Angle,
  type Brand,
  type Card,
  type Layout,
  type Passage,
  type Post,
  type PostMedia,
  type WholePiece,
} from '../model'
import { network, shownOn } from '../networks'
import { cardsFor, rankPictures, standsWith } from '../pictures'
import { alikeWith, cardShown, filmMedia, mediaOf, type CardLook } from './blank'

/** A picture that a post may show. */
export interface PictureOption {
  /** One, or the slides that a card becomes. */
  media: PostMedia[]
  /** Which account shows the same one too near, and how many days from this post; null where none does. */
  near: { account: string; days: number } | null
}

/**
 * The pictures that a post may show: those of its piece and the cards that its words make, the best first, and after them
 * those that stand too near already. Of a film the part in which the post's passage is said comes first.
 */
export function pictureOptions(
  post: Post,
  piece: WholePiece,
  passage: Passage | null,
  brand: Pick<Brand, 'look' | 'weights'>,
  standing: readonly Post[],
): PictureOption[] {
  const day = (momentOf(post) ?? post.wished).slice(0, 10)
  const cards = cardsOf(post, piece, brand.look.layouts)
  const shown = shownOn(network(post.network))
  const wish = {
    words: `${post.wording.text} ${passage?.text ?? ''}`,
    place: passage,
    account: post.account,
    network: post.network,
    day: 0,
    needed: shown.needed,
    drawn: shown.moving,
    cards: cards.map((card) => pictureKey({ from: 'card', card })),
  }
  const others = standing.filter((p) => p.id !== post.id)
  const alike = alikeWith(piece, others)
  const ranked = rankPictures(piece, wish, showings(others, day, alike), brand.weights.pictureDays, alike)
  const films = [false, true].flatMap((part) => filmMedia(piece, passage, post.network, part) ?? [])
  const options = ranked.flatMap(({ choice, near }) => {
    const card = 'card' in choice ? cards[choice.card] : undefined
    const image = 'image' in choice ? piece.images[choice.image] : undefined
    const media = card
      ? cardShown(card, piece.title, post.network, brand.look)
      : image && [mediaOf(image, standsWith(image, piece), post.network)]
    return media ? [{ media, near: near && { account: near.account, days: near.day } }] : []
  })
  const shownFilms = new Map(films.map((film) => [pictureKey(film.source), film]))
  return [...[...shownFilms.values()].map((film) => ({ media: [film], near: null })), ...options]
}

/** The cards of a post's words: of the layouts that its brand uses, then of the others. */
function cardsOf(post: Post, piece: WholePiece, layouts: readonly Layout[]) {
  const others = LAYOUTS.filter((l) => !layouts.includes(l))
  return [...cardsFor(post.wording, piece, layouts), ...cardsFor(post.wording, piece, others)]
}

/**
 * The pictures of a post once it has another wording: what was made of the old words becomes what the new ones make, in the
 * same layout where they can, with a code where there was one; anything else stays.
 */
export function mediaAfter(
  post: Post,
  wording: Post['wording'],
  piece: WholePiece,
  { sign }: Pick<CardLook, 'sign'>,
): PostMedia[] {
  // A person may have put a code on the card, or taken it off.
  const code = post.media.some((m) => codedCard(m.source))
  const keysOf = (media: readonly PostMedia[]): string => media.map((m) => pictureKey(m.source)).join('\n')
  const madeOf = (words: Post['wording']): PostMedia[][] =>
    cardsFor(words, piece, LAYOUTS).map((card) =>
      cardShown({ ...card, code }, piece.title, post.network, { sign }),
    )
  if (!madeOf(post.wording).some((made) => keysOf(made) === keysOf(post.media))) return post.media
  const layout = layoutOf(firstPicture(post) ?? '')
  const made = madeOf(wording)
  return made.find(([m]) => m && layoutOf(pictureKey(m.source)) === layout) ?? made[0] ?? post.media
}

/** Cards of a piece, for somebody who sees to how a brand's cards look. */
export interface ExampleCards {
  /** What its best passages make, in the layouts that are used. */
  passages: Card[]
  /** For each layout the first card that any of its passages makes. */
  layouts: Partial<Record<Layout, Card>>
}

/** The angle in which what a passage is made of would be told. */
const ANGLE_OF: Readonly<Record<Passage['kind'], Angle>> = {
  statement: 'lesson',
  number: 'number',
  contrast: 'contrast',
  instruction: 'how-to',
  steps: 'checklist',
  story: 'story',
  definition: 'definition',
  question: 'question',
}

/** The cards that passages of a piece make as they stand, the best passages first. */
export function exampleCards(
  piece: WholePiece,
  passages: readonly Passage[],
  layouts: readonly Layout[],
): ExampleCards {
  const made = (of: readonly Layout[]) => (p: Passage) =>
    cardsFor({ text: p.text.replace(/\s*\n\s*/g, ' '), angle: ANGLE_OF[p.kind], closing: null }, piece, of)
  const all = passages.flatMap(made(LAYOUTS))
  return {
    passages: passages.flatMap((p) => made(layouts)(p)[0] ?? []).slice(0, 3),
    layouts: Object.fromEntries(
      LAYOUTS.flatMap((l) => all.find((c) => c.layout === l) ?? []).map((c) => [c.layout, c]),
    ),
  }
}
