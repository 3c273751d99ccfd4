import { useCallback, useMemo } from 'react'
import { useSearchParams } from 'react-router'
import { mondayOf } from '../../core/planning'
import { ZOOMS, type Zoom } from './geometry'
import { GROUPINGS, NO_FILTER, type Filter, type Grouping } from './marks'

export const BESIDE = ['list', 'figures', 'rules'] as const

/** Where one is on the board; all of it stands in the page's address. */
export interface Place {
  zoom: Zoom
  grouping: Grouping
  /** The first day in view, as YYYY-MM-DD. */
  from: string
  beside: (typeof BESIDE)[number]
  filter: Filter
  /** The post, and the account's lane, that is open; null for none. */
  post: string | null
  lane: string | null
}

/** Where one is, and going elsewhere: some fields of the address given anew, or taken away with null. */
export function usePlace(today: string): { place: Place; go: (next: Record<string, string | null>) => void } {
  const [params, setParams] = useSearchParams()
  const asked = Object.keys(NO_FILTER)
    .map((k) => params.get(`show-${k}`) ?? '')
    .join('\n')
  const filter = useMemo<Filter>(() => {
    const values = asked.split('\n')
    return Object.fromEntries(Object.keys(NO_FILTER).map((k, i) => [k, values[i] ?? ''])) as unknown as Filter
  }, [asked])
  const go = useCallback(
    (next: Record<string, string | null>): void =>
      setParams(
        (before) => {
          const merged = new URLSearchParams(before)
          for (const [key, value] of Object.entries(next))
            if (value) merged.set(key, value)
            else merged.delete(key)
          return merged
        },
        { replace: true, flushSync: true },
      ),
    [setParams],
  )
  const place: Place = {
    zoom: ZOOMS.find((z) => z === params.get('zoom')) ?? 'week',
    grouping: GROUPINGS.find((g) => g === params.get('by')) ?? 'account',
    from: params.get('from') ?? mondayOf(today),
    beside: BESIDE.find((t) => t === params.get('beside')) ?? 'list',
    filter,
    post: params.get('post'),
    lane: params.get('lane'),
  }
  return { place, go }
}
