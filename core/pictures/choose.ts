import { layoutOf, type Layout, type PieceContent, type Showing } from '../model'
import { likenessIn, type Speech } from './likeness'

/** A post for which a picture is to be chosen. */
export interface PictureWish extends Speech {
  account: string
  network: string
  /** Its day, as a count of days from wherever the days of `Showing` are counted from. */
  day: number
  /** Whether its network takes nothing without a picture; otherwise it has one where one fits, at least every second time. */
  needed: boolean
  /** Whether only cards will do, since they are to move and pictures do not. */
  drawn?: boolean
  /** What the cards are known by that can be made of its words, the best first. */
  cards: readonly string[]
}

/** What is chosen for a post: one of the piece's pictures or one of its own cards, by their index. */
export type Choice = { image: number } | { card: number }

/** From so much likeness on a picture is worth showing where none is needed. */
const FITS = 0.35
/** What each earlier use of a picture among these posts takes from it. */
const WORN = 0.2
/** What a post's best card is worth, and how much less each further one. */
const CARD = 0.45
const LATER_CARD = 0.05
/** What a card loses where a post next to it on its account shows a card, and what more where that is laid out alike. */
const CARDS_BESIDE = 0.12
const ALIKE = 0.15
/** What a picture loses that an account of another network shows within a week, so that they do not stand side by side. */
const SIDE_BY_SIDE = 0.2
const A_WEEK = 7
/** How often pairs are gone through to see whether they are better off with each other's picture. */
const ROUNDS = 4
/** Layouts that show more than the words which the post says anyway. */
const SHOWS: ReadonlySet<string | null> = new Set<Layout>([
  'quotation',
  'number',
  'contrast',
  'list',
  'steps',
  'definition',
])

/**
 * Chooses a picture of the piece or a card for each post, or none: the one that belongs most to what the post says, pictures
 * that were not used before others, cards and pictures in turn. No account shows a picture twice in a row, and no account of
 * a network one that another account of it shows less than `restDays` away. Only where a network takes no post without a
 * picture, every picture is kept away by that and there is no card, the one comes that was shown furthest away. One that
 * another network shows in the same week comes only where it suits much better than others. One
 * post after the other gets the best that is left, those first that need one; then pairs change pictures while they gain by
 * it together (2-opt, Croes 1958). `alike` says by what a picture is known, as in `shown`; what could not be fetched when it
 * was looked at is never chosen. In the order of the posts.
 */
export function choosePictures(
  piece: Pick<PieceContent, 'text' | 'blocks' | 'language' | 'images'>,
  wishes: readonly PictureWish[],
  shown: readonly Showing[],
  restDays: number,
  alike: Alike = asItIs,
): (Choice | null)[] {
  const { images } = piece
  const { options, likes } = weighed(piece, wishes, alike)
  const board = new Board(wishes, options, shown, restDays)
  const uses = options.map(() => 0)
  // Whoever can do without one comes last, and takes none from those that cannot.
  const needing = board.inTime.filter((i) => wishes[i]?.needed)
  for (const i of [...needing, ...board.inTime.filter((i) => !wishes[i]?.needed)]) {
    const like = (o: number): number => likes[i]?.[o] ?? -Infinity
    const worth = (o: number): number =>
      like(o) - WORN * (uses[o] ?? 0) - board.sameness(i, o) - board.sideBySide(i, o)
    const free = options.map((_, o) => o).filter((o) => like(o) > -Infinity && board.allows(i, o))
    const best = bestOf(free, worth)
    if (wishes[i]?.needed)
      board.chosen[i] =
        best ??
        board.furthest(
          i,
          images.flatMap((_, o) => (like(o) > -Infinity ? o : [])),
        )
    else {
      const image = bestOf(
        free.filter((o) => o < images.length),
        worth,
      )
      const bare = board.bareBefore(i)
      const card = bestOf(
        free.filter((o) => SHOWS.has(layoutOf(options[o]?.key ?? ''))),
        worth,
      )
      board.chosen[i] = image !== null && (like(image) >= FITS || bare) ? image : bare ? card : null
    }
    const chosen = board.chosen[i]
    if (chosen !== null && chosen !== undefined) uses[chosen] = (uses[chosen] ?? 0) + 1
  }
  exchange(board, likes, images.length)
  return board.chosen.map((o) => {
    const option = o === null ? undefined : options[o]
    return o === null || !option ? null : option.card === null ? { image: o } : { card: option.card }
  })
}

