import { Box } from '@chakra-ui/react'
import { useRef, useState } from 'react'
import type { Slot } from '../../core/model'
import { clockTime, spanOf } from '../../core/planning'
import { weekdayName } from '../ui'

const LEFT = 34
const TOP = 18
const COLUMN = 41
const HOUR = 9
const STEP = 15
const WIDTH = LEFT + 7 * COLUMN
const HEIGHT = TOP + 24 * HOUR + 6

/** The height of a time: it runs up, as in the lanes of the Horizon. */
function heightOf(minutes: number): number {
  return TOP + (24 - minutes / 60) * HOUR
}

interface Span {
  weekday: number
  from: number
  to: number
}

/** What was drawn as a slot: a press is an exact time, a stretch a window. */
export function slotOf({ weekday, from, to }: Span): Slot {
  const [first, last] = from <= to ? [from, to] : [to, from]
  return first === last
    ? { weekday, at: clockTime(first) }
    : { weekday, from: clockTime(first), to: clockTime(Math.min(last, 24 * 60 - 1)) }
}

/**
 * The week on which slots are drawn: a press adds a time, a stretch a window, a press on what is
 * there takes it away. By keyboard: arrows move, Shift with up or down stretches, Enter adds,
 * Delete takes away.
 */
export function SlotGrid({
  slots,
  before = [],
  onChange,
}: {
  slots: readonly Slot[]
  /** Those of today, which stay to be seen where they are to go. */
  before?: readonly Slot[]
  onChange: (slots: Slot[]) => void
}) {
  const svg = useRef<SVGSVGElement>(null)
  const [drawn, setDrawn] = useState<Span | null>(null)
  const [cursor, setCursor] = useState<Span>({ weekday: 1, from: 540, to: 540 })
  const [focused, setFocused] = useState(false)
  const placeAt = (event: React.PointerEvent): { weekday: number; minutes: number } | null => {
    const box = svg.current?.getBoundingClientRect()
    if (!box) return null
    const x = ((event.clientX - box.left) / box.width) * WIDTH
    const y = ((event.clientY - box.top) / box.height) * HEIGHT
    const weekday = Math.floor((x - LEFT) / COLUMN) + 1
    if (weekday < 1 || weekday > 7) return null
    const raw = (24 - (y - TOP) / HOUR) * 60
    return { weekday, minutes: Math.min(1425, Math.max(0, Math.round(raw / STEP) * STEP)) }
  }
  const under = (weekday: number, minutes: number): Slot | undefined =>
    slots.find((s) => {
      const span = spanOf(s)
      const room = span.from === span.to ? 20 : 0
      return span.weekday === weekday && minutes >= span.from - room && minutes <= span.to + room
    })
  const add = (span: Span): void => {
    const slot = slotOf(span)
    if (!slots.some((s) => JSON.stringify(s) === JSON.stringify(slot))) onChange([...slots, slot])
  }
  const onKey = (event: React.KeyboardEvent): void => {
    const { key, shiftKey } = event
    const by = key === 'ArrowUp' ? STEP : key === 'ArrowDown' ? -STEP : 0
    const sideways = key === 'ArrowRight' ? 1 : key === 'ArrowLeft' ? -1 : 0
    if (by && shiftKey) setCursor({ ...cursor, to: clamp(cursor.to + by) })
    else if (by) setCursor({ ...cursor, from: clamp(cursor.from + by), to: clamp(cursor.from + by) })
    else if (sideways) setCursor({ ...cursor, weekday: Math.min(7, Math.max(1, cursor.weekday + sideways)) })
    else if (key === 'Enter' || key === ' ') add(cursor)
    else if (key === 'Delete' || key === 'Backspace') {
      const there = under(cursor.weekday, cursor.from)
      if (there) onChange(slots.filter((s) => s !== there))
    } else return
    event.preventDefault()
    event.stopPropagation()
  }
  const shown = drawn ?? (focused ? cursor : null)
  return (
    <Box>
      <svg
        ref={svg}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        width="100%"
        role="application"
        tabIndex={0}
        aria-label="The week’s slots. Arrows move, Shift with up or down stretches a window, Enter adds, Delete takes away."
        aria-describedby="slot-cursor"
        style={{ touchAction: 'none', cursor: 'crosshair', display: 'block' }}
        onFocus={() => setFocused(true)}
        onBlur={() => setFocused(false)}
        onKeyDown={onKey}
        onPointerDown={(event) => {
          const at = placeAt(event)
          if (!at) return
          event.currentTarget.setPointerCapture(event.pointerId)
          setDrawn({ weekday: at.weekday, from: at.minutes, to: at.minutes })
        }}
        onPointerMove={(event) => {
          const at = drawn && placeAt(event)
          if (drawn && at) setDrawn({ ...drawn, to: at.minutes })
        }}
        onPointerCancel={() => setDrawn(null)}
        onPointerUp={() => {
          if (!drawn) return
          const there = drawn.from === drawn.to ? under(drawn.weekday, drawn.from) : undefined
          if (there) onChange(slots.filter((s) => s !== there))
          else add(drawn)
          setCursor({ ...drawn, to: drawn.from })
          setDrawn(null)
        }}
      >
        {[1, 2, 3, 4, 5, 6, 7].map((d) => (
          <g key={d}>
            <text
              x={LEFT + (d - 0.5) * COLUMN}
              y={12}
              textAnchor="middle"
              fontSize="11"
              fill="var(--chakra-colors-soft)"
            >
              {weekdayName(d)}
            </text>
            <rect
              x={LEFT + (d - 1) * COLUMN}
              y={TOP}
              width={COLUMN}
              height={24 * HOUR}
              fill="var(--chakra-colors-paper)"
              stroke="var(--chakra-colors-hairline)"
            />
          </g>
        ))}
        {[0, 6, 12, 18, 24].map((hour) => (
          <g key={hour}>
            <text
              x={LEFT - 5}
              y={heightOf(hour * 60) + 3}
              textAnchor="end"
              fontSize="10"
              fontFamily="var(--chakra-fonts-mono)"
              fill="var(--chakra-colors-soft)"
            >
              {String(hour).padStart(2, '0')}
            </text>
            <line
              x1={LEFT}
              x2={WIDTH}
              y1={heightOf(hour * 60)}
              y2={heightOf(hour * 60)}
              stroke="var(--chakra-colors-hairline)"
              strokeDasharray="2 3"
            />
          </g>
        ))}
        {before
          .filter((slot) => !slots.some((s) => JSON.stringify(s) === JSON.stringify(slot)))
          .map((slot) => (
            <Bar key={`before ${JSON.stringify(slot)}`} span={spanOf(slot)} gone />
          ))}
        {slots.map((slot) => (
          <Bar key={JSON.stringify(slot)} span={spanOf(slot)} />
        ))}
        {shown && <Bar span={shown} drawing />}
      </svg>
      <Box id="slot-cursor" aria-live="polite" fontFamily="mono" fontSize="11px" color="soft" h="32px" mt="1">
        {shown ? words(shown) : 'Press: a time. Stretch: a window. Press one: away.'}
      </Box>
    </Box>
  )
}

function clamp(minutes: number): number {
  return Math.min(1425, Math.max(0, minutes))
}

function words({ weekday, from, to }: Span): string {
  const [first, last] = from <= to ? [from, to] : [to, from]
  return `${weekdayName(weekday)} ${clockTime(first)}${first === last ? '' : `–${clockTime(last)}`}`
}

function Bar({
  span,
  drawing = false,
  gone = false,
}: {
  span: Span
  drawing?: boolean
  /** Of today, and not among those that are drawn. */
  gone?: boolean
}) {
  const top = heightOf(Math.max(span.from, span.to))
  const foot = heightOf(Math.min(span.from, span.to))
  return (
    <rect
      x={LEFT + (span.weekday - 1) * COLUMN + 4}
      y={top - 1.5}
      width={COLUMN - 8}
      height={Math.max(3, foot - top + 3)}
      rx="2"
      fill={drawing || gone ? 'none' : 'var(--chakra-colors-water)'}
      fillOpacity={span.from === span.to ? 1 : 0.35}
      stroke={`var(--chakra-colors-${gone ? 'soft' : 'water'})`}
      strokeDasharray={drawing ? '3 2' : undefined}
      pointerEvents="none"
    >
      <title>{words(span)}</title>
    </rect>
  )
}
