import type { PieceContent } from '../model'
import { likenessIn, type Speech } from './likeness'

/** A post for which a picture is to be chosen. */
export interface PictureWish extends Speech {
  account: string
  network: string
  /** Its day, as a count of days from wherever the days of `Showing` are counted from. */
  day: number
  /** Whether its network takes nothing without a picture; otherwise it has one where one fits, at least every second time. */
  needed: boolean
}

/** That an account shows a picture, by its address, on a day. */
export interface Showing {
  picture: string
  account: string
  network: string
  day: number
}

/** From so much likeness on a picture is worth showing where none is needed. */
const FITS = 0.35
/** What each earlier use of a picture among these posts takes from it. */
const WORN = 0.2
/** How often pairs are gone through to see whether they are better off with each other's picture. */
const ROUNDS = 4

/**
 * Chooses a picture of the piece for each post, or none: the one that belongs most to what the post says, pictures that were
 * not used before others. No account shows a picture twice in a row, and no account of a network one that another account
 * of it shows less than `restDays` away. Only where a network takes no post without a picture, and every picture is
 * kept away by that, the one comes that was shown furthest away. One post after the other gets the best that is left, those
 * first that need one; then pairs change pictures while they gain by it together (2-opt, Croes 1958). Gives indexes into the piece's pictures, in the order of
 * the posts.
 */
export function choosePictures(
  piece: Pick<PieceContent, 'text' | 'blocks' | 'language' | 'images'>,
  wishes: readonly PictureWish[],
  shown: readonly Showing[],
  restDays: number,
): (number | null)[] {
  const { images } = piece
  if (images.length === 0) return wishes.map(() => null)
  const likeness = likenessIn(piece)
  const likes = wishes.map((wish) => images.map((image) => likeness(wish, image)))
  const board = new Board(
    wishes,
    images.map((i) => i.url),
    shown,
    restDays,
  )
  const uses = images.map(() => 0)
  // Whoever can do without one comes last, and takes none from those that cannot.
  const needing = board.inTime.filter((i) => wishes[i]?.needed)
  for (const i of [...needing, ...board.inTime.filter((i) => !wishes[i]?.needed)]) {
    const worth = (p: number): number => (likes[i]?.[p] ?? 0) - WORN * (uses[p] ?? 0)
    const free = images.map((_, p) => p).filter((p) => board.allows(i, p))
    const best = free.reduce<number | null>((a, b) => (a !== null && worth(a) >= worth(b) ? a : b), null)
    const wanted = best !== null && ((likes[i]?.[best] ?? 0) >= FITS || board.bareBefore(i))
    const picture = wishes[i]?.needed ? (best ?? board.furthest(i)) : wanted ? best : null
    board.chosen[i] = picture
    if (picture !== null) uses[picture] = (uses[picture] ?? 0) + 1
  }
  exchange(board, likes)
  return board.chosen
}

/** Lets pairs of posts change pictures where together they like that better and no rule is broken by it. */
function exchange(board: Board, likes: readonly (readonly number[])[]): void {
  const { chosen } = board
  const like = (post: number, picture: number): number => likes[post]?.[picture] ?? 0
  for (let round = 0; round < ROUNDS; round++) {
    let better = false
    for (let a = 0; a < chosen.length; a++)
      for (let b = a + 1; b < chosen.length; b++) {
        const [x, y] = [chosen[a], chosen[b]]
        if (x == null || y == null || x === y) continue
        if (like(a, y) + like(b, x) <= like(a, x) + like(b, y) + 1e-9) continue
        const kept = board.allows(a, x) && board.allows(b, y)
        chosen[a] = y
        chosen[b] = x
        if (kept && board.allows(a, y) && board.allows(b, x)) better = true
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
  readonly #urls: readonly string[]
  readonly #shown: readonly Showing[]
  readonly #rest: number

  constructor(
    wishes: readonly PictureWish[],
    urls: readonly string[],
    shown: readonly Showing[],
    rest: number,
  ) {
    this.#wishes = wishes
    this.#urls = urls
    this.#shown = shown
    this.#rest = rest
    this.chosen = wishes.map(() => null)
    const day = (i: number): number => wishes[i]?.day ?? 0
    this.inTime = wishes.map((_, i) => i).sort((a, b) => day(a) - day(b) || a - b)
  }

  /** Whether a post may show a picture beside all others. */
  allows(post: number, picture: number): boolean {
    const { account, day } = this.#wishes[post] as PictureWish
    const url = this.#urls[picture]
    let free = true
    let before: { day: number; rank: number; picture: string } | null = null
    let after: { day: number; rank: number; picture: string } | null = null
    this.#each(post, (other, rank) => {
      if (other.picture === url && Math.abs(other.day - day) < this.#rest) free = false
      if (other.account !== account) return
      const here = { day: other.day, rank, picture: other.picture }
      if (isEarlier(here, { day, rank: post })) {
        if (before === null || isEarlier(before, here)) before = here
      } else if (after === null || isEarlier(here, after)) after = here
    })
    const neighbours: readonly ({ picture: string } | null)[] = [before, after]
    return free && neighbours.every((n) => n?.picture !== url)
  }

  /** Of all pictures the one that the network's accounts show furthest from a post. */
  furthest(post: number): number {
    const day = this.#wishes[post]?.day ?? 0
    const apart = this.#urls.map(() => Infinity)
    this.#each(post, (other) => {
      const picture = this.#urls.indexOf(other.picture)
      if (picture >= 0) apart[picture] = Math.min(apart[picture] ?? Infinity, Math.abs(other.day - day))
    })
    return apart.indexOf(Math.max(...apart))
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
      const picture = this.#urls[this.chosen[i] ?? -1]
      if (i !== post && wish.network === network && picture !== undefined) look({ ...wish, picture }, i)
    }
  }
}

/** Whether one showing comes before another; on one day those that were there before, then in the order of the posts. */
function isEarlier(a: { day: number; rank: number }, b: { day: number; rank: number }): boolean {
  return a.day < b.day || (a.day === b.day && a.rank < b.rank)
}
