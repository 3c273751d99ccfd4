import type { Account, FromShelf, Piece, Post, ShelfRow } from '../model'
import { addDays, dayNumber, mondayOf } from '../planning'
import { sieve, type SieveContext, type Sieved } from '../sieve'
import type { Shelf, Shelved } from './shelf'

/** So many days before and after a post of a piece nothing else of it comes from the shelf to that account, unless it is a collection. */
const PIECE_DAYS = 7
/** So many days lie between the same words on two accounts of a network. */
export const NETWORK_DAYS = 7
/** So many days ahead the shelf fills openings: near enough that new work has its place before. */
const SHELF_DAYS = 7
/** The priority of what comes from the shelf: new work has its place before. */
export const SHELF_PRIORITY = -1

/** What a choice from the shelf goes by. */
export interface ShelfChoice {
  by: Pick<FromShelf, 'order' | 'restDays' | 'earned'>
  /** The least rest of a passage on an account that the brand asks for, in days. */
  passageDays: number
  /** The pieces that the row takes. */
  takes: ReadonlySet<string>
  /** How many times its account's usual each passage earned, where that is known. */
  worth: ReadonlyMap<string, number>
}

/** The pieces that a row takes, by their ids; `pieces` carry their words where its rules look into them. */
export function takenBy(
  { pieces: which }: Pick<ShelfRow, 'pieces'>,
  pieces: readonly (Sieved & { id: string })[],
  context: SieveContext,
): Set<string> {
  const rules = which.kind === 'that' ? which.rules : []
  return new Set(pieces.filter((p) => sieve(p, rules, context).passed).map((p) => p.id))
}

/**
 * The passages that may come to an account on a day. None comes before its rest, whether what is near it lies behind or
 * ahead; none while a drip of its piece is under way there; and nothing that another account of the network says within a
 * week.
 */
export function choicesFor(
  shelf: Shelf,
  account: Pick<Account, 'id' | 'network'>,
  day: string,
  choice: ShelfChoice,
): Shelved[] {
  const at = dayNumber(day)
  const rest = Math.max(choice.by.restDays, choice.passageDays)
  // The passages of a piece share what holds of it: it is worked out once.
  const pieces = new Map<string, boolean>()
  const ofPiece = ({ id, keeps, collection }: Piece): boolean => {
    const known = pieces.get(id)
    if (known !== undefined) return known
    const may =
      (keeps.until === null || dayNumber(keeps.until) >= at) &&
      !shelf.isUnderWay(id, account.id) &&
      (collection === true || shelf.pieceDaysFrom(id, account.id, at) >= PIECE_DAYS)
    pieces.set(id, may)
    return may
  }
  return shelf.items.filter(
    ({ passage, piece, off }) =>
      off === null &&
      (passage.shelf === 'on' || isAskedFor(passage.id, piece.id, choice)) &&
      ofPiece(piece) &&
      shelf.daysFrom(passage.id, account.id, at) >= rest &&
      shelf.networkDaysFrom(passage.id, account.network, at) >= NETWORK_DAYS,
  )
}

/** The first so many of the passages that may come to an account, in the order in which they are to be tried. */
export function firstOf(
  choices: readonly Shelved[],
  shelf: Shelf,
  account: Pick<Account, 'id'>,
  { by, worth }: Pick<ShelfChoice, 'by' | 'worth'>,
  most: number,
): Shelved[] {
  const keyed = keyedIn(by.order, worth, ({ passage, piece }) => [
    shelf.lastSeen(passage.id, account.id),
    shelf.lastOfPiece(piece.id, account.id),
  ])
  // A few of very many: what does not come before the last of them is passed by.
  const best: Keyed[] = []
  for (const item of choices) {
    const one = keyed(item)
    if (best.length === most && compared(one, best[most - 1] as Keyed) >= 0) continue
    let at = best.length
    while (at > 0 && compared(one, best[at - 1] as Keyed) < 0) at--
    best.splice(at, 0, one)
    if (best.length > most) best.pop()
  }
  return best.map(({ item }) => item)
}

