import { openingsBy, quietDays, type Opening } from './openings'
import type { Weights } from '../model'
import type { PlanAccount } from './rules'
import { localDay, localMinutes, momentAt, weekdayOfDay } from './zone'

const MINUTE = 60_000

/** Two moments, both included. */
export interface Span {
  from: number
  to: number
}

/** An account with its openings and quiet days, worked out a day at a time and kept. */
export class Lane {
  readonly account: PlanAccount
  readonly isQuiet: (day: number) => boolean
  readonly #of: (day: number) => Opening[]
  readonly #openings = new Map<number, Opening[]>()
  readonly #overlapping = new Map<number, boolean>()
  readonly #bornOn: number | null

  readonly #index: number
  /** What the soft rules count here. */
  readonly weights: Weights

  /** `index` tells the lanes of one plan apart. */
  constructor(account: PlanAccount, index: number, weights: Weights) {
    this.#index = index
    this.account = account
    this.weights = account.weights ?? weights
    this.isQuiet = quietDays(account.quiet)
    this.#of = openingsBy(account)
    this.#bornOn = account.warmUp ? localDay(Date.parse(account.warmUp.since), account.zone) : null
  }

  /** A number for a day or week of this lane that no other lane of the plan has. */
  keyOf(day: number): number {
    return this.#index * 10_000_000 + day
  }

  /** The openings of a local day by its number, whether or not it is quiet. */
  openings(day: number): Opening[] {
    let found = this.#openings.get(day)
    if (!found) this.#openings.set(day, (found = this.#of(day)))
    return found
  }

  /**
   * The opening that a moment lies in, the narrowest where slots overlap; null where there is
   * none. The second run of an hour that the clocks repeat lies in none.
   */
  openingAt(at: number, day: number): Opening | null {
    const minute = localMinutes(at, this.account.zone)
    if (Math.abs((momentAt(day, minute, this.account.zone) ?? 0) - at) >= MINUTE) return null
    let best: Opening | null = null
    for (const o of this.openings(day))
      if (at >= o.from && at <= o.to && (!best || o.to - o.from < best.to - best.from)) best = o
    return best
  }

  /**
   * Whether a post that stands at a moment of a day takes up an opening of it: that is the narrowest which
   * holds the moment, so that an exact time within a window is an opening of its own.
   */
  takesUp(at: number, day: number, opening: Span): boolean {
    if (at < opening.from || at > opening.to) return false
    if (opening.from === opening.to || !this.#overlaps(day)) return true
    const narrowest = this.openingAt(at, day)
    return narrowest === null || (narrowest.from === opening.from && narrowest.to === opening.to)
  }

  /** Whether two openings of a day share a minute. */
  #overlaps(day: number): boolean {
    let found = this.#overlapping.get(day)
    if (found === undefined) {
      let end = -Infinity
      found = this.openings(day).some((o) => {
        const shared = o.from <= end
        end = Math.max(end, o.to)
        return shared
      })
      this.#overlapping.set(day, found)
    }
    return found
  }

  /** The most posts that its warm-up allows on a day; Infinity once it is warm. */
  warmCap(day: number): number {
    if (this.#bornOn === null || !this.account.warmUp) return Infinity
    const age = day - this.#bornOn
    const step = this.account.warmUp.steps.find((s) => age < s.days)
    return step?.postsPerDay ?? Infinity
  }

  /** The hour of the week in its zone, Monday 0 h is 0. */
  hourOf(at: number): number {
    const { zone } = this.account
    return (weekdayOfDay(localDay(at, zone)) - 1) * 24 + Math.floor(localMinutes(at, zone) / 60)
  }
}
