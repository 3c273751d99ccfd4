import { columnWidth, dayHeight, LANE_HEIGHT, xOfDay, yOfLane } from './geometry'
import type { BoardMark, Frame } from './draw'
import type { Palette } from './drops'
import { countMarks, type Counts } from './marks'
import { line } from './strokes'

const DAYS_A_WEEK = 7

/** Posts by lane, day and week, worked out once for as long as the marks are the same. */
function countsOf(marks: readonly BoardMark[]): Counts {
  const known = counted.get(marks)
  if (known) return known
  const found = countMarks(marks)
  counted.set(marks, found)
  return found
}

const counted = new WeakMap<readonly BoardMark[], Counts>()

/** A year: a small square for each account and day, fuller where more is posted, in the colours of the pipelines it comes from. */
export function density(c: CanvasRenderingContext2D, p: Palette, frame: Frame): void {
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