/** Whether a row asks for a passage: of which pieces, and what it must have earned. */
function isAskedFor(passage: string, piece: string, { by, takes, worth }: ShelfChoice): boolean {
  return takes.has(piece) && (by.earned === null || (worth.get(passage) ?? 0) >= by.earned)
}

/** What stands on the shelf in an order of it, over all accounts. */
export function ordered(
  items: readonly Shelved[],
  order: FromShelf['order'],
  worth: ReadonlyMap<string, number>,
): Shelved[] {
  return items
    .map(keyedIn(order, worth, ({ lastDay }) => [lastDay, lastDay]))
    .sort(compared)
    .map(({ item }) => item)
}

/** The last days on which a passage's words and anything of its piece were seen; null for never. */
type Seen = (item: Shelved) => readonly [number | null, number | null]

/** A passage with what it is put in order by, what counts most first. */
interface Keyed {
  item: Shelved
  key: readonly (number | string)[]
}

function keyedIn(
  order: FromShelf['order'],
  worth: ReadonlyMap<string, number>,
  seen: Seen,
): (item: Shelved) => Keyed {
  const key = (item: Shelved): (number | string)[] => {
    const { id, score } = item.passage
    const [passage, piece] = seen(item)
    switch (order) {
      case 'the longest unseen first':
        return [passage ?? -Infinity, piece ?? -Infinity, -score, id]
      // The passages of a piece, and pieces of one day, take turns.
      case 'the oldest first':
        return [item.piece.publishedAt ?? item.piece.takenAt, passage ?? -Infinity, id]
      // Nothing is known of what was never out: it is taken to earn what is usual.
      case 'the best first':
        return [-(worth.get(id) ?? 1), passage ?? -Infinity, id]
    }
  }
  return (item) => ({ item, key: key(item) })
}

function compared({ key: a }: Keyed, { key: b }: Keyed): number {
  for (let i = 0; i < a.length; i++) {
    const one = a[i] as number | string
    const other = b[i] as number | string
    if (one !== other) return one < other ? -1 : 1
  }
  return 0
}

/** A post that a row wants from the shelf: the local day that names it, and those between which it may stand. */
export interface ShelfWish {
  day: string
  from: string
  until: string
}

/**
 * The posts that a row still wants on an account in the coming week, from tomorrow. So many a week share the days from
 * Monday on evenly among them, and each may stand on any of its own, since not every day has a slot. What was made for a
 * day counts, whatever became of it since.
 */
export function wishesOf(
  { id, by }: Pick<ShelfRow, 'id' | 'by'>,
  account: string,
  posts: readonly Pick<Post, 'shelf' | 'account'>[],
  today: string,
): ShelfWish[] {
  const made = new Map<string, number>()
  for (const { shelf, account: of } of posts)
    if (shelf?.row === id && of === account) made.set(shelf.day, (made.get(shelf.day) ?? 0) + 1)
  const tomorrow = addDays(today, 1)
  return Array.from({ length: SHELF_DAYS }, (_, i) => addDays(today, i + 1)).flatMap((day) =>
    wantedOn(day, by)
      .slice(made.get(day) ?? 0)
      .map((wish) => ({ ...wish, from: wish.from < tomorrow ? tomorrow : wish.from })),
  )
}

/** The posts that a row wants for a day, each named by the middle of its own days. */
function wantedOn(day: string, { posts, per }: Pick<FromShelf, 'posts' | 'per'>): ShelfWish[] {
  if (per === 'day') return new Array<ShelfWish>(posts).fill({ day, from: day, until: day })
  const monday = mondayOf(day)
  const begins = (k: number): number => Math.floor((k * 7) / posts)
  return Array.from({ length: posts }, (_, k) => {
    const [first, last] = [begins(k), Math.max(begins(k), begins(k + 1) - 1)]
    const middle = first + Math.floor((last - first) / 2)
    return { day: addDays(monday, middle), from: addDays(monday, first), until: addDays(monday, last) }
  }).filter((wish) => wish.day === day)
}
