import { useMemo } from 'react'
import { useAccounts, useRows } from '../data'
import type { Rows } from './waiting'

/** All rows of a brand that say what waits for a person; null while they are read. */
export function useDeskRows(brand: string): Omit<Rows, 'now' | 'zone'> | null {
  const posts = useRows('posts', 'brand', brand)
  const pipelines = useRows('pipelines', 'brand', brand)
  const pieces = useRows('pieces', 'brand', brand)
  const accounts = useAccounts(brand)
  const sources = useRows('sources', 'brand', brand)
  const drips = useRows('drips', 'brand', brand)
  const occasions = useRows('occasions', 'brand', brand)
  return useMemo(
    () =>
      posts && pipelines && pieces && accounts && sources && drips && occasions
        ? { posts, pipelines, pieces, accounts, sources, drips, occasions }
        : null,
    [posts, pipelines, pieces, accounts, sources, drips, occasions],
  )
}
