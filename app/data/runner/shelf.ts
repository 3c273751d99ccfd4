import {
  asFault,
  isShelfRow,
  type Account,
  type Pipeline,
  type Post,
  type ShelfRow,
} from '../../../core/model'
import { accountsOf, blankPost, gateState, nothingYet } from '../../../core/pipeline'
import { addDays, dayNumber, instantAt, startOfDay, toWall } from '../../../core/planning'
import {
  choicesFor,
  firstOf,
  SHELF_PRIORITY,
  wishesOf,
  type Shelf,
  type ShelfChoice,
  type Shelved,
  type ShelfWish,
} from '../../../core/shelf'
import { heavy } from '../../workers'
import { byItsWriter } from '../actions/byItsWriter'
import { tryPlaces } from '../actions/plan'
import { shelfFor } from '../shelf'
import { all, commit, put, wholePiece } from '../store'
import type { Around } from './dripBy'
import type { RunLog } from './runLog'

const HOUR = 3_600_000
/** After so many milliseconds a day is tried again for which the shelf had nothing, or no opening was free. */
const TRY_AGAIN = 6 * HOUR
/** So many passages are tried for one day, since not each can be said in words that are new. */
const MOST_TRIED = 12
/** So many milliseconds a passage is left alone that had no new words for an account. */
const NO_WORDS = 30 * 24 * HOUR
/** So many days are seen to in one round at most; the next one goes on. */
const MOST_A_ROUND = 12
/** When each day of a row and an account is tried again, in milliseconds since 1970. */
const tryAgainAt = new Map<string, number>()
/** Until when a passage is left alone on an account, in milliseconds since 1970, by both their ids. */
const leftAlone = new Map<string, number>()

/** Fills the openings of the coming week from the shelf, by each row of a pipeline that drips from it. */
export async function dripFromShelf(pipeline: Pipeline, around: Around, log: RunLog): Promise<void> {
  const rows = pipeline.release.filter(isShelfRow)
  if (rows.length === 0) return
  const now = Date.parse(around.now)
  const tomorrow = addDays(toWall(now, around.brand.zone).date, 1)
  around.later(new Date(startOfDay(tomorrow, around.brand.zone)).toISOString())
  const posts = await all('posts', 'brand', pipeline.brand)
  let room = MOST_A_ROUND
  for (const row of rows) {
    const lanes = accountsOf(
      row,
      around.accounts.filter((a) => a.brand === pipeline.brand),
    )
    const wishes = lanes.flatMap((account) =>
      wishesOf(row, account.id, posts, toWall(now, account.zone).date).map((wish) => ({ account, wish })),
    )
    const open = wishes.filter(({ account, wish }) => (tryAgainAt.get(keyOf(row, account, wish)) ?? 0) <= now)
    if (open.length === 0) continue
    const { shelf, choice } = await shelfFor(around.brand, row)
    for (const { account, wish } of open) {
      if (room-- <= 0) {
        around.later(new Date(now + 1).toISOString())
        return
      }
      const made = await fill({ pipeline, row, account, wish, shelf, choice, around, log })
      if (!made) tryAgainAt.set(keyOf(row, account, wish), now + TRY_AGAIN)
    }
  }
  for (const [key, at] of tryAgainAt) {
    // What is still wanted was tried just now; the rest is of days that have passed, or of rows that were changed.
    if (at <= now) tryAgainAt.delete(key)
    else around.later(new Date(at).toISOString())
  }
}

/** A row that was changed is tried at once. */
const keyOf = ({ id, by, pieces }: ShelfRow, account: Account, { day }: ShelfWish): string =>
  JSON.stringify([id, by, pieces, account.id, day])

interface Filling {
  pipeline: Pipeline
  row: ShelfRow
  account: Account
  wish: ShelfWish
  shelf: Shelf
  choice: ShelfChoice
  around: Around
  log: RunLog
}

/**
 * Writes one post from the shelf for a wish of a row and keeps it. Gives whether there is one now: not where none of its days has an
 * opening that is free, no passage has rested by then, or none can be said in words that are new.
 */
async function fill(of: Filling): Promise<boolean> {
  const { pipeline, row, account, wish, shelf, choice, around, log } = of
  // A place is looked for before words are, which take longer; what may come hangs on its day.
  const [place] = await tryPlaces([
    blankPost(account, {
      id: ' from the shelf',
      brand: pipeline.brand,
      pipeline: pipeline.id,
      wording: nothingYet(`${row.id} ${account.id} ${wish.day}`),
      wished: noonOf(wish.day, account),
      earliest: wish.from,
      latest: wish.until,
      priority: SHELF_PRIORITY,
    }),
  ])
  if (!place?.at) return false
  const day = toWall(Date.parse(place.at), account.zone).date
  const bounds = {
    earliest: day,
    latest: day,
    priority: SHELF_PRIORITY,
    shelf: { row: row.id, day: wish.day },
  }
  const now = Date.parse(around.now)
  const alone = ({ passage }: Shelved): string => `${account.id} ${passage.id}`
  const choices = choicesFor(shelf, account, day, choice).filter((i) => (leftAlone.get(alone(i)) ?? 0) <= now)
  for (const item of firstOf(choices, shelf, account, choice, MOST_TRIED)) {
    const worded = await wordedFrom(of, item, noonOf(day, account))
    if (!worded) {
      leftAlone.set(alone(item), now + NO_WORDS)
      continue
    }
    const [placed = worded] = await tryPlaces([{ ...worded, ...bounds }])
    if (placed.at === null) return false
    const { id: piece, title } = item.piece
    return log.step({ what: 'from the shelf', piece, title, row: row.id }, async () => {
      const gated = { ...placed, state: gateState(placed.checks, pipeline.gate) }
      const post = await byItsWriter(gated, around.brand, { pipeline, gate: pipeline.gate })
      await commit('machine', [put('posts', post)])
      shelf.take(item, account.id, dayNumber(day))
      return { message: `A post for @${account.handle} on ${day}`, posts: 1, drip: null }
    })
  }
  return false
}

const noonOf = (day: string, { zone }: Account): string => instantAt(day, '12:00', zone)

/** A passage of the shelf as a post for an account, in words that are new there; null where there are none. */
async function wordedFrom(
  { pipeline, account, around }: Filling,
  { passage, piece: { id, revision } }: Shelved,
  wished: string,
): Promise<Post | null> {
  const [piece, standing] = await Promise.all([wholePiece(id, revision), all('posts')])
  try {
    return await heavy().singlePost({
      now: around.now,
      brand: around.brand,
      piece,
      // This one and no other: the rest of the piece may not have rested.
      passages: [{ ...passage, choice: 'kept' }],
      passage: passage.id,
      account,
      pipeline,
      drip: null,
      beat: 0,
      wished,
      seed: standing.length + 1,
      standing,
    })
  } catch (error) {
    if (asFault(error).code !== 'bad-request') throw error
    return null
  }
}
