import type { Hue, Inside, PostState } from '../../core/model'
import { dateOf, weekdayOfDay } from '../../core/planning'
import { INSIDES, monthName, weekdayName } from '../ui'
import { countMarks, type Counts } from './marks'
import {
  columnWidth,
  dayHeight,
  DAYS,
  DROP_SIZE,
  HEAD,
  LANE_HEIGHT,
  spotsOf,
  xOfDay,
  yOfLane,
  yOfTime,
  type Mark,
  type Spot,
  type View,
} from './geometry'

/** A post on the board. */
export interface BoardMark extends Mark {
  state: PostState
  hue: Hue | null
  inside: Inside
  pinned: boolean
  held: boolean
  piece: string | null
  /** Its time of day as it is written beside it. */
  time: string
}

/** A lane's background: its slots by weekday as minutes, and its quiet days. */
export interface BoardLane {
  id: string
  slots: readonly { weekday: number; from: number; to: number }[]
  /** Of slots that stand at another minute on one day, these minutes, by the day's number. */
  trials?: ReadonlyMap<number, readonly { from: number; to: number; at: number }[]>
  isQuiet: (day: number) => boolean
  /** Its local now, as a day's number and minute. */
  now: { day: number; minute: number }
}

/** A place shown while a post is dragged: free, or forbidden. */
export interface ShownPlace {
  day: number
  from: number
  to: number
  free: boolean
  near: boolean
}

export interface Palette {
  paper: string
  raised: string
  ink: string
  soft: string
  hairline: string
  hatch: string
  water: string
  waterTint: string
  clay: string
  clayText: string
  plum: string
  moss: string
  amber: string
  mono: string
  body: string
  hue: (hue: Hue | null) => string
}

/** The colours and faces of the theme as they are now, for the canvas. */
export function readPalette(element: HTMLElement): Palette {
  const style = getComputedStyle(element)
  const color = (name: string): string => style.getPropertyValue(`--chakra-colors-${name}`).trim()
  const face = (name: string): string => style.getPropertyValue(`--chakra-fonts-${name}`).trim()
  const hues = new Map<string, string>()
  return {
    paper: color('paper'),
    raised: color('raised'),
    ink: color('ink'),
    soft: color('soft'),
    hairline: color('hairline'),
    hatch: color('hatch'),
    water: color('water'),
    waterTint: color('water-tint'),
    clay: color('clay'),
    clayText: color('clay-text'),
    plum: color('plum'),
    moss: color('moss'),
    amber: color('amber'),
    mono: face('mono'),
    body: face('body'),
    hue: (hue) => {
      const key = hue ? `hue-${hue}` : 'water'
      let found = hues.get(key)
      if (!found) hues.set(key, (found = color(key)))
      return found
    },
  }
}

const OUTLINE = new Path2D('M12 2.5C12 2.5 5 10.5 5 15.5a7 7 0 0 0 14 0C19 10.5 12 2.5 12 2.5Z')
const HALF = new Path2D('M5.2 14.2h13.6a7 7 0 1 1-13.6 0Z')
const CRACK = new Path2D('M12 6l-1.8 4.4 3.6 2.6-2.8 3.4 1.6 4')
const TICK = new Path2D('M15.5 21.2l1.9 1.8 4-4.2')

/** Drawn drops, kept by look and size: a board of thousands copies a few dozen pictures. */
export class Drops {
  readonly #kept = new Map<string, HTMLCanvasElement>()
  readonly #palette: Palette
  readonly #ratio: number

  constructor(palette: Palette, ratio: number) {
    this.#palette = palette
    this.#ratio = ratio
  }

  get(mark: Pick<BoardMark, 'state' | 'hue' | 'inside'>, size: number): HTMLCanvasElement {
    const key = `${mark.state} ${mark.hue} ${mark.inside} ${size}`
    let drawn = this.#kept.get(key)
    if (!drawn) this.#kept.set(key, (drawn = this.#draw(mark, size)))
    return drawn
  }

