import { useState } from 'react'
import { useNavigate } from 'react-router'
import { addDays, mondayOf } from '../../core/planning'
import type { Brand } from '../../core/model'
import type { Move } from '../data'
import { Button, PageHead, Segments } from '../ui'
import { Files } from './Files'
import { Filters } from './Filters'
import { ZOOMS } from './geometry'
import { spanWords } from './lanes'
import { GROUPINGS } from './marks'
import type { Place } from './usePlace'
import type { Shown } from './useShown'

/** Zoom, lanes and days of the board, and what opens below: filters and files. */
export function Head({
  brand,
  place,
  shown,
  today,
  end,
  step,
  onGo,
  onPrint,
  onMoves,
}: {
  brand: Brand
  place: Place
  shown: Shown
  today: string
  /** The last day in view, and how many days a step goes. */
  end: string
  step: number
  onGo: (next: Record<string, string | null>) => void
  onPrint: (span: 'week' | 'month') => void
  /** A changed sheet was read: what it moves. */
  onMoves: (label: string, moves: Move[]) => void
}) {
  const navigate = useNavigate()
  const [filtering, setFiltering] = useState(false)
  const [filing, setFiling] = useState(false)
  const { zoom, grouping, from, filter } = place
  const filters = Object.values(filter).filter(Boolean).length
  return (
    <>
      <PageHead title={spanWords(from, end)}>
        <Segments
          label="Zoom"
          choices={ZOOMS}
          value={zoom}
          onChange={(z) => onGo({ zoom: z, from: mondayOf(from) })}
        />
        <Segments
          label="Lanes"
          choices={GROUPINGS}
          value={grouping}
          onChange={(g) => onGo({ by: g === 'account' ? null : g })}
        />
        <Button aria-label="Earlier" onClick={() => onGo({ from: addDays(from, -step) })}>
          ‹
        </Button>
        <Button onClick={() => onGo({ from: mondayOf(today) })}>Today</Button>
        <Button aria-label="Later" onClick={() => onGo({ from: addDays(from, step) })}>
          ›
        </Button>
        <Button aria-expanded={filtering} onClick={() => setFiltering(!filtering)}>
          Filter{filters > 0 ? ` (${filters})` : ''}
        </Button>
        <Button onClick={() => void navigate('/horizon/rehearsal')}>Rehearse</Button>
        <Button hint="n" onClick={() => void navigate('/horizon/write')}>
          Write
        </Button>
        <Button aria-expanded={filing} onClick={() => setFiling(!filing)}>
          Files
        </Button>
      </PageHead>
      {filtering && (
        <Filters
          filter={filter}
          posts={shown.allPosts}
          accounts={shown.accounts}
          pipelines={shown.pipelines}
          titles={shown.titles}
          onChange={(next) =>
            onGo(
              Object.fromEntries(
                Object.entries(next).map(([k, v]: [string, string]) => [`show-${k}`, v || null]),
              ),
            )
          }
        />
      )}
      {filing && (
        <Files
          brand={brand}
          posts={shown.posts}
          accounts={shown.accounts}
          from={from}
          end={end}
          onPrint={onPrint}
          onMoves={onMoves}
        />
      )}
    </>
  )
}
