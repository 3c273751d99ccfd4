import { asFault, isToCome, type Drip, type Pipeline } from '../../../core/model'
import { STORY } from '../../../core/networks'
import { gateState, isInReach, wishedAt } from '../../../core/pipeline'
import { addDays, toWall } from '../../../core/planning'
import { heavy } from '../../workers'
import { byItsWriter } from '../actions/byItsWriter'
import { makeAgain } from '../actions/pieces'
import { tryPlaces } from '../actions/plan'
import { all, commit, must, patch, put, wholePiece } from '../store'
import { during } from './activity'
import { dripBy, type Around } from './dripBy'
import type { RunLog } from './runLog'

const DAY = 86_400_000

/** Makes what is still to come of a piece anew where its words changed at the source and its pipeline says so. */
export async function makeChangedAnew(pipeline: Pipeline, log: RunLog): Promise<void> {
  const changed = (await all('pieces', 'brand', pipeline.brand)).filter((p) => p.changedAt !== null)
  for (const piece of changed) {
    const old = (await all('posts', 'piece', piece.id)).some(
      (p) => p.pipeline === pipeline.id && p.pieceRevision < piece.revision && isToCome(p),
    )
    if (!old) continue
    await log.step({ what: 'make anew', piece: piece.id, title: piece.title, row: null }, async () => {
      const made = await during(`${pipeline.name} makes “${piece.title}” anew`, (show) =>
        makeAgain(piece.id, show, pipeline),
      )
      return {
        message: `Its words changed: ${made} ${made === 1 ? 'drip' : 'drips'} made anew`,
        posts: 0,
        drip: null,
      }
    })
  }
}

/** Drips a piece again by a row that asks for it, once its last post is out so many days. */
export async function dripAgain(pipeline: Pipeline, around: Around, log: RunLog): Promise<void> {
  const rows = pipeline.release.filter((r) => r.again !== null)
  if (rows.length === 0) return
  const drips = (await all('drips', 'brand', pipeline.brand)).filter((d) => d.pipeline === pipeline.id)
  for (const row of rows) {
    const { days, times } = row.again ?? { days: 0, times: 0 }
    const last = new Map<string, Drip>()
    for (const drip of drips)
      if (drip.row === row.id && drip.time >= (last.get(drip.piece)?.time ?? 0)) last.set(drip.piece, drip)
    for (const drip of last.values()) {
      if (drip.endedAt || drip.time >= times) continue
      const posts = await all('posts', 'drip', drip.id)
      const out = posts.flatMap((p) => p.publishedAt ?? []).sort()
      const latest = out.at(-1)
      // Only what went out, and has nothing to come, can rest and come again.
      if (latest === undefined || posts.some(isToCome)) continue
      const due = new Date(Date.parse(latest) + days * DAY).toISOString()
      if (due > around.now) {
        around.later(due)
        continue
      }
      const piece = await must('pieces', drip.piece)
      if (piece.dealt?.by === 'set aside' || (await failedLately(pipeline, piece.id, row.id, around)))
        continue
      const today = toWall(Date.parse(around.now), around.brand.zone).date
      await log.step({ what: 'drip again', piece: piece.id, title: piece.title, row: row.id }, () =>
        dripBy(pipeline, piece, row.id, drip.time + 1, today, around),
      )
    }
  }
}

/** Whether dripping a piece again by a row failed within a day: it is tried once more after that. */
async function failedLately(
  { id }: Pipeline,
  piece: string,
  row: string,
  { now, later }: Around,
): Promise<boolean> {
  const failed = (await all('runs', 'pipeline', id)).find(
    (r) =>
      Date.parse(r.at) > Date.parse(now) - DAY &&
      r.steps.some(
        (s) => s.what === 'drip again' && s.piece === piece && s.row === row && s.came === 'failed',
      ),
  )
  if (failed) later(new Date(Date.parse(failed.at) + DAY).toISOString())
  return failed !== undefined
}

/** Writes the posts of drips whose days have come within reach, where the pipeline plans some days ahead only. */
export async function writeAhead(pipeline: Pipeline, around: Around, log: RunLog): Promise<void> {
  if (pipeline.limits.ahead === null) return
  const drips = (await all('drips', 'brand', pipeline.brand)).filter(
    (d) => d.pipeline === pipeline.id && d.endedAt === null && d.held === null,
  )
  for (const drip of drips) {
    const posts = await all('posts', 'drip', drip.id)
    const wanted = drip.days.flatMap((day, beat) => {
      const lacking = drip.accounts.filter(
        (id) =>
          !posts.some((p) => p.beat === beat && p.account === id) &&
          !drip.missing.some((m) => m.beat === beat && m.account === id),
      )
      if (lacking.length === 0) return []
      if (isInReach(drip, day, pipeline, around.now)) return lacking.map((account) => ({ beat, account }))
      around.later(`${addDays(drip.startDay, day - (pipeline.limits.ahead ?? 0))}T00:00:00.000Z`)
      return []
    })
    if (wanted.length === 0) continue
    const { title } = await must('pieces', drip.piece)
    await log.step({ what: 'write ahead', piece: drip.piece, title, row: drip.row }, async () => {
      let made = 0
      for (const one of wanted) made += (await writeOne(pipeline, drip, one, around)) ? 1 : 0
      return {
        message: `${made} ${made === 1 ? 'post' : 'posts'} of the days that came within reach`,
        posts: made,
        drip: drip.id,
      }
    })
  }
}

/** Writes one post of a drip and places it; where no caption can be made the drip says why. */
async function writeOne(
  pipeline: Pipeline,
  drip: Drip,
  { beat, account: id }: { beat: number; account: string },
  around: Around,
): Promise<boolean> {
  const account = around.accounts.find((a) => a.id === id && a.endedAt === null)
  const [piece, passages, standing] = await Promise.all([
    wholePiece(drip.piece),
    all('passages', 'piece', drip.piece),
    all('posts'),
  ])
  const miss = (message: string): Promise<unknown> =>
    commit('machine', [
      patch('drips', drip.id, (d) => ({ ...d, missing: [...d.missing, { beat, account: id, message }] })),
    ])
  if (!account) {
    await miss('The account was ended before this day.')
    return false
  }
  try {
    const worded = await heavy().singlePost({
      now: around.now,
      brand: around.brand,
      piece,
      passages,
      passage: null,
      account,
      pipeline,
      drip: drip.id,
      beat,
      wished: wishedAt(drip, beat, account, around.brand.weights.staggerMinutes),
      seed: drip.seed + beat,
      standing,
      story: pipeline.release.some((r) => r.id === drip.row && r.format === STORY),
    })
    const post = await byItsWriter(worded, around.brand, { pipeline, gate: pipeline.gate })
    const [placed = post] = await tryPlaces([post])
    await commit('machine', [put('posts', { ...placed, state: gateState(placed.checks, pipeline.gate) })])
    return true
  } catch (error) {
    // What is none of the piece's fault is tried again in the next round.
    if (asFault(error).code !== 'bad-request') throw error
    await miss(asFault(error).message)
    return false
  }
}