/** One of the pictures that a post may show, and what is shown too near to show it as well; null where nothing is. */
export interface Ranked {
  choice: Choice
  near: Showing | null
}

/** All pictures of the piece and all cards of a post: those first that may be shown there, the best of them before others. */
export function rankPictures(
  piece: Pick<PieceContent, 'text' | 'blocks' | 'language' | 'images'>,
  wish: PictureWish,
  shown: readonly Showing[],
  restDays: number,
  alike: Alike = asItIs,
): Ranked[] {
  const { options, likes } = weighed(piece, [wish], alike)
  const board = new Board([wish], options, shown, restDays)
  const ranked = options.map(({ card }, o) => ({
    choice: card === null ? { image: o } : { card },
    near: board.tooNear(0, o),
    worth: (likes[0]?.[o] ?? 0) - board.sameness(0, o) - board.sideBySide(0, o),
  }))
  return ranked
    .filter((r) => r.worth > -Infinity)
    .sort((a, b) => Number(a.near !== null) - Number(b.near !== null) || b.worth - a.worth)
    .map(({ choice, near }) => ({ choice, near }))
}

/** A picture that may be chosen: one of the piece's, or a card, which is its post's alone. */
interface Option {
  key: string
  owner: number | null
  card: number | null
}

/** By what a picture is known: like ones by one key (`alikeIn`). */
type Alike = (key: string) => string
const asItIs: Alike = (key) => key

/**
 * The pictures of a piece and then the cards of posts, and how much each post likes each; another one's card and what
 * cannot be shown not at all.
 */
function weighed(
  piece: Pick<PieceContent, 'text' | 'blocks' | 'language' | 'images'>,
  wishes: readonly PictureWish[],
  alike: Alike,
): { options: Option[]; likes: number[][] } {
  const likeness = likenessIn(piece)
  const options: Option[] = [
    ...piece.images.map(({ url }) => ({ key: alike(url), owner: null, card: null })),
    ...wishes.flatMap(({ cards }, owner) => cards.map((key, card) => ({ key, owner, card }))),
  ]
  const likes = wishes.map((wish, i) =>
    options.map(({ owner, card }, o) => {
      if (card !== null) return owner === i ? CARD - LATER_CARD * card : -Infinity
      const image = piece.images[o]
      return image && !image.seen?.trouble && !wish.drawn ? likeness(wish, image) : -Infinity
    }),
  )
  return { options, likes }
}

function bestOf(options: readonly number[], worth: (option: number) => number): number | null {
  return options.reduce<number | null>((a, b) => (a !== null && worth(a) >= worth(b) ? a : b), null)
}

/** Lets pairs of posts change pictures of the piece where together they are better off and no rule is broken by it. */
function exchange(board: Board, likes: readonly (readonly number[])[], images: number): void {
  const { chosen } = board
  const worth = (post: number, picture: number): number =>
    (likes[post]?.[picture] ?? 0) - board.sideBySide(post, picture)
  for (let round = 0; round < ROUNDS; round++) {
    let better = false
    for (let a = 0; a < chosen.length; a++)
      for (let b = a + 1; b < chosen.length; b++) {
        const [x, y] = [chosen[a], chosen[b]]
        if (x == null || y == null || x === y || x >= images || y >= images) continue
        const before = worth(a, x) + worth(b, y)
        const kept = board.allows(a, x) && board.allows(b, y)
        chosen[a] = y
        chosen[b] = x
        const gains = worth(a, y) + worth(b, x) > before + 1e-9
        if (gains && kept && board.allows(a, y) && board.allows(b, x)) better = true
        else {
          chosen[a] = x
          chosen[b] = y
        }
      }
    if (!better) return
  }
}

/** What is shown where and when: before, and by what was chosen so far. */
class Board {
  /** Of each post the picture that it shows. */
  readonly chosen: (number | null)[]
  /** The posts as they come after one another. */
  readonly inTime: readonly number[]
  readonly #wishes: readonly PictureWish[]
  readonly #options: readonly Option[]
  readonly #shown: readonly Showing[]
  readonly #rest: number

  constructor(
    wishes: readonly PictureWish[],
    options: readonly Option[],
    shown: readonly Showing[],
    rest: number,
  ) {
    this.#wishes = wishes
    this.#options = options
    this.#shown = shown
    this.#rest = rest
    this.chosen = wishes.map(() => null)
    const day = (i: number): number => wishes[i]?.day ?? 0
    this.inTime = wishes.map((_, i) => i).sort((a, b) => day(a) - day(b) || a - b)
  }

