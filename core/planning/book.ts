import type { PlanLimit, Rule } from './rules'
import type { Lane, Span } from './lane'
import { localDay, localMinutes, weekNumber } from './zone'

const MINUTE = 60_000
const HOUR = 3_600_000
const DAY = 86_400_000

/** How much of a day's price the time of day makes up. */
export const NEARNESS = 0.05

/** A post that wants a place, with everything about it that does not depend on where it stands. */
export interface Task {
  readonly id: string
  readonly lane: Lane
  readonly piece: string | null
  /** Its passage, picture and pipeline, each with the account's id; null where it has none. */
  readonly passage: string | null
  readonly picture: string | null
  readonly pipeline: string | null
  /** What its pipeline is limited to, the same object for all of its posts; null where nothing limits it. */
  readonly limit: PlanLimit | null
  readonly beat: string | null
  /** Its words without case, space, links and tags, and the network's name; empty where it has no siblings. */
  readonly words: string
  /** The wished moment, and its day in the account's zone. */
  readonly wished: number
  readonly wishDay: number
  /** The span in which it may go out, both ends included. */
  readonly from: number
  readonly to: number
  /** How many times its displacement counts: rises with its priority. */
  readonly factor: number
  /** A person's pin, or what went out: never moved. */
  readonly pinned: number | null
  /** Where it stood before this plan. */
  readonly stood: number | null
}

/** A post at a moment. */
export interface Standing {
  readonly task: Task
  readonly at: number
  readonly day: number
}

/**
 * What has been placed, with the look-ups that rules and costs need: by account and day, by week,
 * by picture, passage, words and beat. Posts can be taken out again, so that other places can be
 * tried for them. Every answer about a post is given as if it were not in the book.
 */
export class Book {
  readonly #siblings: number
  readonly #places = new Map<string, Standing>()
  readonly #days = new Map<number, Standing[]>()
  readonly #weeks = new Map<number, number>()
  readonly #shares = new Map<string, Map<number, number>>()
  readonly #limited = new Map<PlanLimit, { days: Map<number, number>; weeks: Map<number, number> }>()
  readonly #pictures = new Map<string, Standing[]>()
  readonly #passages = new Map<string, Standing[]>()
  readonly #words = new Map<string, Standing[]>()
  readonly #beats = new Map<string, Standing[]>()

  constructor(siblingDays: number) {
    this.#siblings = siblingDays * DAY
  }

  /** Where a post stands, or undefined. */
  placeOf(task: Task): Standing | undefined {
    return this.#places.get(task.id)
  }