  #draw(
    { state, hue, inside }: Pick<BoardMark, 'state' | 'hue' | 'inside'>,
    size: number,
  ): HTMLCanvasElement {
    const canvas = document.createElement('canvas')
    canvas.width = canvas.height = Math.ceil((size + 4) * this.#ratio)
    const c = canvas.getContext('2d') as CanvasRenderingContext2D
    const color = state === 'failed' ? this.#palette.plum : this.#palette.hue(hue)
    c.scale(canvas.width / 26, canvas.width / 26)
    c.translate(1, 1)
    c.strokeStyle = c.fillStyle = color
    c.lineWidth = size < 16 ? 2.2 : 1.6
    c.lineJoin = 'round'
    if (state === 'set aside') c.globalAlpha = 0.35
    if (state === 'for review') {
      c.save()
      c.strokeStyle = this.#palette.clay
      c.setLineDash([2.4, 2.6])
      c.beginPath()
      c.arc(12, 13, 11, 0, Math.PI * 2)
      c.stroke()
      c.restore()
    }
    const half = state === 'approved' || state === 'handed over'
    if (half) c.fill(HALF)
    if (state === 'published') c.fill(OUTLINE)
    c.stroke(OUTLINE)
    if (state === 'failed') c.stroke(CRACK)
    if (size >= 16 && inside !== 'plain' && state !== 'failed') {
      c.strokeStyle = half || state === 'published' ? this.#palette.raised : color
      c.lineWidth = 1.3
      c.stroke(new Path2D(INSIDES[inside]))
    }
    if (state === 'handed over' && size >= 16) {
      c.strokeStyle = this.#palette.moss
      c.lineWidth = 2
      c.stroke(TICK)
    }
    return canvas
  }
}

/** Everything that one frame of the board shows. */
export interface Frame {
  view: View
  height: number
  lanes: readonly BoardLane[]
  marks: readonly BoardMark[]
  spots: readonly Spot[]
  chosen: string | null
  hovered: string | null
  selected: ReadonlySet<string>
  /** The lane of a post that is moved, and its places. */
  places: { lane: number; list: readonly ShownPlace[] } | null
  dragged: { id: string; x: number; y: number } | null
  /** Where posts would stand after a change, by id. */
  ghosts: ReadonlyMap<string, Mark>
}

const DAYS_A_WEEK = 7

export function paint(c: CanvasRenderingContext2D, p: Palette, drops: Drops, frame: Frame): void {
  const { view, height } = frame
  c.clearRect(0, 0, view.width, height)
  c.save()
  c.beginPath()
  c.rect(0, HEAD, view.width, height - HEAD)
  c.clip()
  grid(c, p, frame)
  if (frame.places) showPlaces(c, p, frame, frame.places)
  if (view.zoom === 'year') density(c, p, frame)
  strings(c, p, frame)
  if (view.zoom !== 'year') drawMarks(c, p, drops, frame)
  ghosts(c, p, drops, frame)
  if (frame.dragged) drag(c, drops, frame, frame.dragged)
  c.restore()
  head(c, p, frame)
}

function head(c: CanvasRenderingContext2D, p: Palette, { view, lanes }: Frame): void {
  const today = lanes[0]?.now.day
  const column = columnWidth(view)
  const first = Math.floor(view.start)
  c.font = `13px ${p.body}`
  c.textBaseline = 'middle'
  c.textAlign = 'left'
  for (let day = first; day <= first + DAYS[view.zoom]; day++) {
    const x = Math.round(xOfDay(view, day)) + 0.5
    const date = dateOf(day)
    const monday = weekdayOfDay(day) === 1
    if (view.zoom === 'week') {
      c.fillStyle = day === today ? p.ink : p.soft
      c.font = `${day === today ? '700 ' : ''}13px ${p.body}`
      c.fillText(`${weekdayName(weekdayOfDay(day))} ${Number(date.slice(8))}`, x + 8, HEAD / 2, column - 10)
    } else if (view.zoom === 'season' && monday) {
      c.fillStyle = p.soft
      c.fillText(`${Number(date.slice(8))} ${monthName(date).slice(0, 3)}`, x + 4, HEAD / 2)
    } else if (view.zoom === 'year' && date.endsWith('-01')) {
      c.fillStyle = p.soft
      c.fillText(monthName(date).slice(0, 3), x + 2, HEAD / 2)
    }
  }
  line(c, p.hairline, 0, HEAD + 0.5, view.width, HEAD + 0.5)
}

