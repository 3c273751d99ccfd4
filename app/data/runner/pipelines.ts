import {
  asFault,
  isPieceRow,
  isShelfRow,
  quotable,
  textId,
  type Drip,
  type Piece,
  type Pipeline,
} from '../../../core/model'
import { releasedTo, rowsFor, rulesOf } from '../../../core/pipeline'
import { isFor, judge, readsText, sieveContext, sourcesOf, type SieveContext } from '../../../core/sieve'
import { toWall } from '../../../core/planning'
import { dripBy, type Around } from './dripBy'
import { readHolds } from '../actions/holds'
import { nowIso } from '../clock'
import { all, commit, must, one, patch, type Write } from '../store'
import { RunLog } from './runLog'

const DAY = 86_400_000
const published = (p: Pick<Piece, 'publishedAt' | 'takenAt'>): string => p.publishedAt ?? p.takenAt

/** The next moment at which a pipeline has something to do though nothing was written; null for none. */
let nextRun: string | null = null
export const nextRunAt = (): string | null => nextRun

/**
 * Lets every pipeline that is on look at what waits for it: sieve it, drip what passes, make anew what changed at
 * its source, and drip again what has rested long enough. Drips that are written some days ahead are gone on with.
 * A pipeline that fails stops no other.
 */
export async function runPipelines(): Promise<void> {
  const holds = await readHolds()
  if (holds.workspace) return
  const [brands, accounts, sources, pipelines] = await Promise.all([
    all('brands'),
    all('accounts'),
    all('sources'),
    all('pipelines'),
  ])
  const now = nowIso()
  const moments: string[] = []
  let fault: unknown = null
  for (const pipeline of pipelines) {
    const brand = brands.find((b) => b.id === pipeline.brand)
    if (!brand || brand.endedAt || pipeline.held || pipeline.endedAt) continue
    const around: Around = {
      brand,
      accounts,
      sources: sources.filter((s) => s.brand === brand.id),
      now,
      later: (at) => void moments.push(at),
    }
    const log = new RunLog(pipeline)
    try {
      if (pipeline.on && takesInNow(pipeline, around)) {
        if (pipeline.release.some(isPieceRow)) await takeIn(pipeline, around, log)
        // Not every pipeline has what comes later: what does it is loaded only then.
        if (pipeline.takeIn.changed || pipeline.release.some((r) => r.again !== null)) {
          const { dripAgain, makeChangedAnew } = await import('./later')
          if (pipeline.takeIn.changed) await makeChangedAnew(pipeline, log)
          await dripAgain(pipeline, around, log)
        }
        if (pipeline.release.some(isShelfRow))
          await (await import('./shelf')).dripFromShelf(pipeline, around, log)
      }
      if (pipeline.limits.ahead !== null) await (await import('./later')).writeAhead(pipeline, around, log)
      await log.end()
    } catch (error) {
      fault ??= error
    }
  }
  nextRun = moments.filter((m) => m > now).sort()[0] ?? null
  if (fault !== null) throw fault
}

/** Whether a pipeline takes anything in now: its last day has not passed, and no account is down that it waits for. */
function takesInNow({ limits, release }: Pipeline, { accounts, brand, now }: Around): boolean {
  if (limits.to !== null && toWall(Date.parse(now), brand.zone).date > limits.to) return false
  return !limits.pauseWhenDown || releasedTo({ release }, accounts).every((a) => a.health.state === 'linked')
}

/** Drips the pieces that wait and pass, the oldest first, as many as the pipeline takes in a run and a week. */
async function takeIn(pipeline: Pipeline, around: Around, log: RunLog): Promise<void> {
  const drips = (await all('drips', 'brand', pipeline.brand)).filter((d) => d.pipeline === pipeline.id)
  const begun = new Set(drips.map((d) => d.piece))
  const { passed, context } = await sieveWaiting(pipeline, begun, around, log)
  if (passed.length === 0) return
  let room = roomNow(pipeline, drips, around)
  for (const { piece, text } of passed) {
    // A piece of which some rows stand already is finished, whatever the limits.
    if (!begun.has(piece.id) && room-- <= 0) continue
    await release(pipeline, { piece, text }, drips, context, around, log)
  }
}

/**
 * How many new pieces a pipeline may take in now. A run that took its fill is followed by the next one once a
 * source of it was visited anew, or a day later.
 */
function roomNow({ takeIn }: Pipeline, drips: readonly Drip[], { sources, now, later }: Around): number {
  const firsts = new Map<string, string>()
  for (const d of drips)
    if (d.time === 0 && (firsts.get(d.piece) ?? '9') > d.createdAt) firsts.set(d.piece, d.createdAt)
  const taken = [...firsts.values()].sort()
  let room = Infinity
  if (takeIn.aWeek !== null) {
    const lately = taken.filter((at) => Date.parse(at) > Date.parse(now) - 7 * DAY)
    room = Math.max(0, takeIn.aWeek - lately.length)
    if (room === 0 && lately[0]) later(new Date(Date.parse(lately[0]) + 7 * DAY + 1).toISOString())
  }
  if (takeIn.aRun !== null) {
    const from = sourcesOf(takeIn, sources)
    const visits = sources.flatMap((s) => (from.has(s.id) && s.lastVisit ? [s.lastVisit.at] : []))
    const last = taken.at(-1)
    const begins = [...visits, ...(last ? [new Date(Date.parse(last) + DAY).toISOString()] : [])]
      .filter((at) => at <= now)
      .sort()
      .at(-1)
    const inRun = begins === undefined ? taken.length : taken.filter((at) => at >= begins).length
    room = Math.min(room, Math.max(0, takeIn.aRun - inRun))
    if (room === 0 && last) later(new Date(Date.parse(last) + DAY).toISOString())
  }
  return room
}

