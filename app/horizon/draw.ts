import type { Hue, Inside, PostState } from '../../core/model'
import { dateOf, weekdayOfDay } from '../../core/planning'
import { monthName, weekdayName } from '../ui'
import type { Drops, Palette } from './drops'
import { diamond, hatch, line } from './strokes'
import { density } from './yearView'
import {
  columnWidth,
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
  /** The names of the occasions of a day, by its number. */
  occasions: ReadonlyMap<number, readonly string[]>
}

export function paint(c: CanvasRenderingContext2D, p: Palette, drops: Drops, frame: Frame): void {
  const { view, height } = frame
  c.clearRect(0, 0, view.width, height)
  c.save()
  c.beginPath()
  c.rect(0, HEAD[view.zoom], view.width, height - HEAD[view.zoom])
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

function head(c: CanvasRenderingContext2D, p: Palette, { view, lanes, occasions }: Frame): void {
  const today = lanes[0]?.now.day
  const column = columnWidth(view)
  const foot = HEAD[view.zoom]
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
      c.fillText(`${weekdayName(weekdayOfDay(day))} ${Number(date.slice(8))}`, x + 8, 15, column - 10)
      occasionNames(c, p, occasions.get(day) ?? [], { x: x + 8, y: 33, room: column - 12 })
    } else if (view.zoom === 'season' && monday) {
      c.fillStyle = p.soft
      c.fillText(`${Number(date.slice(8))} ${monthName(date).slice(0, 3)}`, x + 4, foot / 2)
    } else if (view.zoom === 'year' && date.endsWith('-01')) {
      c.fillStyle = p.soft
      c.fillText(monthName(date).slice(0, 3), x + 2, foot / 2)
    }
    if (view.zoom !== 'week' && occasions.has(day)) diamond(c, p, x + column / 2, foot - 5)
  }
  line(c, p.hairline, 0, foot + 0.5, view.width, foot + 0.5)
}

/** The occasions of a day below its name, as far as there is room. */
function occasionNames(
  c: CanvasRenderingContext2D,
  p: Palette,
  names: readonly string[],
  at: { x: number; y: number; room: number },
): void {
  if (names.length === 0) return
  diamond(c, p, at.x + 3, at.y)
  const room = at.room - 11
  c.font = `12px ${p.body}`
  c.fillStyle = p.ink
  let words = names.join(', ')
  if (c.measureText(words).width > room) {
    while (words.length > 1 && c.measureText(`${words}…`).width > room) words = words.slice(0, -1)
    words = `${words.trimEnd()}…`
  }
  c.fillText(words, at.x + 11, at.y)
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
      line(c, p.hairline, x, HEAD[view.zoom], x, foot)
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
    if (spot.y < HEAD[view.zoom] - size || spot.y > frame.height + size) return
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