function grid(c: CanvasRenderingContext2D, p: Palette, { view, lanes, height }: Frame): void {
  const column = columnWidth(view)
  const first = Math.floor(view.start)
  const days = DAYS[view.zoom]
  const laneHeight = LANE_HEIGHT[view.zoom]
  lanes.forEach((lane, index) => {
    const top = yOfLane(view, index)
    if (top > height || top + laneHeight < 0) return
    for (let day = first; day <= first + days; day++) {
      const x = xOfDay(view, day)
      if (view.zoom === 'year') continue
      if (lane.isQuiet(day)) {
        if (view.zoom === 'week') hatch(c, p, x, top, column, laneHeight)
        else {
          c.fillStyle = p.hairline
          c.globalAlpha = 0.45
          c.fillRect(x, top, column, laneHeight)
          c.globalAlpha = 1
        }
      } else if (view.zoom === 'week') notches(c, p, view, lane, index, day, x, column)
    }
    line(c, p.hairline, 0, Math.round(top + laneHeight) + 0.5, view.width, Math.round(top + laneHeight) + 0.5)
    if (view.zoom === 'week') {
      const x = xOfDay(view, lane.now.day)
      const y = Math.round(yOfTime(view, index, lane.now.minute)) + 0.5
      c.lineWidth = 2
      line(c, p.clay, x, y, x + column, y)
      c.lineWidth = 1
    } else {
      const x = Math.round(xOfDay(view, lane.now.day + lane.now.minute / 1440)) + 0.5
      line(c, p.clay, x, top, x, top + laneHeight)
    }
  })
  const foot = Math.min(height, yOfLane(view, lanes.length))
  for (let day = first; day <= first + days; day++) {
    const monday = weekdayOfDay(day) === 1
    const firstOfMonth = dateOf(day).endsWith('-01')
    if (
      view.zoom === 'week' ||
      (view.zoom === 'season' && monday) ||
      (view.zoom === 'year' && firstOfMonth)
    ) {
      const x = Math.round(xOfDay(view, day)) + 0.5
      line(c, p.hairline, x, HEAD, x, foot)
    }
  }
}

function notches(
  c: CanvasRenderingContext2D,
  p: Palette,
  view: View,
  lane: BoardLane,
  index: number,
  day: number,
  x: number,
  column: number,
): void {
  const weekday = weekdayOfDay(day)
  for (const slot of lane.slots) {
    if (slot.weekday !== weekday) continue
    const trial = lane.trials?.get(day)?.find((t) => t.from === slot.from && t.to === slot.to)
    const y = Math.round(yOfTime(view, index, trial?.at ?? slot.from)) + 0.5
    if (trial) {
      // A trial of another hour looks like no slot of every week.
      c.setLineDash([5, 3])
      line(c, p.amber, x + 8, y, x + column - 8, y)
      c.setLineDash([])
    } else if (slot.from === slot.to) {
      c.setLineDash([1.5, 4])
      line(c, p.hatch, x + 8, y, x + column - 8, y)
      c.setLineDash([])
    } else {
      const top = yOfTime(view, index, slot.to)
      c.fillStyle = p.waterTint
      c.globalAlpha = 0.6
      c.fillRect(x + 6, top, column - 12, Math.max(2, y - top))
      c.globalAlpha = 1
    }
  }
}

function hatch(
  c: CanvasRenderingContext2D,
  p: Palette,
  x: number,
  y: number,
  width: number,
  height: number,
): void {
  c.save()
  c.beginPath()
  c.rect(x, y, width, height)
  c.clip()
  c.strokeStyle = p.hairline
  c.lineWidth = 2
  c.beginPath()
  for (let i = -height; i < width; i += 10) {
    c.moveTo(x + i, y + height)
    c.lineTo(x + i + height, y)
  }
  c.stroke()
  c.lineWidth = 1
  c.restore()
}

/** The same, worked out once for as long as the marks are the same. */
function countsOf(marks: readonly BoardMark[]): Counts {
  const known = counted.get(marks)
  if (known) return known
  const found = countMarks(marks)
  counted.set(marks, found)
  return found
}

const counted = new WeakMap<readonly BoardMark[], Counts>()

