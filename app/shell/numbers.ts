import { useMemo } from 'react'
import type { Estimate } from '../../core/results'
import type { StationName } from './stations'
import { useLineChange, clockNow } from '../data'
import { waitsForReview, openFlagsOf } from '../../core/model'
import { waitingPieces } from '../../core/sieve'
import { useDeskRows, waitingFor } from '../desk'
import type { Work } from './work'

const MINUTE = 60_000
const MONTH = 30 * 86_400_000

/** The live number of a station, and whether something there needs a person. */
export type Numbers = Record<StationName, { value: number | string; drop: boolean }>

/** The numbers on the line, for the brand in hand. */
export function useNumbers({ brand }: Pick<Work, 'brand'>): Numbers | null {
  const rows = useDeskRows(brand.id)
  const change = useLineChange(brand.id)
  const { pieces = [], pipelines = [] } = rows ?? {}
  const arrived = useMemo(() => waitingPieces(pieces, pipelines).length, [pieces, pipelines])
  // The shell is drawn many times a minute; thousands of records are counted only once in it.
  const minute = Math.floor(clockNow() / MINUTE)
  return useMemo(() => {
    if (!rows) return null
    const { posts, pipelines, accounts, sources } = rows
    const now = minute * MINUTE
    const soon = new Date(now + MONTH).toISOString()
    const present = new Date(now).toISOString()
    const review = posts.filter(waitsForReview)
    const troubled = posts.filter((p) => p.state === 'failed' || (p.held !== null && p.state === 'approved'))
    const waiting = waitingFor({ ...rows, now, zone: brand.zone })
    return {
      Desk: { value: waiting.length, drop: waiting.length > 0 },
      Pipelines: { value: pipelines.filter((p) => p.on).length, drop: false },
      Intake: {
        value: arrived,
        drop: sources.some((s) => s.lastVisit?.ok === false),
      },
      Writing: {
        value: review.length,
        drop: review.some((p) => openFlagsOf(p).length > 0) || review.length > 0,
      },
      Horizon: {
        value: posts.filter(
          (p) => p.at !== null && p.at >= present && p.at <= soon && p.state !== 'set aside',
        ).length,
        drop: false,
      },
      Dispatch: {
        value: troubled.length,
        drop: troubled.length > 0 || accounts.some((a) => a.health.state !== 'linked'),
      },
      Results: { value: change === null ? '' : changed(change), drop: false },
    }
  }, [brand.zone, arrived, rows, change, minute])
}

/** A change as the line shows it: "+8 %", and "~+8 %" where it may as well be none. */
function changed({ at, low, high }: Estimate): string {
  const part = Math.round((at - 1) * 100)
  return `${low <= 1 && high >= 1 ? '~' : ''}${part < 0 ? '−' : '+'}${Math.abs(part)} %`
}
