import { type Account, type Drip, type Piece, type PieceRow, type Pipeline, type Post } from '../model'
import { accountsOf, beatsOf, blankPost, nothingYet, rowsFor, wishedAt, type Beats } from '../pipeline'
import { addDays, beatDays, daysBetween } from '../planning'
import { sieveContext, isFor } from '../sieve'
import type { RehearsalRequest } from './request'

/** So many days back are looked at for how often pieces come. */
const LATELY_DAYS = 84
const DAY = 86_400_000

/** The drips that would come if pieces came in as often as lately. */
export function arriving(
  request: RehearsalRequest,
  pipelines: readonly Pipeline[],
  accounts: readonly Account[],
): { posts: Post[]; drips: Drip[] } {
  const posts: Post[] = []
  const drips: Drip[] = []
  const brand = request.brands.find((b) => b.id === request.brand)
  const { now, sources, pieces } = request
  const context = sieveContext({ now, zone: brand?.zone ?? 'UTC', lists: [], sources, pieces })
  for (const pipeline of pipelines) {
    if (pipeline.brand !== request.brand || !pipeline.on || pipeline.held || pipeline.endedAt) continue
    const days = daysBetween(request.from, request.to)
    const every = daysApart(pipeline, request)
    const like = passedOf(pipeline, request)
    for (let n = 1; every !== null && n * every <= days; n++) {
      const piece = like[(n - 1) % like.length]
      const startDay = addDays(request.from, Math.round(n * every))
      for (const { row, takes } of piece ? rowsFor({ ...piece, text: '' }, pipeline.release, context) : []) {
        const beats = takes && piece ? beatsOrNone(row, piece, startDay) : null
        const lanes = accountsOf(row, accounts)
        if (!beats || lanes.length === 0) continue
        const id = ` to come ${pipeline.id} ${n}`
        const drip = dripToCome({ id, row: row.id, seed: n }, pipeline, beats, lanes, now)
        drips.push(drip)
        posts.push(...postsToCome(drip, lanes, brand?.weights.staggerMinutes ?? 0))
      }
    }
  }
  return { posts, drips }
}

/** The pieces that a pipeline's sieve let through, the newest first; all of its sources where it looked at none. */
function passedOf(pipeline: Pipeline, { pieces, sources }: RehearsalRequest): Piece[] {
  const mineOf = isFor(pipeline, sources)
  const mine = pieces.filter((p) => mineOf(p) && p.double === null)
  const passed = mine.filter((p) => p.verdicts.some((v) => v.pipeline === pipeline.id && v.passed))
  return (passed.length ? passed : mine).sort((a, b) =>
    (b.publishedAt ?? '').localeCompare(a.publishedAt ?? ''),
  )
}

/** The beats of a row for a piece, which is taken to keep; null where its timing leaves none. */
function beatsOrNone(row: PieceRow, piece: Piece, startDay: string): Beats | null {
  try {
    return beatsOf(row.by, { fields: piece.fields, keeps: { ...piece.keeps, until: null } }, startDay)
  } catch {
    return null
  }
}

function dripToCome(
  { id, row, seed }: { id: string; row: string; seed: number },
  pipeline: Pipeline,
  { startDay, rhythm }: Beats,
  lanes: readonly Account[],
  createdAt: string,
): Drip {
  return {
    id: `${id} ${row}`,
    brand: pipeline.brand,
    piece: id,
    revision: 1,
    pipeline: pipeline.id,
    row,
    time: 0,
    rhythm,
    startDay,
    accounts: lanes.map((a) => a.id),
    days: beatDays(rhythm),
    missing: [],
    seed,
    until: null,
    followed: [],
    held: null,
    endedAt: null,
    createdAt,
  }
}

function postsToCome(drip: Drip, lanes: readonly Account[], staggerMinutes: number): Post[] {
  return lanes.flatMap((account) =>
    drip.days.map((_, beat) =>
      blankPost(account, {
        id: `${drip.id} ${account.id} ${beat}`,
        brand: drip.brand,
        drip: drip.id,
        pipeline: drip.pipeline,
        piece: drip.piece,
        beat,
        wording: nothingYet(`${drip.id} ${account.id} ${beat}`),
        wished: wishedAt(drip, beat, account, staggerMinutes),
      }),
    ),
  )
}

/**
 * After how many days a pipeline would take in another piece: by what its sources published lately,
 * and the part of it that its sieve let through; null where nothing came.
 */
function daysApart(pipeline: Pipeline, { now, pieces, sources }: RehearsalRequest): number | null {
  const mineOf = isFor(pipeline, sources)
  const mine = pieces.filter((p) => mineOf(p) && p.double === null)
  const since = new Date(Date.parse(now) - LATELY_DAYS * DAY).toISOString()
  const appeared = mine.flatMap((p) => p.publishedAt ?? []).filter((at) => at <= now)
  const lately = appeared.filter((at) => at >= since).length
  const judged = mine.flatMap((p) => p.verdicts.filter((v) => v.pipeline === pipeline.id))
  const passing = judged.length ? judged.filter((v) => v.passed).length / judged.length : 1
  if (lately * passing === 0) return null
  const first = appeared.reduce((a, b) => (b < a ? b : a))
  const days = Math.min(LATELY_DAYS, Math.max(7, (Date.parse(now) - Date.parse(first)) / DAY))
  return days / (lately * passing)
}
