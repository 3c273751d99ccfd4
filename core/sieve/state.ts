import type { Piece, Pipeline } from '../model'
import { foldDoubles } from './doubles'

/** What a person sees of where a piece stands. */
export interface PieceState {
  kind: 'waiting' | 'caught' | 'changed' | 'set aside' | 'dripping' | 'wordless'
  words: string
  reason: string | null
}

/** Where a piece stands: changed at its source, dealt with, caught by a sieve, or waiting. */
export function pieceState(piece: Piece, pipelines: readonly Pick<Pipeline, 'id' | 'name'>[]): PieceState {
  if (piece.changedAt) return { kind: 'changed', words: 'changed at its source', reason: null }
  if (piece.dealt?.by === 'set aside') return { kind: 'set aside', words: 'set aside', reason: null }
  if (piece.dealt) return { kind: 'dripping', words: `dripping, by ${piece.dealt.by}`, reason: null }
  if (piece.words === 0) return { kind: 'wordless', words: 'wants a transcript', reason: piece.trouble }
  if (!piece.letThrough) {
    const verdicts = piece.verdicts.flatMap((v) => {
      const pipeline = pipelines.find((p) => p.id === v.pipeline)
      return pipeline ? [{ ...v, name: pipeline.name }] : []
    })
    const caught = verdicts.find((v) => !v.passed)
    if (caught && !verdicts.some((v) => v.passed))
      return { kind: 'caught', words: `caught by ${caught.name}`, reason: caught.reason }
  }
  return {
    kind: 'waiting',
    words: piece.letThrough ? 'let through, waiting' : 'waiting',
    reason: piece.trouble,
  }
}

const SORTED: Record<PieceState['kind'], number> = {
  changed: 0,
  waiting: 1,
  wordless: 1,
  caught: 2,
  dripping: 3,
  'set aside': 3,
}

/** What needs a person first, and within that the newest first. */
export function byNeed(
  a: { piece: Piece; state: PieceState },
  b: { piece: Piece; state: PieceState },
): number {
  const time = ({ piece }: { piece: Piece }): string => piece.publishedAt ?? piece.takenAt
  return SORTED[a.state.kind] - SORTED[b.state.kind] || (time(a) < time(b) ? 1 : time(a) > time(b) ? -1 : 0)
}

/** The words of a piece's record that a search looks into, in plain clothes. */
export function haystack(piece: Piece): string {
  return `${piece.title} ${piece.author ?? ''} ${piece.categories.join(' ')} ${piece.summary}`.toLowerCase()
}

/** Whether every word of a search stands in the haystack. */
export function matches(hay: string, search: string): boolean {
  return search
    .toLowerCase()
    .split(/\s+/)
    .every((w) => hay.includes(w))
}

/** The pieces that wait for somebody: doubles folded, nothing caught, nothing dealt with. */
export function waitingPieces(
  pieces: readonly Piece[],
  pipelines: readonly Pick<Pipeline, 'id' | 'name'>[],
): Piece[] {
  return foldDoubles(pieces)
    .map(({ piece }) => piece)
    .filter((p) => ['waiting', 'changed', 'wordless'].includes(pieceState(p, pipelines).kind))
}
