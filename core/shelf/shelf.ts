import { isToCome, type Account, type Passage, type Piece, type Place, type Post } from '../model'
import { dayNumber, localDay } from '../planning'

/** What the shelf is laid out from: everything of one brand. */
export interface ShelfRequest {
  passages: readonly Passage[]
  pieces: readonly Piece[]
  posts: readonly Post[]
  accounts: readonly Pick<Account, 'id' | 'network' | 'zone'>[]
  /** The brand's local day. */
  today: string
}

/** A passage that may be dripped again, or why it may not. */
export interface Shelved {
  passage: Passage
  piece: Piece
  /** Why it stands off the shelf, in a sentence; null where it stands on it. */
  off: string | null
  /** How many posts of its words are out, the last day of one on any account, and the first of one to come; null where none is. */
  out: number
  lastDay: number | null
  nextDay: number | null
}

/** The days on which something was seen or will be, as numbers (`dayNumber`), by account. */
type Days = Map<string, number[]>

/**
 * What may be dripped again of a brand: the kept passages that were out, with the others of their pieces once no drip of
 * these is under way, and what a person put there. What stands off it is told with the reason, so that nothing goes
 * missing in silence.
 */
export class Shelf {
  readonly items: readonly Shelved[]
  readonly #ofPassage = new Map<string, Days>()
  readonly #ofPiece = new Map<string, Days>()
  readonly #underWay = new Set<string>()
  readonly #networks: ReadonlyMap<string, string>
  readonly #byPiece: ReadonlyMap<string, readonly Passage[]>

