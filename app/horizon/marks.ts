import {
  momentOf,
  insideOf,
  type Account,
  type Brand,
  type Hue,
  type Piece,
  type Pipeline,
  type Post,
} from '../../core/model'
import {
  clockMinutes,
  isQuiet,
  dateOf,
  dayNumber,
  localDay,
  localMinutes,
  clockTime,
  spanOf,
} from '../../core/planning'
import type { BoardLane, BoardMark } from './draw'
import type { Mark } from './geometry'

/** What a lane stands for. */
export type Grouping = 'account' | 'pipeline' | 'piece'

export const GROUPINGS: readonly Grouping[] = ['account', 'pipeline', 'piece']

/** What is shown of all posts; an empty field shows everything. */
export interface Filter {
  account: string
  network: string
  pipeline: string
  piece: string
  state: string
  format: string
  angle: string
}

export const NO_FILTER: Filter = {
  account: '',
  network: '',
  pipeline: '',
  piece: '',
  state: '',
  format: '',
  angle: '',
}

/** A pipeline's field for what was begun by hand. */
export const BY_HAND = 'by hand'

/** Whether a post is let through by a filter. */
export function passes(post: Post, filter: Filter): boolean {
  return (
    (!filter.account || post.account === filter.account) &&
    (!filter.network || post.network === filter.network) &&
    (!filter.pipeline || (post.pipeline ?? BY_HAND) === filter.pipeline) &&
    (!filter.piece || post.piece === filter.piece) &&
    (!filter.state || post.state === filter.state) &&
    (!filter.format || post.wording.format === filter.format) &&
    (!filter.angle || post.wording.angle === filter.angle)
  )
}

/** A lane of the board with its name. */
export interface NamedLane extends BoardLane {
  name: string
  account: Account | null
}

interface Rows {
  posts: readonly Post[]
  accounts: readonly Account[]
  pipelines: readonly Pipeline[]
  pieces: ReadonlyMap<string, Pick<Piece, 'title'>>
  brand: Brand
  now: number
}

/**
 * The lanes of a board and the posts in them, sorted by lane and moment. Accounts keep their
 * order; pipelines come with what was begun by hand last; pieces in the order of their next post.
 */
export function boardOf(rows: Rows, grouping: Grouping): { lanes: NamedLane[]; marks: BoardMark[] } {
  const { accounts, pipelines, brand } = rows
  const zones = new Map(accounts.map((a) => [a.id, a.zone]))
  const hues = new Map(pipelines.map((p) => [p.id, p.hue]))
  const placed = rows.posts.flatMap((post) => {
    const at = momentOf(post)
    return at && zones.has(post.account) ? [{ post, at }] : []
  })
  const lanes = lanesOf(rows, grouping, placed)
  const index = new Map(lanes.map((lane, i) => [lane.id, i]))
  const keyOf = (post: Post): string =>
    grouping === 'account'
      ? post.account
      : grouping === 'pipeline'
        ? (post.pipeline ?? BY_HAND)
        : (post.piece ?? '')
  const marks = placed.flatMap(({ post, at }): (BoardMark & { at: string })[] => {
    const lane = index.get(keyOf(post))
    if (lane === undefined) return []
    return [
      {
        ...markOf(post.id, at, lane, zones.get(post.account) ?? brand.zone),
        at,
        state: post.state,
        hue: post.pipeline ? (hues.get(post.pipeline) ?? null) : null,
        inside: insideOf(post),
        pinned: post.pinned,
        held: post.held !== null,
        piece: post.piece,
        time: clockTime(localMinutes(Date.parse(at), zones.get(post.account) ?? brand.zone)),
      },
    ]
  })
  marks.sort((a, b) => a.lane - b.lane || (a.at < b.at ? -1 : a.at > b.at ? 1 : a.id < b.id ? -1 : 1))
  return { lanes, marks }
}

