import { useMemo } from 'react'
import useSWR from 'swr'
import type { Piece, Pipeline } from '../../core/model'
import { rulesOf } from '../../core/pipeline'
import { isFor, judge, readsText, sieveContext, type SieveContext, type SieveResult } from '../../core/sieve'
import { nowIso, textsOf, useRow, useRows } from '../data'

/** How many of the last pieces a sieve is tried on. */
const TRIED = 100

/** What a sieve says of the last pieces, with what it was asked among. */
export interface Trial {
  results: { piece: Piece; text: string; result: SieveResult }[]
  passed: number
  context: SieveContext
}

/** How a pipeline's sieve, as it stands, treats the last pieces of its sources; nothing is kept. */
export function useSieveTrial(pipeline: Pipeline): Trial | null {
  const { brand } = pipeline
  const pieces = useRows('pieces', 'brand', brand)
  const sources = useRows('sources', 'brand', brand)
  const lists = useRows('wordLists', 'brand', brand)
  const zone = useRow('brands', brand)?.zone
  const { id, takeIn } = pipeline
  const { sieve } = takeIn
  const last = useMemo(() => {
    if (!pieces || !sources) return null
    const mine = isFor({ id, takeIn }, sources)
    const time = (p: Piece): string => p.publishedAt ?? p.takenAt
    return pieces
      .filter((p) => mine(p))
      .sort((a, b) => (time(a) < time(b) ? 1 : -1))
      .slice(0, TRIED)
  }, [pieces, sources, id, takeIn])
  const wantsText = readsText(rulesOf(pipeline))
  const { data: texts } = useSWR(
    wantsText && last ? ['texts of', ...last.map((p) => `${p.id}.${p.revision}`)] : null,
    () => textsOf(last ?? []),
    { keepPreviousData: true },
  )
  return useMemo(() => {
    if (!last || !pieces || !sources || !lists || !zone || (wantsText && !texts)) return null
    const context = sieveContext({ now: nowIso(), zone, lists, sources, pieces })
    const results = last.map((piece) => {
      const text = texts?.get(piece.id) ?? ''
      return { piece, text, result: judge({ ...piece, text }, sieve, context) }
    })
    const passed = results.filter((r) => r.result.passed).length
    return { results, passed, context }
  }, [last, pieces, sources, lists, zone, texts, sieve, wantsText])
}