  constructor({ passages, pieces, posts, accounts, today }: ShelfRequest) {
    this.#networks = new Map(accounts.map((a) => [a.id, a.network]))
    const zones = new Map(accounts.map((a) => [a.id, a.zone]))
    const byPiece = gather(passages, (p) => p.piece)
    this.#byPiece = byPiece
    const byId = new Map(passages.map((p) => [p.id, p]))
    const wasOut = new Set<string>()
    const dripping = new Set<string>()
    const [outOf, toCome] = [new Map<string, number[]>(), new Map<string, number[]>()]
    for (const post of posts) {
      if (post.piece === null || post.state === 'set aside') continue
      const at = post.publishedAt ?? post.at ?? post.wished
      const day = localDay(Date.parse(at), zones.get(post.account) ?? 'UTC')
      if (post.state === 'published') wasOut.add(post.piece)
      if (isToCome(post) && post.drip !== null) {
        this.#underWay.add(`${post.account} ${post.piece}`)
        dripping.add(post.piece)
      }
      note(this.#ofPiece, post.piece, post.account, day)
      const said = byId.get(post.passage ?? '')
      for (const passage of (byPiece.get(post.piece) ?? []).filter((p) => says(post, said, p))) {
        note(this.#ofPassage, passage.id, post.account, day)
        if (post.state === 'published') gatherInto(outOf, passage.id, day)
        else if (post.at !== null && isToCome(post)) gatherInto(toCome, passage.id, day)
      }
    }
    this.items = pieces.flatMap((piece) =>
      (byPiece.get(piece.id) ?? [])
        .filter(
          (p) =>
            p.shelf === 'on' ||
            (p.choice === 'kept' && (outOf.has(p.id) || (wasOut.has(piece.id) && !dripping.has(piece.id)))),
        )
        .map((passage) => {
          const days = outOf.get(passage.id) ?? []
          const coming = toCome.get(passage.id) ?? []
          return {
            passage,
            piece,
            off: whyOff(passage, piece, today),
            out: days.length,
            lastDay: days.length ? Math.max(...days) : null,
            nextDay: coming.length ? Math.min(...coming) : null,
          }
        }),
    )
  }

  /** The last day up to one on which a passage's words stand on an account, as a number; null for never. */
  lastSeen(passage: string, account: string, until = Infinity): number | null {
    return lastOf(this.#ofPassage.get(passage)?.get(account), until)
  }

  /** The same of anything of a piece. */
  lastOfPiece(piece: string, account: string, until = Infinity): number | null {
    return lastOf(this.#ofPiece.get(piece)?.get(account), until)
  }

  /** Whether a drip of a piece still has posts to come on an account. */
  isUnderWay(piece: string, account: string): boolean {
    return this.#underWay.has(`${account} ${piece}`)
  }

  /** How many days lie between a day and the nearest one on which a passage's words stand on an account. */
  daysFrom(passage: string, account: string, day: number): number {
    return nearest(this.#ofPassage.get(passage)?.get(account), day)
  }

  /** The same of anything of a piece. */
  pieceDaysFrom(piece: string, account: string, day: number): number {
    return nearest(this.#ofPiece.get(piece)?.get(account), day)
  }

  /** The same of a passage's words on any account of a network. */
  networkDaysFrom(passage: string, network: string, day: number): number {
    let least = Infinity
    for (const [account, days] of this.#ofPassage.get(passage) ?? [])
      if (this.#networks.get(account) === network) least = Math.min(least, nearest(days, day))
    return least
  }

  /** Notes that a passage is to be seen on an account on a day, so that what is chosen next minds it. */
  take({ passage, piece }: Pick<Shelved, 'passage' | 'piece'>, account: string, day: number): void {
    note(this.#ofPiece, piece.id, account, day)
    for (const one of this.#byPiece.get(piece.id) ?? [])
      if (overlap(one, passage)) note(this.#ofPassage, one.id, account, day)
  }
}

/** Whether a post says a passage's words, or some of them: by the passage it was written from, and by what its caption took. */
function says(post: Post, from: Passage | undefined, passage: Passage): boolean {
  if (from && overlap(from, passage)) return true
  return post.pieceRevision === passage.revision && post.wording.spans.some((s) => overlap(s, passage))
}

const overlap = (a: Place, b: Place): boolean => a.start < b.end && b.start < a.end

/** Why a passage may not be dripped again, in a sentence; null where it may. */
export function whyOff(passage: Passage, piece: Piece, today: string): string | null {
  const { keeps } = piece
  if (passage.shelf === 'off') return 'You took it off.'
  if (piece.dealt?.by === 'set aside') return 'Its piece was set aside.'
  if (piece.double) return 'Its piece tells what another one tells.'
  if (passage.lostPlace) return 'Its words are no longer in the piece, which changed at the source.'
  if (keeps.span === 'past') return because('Its piece is past', piece)
  if (keeps.until !== null && dayNumber(keeps.until) <= dayNumber(today))
    return because(`Its piece kept until ${keeps.until}`, piece)
  if (piece.linkCheck?.trouble) return `The page it links to is in trouble: ${piece.linkCheck.trouble}`
  return null
}

const because = (what: string, { keeps }: Piece): string =>
  keeps.because ? `${what}: ${keeps.because}` : `${what}.`

function note(days: Map<string, Days>, key: string, account: string, day: number): void {
  const of = days.get(key) ?? new Map<string, number[]>()
  days.set(key, of)
  gatherInto(of, account, day)
}

function gatherInto<T>(groups: Map<string, T[]>, key: string, one: T): void {
  const group = groups.get(key)
  if (group) group.push(one)
  else groups.set(key, [one])
}

function gather<T>(list: readonly T[], key: (one: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>()
  for (const one of list) gatherInto(groups, key(one), one)
  return groups
}

function lastOf(days: readonly number[] | undefined, until: number): number | null {
  let last: number | null = null
  if (days) for (const day of days) if (day <= until && day > (last ?? -Infinity)) last = day
  return last
}

function nearest(days: readonly number[] | undefined, day: number): number {
  let least = Infinity
  if (days) for (const one of days) least = Math.min(least, Math.abs(one - day))
  return least
}