/** The nearest day with a post outside of days that show none: the first after them, or else the last before. */
export function nearestDay(
  marks: readonly Mark[],
  start: number,
  days: number,
): { day: number; later: boolean } | null {
  let before: number | null = null
  let after: number | null = null
  for (const { day } of marks)
    if (day < start) before = Math.max(before ?? day, day)
    else if (day >= start + days) after = Math.min(after ?? day, day)
  if (after !== null) return { day: after, later: true }
  return before === null ? null : { day: before, later: false }
}

/** A moment as a mark in a lane. */
export function markOf(id: string, at: string, lane: number, zone: string): Mark {
  const ms = Date.parse(at)
  return { id, lane, day: localDay(ms, zone), minute: localMinutes(ms, zone) }
}

function lanesOf(
  { accounts, pipelines, pieces, brand, now }: Rows,
  grouping: Grouping,
  placed: readonly { post: Post; at: string }[],
): NamedLane[] {
  const nowIn = (zone: string) => ({ day: localDay(now, zone), minute: localMinutes(now, zone) })
  if (grouping === 'account')
    return accounts.map((account) => {
      const quiet = [...account.quiet, ...brand.quiet]
      const known = new Map<number, boolean>()
      return {
        id: account.id,
        name: `@${account.handle}`,
        account,
        now: nowIn(account.zone),
        slots: account.slots.map(spanOf),
        trials: trialsOf(account),
        isQuiet: (day) => {
          let is = known.get(day)
          if (is === undefined) known.set(day, (is = isQuiet(dateOf(day), quiet)))
          return is
        },
      }
    })
  const plain = { account: null, slots: [], isQuiet: () => false, now: nowIn(brand.zone) }
  if (grouping === 'pipeline')
    return [
      ...pipelines.map((p) => ({ ...plain, id: p.id, name: p.name })),
      { ...plain, id: BY_HAND, name: 'Begun by hand' },
    ]
  const next = new Map<string, string>()
  for (const { post, at } of placed) {
    if (!post.piece) continue
    const rank = at >= new Date(now).toISOString() ? at : `9${at}`
    if (rank < (next.get(post.piece) ?? '~')) next.set(post.piece, rank)
  }
  return [...next]
    .sort(([a, x], [b, y]) => (x < y ? -1 : x > y ? 1 : a < b ? -1 : 1))
    .map(([id]) => ({ ...plain, id, name: pieces.get(id)?.title ?? 'A piece that is gone' }))
}

/** Posts by lane and day, of each hue so many, and by lane and week; the keys are a lane's index and a number. */
export interface Counts {
  days: Map<string, { hue: Hue | null; posts: number }[]>
  weeks: Map<string, number>
}

/** Counts marks by lane and day, and by lane and week; the hues of a day in the order in which they come. */
export function countMarks(marks: readonly Pick<BoardMark, 'lane' | 'day' | 'hue'>[]): Counts {
  const days: Counts['days'] = new Map()
  const weeks: Counts['weeks'] = new Map()
  for (const { lane, day, hue } of marks) {
    const key = `${lane} ${day}`
    const hues = days.get(key) ?? []
    const same = hues.find((h) => h.hue === hue)
    if (same) same.posts++
    else hues.push({ hue, posts: 1 })
    days.set(key, hues)
    const week = `${lane} ${Math.floor((day + 3) / 7)}`
    weeks.set(week, (weeks.get(week) ?? 0) + 1)
  }
  return { days, weeks }
}

/** The slots of an account that stand at another hour on one day, as the board draws them. */
function trialsOf({ hourTrials }: Account): NonNullable<NamedLane['trials']> {
  const trials = new Map<number, { from: number; to: number; at: number }[]>()
  for (const { date, slot, at } of hourTrials?.days ?? []) {
    const day = dayNumber(date)
    trials.set(day, [...(trials.get(day) ?? []), { ...spanOf(slot), at: clockMinutes(at) }])
  }
  return trials
}
