import type { Account, Piece, Pipeline } from '../model'
import { judge, isFor, type SieveContext } from '../sieve'
import { accountsOf, postsEach, rowsFor } from './release'

/** What a pipeline would have done with what its sources brought in some days. */
export interface LookBack {
  /** Pieces that appeared, and those of them that it would have let through. */
  pieces: number
  passed: number
  /** The posts it would have made of them, at most so many for each account as passages are kept. */
  posts: number
  /** Posts by account, by its id. */
  byAccount: ReadonlyMap<string, number>
  /** Pieces that pass and that no row takes. */
  left: number
}

const DAY = 86_400_000

/**
 * Holds the pieces of the last days against a pipeline as it stands, whatever became of them since; its limits are
 * not counted. `textOf` gives the words that rules look into, `kept` how many passages are kept of a piece.
 */
export function lookBack(
  pipeline: Pick<Pipeline, 'id' | 'takeIn' | 'make' | 'release'>,
  around: {
    pieces: readonly Piece[]
    accounts: readonly Account[]
    sources: Parameters<typeof isFor>[1]
    context: SieveContext
    textOf: (piece: string) => string
    kept: (piece: string) => number
  },
  days: number,
): LookBack {
  const { context } = around
  const since = new Date(Date.parse(context.now) - days * DAY).toISOString()
  const mine = isFor(pipeline, around.sources)
  const appeared = around.pieces.filter((p) => {
    const at = p.publishedAt ?? p.takenAt
    return mine(p) && at >= since && at <= context.now && p.words > 0
  })
  const byAccount = new Map<string, number>()
  let [passed, posts, left] = [0, 0, 0]
  for (const piece of appeared) {
    const held = { ...piece, dealt: null, text: around.textOf(piece.id) }
    if (!judge(held, pipeline.takeIn.sieve, context).passed) continue
    passed++
    const rows = rowsFor(held, pipeline.release, context).filter((v) => v.takes)
    if (rows.length === 0) left++
    const passages = Math.min(pipeline.make.passages ?? Infinity, around.kept(piece.id))
    for (const { row } of rows)
      for (const account of accountsOf(row, around.accounts)) {
        const each = Math.min(postsEach(row.by), passages)
        posts += each
        byAccount.set(account.id, (byAccount.get(account.id) ?? 0) + each)
      }
  }
  return { pieces: appeared.length, passed, posts, byAccount, left }
}
