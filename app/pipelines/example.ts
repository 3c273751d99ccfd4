import { accountsOf, beatsOf, gateState, rowsFor, type RowVerdict } from '../../core/pipeline'
import type { Account, Brand, Passage, Pipeline, Post, WholePiece } from '../../core/model'
import { toWall } from '../../core/planning'
import type { SieveContext } from '../../core/sieve'
import { asFault } from '../../core/model'
import { nowIso, tryDrip } from '../data'

/** What a row would make of a piece, or why it makes nothing. */
export interface RowExample {
  verdict: RowVerdict
  posts: Post[]
  /** Cells that would stay empty, and why the first of them does. */
  missing: { count: number; why: string }
  trouble: string | null
  milliseconds: number
}

type Made = Omit<RowExample, 'verdict' | 'milliseconds'> & { milliseconds: number }

interface ExampleRequest {
  pipeline: Pipeline
  brand: Brand
  accounts: readonly Account[]
  piece: WholePiece
  /** Its words that are the piece. */
  text: string
  context: SieveContext
  /** The piece's passages, as they are chosen now. */
  passages: readonly Passage[]
  /** Accounts that are left out for now. */
  without: ReadonlySet<string>
  /** What rows made before, by their ids, where it is held still while others are edited. */
  still: ReadonlyMap<string, RowExample>
}

/** What was made lately, by all it was made from: an edit makes anew only the rows that it touches. */
const made = new Map<string, Made>()
const REMEMBERED = 40

/**
 * Runs a piece through the rows of a pipeline, one after the other, each minding the posts of those above; nothing
 * is kept. What goes by the gate alone is said afterwards, so that another gate writes nothing anew.
 */
export async function runExample(request: ExampleRequest): Promise<RowExample[]> {
  const { pipeline, brand, piece, without, still } = request
  const verdicts = rowsFor({ ...piece, text: request.text }, pipeline.release, request.context)
  const examples: RowExample[] = []
  const chosen = request.passages.map((p) => [p.id, p.choice])
  // Places are those of the hour: what is due moves on.
  const hour = nowIso().slice(0, 13)
  let key = JSON.stringify([
    piece.id,
    piece.revision,
    piece.keeps,
    chosen,
    pipeline.make,
    pipeline.limits,
    brand,
    hour,
  ])
  for (const verdict of verdicts) {
    const held = still.get(verdict.row.id)
    if (held) {
      examples.push(held)
      key += JSON.stringify(held.posts.map((p) => [p.at, p.wording.text]))
      continue
    }
    if (!verdict.takes) {
      examples.push({ verdict, ...NOTHING })
      continue
    }
    const accounts = accountsOf(verdict.row, request.accounts).filter((a) => !without.has(a.id))
    key += JSON.stringify([verdict.row.by, verdict.row.format, accounts])
    const known = made.get(key)
    const result =
      known ??
      (await make(
        request,
        verdict,
        accounts,
        examples.flatMap((e) => e.posts),
      ))
    made.delete(key)
    made.set(key, result)
    if (made.size > REMEMBERED) made.delete(made.keys().next().value ?? '')
    const posts = result.posts.map((p) => ({ ...p, state: gateState(p.checks, pipeline.gate) }))
    examples.push({ verdict, ...result, posts })
  }
  return examples
}

const NOTHING: Made = {
  posts: [],
  missing: { count: 0, why: '' },
  trouble: null,
  milliseconds: 0,
}

async function make(
  { pipeline, brand, piece, passages }: ExampleRequest,
  { row }: RowVerdict,
  accounts: readonly Account[],
  beside: readonly Post[],
): Promise<Made> {
  const began = performance.now()
  const took = (): number => Math.round(performance.now() - began)
  if (accounts.length === 0) return { ...NOTHING, trouble: 'This row has no account yet.' }
  try {
    const { startDay, rhythm, hours } = beatsOf(row.by, piece, toWall(Date.parse(nowIso()), brand.zone).date)
    const { result } = await tryDrip(
      {
        piece: piece.id,
        accounts: accounts.map((a) => a.id),
        rhythm,
        startDay,
        gate: pipeline.gate,
        pipeline,
        row: row.id,
        hours,
      },
      undefined,
      // As if nothing of it were out yet.
      { standing: (post) => post.piece !== piece.id, beside, given: { piece, passages } },
    )
    const { missing } = result.drip
    return {
      posts: result.posts,
      missing: { count: missing.length, why: missing[0]?.message ?? '' },
      trouble: null,
      milliseconds: took(),
    }
  } catch (error) {
    const { message } = asFault(error)
    return { ...NOTHING, trouble: message.slice(0, 1).toUpperCase() + message.slice(1), milliseconds: took() }
  }
}
