import { blankPost, nothingYet, type SingleRequest } from '../pipeline'
import {
  asFault,
  type Account,
  type Brand,
  type Occasion,
  type OccasionMake,
  type Passage,
  type Piece,
  type Post,
  type WholePiece,
} from '../model'
import { dayNumber, instantAt, isQuiet, toWall, WEEKDAYS, weekdayOf } from '../planning'
import { NETWORK_DAYS, whyOff, type Shelf } from '../shelf'
import { inWords } from '../text'
import { isKept, themeOf, type Nearness } from './near'

/** What hangs on a day has its place before what may move. */
const PRIORITY = 5
/** So many passages are tried for one account, since not each can be said in words that are new. */
const MOST_TRIED = 12
/** What is done elsewhere: by a worker in the browser, at once in the demo. */
export interface Hands {
  /** Gives a post its place among others, of which some may move for it (`placePosts`): the post first, then these. */
  place: (post: Post, standing: readonly Post[], yielding: readonly Post[]) => Promise<Post[]>
  piece: (id: string, revision: number) => Promise<WholePiece>
  /** Words a post (`singlePost`); refuses (`bad-request`) where no caption can be made. */
  word: (request: Omit<SingleRequest, 'newId'>) => Promise<Post>
}

/** What was written for a day of an occasion. */
export interface OccasionPosts {
  posts: Post[]
  /** Posts that made room, as they stand now; one from the shelf may have no place left. */
  moved: Post[]
  missing: Occasion['missing']
}

/** One day of an occasion for which captions are written. */
export interface OccasionRequest {
  now: string
  brand: Brand
  occasion: Pick<Occasion, 'id' | 'name' | 'theme' | 'lines'>
  /** The day in each account's own zone. */
  day: string
  make: Omit<OccasionMake, 'accounts'>
  accounts: readonly Account[]
  /** The passages near it, nearest first, and everything they may be among. */
  near: readonly Nearness[]
  passages: ReadonlyMap<string, Passage>
  pieces: ReadonlyMap<string, Piece>
  /** When each passage was and will be on which account. What is written here is noted on it. */
  shelf: Shelf
  standing: readonly Post[]
}

/**
 * Writes a post for an occasion on each account that has none for that day, each from a passage of its own near the theme, and
 * places it on that day and no other. Where its openings are taken, posts that hang on no day make room. Where it cannot be, it
 * says why.
 */
export async function writeOccasion(request: OccasionRequest, hands: Hands): Promise<OccasionPosts> {
  const { occasion, day, accounts } = request
  const made: OccasionPosts = { posts: [], moved: [], missing: [] }
  let standing = [...request.standing]
  for (const account of accounts) {
    const there = standing.some(
      (p) =>
        p.occasion?.id === occasion.id &&
        p.occasion.day === day &&
        p.account === account.id &&
        p.state !== 'set aside',
    )
    if (there) continue
    const one = await writeOne({ ...request, standing }, account, hands)
    if ('why' in one) {
      made.missing.push({ day, account: account.id, message: one.why })
      continue
    }
    const moved = new Map(one.moved.map((p) => [p.id, p]))
    standing = [...standing.map((p) => moved.get(p.id) ?? p), one.post]
    made.posts.push(one.post)
    made.moved = [...made.moved.filter((p) => !moved.has(p.id)), ...one.moved]
  }
  return made
}

/** One post with those that made room for it, or a sentence that says why there is none. */
async function writeOne(
  request: OccasionRequest,
  account: Account,
  { place, piece: open, word }: Hands,
): Promise<{ post: Post; moved: Post[] } | { why: string }> {
  const { now, brand, occasion, day, make, standing } = request
  const bounds = { earliest: day, latest: day, priority: PRIORITY, occasion: { id: occasion.id, day } }
  const wished = instantAt(day, '12:00', account.zone)
  // A place is looked for before words are, which take longer.
  const tried = blankPost(account, {
    id: ' for an occasion',
    brand: brand.id,
    wording: nothingYet(`${occasion.id} ${day} ${account.id}`),
    wished,
    ...bounds,
  })
  const free = (await place(tried, standing, []))[0]?.at ?? null
  const yielding = free === null ? standing.filter((p) => makesRoom(p, account, day)) : []
  const room = free === null && yielding.length ? await place(tried, standing, yielding) : []
  if (free === null && (room.length === 0 || losesPlace(room)))
    return { why: whyNoPlace(account, brand, day) }
  const { choices, why } = choicesOn(request, account)
  if (why !== null) return { why }
  for (const { passage, piece } of choices.slice(0, MOST_TRIED)) {
    try {
      const worded = await word({
        now,
        brand,
        piece: await open(piece.id, piece.revision),
        passages: [{ ...passage, choice: 'kept' }],
        passage: passage.id,
        account,
        pipeline: null,
        drip: null,
        beat: 0,
        wished,
        seed: standing.length + 1,
        standing,
        angle: make.angle,
        reader: make.reader,
        line: lineFor(occasion, day, account, request.accounts),
      })
      const [placed, ...others] = await place({ ...worded, ...bounds }, standing, yielding)
      // What this piece has on that day already may leave no opening for another of it.
      if (!placed?.at) continue
      const moved = others.filter((p, i) => p.at !== yielding[i]?.at)
      if (losesPlace(moved)) continue
      request.shelf.take({ passage, piece }, account.id, dayNumber(day))
      return { post: { ...placed, state: 'for review' }, moved }
    } catch (error) {
      if (asFault(error).code !== 'bad-request') throw error
    }
  }
  const anew = 'What is near it can be said in no words that are new on this account'
  return {
    why:
      make.angle === null
        ? `${anew}. Give the occasion other words.`
        : `${anew}, with the angle “${make.angle}”. Let any angle do.`,
  }
}

