import { Box } from '@chakra-ui/react'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useCallback, useLayoutEffect, useRef, useState } from 'react'
import type { LibraryEntry } from '../../../core/pictures'
import { useKeys } from '../../ui'
import { Tile, TILES } from './Tile'

const GAP = 14
/** What stands under a picture, in pixels. */
const WORDS = 46

/** Pictures in rows as wide as there is room, of which only those in sight are drawn; arrows go through them. */
export function LibraryGrid({
  entries,
  brand,
  noteOf,
  chosen,
  width,
  withKeys = true,
  onChoose,
}: {
  entries: readonly LibraryEntry[]
  brand: string
  noteOf: (entry: LibraryEntry) => string
  chosen: string | null
  /** The least width of a tile, in pixels. */
  width: number
  /** Whether arrows go through them; else they are the page's. */
  withKeys?: boolean
  onChoose: (key: string) => void
}) {
  const scroller = useRef<HTMLDivElement>(null)
  const [room, setRoom] = useState(0)
  useLayoutEffect(() => {
    const box = scroller.current
    if (!box) return
    const watch = new ResizeObserver(() => setRoom(box.clientWidth))
    watch.observe(box)
    return () => watch.disconnect()
  }, [])
  const columns = Math.max(1, Math.floor((room + GAP) / (width + GAP)))
  const side = Math.floor((room - GAP * (columns - 1)) / columns)
  const high = Math.round(side * 0.72)
  const row = high + WORDS + GAP
  // The list is drawn anew when it scrolls; what it measures cannot be kept between.
  // eslint-disable-next-line react-hooks/incompatible-library
  const list = useVirtualizer({
    count: Math.ceil(entries.length / columns),
    getScrollElement: () => scroller.current,
    estimateSize: useCallback(() => row, [row]),
    overscan: 2,
  })
  useLayoutEffect(() => list.measure(), [list, row])
  const at = entries.findIndex((e) => e.key === chosen)
  const move = (by: number): void => {
    const next = at < 0 ? 0 : Math.max(0, Math.min(entries.length - 1, at + by))
    const entry = entries[next]
    if (!entry) return
    onChoose(entry.key)
    list.scrollToIndex(Math.floor(next / columns))
  }
  const keys = {
    ArrowRight: () => move(1),
    ArrowLeft: () => move(-1),
    ArrowDown: () => move(columns),
    ArrowUp: () => move(-columns),
    Home: () => move(-entries.length),
    End: () => move(entries.length),
  }
  useKeys(withKeys ? keys : {})
  return (
    <Box
      ref={scroller}
      overflowY="auto"
      h="full"
      role="group"
      aria-label="Pictures of the library"
      css={TILES}
    >
      <Box position="relative" h={`${list.getTotalSize()}px`}>
        {room > 0 &&
          list.getVirtualItems().map((item) => (
            <div
              key={item.key}
              style={{
                position: 'absolute',
                insetInline: 0,
                top: 0,
                display: 'flex',
                gap: GAP,
                transform: `translateY(${item.start}px)`,
              }}
            >
              {entries.slice(item.index * columns, (item.index + 1) * columns).map((entry) => (
                <div key={entry.key} style={{ width: side, flexShrink: 0 }}>
                  <Tile
                    entry={entry}
                    brand={brand}
                    note={noteOf(entry)}
                    chosen={entry.key === chosen}
                    height={high}
                    onChoose={onChoose}
                  />
                </div>
              ))}
            </div>
          ))}
      </Box>
    </Box>
  )
}
