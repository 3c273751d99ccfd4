import { Box, Flex } from '@chakra-ui/react'
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import { dateOf } from '../../core/planning'
import { count, longDay } from '../ui'
import { paint, type BoardLane, type BoardMark, type ShownPlace } from './draw'
import { Drops, readPalette } from './drops'
import { Tip } from './Tip'
import {
  HEAD,
  LANE_HEIGHT,
  markAt,
  placeAt,
  spotsOf,
  visible,
  yOfTime,
  xOfDay,
  columnWidth,
  DAYS,
  type Mark,
  type View,
  type Zoom,
} from './geometry'

/** The column of lane labels at the left, in pixels. */
const LABELS = 204
/** So far must the pointer go before a press becomes a drag. */
const SLACK = 5

/** A place that a moved post may take, or that a rule forbids. */
export type BoardPlace = Omit<ShownPlace, 'near'>

/**
 * The lanes over time, drawn on a canvas as large as what one sees of them, so that thousands of
 * drops cost no more than the hundreds in view. What it shows stands beside it as a list for the
 * keyboard and for screen readers.
 */
export function Board({
  zoom,
  start,
  lanes,
  labels,
  marks,
  chosen,
  selected,
  moving,
  ghosts,
  occasions,
  onChoose,
  onSelect,
  onLift,
  onPut,
  onShift,
  onPan,
  onComeDown,
  describe,
}: {
  zoom: Zoom
  /** The first day shown, as a day's number. */
  start: number
  lanes: readonly BoardLane[]
  /** What stands at the left of each lane. */
  labels: readonly ReactNode[]
  /** Every post with a moment, sorted by lane and moment. */
  marks: readonly BoardMark[]
  chosen: string | null
  selected: ReadonlySet<string>
  /** A post that is being moved, its places, and the one that is near. */
  moving: { id: string; places: readonly BoardPlace[]; near: number | null } | null
  ghosts: ReadonlyMap<string, Mark>
  /** The names of the occasions of a day, by its number. */
  occasions: ReadonlyMap<number, readonly string[]>
  onChoose: (id: string | null) => void
  onSelect: (ids: ReadonlySet<string>) => void
  /** A post is taken up; its places are then given as `moving`. */
  onLift: (id: string | null) => void
  /** It is over a place, or put down there. */
  onPut: (place: number | null, down: boolean) => void
  /** Several are dragged by so many days. */
  onShift: (days: number) => void
  onPan: (days: number) => void
  /** A day of a season or year is opened in its week. */
  onComeDown: (day: number) => void
  describe: (id: string) => ReactNode
}) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const scroller = useRef<HTMLDivElement>(null)
  const [size, setSize] = useState({ width: 0, height: 0 })
  const [hover, setHover] = useState<{ id: string; x: number; y: number } | null>(null)
  const [headDay, setHeadDay] = useState<{ day: number; x: number } | null>(null)
  const gesture = useRef<Gesture | null>(null)
  const live = useRef({ scroll: 0, pan: 0, drag: null as { id: string; x: number; y: number } | null })
  const asked = useRef(0)
  const palette = useRef<{ dark: string; drops: Drops; colors: ReturnType<typeof readPalette> } | null>(null)
  const viewNow = useCallback(
    (): View => ({ zoom, start: start + live.current.pan, width: size.width, scroll: live.current.scroll }),
    [zoom, start, size.width],
  )
  const shown = useMemo(
    () => visible({ zoom, start, width: size.width, scroll: 0 }, marks),
    [zoom, start, size.width, marks],
  )
  const inDays = shown.filter((m) => m.day >= start && m.day < start + DAYS[zoom]).length
  const movingLane = moving ? (marks.find((m) => m.id === moving.id)?.lane ?? -1) : -1

  const draw = useCallback(() => {
    asked.current = 0
    const element = canvas.current
    const c = element?.getContext('2d')
    if (!element || !c || size.width === 0) return
    const ratio = window.devicePixelRatio || 1
    const theme = document.documentElement.className
    if (palette.current?.dark !== theme) {
      const colors = readPalette(element)
      palette.current = { dark: theme, colors, drops: new Drops(colors, Math.max(2, ratio)) }
    }
    const { colors, drops } = palette.current
    const view = viewNow()
    c.setTransform(ratio, 0, 0, ratio, 0, 0)
    paint(c, colors, drops, {
      view,
      height: size.height,
      lanes,
      marks: shown,
      spots: spotsOf(view, shown),
      chosen,
      hovered: hover?.id ?? null,
      selected,
      places:
        moving && movingLane >= 0
          ? {
              lane: movingLane,
              list: moving.places.map((p, i) => ({ ...p, near: i === moving.near })),
            }
          : null,
      dragged: live.current.drag,
      ghosts,
      occasions,
    })
  }, [size, viewNow, lanes, shown, chosen, hover, selected, moving, movingLane, ghosts, occasions])
  const redraw = useCallback(() => {
    if (asked.current === 0) asked.current = requestAnimationFrame(draw)
  }, [draw])
  useLayoutEffect(() => {
    cancelAnimationFrame(asked.current)
    asked.current = 0
    draw()
  }, [draw])
  useEffect(() => {
    void document.fonts?.ready.then(() => draw())
  }, [draw])

  useLayoutEffect(() => {
    const element = scroller.current
    if (!element) return undefined
    const measure = (): void => {
      const next = { width: Math.max(200, element.clientWidth - LABELS), height: element.clientHeight }
      setSize((s) => (s.width === next.width && s.height === next.height ? s : next))
    }
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  useLayoutEffect(() => {
    const element = canvas.current
    if (!element) return
    const ratio = window.devicePixelRatio || 1
    element.width = Math.round(size.width * ratio)
    element.height = Math.round(size.height * ratio)
    draw()
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only a new size empties the canvas
  }, [size])

  // A wheel sideways pans; it is taken over where it comes to rest. React's own wheel listener cannot stop the page.
  useEffect(() => {
    const element = scroller.current
    if (!element) return undefined
    let rest = 0
    const wheel = (event: WheelEvent): void => {
      const sideways = event.shiftKey ? event.deltaY || event.deltaX : event.deltaX
      if (!sideways) return
      event.preventDefault()
      live.current.pan += sideways / columnWidth(viewNow())
      setHeadDay(null)
      redraw()
      window.clearTimeout(rest)
      rest = window.setTimeout(() => {
        const days = Math.round(live.current.pan)
        live.current.pan = 0
        onPan(days)
        redraw()
      }, 140)
    }
    element.addEventListener('wheel', wheel, { passive: false })
    return () => {
      window.clearTimeout(rest)
      element.removeEventListener('wheel', wheel)
    }
  }, [redraw, viewNow, onPan])

  const at = (event: React.PointerEvent): { x: number; y: number } => {
    const box = canvas.current?.getBoundingClientRect()
    return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) }
  }
  const under = (x: number, y: number): string | null => {
    const view = viewNow()
    return markAt(view, shown, spotsOf(view, shown), x, y)
  }
  const nearPlace = (x: number, y: number): number | null => {
    if (!moving || movingLane < 0) return null
    const view = viewNow()
    let best: number | null = null
    let nearest = Infinity
    moving.places.forEach((place, i) => {
      const px = xOfDay(view, place.day) + columnWidth(view) / 2
      const py = yOfTime(view, movingLane, (place.from + place.to) / 2)
      const away = Math.abs(px - x) * 1.2 + Math.abs(py - y)
      if (
        away < nearest &&
        Math.abs(px - x) <= columnWidth(view) * 0.75 &&
        Math.abs(py - y) < LANE_HEIGHT[view.zoom]
      ) {
        nearest = away
        best = i
      }
    })
    return best
  }
  const down = (event: React.PointerEvent): void => {
    if (event.button !== 0) return
    const { x, y } = at(event)
    if (y < HEAD[zoom]) return
    const id = under(x, y)
    if (!id && zoom !== 'week') {
      onComeDown(placeAt(viewNow(), x, y).day)
      return
    }
    event.currentTarget.setPointerCapture(event.pointerId)
    gesture.current = { id, x, y, moved: false, add: event.shiftKey || event.ctrlKey || event.metaKey }
    setHover(null)
  }
  const move = (event: React.PointerEvent): void => {
    const { x, y } = at(event)
    const g = gesture.current
    if (!g) {
      const day = y < HEAD[zoom] ? placeAt(viewNow(), x, y).day : null
      const id = day === null ? under(x, y) : null
      if (id !== (hover?.id ?? null)) setHover(id ? { id, x, y } : null)
      const named = day !== null && occasions.has(day) ? day : null
      if (named !== (headDay?.day ?? null)) setHeadDay(named === null ? null : { day: named, x })
      return
    }
    if (!g.moved && Math.hypot(x - g.x, y - g.y) > SLACK) {
      g.moved = true
      if (g.id && !selected.has(g.id)) onLift(g.id)
    }
    if (!g.moved || !g.id) return
    live.current.drag = { id: g.id, x, y }
    if (moving) {
      const near = nearPlace(x, y)
      if (near !== moving.near) onPut(near, false)
    }
    redraw()
  }
  const up = (event: React.PointerEvent): void => {
    const g = gesture.current
    gesture.current = null
    live.current.drag = null
    if (!g) return
    const { x, y } = at(event)
    if (!g.moved) {
      if (g.id && g.add) {
        const next = new Set(selected)
        if (!next.delete(g.id)) next.add(g.id)
        onSelect(next)
      } else onChoose(g.id)
    } else if (!g.id) {
      // A stretch over empty ground selects what it covers.
      const view = viewNow()
      const spots = spotsOf(view, shown)
      const inside = shown.filter((_, i) => {
        const s = spots[i]
        return (
          s &&
          s.x >= Math.min(g.x, x) &&
          s.x <= Math.max(g.x, x) &&
          s.y >= Math.min(g.y, y) &&
          s.y <= Math.max(g.y, y)
        )
      })
      onSelect(new Set(inside.map((m) => m.id)))
    } else if (selected.has(g.id)) {
      const days = Math.round((x - g.x) / columnWidth(viewNow()))
      if (days !== 0) onShift(days)
    } else onPut(nearPlace(x, y), true)
    redraw()
  }
  const total = HEAD[zoom] + lanes.length * LANE_HEIGHT[zoom] + 8
  return (
    <Box position="relative" flex="1" minH="0" borderTopWidth="1px" borderColor="hairline">
      <Box
        ref={scroller}
        position="absolute"
        inset="0"
        overflowY="auto"
        overflowX="hidden"
        onScroll={(event) => {
          live.current.scroll = event.currentTarget.scrollTop
          setHover(null)
          redraw()
        }}
      >
        <Flex h={`${total}px`} minH="full">
          <Box w={`${LABELS}px`} flexShrink={0} borderRightWidth="1px" borderColor="hairline">
            <Box
              h={`${HEAD[zoom]}px`}
              position="sticky"
              top="0"
              bg="paper"
              zIndex={1}
              borderBottomWidth="1px"
              borderColor="hairline"
            />
            {labels.map((label, i) => (
              <Box
                key={lanes[i]?.id ?? i}
                h={`${LANE_HEIGHT[zoom]}px`}
                borderBottomWidth="1px"
                borderColor="hairline"
              >
                {label}
              </Box>
            ))}
          </Box>
          <Box flex="1" minW="0">
            <canvas
              ref={canvas}
              role="img"
              aria-label={`The ${zoom} as drawn: ${count(inDays, 'post')} in ${lanes.length} lanes over ${DAYS[zoom]} days. The list beside it can be walked.`}
              style={{
                position: 'sticky',
                top: 0,
                display: 'block',
                width: size.width,
                height: size.height,
                touchAction: 'pan-y',
                cursor: hover ? 'grab' : 'default',
              }}
              onPointerDown={down}
              onPointerMove={move}
              onPointerUp={up}
              onPointerCancel={() => {
                gesture.current = null
                live.current.drag = null
                onLift(null)
              }}
              onPointerLeave={() => {
                setHover(null)
                setHeadDay(null)
              }}
            />
          </Box>
        </Flex>
      </Box>
      {headDay && (
        <Tip at={{ x: headDay.x, y: HEAD[zoom] - 8 }} board={size} left={LABELS}>
          {`${longDay(dateOf(headDay.day))}: ${(occasions.get(headDay.day) ?? []).join(', ')}`}
        </Tip>
      )}
      {hover && (
        <Tip at={hover} board={size} left={LABELS}>
          {describe(hover.id)}
        </Tip>
      )}
    </Box>
  )
}

interface Gesture {
  id: string | null
  x: number
  y: number
  moved: boolean
  add: boolean
}
