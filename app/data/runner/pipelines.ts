import { asFault, Fault, quotable, textId, type Piece, type Pipeline } from '../../../core/model'
import { judge, readsText, sieveContext, sourcesOf } from '../../../core/sieve'
import { rhythmWithin, toWall } from '../../../core/planning'
import { startDrip } from '../actions/drips'
import { readHolds } from '../actions/holds'
import { nowIso } from '../clock'
import { all, commit, one, patch, type Write } from '../store'
import { during } from './activity'

const published = (p: Pick<Piece, 'publishedAt' | 'takenAt'>): string => p.publishedAt ?? p.takenAt

/** Lets every pipeline that is on look at what waits for it: sieve it, and drip what passes. */
export async function runPipelines(): Promise<void> {
  const holds = await readHolds()
  if (holds.workspace) return
  const brands = new Map((await all('brands')).map((b) => [b.id, b]))
  for (const pipeline of (await all('pipelines')).filter(
    (p) => p.on && p.held === null && p.endedAt === null && !brands.get(p.brand)?.endedAt,
  )) {
    const passed = await sieveWaiting(pipeline)
    for (const piece of passed) {
      try {
        const startDay = toWall(Date.parse(nowIso()), brands.get(pipeline.brand)?.zone ?? 'UTC').date
        // Nobody looks, so nothing of it may go out after it has aged.
        const rhythm = rhythmWithin(pipeline.rhythm, piece.keeps, startDay)
        if (!rhythm) throw new Fault('bad-request', `it kept until ${piece.keeps.until}, which has passed.`)
        await during(`${pipeline.name} writes “${piece.title}”`, (show) =>
          startDrip(
            {
              piece: piece.id,
              accounts: pipeline.accounts,
              rhythm,
              startDay,
              gate: pipeline.gate,
              pipeline,
              actor: 'machine',
            },
            show,
          ),
        )
      } catch (error) {
        const fault = asFault(error)
        if (fault.code !== 'bad-request') throw fault
        // The piece stays in Intake with the reason; this pipeline does not try it again.
        await commit('machine', [
          patch('pieces', piece.id, (p) => ({
            ...p,
            seenBy: [...p.seenBy, pipeline.id],
            trouble: `${pipeline.name} could not drip it: ${fault.message}`,
          })),
        ])
      }
    }
  }
}

/**
 * Sieves what waits for a pipeline and writes the verdicts down; gives what passed, oldest first.
 * A verdict that looked into the text stands until the pipeline is saved anew; the others are
 * made each time, since ages and counts move.
 */
async function sieveWaiting(pipeline: Pipeline): Promise<Piece[]> {
  const [pieces, sources, lists] = await Promise.all([
    all('pieces', 'brand', pipeline.brand),
    all('sources', 'brand', pipeline.brand),
    all('wordLists', 'brand', pipeline.brand),
  ])
  const from = sourcesOf(pipeline, sources)
  const waiting = pieces
    .filter(
      (p) =>
        from.has(p.source) &&
        !p.seenBy.includes(pipeline.id) &&
        p.dealt === null &&
        p.words > 0 &&
        published(p) >= pipeline.since,
    )
    .sort((a, b) => (published(a) < published(b) ? -1 : 1))
  if (waiting.length === 0) return []
  const context = sieveContext({ now: nowIso(), lists, sources, pieces })
  const wantsText = readsText(pipeline.sieve)
  const passed: Piece[] = []
  const writes: Write[] = []
  for (const piece of waiting) {
    const before = piece.verdicts.find((v) => v.pipeline === pipeline.id)
    const kept = wantsText && before?.version === pipeline.version && !before.passed && !piece.letThrough
    if (kept) continue
    const words = wantsText ? await one('texts', textId(piece.id, piece.revision)) : undefined
    const text = words ? quotable(words) : ''
    const verdict = judge({ ...piece, text }, pipeline.sieve, context)
    if (verdict.passed) passed.push(piece)
    if (before?.passed !== verdict.passed || before.reason !== verdict.reason)
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
  return passed
}
