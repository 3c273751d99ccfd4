import { Book, type Task } from './book'
import { Lane } from './lane'
import { bestPlace } from './places'
import { taskOf } from './plan'
import type { Plan } from './rules'
import { dateOf, dayNumber, momentAt } from './zone'

/** A day on which a drip might begin, with how far its beats would stand from their days, in sum. */
export interface StartDay {
  day: string
  /** Days of displacement and the other prices of the soft rules, summed over accounts and beats. */
  price: number
  /** Beats that would find no place at all. */
  unplaced: number
}

/** The price of a beat without a place. */
const NO_PLACE = 400
/** The price of beginning a day later, so that among equals the earlier day is taken. */
const WAITING = 0.02

/**
 * The days from `from` on at which a drip may begin, the one that collides least first. Every
 * beat of every account is priced alone at its best opening around what stands, which bounds the
 * price of the whole from below; no post is placed.
 */
export function startDays(
  input: Plan,
  drip: { accounts: readonly string[]; days: readonly number[] },
  from: string,
  within = 28,
): StartDay[] {
  const lanes = new Map(input.accounts.map((a, i) => [a.id, new Lane(a, i, input.weights)]))
  const book = new Book(0)
  for (const post of input.posts) {
    const lane = lanes.get(post.account)
    const at = post.pinnedAt ?? post.at
    if (lane && at) book.add(taskOf(post, lane, false, null), Date.parse(at))
  }
  const now = Date.parse(input.now)
  const prices = new Map<string, number | null>()
  const priceOn = (lane: Lane, day: number): number | null => {
    const key = `${lane.account.id} ${day}`
    let price = prices.get(key)
    if (price === undefined) {
      const task = beatAt(lane, day)
      price = bestPlace(task, now, book)?.cost ?? null
      prices.set(key, price)
    }
    return price
  }
  const first = dayNumber(from)
  return Array.from({ length: within }, (_, i): StartDay => {
    let price = i * WAITING
    let unplaced = 0
    for (const id of drip.accounts) {
      const lane = lanes.get(id)
      if (!lane) continue
      for (const beat of drip.days) {
        const found = priceOn(lane, first + i + beat)
        if (found === null) unplaced++
        price += found ?? NO_PLACE
      }
    }
    return { day: dateOf(first + i), price, unplaced }
  }).sort((a, b) => a.price - b.price || (a.day < b.day ? -1 : 1))
}

function beatAt(lane: Lane, day: number): Task {
  const wished = momentAt(day, 720, lane.account.zone) ?? day * 86_400_000
  return {
    id: ' a beat to come',
    lane,
    piece: null,
    passage: null,
    picture: null,
    pipeline: null,
    limit: null,
    beat: null,
    words: '',
    wished,
    wishDay: day,
    from: -Infinity,
    to: Infinity,
    factor: 1,
    pinned: null,
    stood: null,
  }
}
