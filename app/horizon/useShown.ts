import { useCallback, useMemo } from 'react'
import {
  momentOf,
  isToCome,
  type Account,
  type Brand,
  type Occasion,
  type Piece,
  type Pipeline,
  type Post,
} from '../../core/model'
import { daysOfOccasion } from '../../core/occasions'
import { addDays, dayNumber, localDay } from '../../core/planning'
import { useOpenAccounts, useRows, type Move } from '../data'
import type { BoardMark } from './draw'
import { DAYS, type Mark } from './geometry'
import { boardOf, markOf, nearestDay, passes, type NamedLane } from './marks'
import type { Place } from './usePlace'

export interface Shown {
  /** All posts of the brand, those that pass the filter, and of these the ones in view. */
  allPosts: readonly Post[]
  posts: readonly Post[]
  inView: readonly Post[]
  accounts: readonly Account[]
  pipelines: readonly Pipeline[]
  /** Whether all of that is read. */
  ready: boolean
  titles: ReadonlyMap<string, Piece>
  lanes: readonly NamedLane[]
  marks: readonly BoardMark[]
  /** How many posts of each lane are in view. */
  counts: readonly number[]
  /** The day nearest to the view that has a post, where the view has none. */
  elsewhere: ReturnType<typeof nearestDay>
  /** The names of the occasions of a day, by its number. */
  occasions: ReadonlyMap<number, readonly string[]>
  zoneOf: (account: string) => string
  /** A pipeline's colour, or null. */
  hueOf: (pipeline: string | null) => Pipeline['hue'] | null
}

const NONE: readonly never[] = []

/** What the board shows of a brand at a place and a moment (in milliseconds). */
export function useShown(brand: Brand, place: Place, now: number): Shown {
  const { zoom, grouping, from, filter } = place
  const allPosts = useRows('posts', 'brand', brand.id)
  const accounts = useOpenAccounts(brand.id)
  const pipelines = useRows('pipelines', 'brand', brand.id)
  const pieces = useRows('pieces', 'brand', brand.id)
  const titles = useMemo(() => new Map((pieces ?? []).map((p) => [p.id, p])), [pieces])
  const posts = useMemo(
    () => (allPosts ?? []).filter((p) => p.state !== 'set aside' && passes(p, filter)),
    [allPosts, filter],
  )
  const minute = Math.floor(now / 60_000)
  const { lanes, marks } = useMemo(
    () =>
      boardOf(
        {
          posts,
          accounts: accounts ?? [],
          pipelines: pipelines ?? [],
          pieces: titles,
          brand,
          now: minute * 60_000,
        },
        grouping,
      ),
    [posts, accounts, pipelines, titles, brand, grouping, minute],
  )
  const zoneOf = useCallback(
    (id: string): string => accounts?.find((a) => a.id === id)?.zone ?? brand.zone,
    [accounts, brand.zone],
  )
  const hueOf = useCallback(
    (id: string | null) => pipelines?.find((p) => p.id === id)?.hue ?? null,
    [pipelines],
  )
  const start = dayNumber(from)
  const inView = useMemo(
    () =>
      posts.filter((p) => {
        const at = momentOf(p)
        if (!at) return isToCome(p)
        const day = localDay(Date.parse(at), zoneOf(p.account))
        return day >= start && day < start + DAYS[zoom]
      }),
    [posts, start, zoom, zoneOf],
  )
  const elsewhere = useMemo(
    () => (inView.length > 0 ? null : nearestDay(marks, start, DAYS[zoom])),
    [inView, marks, start, zoom],
  )
  const counts = useMemo(() => {
    const found = new Array<number>(lanes.length).fill(0)
    for (const m of marks)
      if (m.day >= start && m.day < start + DAYS[zoom]) found[m.lane] = (found[m.lane] ?? 0) + 1
    return found
  }, [marks, lanes, start, zoom])
  const calendar = useRows('occasions', 'brand', brand.id)
  const occasions = useMemo(
    () => occasionsOn(calendar ?? NONE, brand.zone, from, DAYS[zoom]),
    [calendar, brand.zone, from, zoom],
  )
  return {
    allPosts: allPosts ?? NONE,
    posts,
    inView,
    accounts: accounts ?? NONE,
    pipelines: pipelines ?? NONE,
    ready: allPosts !== undefined && accounts !== undefined && pipelines !== undefined,
    titles,
    lanes,
    marks,
    counts,
    elsewhere,
    occasions,
    zoneOf,
    hueOf,
  }
}

/** The names of the occasions of each of some days, and of a week around them that may be panned into view. */
function occasionsOn(
  calendar: readonly Occasion[],
  zone: string,
  from: string,
  days: number,
): ReadonlyMap<number, readonly string[]> {
  const named = new Map<number, string[]>()
  for (const { name, on } of calendar)
    for (const date of daysOfOccasion(on, zone, addDays(from, -7), addDays(from, days + 7)))
      named.set(dayNumber(date), [...(named.get(dayNumber(date)) ?? []), name])
  return named
}

/** Where moves that are looked at would put their posts. */
export function useGhosts(
  moves: readonly Move[],
  { marks, lanes, zoneOf }: Pick<Shown, 'marks' | 'lanes' | 'zoneOf'>,
): ReadonlyMap<string, Mark> {
  return useMemo(() => {
    const laneOf = new Map(marks.map((m) => [m.id, m.lane]))
    return new Map(
      moves.flatMap((m): [string, Mark][] => {
        const lane = laneOf.get(m.post.id) ?? lanes.findIndex((l) => l.id === m.post.account)
        return m.to && lane >= 0 ? [[m.post.id, markOf(m.post.id, m.to, lane, zoneOf(m.post.account))]] : []
      }),
    )
  }, [moves, marks, lanes, zoneOf])
}
