import { NEARNESS, type Book, type Task } from './book'
import type { Opening } from './openings'
import { localDay } from './zone'

const MINUTE = 60_000

/** A place that breaks no hard rule, with its price. */
export interface Place {
  at: number
  day: number
  cost: number
}

/** How far from the wished day the planner looks, in days, where nothing bounds it. */
export const REACH_DAYS = 400

/** The days on which a post may stand, from the one nearest to its wish outwards. */
export function* daysOutward(task: Task, now: number): Generator<number> {
  const zone = task.lane.account.zone
  const first = localDay(Math.max(task.from, now), zone)
  const last = task.to === Infinity ? Infinity : localDay(task.to, zone)
  if (last < first) return
  const centre = Math.min(Math.max(task.wishDay, first), last)
  yield centre
  for (let distance = 1; distance <= REACH_DAYS; distance++) {
    const later = centre + distance
    const earlier = centre - distance
    if (later > last && earlier < first) return
    if (later <= last) yield later
    if (earlier >= first) yield earlier
  }
}

/** The moment of an opening that suits a post best: its wish where that lies inside, else the drawn one. */
export function momentFor(opening: Opening, task: Task): number {
  const { wished } = task
  if (opening.from === opening.to || wished < opening.from || wished > opening.to) return opening.drawn
  return Math.floor(wished / MINUTE) * MINUTE
}

/** The first moment of an opening at which a post breaks no hard rule, or null. */
export function momentIn(opening: Opening, task: Task, day: number, now: number, book: Book): number | null {
  if (opening.to < now || opening.to < task.from || opening.from > task.to) return null
  const first = momentFor(opening, task)
  const inBounds =
    first >= now && first >= task.from && first <= task.to && task.lane.takesUp(first, day, opening)
  if (inBounds) {
    const rule = book.obstacle(task, first, day, opening)
    if (rule === null) return first
    // Other minutes of the same window can mend only what depends on the minute.
    if (rule !== 'gap' && rule !== 'same words' && rule !== 'same minute') return null
  }
  if (opening.from === opening.to) return null
  const from = Math.max(opening.from, Math.ceil(Math.max(now, task.from) / MINUTE) * MINUTE)
  const to = Math.min(opening.to, Math.floor(Math.min(task.to, opening.to) / MINUTE) * MINUTE)
  const closed = book.closed(task, day, { from, to })
  if (from > to || closed.some((c) => c.from < from && c.to > to)) return null
  const free = (list: readonly number[]): number | null => {
    const inside = list.filter(
      (at) =>
        at !== first &&
        at >= from &&
        at <= to &&
        !closed.some((c) => at > c.from && at < c.to) &&
        task.lane.takesUp(at, day, opening),
    )
    if (first !== opening.drawn)
      inside.sort((a, b) => Math.abs(a - task.wished) - Math.abs(b - task.wished) || a - b)
    return inside.find((at) => book.obstacle(task, at, day, opening) === null) ?? null
  }
  // Minutes spread over the window first, so that posts do not crowd at the ends of their gaps; then those ends.
  return free(opening.others()) ?? free(book.edges(task, day, { from, to }))
}

/**
 * The legal places of a post that cost less than `below`, as the others stand, one an opening.
 * Looks outwards from the wished day and ends where the distance alone costs as much.
 */
export function placesOf(
  task: Task,
  now: number,
  book: Book,
  below: number,
  onFound: (place: Place) => number,
): void {
  let bound = below
  for (const day of daysOutward(task, now)) {
    if (leastCost(task, day) >= bound) break
    if (task.lane.isQuiet(day)) continue
    for (const opening of task.lane.openings(day)) {
      const at = momentIn(opening, task, day, now, book)
      if (at === null) continue
      const cost = book.cost(task, at, day)
      if (cost < bound + EPSILON) bound = Math.min(bound, onFound({ at, day, cost }))
    }
  }
}

/** The place of least price for a post as the others stand, or null. Among equals the earlier moment is taken. */
export function bestPlace(task: Task, now: number, book: Book, below = Infinity): Place | null {
  let best: Place | null = null
  placesOf(task, now, book, below, (place) => {
    const least = best?.cost ?? below
    if (place.cost < least - EPSILON || (best && place.cost < least + EPSILON && place.at < best.at))
      best = place
    return Math.min(least, place.cost)
  })
  return best
}

/** A price under which a post cannot stand on a day: its distance alone. */
export function leastCost(task: Task, day: number): number {
  return task.factor * task.lane.weights.distance * Math.max(0, Math.abs(day - task.wishDay) - NEARNESS)
}

/** Prices that differ by less are the same. */
export const EPSILON = 1e-9