/** Whether something loses its place altogether that is not from the shelf, which fills what is left. */
const losesPlace = (posts: readonly Post[]): boolean =>
  posts.some((p) => p.at === null && p.shelf === undefined)

/** Whether a post stands on an account's day only because it was placed there: it hangs on no day, and nobody pinned it. */
function makesRoom(post: Post, { id, zone }: Account, day: string): boolean {
  const free = !post.pinned && post.recurrence === null && !post.occasion && post.at !== null
  const here =
    post.account === id &&
    (post.state === 'draft' || post.state === 'for review' || post.state === 'approved')
  return free && here && toWall(Date.parse(post.at ?? ''), zone).date === day
}

/** Why an account has no place on a day, and what to do. */
function whyNoPlace(account: Account, brand: Brand, day: string): string {
  if (isQuiet(day, brand.quiet)) return 'It is a quiet day of the brand.'
  if (isQuiet(day, account.quiet)) return 'It is a quiet day of this account.'
  const weekday = weekdayOf(day)
  if (!account.slots.some((s) => s.weekday === weekday))
    return `This account has no slot on a ${WEEKDAYS[weekday - 1] ?? ''}. Give it one under Dispatch, or write the post by hand at a time of your own.`
  return 'No opening of this account on that day is free, by its slots and limits. Move what stands there, or give it another slot.'
}

/**
 * The line that closes an account's post: among the accounts of a network each has one of its own, and none once they are used
 * up; each network begins with another, and so does each year.
 */
export function lineFor(
  { lines }: Pick<Occasion, 'lines'>,
  day: string,
  account: Pick<Account, 'id' | 'network'>,
  accounts: readonly Pick<Account, 'id' | 'network'>[],
): string | null {
  const among = accounts.filter((a) => a.network === account.network).findIndex((a) => a.id === account.id)
  if (among < 0 || among >= lines.length) return null
  const first = accounts.findIndex((a) => a.network === account.network)
  return lines[(among + first + Number(day.slice(0, 4))) % lines.length] ?? null
}

/** A passage that may be worded for an occasion, with its piece. */
interface Choice {
  passage: Passage
  piece: Piece
}

/**
 * The passages near an occasion that may stand on an account on its day, in the order in which they are to be tried: those that
 * no other account says on that day and that were not said for the occasion before come first, then by nearness and worth.
 */
export function choicesOn(
  { brand, occasion, day, near, passages, pieces, shelf, standing, now }: OccasionRequest,
  account: Pick<Account, 'id' | 'network'>,
): { choices: Choice[]; why: string | null } {
  const at = dayNumber(day)
  const theme = inWords(
    themeOf(occasion).map((w) => `“${w}”`),
    'or',
    6,
  )
  const known = near.flatMap(({ id, score }) => {
    const passage = passages.get(id)
    const piece = passage && pieces.get(passage.piece)
    if (!passage || !piece || whyOff(passage, piece, now.slice(0, 10)) !== null) return []
    return isKept(passage) && (piece.keeps.until === null || piece.keeps.until >= day)
      ? [{ passage, piece, score }]
      : []
  })
  if (known.length === 0)
    return {
      choices: [],
      why: `No passage that you keep says ${theme || 'its words'}. Give the occasion other words, or write the post by hand.`,
    }
  const rested = known.filter(
    ({ passage }) =>
      shelf.daysFrom(passage.id, account.id, at) >= brand.weights.passageDays &&
      shelf.networkDaysFrom(passage.id, account.network, at) >= NETWORK_DAYS,
  )
  if (rested.length === 0)
    return {
      choices: [],
      why: `What says ${theme} stands on this account, or a sibling of it, too near to that day. Give the occasion other words.`,
    }
  const said = (p: Passage): number =>
    Math.max(
      0,
      ...standing
        .filter(
          (post) => post.passage === p.id && post.occasion?.id === occasion.id && post.state !== 'set aside',
        )
        .map((post) => (post.occasion?.day === day ? 2 : 1)),
    )
  const keyed = rested.map((c) => ({ ...c, said: said(c.passage), worth: c.score * c.passage.score }))
  keyed.sort((a, b) => a.said - b.said || b.worth - a.worth || (a.passage.id < b.passage.id ? -1 : 1))
  return { choices: keyed, why: null }
}
