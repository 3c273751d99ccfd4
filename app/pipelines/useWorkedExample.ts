import { useState } from 'react'
import useSWR from 'swr'
import { asFault, quotable, type Passage, type Pipeline, type WholePiece } from '../../core/model'
import { judge, type SieveResult } from '../../core/sieve'
import { readPasted, useOpenAccounts, useRows, useWholePiece, type Borrowed } from '../data'
import { useWork } from '../shell'
import { runExample, type RowExample } from './example'
import type { Trial } from './useSieveTrial'

/** The piece that travels through, as the sieve sees it. */
export interface Traveller {
  piece: WholePiece
  passages: readonly Passage[]
  result: SieveResult
  /** Whether it was pasted and is kept nowhere. */
  pasted: boolean
}

/**
 * A piece travelling through a pipeline as it stands: a recent one of its sources, or one that was pasted. Passages
 * and rows can be held still; rows whose making is untouched are not made again.
 */
export function useWorkedExample(pipeline: Pipeline, trial: Trial | null) {
  const { brand } = useWork()
  const open = useOpenAccounts(brand.id)
  const [chosen, setChosen] = useState<string | null>(null)
  const [pasted, setPasted] = useState<Borrowed | null>(null)
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set())
  const [stillPassages, setStillPassages] = useState<readonly Passage[] | null>(null)
  const [still, setStill] = useState<ReadonlyMap<string, RowExample>>(new Map())
  const readable = trial?.results.filter((r) => r.piece.words > 0) ?? []
  // A piece that passes shows most; one that was caught can be chosen.
  const shown =
    trial?.results.find((r) => r.piece.id === chosen) ?? readable.find((r) => r.result.passed) ?? readable[0]
  const kept = useWholePiece(pasted ? '' : (shown?.piece.id ?? ''))
  const keptPassages = useRows('passages', 'piece', pasted ? '' : (shown?.piece.id ?? ''))
  const traveller: Traveller | null =
    pasted && trial
      ? {
          ...pasted,
          result: judge(
            { ...pasted.piece, text: quotable(pasted.piece) },
            pipeline.takeIn.sieve,
            trial.context,
          ),
          pasted: true,
        }
      : shown && kept && keptPassages
        ? { piece: kept, passages: keptPassages, result: shown.result, pasted: false }
        : null
  const passages = stillPassages ?? traveller?.passages ?? []
  const { piece } = traveller ?? {}
  const { data: rows, error } = useSWR<RowExample[], unknown>(
    piece && trial && piece.words > 0 && open
      ? [
          'example',
          JSON.stringify([
            piece.id,
            piece.revision,
            piece.keeps,
            passages.map((p) => [p.id, p.choice]),
            pipeline.make,
            pipeline.release,
            pipeline.gate,
            pipeline.limits,
            brand,
            open,
            [...without],
            [...still.keys()],
          ]),
        ]
      : null,
    () =>
      runExample({
        pipeline: stillPassages ? { ...pipeline, make: { ...pipeline.make, passages: null } } : pipeline,
        brand,
        accounts: open ?? [],
        piece: piece as WholePiece,
        text: quotable(piece as WholePiece),
        context: (trial as Trial).context,
        passages,
        without,
        still,
      }),
    { revalidateOnFocus: false, keepPreviousData: true },
  )
  /** Another piece has other results: nothing of the last one is held. */
  const letGo = (): void => {
    setStillPassages(null)
    setStill(new Map())
  }
  return {
    accounts: open ?? [],
    traveller,
    passages,
    rows,
    trouble: error === undefined ? null : asFault(error).message,
    without,
    leave: (account: string): void => {
      const next = new Set(without)
      if (!next.delete(account)) next.add(account)
      setWithout(next)
    },
    choose: (id: string | null): void => {
      letGo()
      setPasted(null)
      setChosen(id)
    },
    paste: async (text: string): Promise<void> => {
      const read = await readPasted(brand.id, text)
      letGo()
      setPasted(read)
    },
    passagesHeld: stillPassages !== null,
    /** Holds the passages that are used now, or lets them follow again. */
    holdPassages: (used: readonly Passage[]): void =>
      setStillPassages(
        stillPassages
          ? null
          : (traveller?.passages ?? []).map((p) => ({
              ...p,
              choice: used.some((u) => u.id === p.id) ? 'kept' : 'left out',
            })),
      ),
    isHeld: (row: string): boolean => still.has(row),
    /** Holds what a row made, or lets it be made anew. */
    holdRow: (example: RowExample): void => {
      const next = new Map(still)
      if (!next.delete(example.verdict.row.id)) next.set(example.verdict.row.id, example)
      setStill(next)
    },
  }
}