  add(task: Task, at: number): void {
    const day = localDay(at, task.lane.account.zone)
    const standing: Standing = { task, at, day }
    this.#places.set(task.id, standing)
    push(this.#days, task.lane.keyOf(day), standing)
    count(this.#weeks, task.lane.keyOf(weekNumber(day)), 1)
    if (task.pipeline) count(within(this.#shares, task.pipeline), weekNumber(day), 1)
    this.#count(task, day, 1)
    if (task.picture) push(this.#pictures, task.picture, standing)
    if (task.passage) push(this.#passages, task.passage, standing)
    if (task.words) push(this.#words, task.words, standing)
    if (task.beat) push(this.#beats, task.beat, standing)
  }

  /** Notes a post of an account on which nothing is to be placed: only what other accounts mind of it. */
  note(task: Task, at: number): void {
    if (task.limit) this.#count(task, localDay(at, task.lane.account.zone), 1)
    if (!task.words && !task.beat) return
    const standing: Standing = { task, at, day: 0 }
    if (task.words) push(this.#words, task.words, standing)
    if (task.beat) push(this.#beats, task.beat, standing)
  }

  /** Counts a post of a limited pipeline on its day and in its week, or takes it off the count. */
  #count(task: Task, day: number, by: number): void {
    if (!task.limit) return
    let counts = this.#limited.get(task.limit)
    if (!counts) this.#limited.set(task.limit, (counts = { days: new Map(), weeks: new Map() }))
    count(counts.days, day, by)
    count(counts.weeks, weekNumber(day), by)
  }

  /** How many posts of a post's limited pipeline stand on a day and in its week, itself left out. */
  ofPipeline(task: Task, day: number): { onDay: number; inWeek: number } {
    const counts = task.limit && this.#limited.get(task.limit)
    if (!counts) return { onDay: 0, inWeek: 0 }
    const own = this.#places.get(task.id)
    const week = weekNumber(day)
    return {
      onDay: (counts.days.get(day) ?? 0) - (own?.day === day ? 1 : 0),
      inWeek: (counts.weeks.get(week) ?? 0) - (own && weekNumber(own.day) === week ? 1 : 0),
    }
  }

  /** The rules of a post's pipeline that one more post on a day would break. */
  #overLimit(task: Task, day: number): Rule[] {
    const { onDay, inWeek } = this.ofPipeline(task, day)
    const broken: Rule[] = []
    if (onDay >= (task.limit?.aDay ?? Infinity)) broken.push('pipeline day full')
    if (inWeek >= (task.limit?.aWeek ?? Infinity)) broken.push('pipeline week full')
    return broken
  }

  /** Takes a post out; gives where it stood. */
  remove(task: Task): number {
    const standing = this.#places.get(task.id)
    if (!standing) throw new Error(`${task.id} has no place to be taken from.`)
    this.#places.delete(task.id)
    drop(this.#days, task.lane.keyOf(standing.day), standing)
    count(this.#weeks, task.lane.keyOf(weekNumber(standing.day)), -1)
    if (task.pipeline) count(within(this.#shares, task.pipeline), weekNumber(standing.day), -1)
    this.#count(task, standing.day, -1)
    if (task.picture) drop(this.#pictures, task.picture, standing)
    if (task.passage) drop(this.#passages, task.passage, standing)
    if (task.words) drop(this.#words, task.words, standing)
    if (task.beat) drop(this.#beats, task.beat, standing)
    return standing.at
  }

  /** The posts of an account on a day, by its number. */
  on(lane: Lane, day: number): readonly Standing[] {
    return this.#days.get(lane.keyOf(day)) ?? NONE
  }

  /** The posts of an account in the week of a day. */
  inWeek(lane: Lane, day: number): Standing[] {
    const monday = weekNumber(day) * 7 - 3
    return [0, 1, 2, 3, 4, 5, 6].flatMap((i) => this.on(lane, monday + i))
  }

  /** Posts of other accounts with the same words, and those of the same beat. */
  related(task: Task): Standing[] {
    return [
      ...(this.#words.get(task.words) ?? NONE).filter((s) => s.task.lane !== task.lane),
      ...(task.beat ? (this.#beats.get(task.beat) ?? NONE) : NONE).filter((s) => s.task !== task),
    ]
  }

  /**
   * The first hard rule that depends on other posts which a post would break at a moment of an
   * opening, or null. Symmetric between posts, and never broken by taking one out.
   */
  obstacle(task: Task, at: number, day: number, span: Span): Rule | null {
    return this.#broken(task, at, day, span, null)
  }

  /** All hard rules that depend on other posts which a post would break at a moment of an opening, each once. */
  obstacles(task: Task, at: number, day: number, span: Span): Rule[] {
    const all = new Set<Rule>()
    this.#broken(task, at, day, span, all)
    return [...all]
  }

  /** The first rule that would be broken, or null; where `all` is given, all of them are put into it. */
  #broken(task: Task, at: number, day: number, span: Span, all: Set<Rule> | null): Rule | null {
    const { lane } = task
    const { account } = lane
    let onDay = 0
    for (const s of this.on(lane, day)) {
      if (s.task === task) continue
      if (lane.takesUp(s.at, day, span) && !all?.add('taken')) return 'taken'
      if (task.piece && s.task.piece === task.piece && !all?.add('same piece')) return 'same piece'
      onDay++
    }
    if (onDay >= account.maxPerDay && !all?.add('day full')) return 'day full'
    if (onDay >= lane.warmCap(day) && !all?.add('warming up')) return 'warming up'
    if (this.#tooNear(task, at, day) && !all?.add('gap')) return 'gap'
    const own = this.#places.get(task.id)
    const week = weekNumber(day)
    const inWeek = this.#weeks.get(lane.keyOf(week)) ?? 0
    if (
      inWeek - (own && weekNumber(own.day) === week ? 1 : 0) >= account.maxPerWeek &&
      !all?.add('week full')
    )
      return 'week full'
    if (task.limit) for (const rule of this.#overLimit(task, day)) if (!all?.add(rule)) return rule
    if (task.words)
      for (const s of this.#words.get(task.words) ?? NONE)
        if (s.task.lane !== lane && Math.abs(s.at - at) <= this.#siblings && !all?.add('same words'))
          return 'same words'
    if (task.beat) {
      const minute = Math.floor(at / MINUTE)
      for (const s of this.#beats.get(task.beat) ?? NONE)
        if (s.task.lane !== lane && Math.floor(s.at / MINUTE) === minute && !all?.add('same minute'))
          return 'same minute'
    }
    return null
  }

  /**
   * The minutes of a span at which a rule that depends on the minute begins or ends to hold: about each post of
   * the account its gap, about each with the same words the sibling days, about each of the same beat its
   * minute. If any minute of the span breaks no rule, one of these or an end of the span breaks none.
   */
  edges(task: Task, day: number, span: Span): number[] {
    const gap = Math.max(1, task.lane.account.gapMinutes * MINUTE)
    const days = Math.ceil(gap / DAY) + 1
    const around: number[] = []
    const both = (at: number, apart: number): void => {
      around.push(Math.floor((at - apart) / MINUTE) * MINUTE, Math.ceil((at + apart) / MINUTE) * MINUTE)
    }
    for (let d = day - days; d <= day + days; d++)
      for (const s of this.on(task.lane, d)) if (s.task !== task) both(s.at, gap)
    if (task.words) for (const s of this.#words.get(task.words) ?? NONE) both(s.at, this.#siblings + MINUTE)
    const beats = task.beat ? (this.#beats.get(task.beat) ?? NONE) : NONE
    // A minute of the same beat may lie at any edge: so many minutes beside each are enough.
    const beside = Array.from({ length: 2 * beats.length + 1 }, (_, i) => (i - beats.length) * MINUTE)
    return [...around, span.from, span.to].flatMap((at) => beside.map((step) => at + step))
  }

  /**
   * The moments of a day's span that lie closer to another post of the account than its gap allows: spans
   * without their ends, the earliest first, joined where they meet.
   */
  closed(task: Task, day: number, span: Span): Span[] {
    const gap = Math.max(1, task.lane.account.gapMinutes * MINUTE)
    // A day more on either side, since a day may have 25 hours.
    const days = Math.ceil(gap / DAY) + 1
    const spans: Span[] = []
    for (let d = day - days; d <= day + days; d++)
      for (const s of this.on(task.lane, d))
        if (s.task !== task && s.at + gap > span.from && s.at - gap < span.to)
          spans.push({ from: s.at - gap, to: s.at + gap })
    spans.sort((a, b) => a.from - b.from)
    const joined: Span[] = []
    for (const next of spans) {
      const last = joined[joined.length - 1]
      // Their ends are free: where one ends as the next begins, that moment is.
      if (last && next.from < last.to) last.to = Math.max(last.to, next.to)
      else joined.push(next)
    }
    return joined
  }

  /** Whether another post of the account stands closer than its gap, or in the same moment. */
  #tooNear(task: Task, at: number, day: number): boolean {
    const { lane } = task
    const gap = Math.max(1, lane.account.gapMinutes * MINUTE)
    // An hour's margin, since a day may have 23 or 25 of them.
    const since = localMinutes(at, lane.account.zone) * MINUTE - HOUR
    const first = day - Math.max(0, Math.ceil((gap - since) / DAY))
    const last = day + Math.max(0, Math.ceil((gap + since + 2 * HOUR - DAY) / DAY))
    for (let d = first; d <= last; d++)
      for (const s of this.on(lane, d)) if (s.task !== task && Math.abs(s.at - at) < gap) return true
    return false
  }

  /**
   * What the soft rules ask for a post at a moment, by rule, in the unit of the weights (days).
   * Terms between two posts are symmetric, so a plan's whole price is the sum over its posts in
   * whatever order they are put in.
   */
  terms(task: Task, at: number, day: number): Record<SoftRule, number> {
    const w = task.lane.weights
    return {
      distance: this.#distance(task, at, day),
      picture: task.picture ? again(this.#pictures.get(task.picture), task, at, w.picture, w.pictureDays) : 0,
      passage: task.passage ? again(this.#passages.get(task.passage), task, at, w.passage, w.passageDays) : 0,
      share: task.pipeline ? w.share * this.#sharers(task, task.pipeline, day) : 0,
      even: w.even * this.#beside(task, day),
      hours: this.#hour(task, at),
      stagger: this.#crowd(task, at),
    }
  }

  /** The sum of the terms. */
  cost(task: Task, at: number, day: number): number {
    const w = task.lane.weights
    let sum = this.#distance(task, at, day) + this.#hour(task, at) + this.#crowd(task, at)
    if (w.even > 0) sum += w.even * this.#beside(task, day)
    if (task.picture) sum += again(this.#pictures.get(task.picture), task, at, w.picture, w.pictureDays)
    if (task.passage) sum += again(this.#passages.get(task.passage), task, at, w.passage, w.passageDays)
    if (task.pipeline && w.share > 0) sum += w.share * this.#sharers(task, task.pipeline, day)
    return sum
  }

  #distance(task: Task, at: number, day: number): number {
    const days = Math.abs(day - task.wishDay)
    const apart = Math.abs(at - task.wished) / DAY - days
    return task.factor * task.lane.weights.distance * (days + NEARNESS * Math.min(1, Math.max(-1, apart)))
  }

  #hour(task: Task, at: number): number {
    const { hours } = task.lane.account
    return hours ? task.lane.weights.hours * (1 - (hours[task.lane.hourOf(at)] ?? 0)) : 0
  }

  #beside(task: Task, day: number): number {
    let others = 0
    for (const s of this.on(task.lane, day)) if (s.task !== task) others++
    return others
  }

  #sharers(task: Task, pipeline: string, day: number): number {
    const own = this.#places.get(task.id)
    const week = weekNumber(day)
    const all = this.#shares.get(pipeline)?.get(week) ?? 0
    return all - (own && weekNumber(own.day) === week ? 1 : 0)
  }

  #crowd(task: Task, at: number): number {
    const { stagger, staggerMinutes } = task.lane.weights
    if (!task.beat || stagger === 0 || staggerMinutes === 0) return 0
    let sum = 0
    for (const s of this.#beats.get(task.beat) ?? NONE)
      if (s.task !== task) sum += Math.max(0, 1 - Math.abs(s.at - at) / (staggerMinutes * MINUTE))
    return stagger * sum
  }
}

export type SoftRule = 'distance' | 'picture' | 'passage' | 'share' | 'even' | 'hours' | 'stagger'

const NONE: readonly Standing[] = []

/** The weight of what is shown again within `days`: all of it at the same moment, four fifths at the end. */
function again(
  shown: readonly Standing[] | undefined,
  task: Task,
  at: number,
  weight: number,
  days: number,
): number {
  if (!shown || weight === 0 || days === 0) return 0
  let sum = 0
  for (const s of shown) {
    const apart = Math.abs(s.at - at) / (days * DAY)
    if (s.task !== task && apart < 1) sum += 1 - 0.2 * apart
  }
  return weight * sum
}

function within<V>(map: Map<string, Map<number, V>>, key: string): Map<number, V> {
  let inner = map.get(key)
  if (!inner) map.set(key, (inner = new Map()))
  return inner
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key)
  if (list) list.push(value)
  else map.set(key, [value])
}

function drop<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key) ?? []
  const index = list.indexOf(value)
  if (index >= 0) list.splice(index, 1)
}

function count<K>(map: Map<K, number>, key: K, by: number): void {
  map.set(key, (map.get(key) ?? 0) + by)
}