  /** Whether a post may show a picture beside all others. */
  allows(post: number, option: number): boolean {
    return this.tooNear(post, option) === null
  }

  /** What is shown too near to a post for it to show the same picture: within its rest on the network, or next on its account. */
  tooNear(post: number, option: number): Showing | null {
    const { day } = this.#wishes[post] as PictureWish
    const key = this.#options[option]?.key
    let near: Showing | null = null
    this.#each(post, (other) => {
      if (other.picture === key && Math.abs(other.day - day) < this.#rest) near ??= other
    })
    return near ?? this.#beside(post).find((n) => n.picture === key) ?? null
  }

  /** What a card loses by standing next to other cards; nothing for any other picture. */
  sameness(post: number, option: number): number {
    const { key = '', card = null } = this.#options[option] ?? {}
    if (card === null) return 0
    const layouts = this.#beside(post).flatMap((n) => layoutOf(n.picture) ?? [])
    return (layouts.length ? CARDS_BESIDE : 0) + (layouts.includes(layoutOf(key) ?? '') ? ALIKE : 0)
  }

  /** What a picture loses where another network shows it in the same week. */
  sideBySide(post: number, option: number): number {
    const { day, network } = this.#wishes[post] as PictureWish
    const key = this.#options[option]?.key
    const beside = (other: Showing): boolean =>
      other.picture === key && other.network !== network && Math.abs(other.day - day) < A_WEEK
    if (this.#shown.some(beside)) return SIDE_BY_SIDE
    return this.#wishes.some((wish, i) => {
      const picture = this.#options[this.chosen[i] ?? -1]?.key
      return i !== post && picture !== undefined && beside({ ...wish, picture })
    })
      ? SIDE_BY_SIDE
      : 0
  }

  /** What the account shows last before a post and first after it. */
  #beside(post: number): Showing[] {
    const { account, day } = this.#wishes[post] as PictureWish
    let before: { showing: Showing; day: number; rank: number } | null = null
    let after: { showing: Showing; day: number; rank: number } | null = null
    this.#each(post, (other, rank) => {
      if (other.account !== account) return
      const here = { showing: other, day: other.day, rank }
      if (isEarlier(here, { day, rank: post })) {
        if (before === null || isEarlier(before, here)) before = here
      } else if (after === null || isEarlier(here, after)) after = here
    })
    const neighbours: readonly ({ showing: Showing } | null)[] = [before, after]
    return neighbours.flatMap((n) => n?.showing ?? [])
  }

  /** Of some pictures the one that the network's accounts show furthest from a post. */
  furthest(post: number, pictures: readonly number[]): number | null {
    const day = this.#wishes[post]?.day ?? 0
    const apart = new Map(pictures.map((o) => [this.#options[o]?.key ?? '', Infinity]))
    this.#each(post, (other) => {
      const before = apart.get(other.picture)
      if (before !== undefined) apart.set(other.picture, Math.min(before, Math.abs(other.day - day)))
    })
    const far = (o: number): number => apart.get(this.#options[o]?.key ?? '') ?? Infinity
    return pictures.reduce<number | null>((a, b) => (a !== null && far(a) >= far(b) ? a : b), null)
  }

  /** Whether the account's last post before this one was left without a picture. */
  bareBefore(post: number): boolean {
    const { account } = this.#wishes[post] as PictureWish
    const earlier = this.inTime.slice(0, this.inTime.indexOf(post))
    const before = earlier.findLast((i) => this.#wishes[i]?.account === account)
    return before !== undefined && this.chosen[before] === null
  }

  /** Goes through all that the post's network shows but for the post itself; what was there before ranks below nought. */
  #each(post: number, look: (other: Showing, rank: number) => void): void {
    const { network } = this.#wishes[post] as PictureWish
    for (const [i, other] of this.#shown.entries())
      if (other.network === network) look(other, i - this.#shown.length)
    for (const [i, wish] of this.#wishes.entries()) {
      const picture = this.#options[this.chosen[i] ?? -1]?.key
      if (i !== post && wish.network === network && picture !== undefined) look({ ...wish, picture }, i)
    }
  }
}

/** Whether one showing comes before another; on one day those that were there before, then in the order of the posts. */
function isEarlier(a: { day: number; rank: number }, b: { day: number; rank: number }): boolean {
  return a.day < b.day || (a.day === b.day && a.rank < b.rank)
}