/** A year: a small square for each account and day, fuller where more is posted, in the colours of the pipelines it comes from. */
function density(c: CanvasRenderingContext2D, p: Palette, frame: Frame): void {
  const { view, lanes } = frame
  const week = columnWidth(view) * DAYS_A_WEEK
  const row = dayHeight()
  const { days: counts, weeks } = countsOf(frame.marks)
  lanes.forEach((lane, index) => {
    const top = yOfLane(view, index)
    if (top > frame.height || top + LANE_HEIGHT.year < 0) return
    const first = Math.floor((Math.floor(view.start) + 3) / 7)
    let empty: number | null = null
    for (let w = first; w <= first + 52; w++) {
      const monday = w * 7 - 3
      const x = xOfDay(view, monday)
      for (let d = 0; d < 7; d++) {
        const hues = counts.get(`${index} ${monday + d}`)
        const y = top + 4 + d * row
        if (hues) {
          const many = hues.reduce((sum, h) => sum + h.posts, 0)
          c.globalAlpha = Math.min(1, 0.3 + 0.35 * many)
          let left = x + 1.5
          for (const { hue, posts } of hues) {
            const width = ((week - 3) * posts) / many
            c.fillStyle = p.hue(hue)
            c.fillRect(left, y + 0.75, width, row - 1.5)
            left += width
          }
        } else if (lane.isQuiet(monday + d)) {
          c.fillStyle = p.hairline
          c.globalAlpha = 0.6
          c.fillRect(x + 1.5, y + 0.75, week - 3, row - 1.5)
        }
        c.globalAlpha = 1
      }
      const posts = weeks.get(`${index} ${w}`) ?? 0
      if (lane.slots.length > 0 && posts > lane.slots.length * 0.9 && posts > 2) {
        c.fillStyle = p.amber
        c.fillRect(x + 1.5, top + 1, week - 3, 2.5)
      }
      // A run of weeks without a post is one gap.
      const gap = posts === 0 && monday > lane.now.day
      if (gap && empty === null) empty = w
      if ((!gap || w === first + 52) && empty !== null) {
        gapLine(
          c,
          p,
          xOfDay(view, empty * 7 - 3),
          xOfDay(view, (gap ? w + 1 : w) * 7 - 3),
          top,
          w - empty + (gap ? 1 : 0),
        )
        empty = null
      }
    }
  })
}

/** Weeks without a post as a line at the foot of the lane, with their number where there is room. */
function gapLine(
  c: CanvasRenderingContext2D,
  p: Palette,
  from: number,
  to: number,
  top: number,
  weeks: number,
): void {
  const y = Math.round(top + LANE_HEIGHT.year / 2) + 0.5
  line(c, p.clay, from + 2, y - 5, from + 2, y + 5)
  line(c, p.clay, to - 2, y - 5, to - 2, y + 5)
  line(c, p.clay, from + 2, y, to - 2, y)
  const words = weeks === 1 ? 'a week' : `${weeks} weeks`
  c.font = `11px ${p.mono}`
  const width = c.measureText(words).width + 8
  if (to - from < width + 16) return
  const middle = (from + to) / 2
  c.fillStyle = p.paper
  c.fillRect(middle - width / 2, y - 7, width, 14)
  c.fillStyle = p.clayText
  c.textAlign = 'center'
  c.textBaseline = 'middle'
  c.fillText(words, middle, y)
  c.textAlign = 'left'
}

/** Strings of drops: the posts of the piece that is chosen or under the pointer. */
function strings(c: CanvasRenderingContext2D, p: Palette, frame: Frame): void {
  const of = frame.hovered ?? frame.chosen
  const piece = frame.marks.find((m) => m.id === of)?.piece
  if (!piece) return
  const points = frame.marks
    .map((mark, i) => ({ mark, spot: frame.spots[i] as Spot }))
    .filter(({ mark }) => mark.piece === piece)
    .sort((a, b) => a.mark.day - b.mark.day || a.mark.minute - b.mark.minute)
  const [first] = points
  if (!first) return
  c.strokeStyle = p.hue(first.mark.hue)
  c.setLineDash([3, 3])
  c.beginPath()
  points.forEach(({ spot }, i) => {
    const before = points[i - 1]?.spot
    if (!before) return c.moveTo(spot.x, spot.y)
    const half = (spot.x - before.x) / 2
    c.bezierCurveTo(before.x + half, before.y, spot.x - half, spot.y, spot.x, spot.y)
  })
  c.stroke()
  c.setLineDash([])
  if (frame.view.zoom === 'year')
    for (const { spot, mark } of points) {
      c.fillStyle = p.hue(mark.hue)
      c.beginPath()
      c.arc(spot.x, spot.y, 3.5, 0, Math.PI * 2)
      c.fill()
    }
}

