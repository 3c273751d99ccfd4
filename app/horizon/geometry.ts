/** How much time the board shows: a week, a season of 13 weeks, a year of 52. */
export type Zoom = 'week' | 'season' | 'year'

export const ZOOMS: readonly Zoom[] = ['week', 'season', 'year']
export const DAYS: Record<Zoom, number> = { week: 7, season: 91, year: 364 }
export const LANE_HEIGHT: Record<Zoom, number> = { week: 92, season: 64, year: 52 }
export const DROP_SIZE: Record<Zoom, number> = { week: 24, season: 13, year: 9 }
/** The head in which the days are named; a week's has a line for their occasions. */
export const HEAD: Record<Zoom, number> = { week: 46, season: 30, year: 30 }

/** The times of day between which a lane runs; what lies outside stands at its ends. */
const MORNING = 6 * 60
const NIGHT = 23 * 60
const DAYS_A_WEEK = 7

/** A post as the board needs it: its lane, and its moment as day and minute in its account's zone. */
export interface Mark {
  id: string
  lane: number
  day: number
  minute: number
}

export interface View {
  zoom: Zoom
  /** The first day shown, as a day's number; a fraction while it is being panned. */
  start: number
  width: number
  /** How far the lanes are scrolled down, in pixels. */
  scroll: number
}

/** Where a mark stands, in pixels of the board. */
export interface Spot {
  x: number
  y: number
}

export function columnWidth(view: View): number {
  return view.width / DAYS[view.zoom]
}

/** The left edge of a day. */
export function xOfDay(view: View, day: number): number {
  return (day - view.start) * columnWidth(view)
}

/** The top of a lane. */
export function yOfLane(view: View, lane: number): number {
  return HEAD[view.zoom] + lane * LANE_HEIGHT[view.zoom] - view.scroll
}

/** The height of a time of day in its lane: it runs up, so that the morning lies below the evening. */
export function yOfTime(view: View, lane: number, minute: number): number {
  const within = (Math.min(NIGHT, Math.max(MORNING, minute)) - MORNING) / (NIGHT - MORNING)
  const height = LANE_HEIGHT[view.zoom]
  const margin = DROP_SIZE[view.zoom] / 2 + 4
  return yOfLane(view, lane) + height - margin - within * (height - 2 * margin)
}

/**
 * Where every mark stands. Marks of one day whose times lie so near that their drops would cover
 * one another step aside. Marks come sorted by lane and moment.
 */
export function spotsOf(view: View, marks: readonly Mark[]): Spot[] {
  const column = columnWidth(view)
  const size = DROP_SIZE[view.zoom]
  let lane = -1
  let day = NaN
  let taken: Spot[] = []
  return marks.map((mark) => {
    if (view.zoom === 'year') {
      const week = Math.floor((mark.day + 3) / DAYS_A_WEEK) * DAYS_A_WEEK - 3
      const weekday = mark.day - week
      return {
        x: xOfDay(view, week) + (column * DAYS_A_WEEK) / 2,
        y: yOfLane(view, mark.lane) + 4 + (weekday + 0.5) * dayHeight(),
      }
    }
    if (mark.lane !== lane || mark.day !== day) {
      lane = mark.lane
      day = mark.day
      taken = []
    }
    const left = xOfDay(view, mark.day)
    const spot = {
      x: left + column * (view.zoom === 'week' ? 0.2 : 0.5),
      y: yOfTime(view, mark.lane, mark.minute),
    }
    while (
      taken.some((t) => Math.abs(t.x - spot.x) < size && Math.abs(t.y - spot.y) < size * 0.8) &&
      spot.x < left + 2 * column
    )
      spot.x += view.zoom === 'week' ? size + 2 : size * 0.7
    taken.push(spot)
    return spot
  })
}

/** In a year, the height of one day's row within a lane. */
export function dayHeight(): number {
  return (LANE_HEIGHT.year - 10) / DAYS_A_WEEK
}

/** The mark under a point, the nearest within reach, or null. */
export function markAt(
  view: View,
  marks: readonly Mark[],
  spots: readonly Spot[],
  x: number,
  y: number,
): string | null {
  const reach = view.zoom === 'week' ? 15 : 9
  let best: string | null = null
  let nearest = reach
  spots.forEach((spot, i) => {
    const away = Math.hypot(spot.x - x, spot.y - y)
    if (away < nearest) {
      nearest = away
      best = marks[i]?.id ?? null
    }
  })
  return best
}

/** The day and the lane under a point. */
export function placeAt(view: View, x: number, y: number): { day: number; lane: number } {
  return {
    day: Math.floor(view.start + x / columnWidth(view)),
    lane: Math.floor((y - HEAD[view.zoom] + view.scroll) / LANE_HEIGHT[view.zoom]),
  }
}

/** The marks that a view shows, or nearly, of those sorted by lane and moment. */
export function visible<T extends Mark>(view: View, marks: readonly T[]): T[] {
  const end = view.start + DAYS[view.zoom] + 1
  return marks.filter((m) => m.day >= view.start - 1 && m.day < end)
}