/**
 * Releases a piece by every row that takes it; each row once, so that a run that broke off is gone on with. The piece
 * is done with once every row made its drip or refused it; what failed for another reason is tried again.
 */
async function release(
  pipeline: Pipeline,
  { piece, text }: { piece: Piece; text: string },
  drips: readonly Drip[],
  context: SieveContext,
  around: Around,
  log: RunLog,
): Promise<void> {
  const rows = rowsFor({ ...piece, text }, pipeline.release, context).filter((v) => v.takes)
  const about = { what: 'write' as const, piece: piece.id, title: piece.title }
  const today = toWall(Date.parse(around.now), around.brand.zone).date
  const refused: string[] = []
  let [made, broke] = [0, false]
  for (const { row } of rows) {
    const there = drips.some((d) => d.piece === piece.id && d.row === row.id && d.time === 0)
    const done =
      there ||
      (await log.step({ ...about, row: row.id }, () =>
        dripBy(pipeline, piece, row.id, 0, today, around).catch((error: unknown) => {
          if (asFault(error).code === 'bad-request') refused.push(asFault(error).message)
          else broke = true
          throw error
        }),
      ))
    if (done) made++
  }
  if (broke) return
  if (rows.length === 0) log.note({ ...about, row: null }, 'skipped', 'No row of the release takes it.')
  const trouble =
    made > 0
      ? null
      : rows.length === 0
        ? `${pipeline.name} lets it through, and no row of its release takes it.`
        : `${pipeline.name} could not drip it: ${refused[0] ?? ''}`
  // What could not be dripped stays in Intake with the reason; this pipeline does not try it again.
  await commit('machine', [
    patch('pieces', piece.id, (p) => ({ ...p, seenBy: [...new Set([...p.seenBy, pipeline.id])], trouble })),
  ])
}

/**
 * Sieves what waits for a pipeline and writes the verdicts down; gives what passed, oldest first.
 * A verdict that looked into the text stands until the pipeline is saved anew; the others are
 * made each time, since ages and counts move. `begun` are pieces that it has begun to drip.
 */
async function sieveWaiting(
  pipeline: Pipeline,
  begun: ReadonlySet<string>,
  { sources, now }: Around,
  log: RunLog,
): Promise<{ passed: { piece: Piece; text: string }[]; context: SieveContext }> {
  const [pieces, lists, { zone }] = await Promise.all([
    all('pieces', 'brand', pipeline.brand),
    all('wordLists', 'brand', pipeline.brand),
    must('brands', pipeline.brand),
  ])
  const mine = isFor(pipeline, sources)
  const handed = (p: Piece): boolean => p.handedTo.includes(pipeline.id)
  const waiting = pieces
    .filter(
      (p) =>
        mine(p) &&
        !p.seenBy.includes(pipeline.id) &&
        (p.dealt === null || begun.has(p.id) || handed(p)) &&
        p.words > 0 &&
        (published(p) >= pipeline.takeIn.since || handed(p)),
    )
    .sort((a, b) => (published(a) < published(b) ? -1 : 1))
  const context = sieveContext({ now, zone, lists, sources, pieces })
  const wantsText = readsText(rulesOf(pipeline))
  const passed: { piece: Piece; text: string }[] = []
  const writes: Write[] = []
  for (const piece of waiting) {
    const before = piece.verdicts.find((v) => v.pipeline === pipeline.id)
    const kept = wantsText && before?.version === pipeline.version && !before.passed && !piece.letThrough
    if (kept) continue
    const words = wantsText ? await one('texts', textId(piece.id, piece.revision)) : undefined
    const text = words ? quotable(words) : ''
    const verdict = judge({ ...piece, text }, pipeline.takeIn.sieve, context)
    if (verdict.passed) passed.push({ piece, text })
    if (before?.passed === verdict.passed && before.reason === verdict.reason) continue
    if (!verdict.passed && before?.reason !== verdict.reason)
      log.note(
        { what: 'sieve', piece: piece.id, title: piece.title, row: null },
        'skipped',
        `Caught: ${verdict.reason}`,
      )
    writes.push(
      patch('pieces', piece.id, (p) => ({
        ...p,
        verdicts: [
          ...p.verdicts.filter((v) => v.pipeline !== pipeline.id),
          {
            pipeline: pipeline.id,
            version: pipeline.version,
            passed: verdict.passed,
            reason: verdict.reason,
          },
        ],
      })),
    )
  }
  await commit('machine', writes)
  return { passed, context }
}