function drawMarks(c: CanvasRenderingContext2D, p: Palette, drops: Drops, frame: Frame): void {
  const { view } = frame
  const size = DROP_SIZE[view.zoom]
  const box = size + 4
  c.font = `11px ${p.mono}`
  c.textBaseline = 'middle'
  c.textAlign = 'left'
  const crowded = columnWidth(view) < 84
  frame.marks.forEach((mark, i) => {
    const spot = frame.spots[i] as Spot
    if (spot.y < HEAD - size || spot.y > frame.height + size) return
    const moves = frame.ghosts.has(mark.id) || frame.dragged?.id === mark.id
    c.globalAlpha = moves ? 0.3 : 1
    if (frame.selected.has(mark.id) || mark.id === frame.chosen) {
      c.fillStyle = p.waterTint
      c.strokeStyle = p.water
      c.beginPath()
      c.roundRect(spot.x - box / 2 - 2, spot.y - box / 2 - 2, box + 4, box + 4, 5)
      c.fill()
      if (mark.id === frame.chosen) c.stroke()
    }
    c.drawImage(drops.get(mark, size), Math.round(spot.x - box / 2), Math.round(spot.y - box / 2), box, box)
    if (view.zoom === 'week') {
      c.fillStyle = p.soft
      if (!crowded) c.fillText(mark.time, spot.x + size / 2 + 4, spot.y)
      if (mark.pinned) {
        c.fillStyle = p.ink
        c.beginPath()
        c.arc(spot.x + size / 2 - 2, spot.y - size / 2 + 2, 2.5, 0, Math.PI * 2)
        c.fill()
      }
      if (mark.held) {
        c.fillStyle = p.clay
        c.fillRect(spot.x - size / 2 - 1, spot.y - size / 2 - 1, 2, 8)
        c.fillRect(spot.x - size / 2 + 3, spot.y - size / 2 - 1, 2, 8)
      }
    }
    c.globalAlpha = 1
  })
}

function showPlaces(
  c: CanvasRenderingContext2D,
  p: Palette,
  { view }: Frame,
  places: { lane: number; list: readonly ShownPlace[] },
): void {
  const column = columnWidth(view)
  for (const place of places.list) {
    const x = xOfDay(view, place.day)
    const foot = yOfTime(view, places.lane, place.from) + 13
    const top = yOfTime(view, places.lane, place.to) - 13
    c.beginPath()
    c.roundRect(x + 3, top, column - 6, foot - top, 5)
    c.fillStyle = p.waterTint
    c.strokeStyle = place.free ? p.water : p.clay
    c.setLineDash([4, 3])
    if (place.free) c.fill()
    if (place.near || place.free) {
      c.lineWidth = place.near ? 2 : 1
      c.stroke()
      c.lineWidth = 1
    }
    c.setLineDash([])
  }
}

/** What a change would move, drawn over what is: a line from each post to where it would stand. */
function ghosts(c: CanvasRenderingContext2D, p: Palette, drops: Drops, frame: Frame): void {
  if (frame.ghosts.size === 0) return
  const { view } = frame
  const size = DROP_SIZE[view.zoom]
  const box = size + 4
  const targets = [...frame.ghosts.values()]
  const spots = spotsOf(view, targets)
  const at = new Map(frame.marks.map((m, i) => [m.id, { mark: m, spot: frame.spots[i] as Spot }]))
  targets.forEach((target, i) => {
    const spot = spots[i] as Spot
    const before = at.get(target.id)
    if (before) {
      c.strokeStyle = p.water
      c.setLineDash([2, 3])
      line(c, p.water, before.spot.x, before.spot.y, spot.x, spot.y)
      c.setLineDash([])
    }
    const look = before?.mark ?? { state: 'approved' as const, hue: null, inside: 'plain' as const }
    if (view.zoom === 'year') {
      c.fillStyle = p.clay
      c.fillRect(spot.x - 3, spot.y - 2, 6, 4)
    } else {
      c.drawImage(drops.get(look, size), Math.round(spot.x - box / 2), Math.round(spot.y - box / 2), box, box)
      c.strokeStyle = p.water
      c.beginPath()
      c.roundRect(spot.x - box / 2 - 1, spot.y - box / 2 - 1, box + 2, box + 2, 5)
      c.stroke()
    }
  })
}

function drag(
  c: CanvasRenderingContext2D,
  drops: Drops,
  frame: Frame,
  dragged: { id: string; x: number; y: number },
): void {
  const mark = frame.marks.find((m) => m.id === dragged.id)
  if (!mark) return
  const size = Math.max(18, DROP_SIZE[frame.view.zoom])
  c.drawImage(drops.get(mark, size), dragged.x - size / 2 - 2, dragged.y - size / 2 - 2, size + 4, size + 4)
}

function line(
  c: CanvasRenderingContext2D,
  color: string,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
): void {
  c.strokeStyle = color
  c.beginPath()
  c.moveTo(x1, y1)
  c.lineTo(x2, y2)
  c.stroke()
}
