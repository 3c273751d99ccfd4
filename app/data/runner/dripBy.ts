import {
  isPieceRow,
  type Account,
  type Brand,
  type Piece,
  type Pipeline,
  type Source,
} from '../../../core/model'
import { accountsOf, beatsOf } from '../../../core/pipeline'
import { startDrip } from '../actions/drips'
import { all, must } from '../store'
import { during } from './activity'

/** What a pipeline runs in. */
export interface Around {
  brand: Brand
  accounts: readonly Account[]
  sources: readonly Source[]
  now: string
  /** Notes a moment at which there will be more to do. */
  later: (at: string) => void
}

/** Writes the drip of a piece by one row; gives what came of it. */
export async function dripBy(
  pipeline: Pipeline,
  piece: Pick<Piece, 'id' | 'title' | 'fields' | 'keeps'>,
  rowId: string,
  time: number,
  today: string,
  { accounts }: Around,
): Promise<{ message: string; posts: number; drip: string }> {
  const row = pipeline.release.filter(isPieceRow).find((r) => r.id === rowId)
  if (!row) throw new Error(`${pipeline.name} has no row ${rowId}.`)
  const { startDay, rhythm, hours } = beatsOf(row.by, piece, today)
  const drip = await during(`${pipeline.name} writes “${piece.title}”`, (show) =>
    startDrip(
      {
        piece: piece.id,
        accounts: accountsOf(
          row,
          accounts.filter((a) => a.brand === pipeline.brand),
        ).map((a) => a.id),
        rhythm,
        startDay,
        gate: pipeline.gate,
        pipeline,
        row: row.id,
        time,
        hours,
        actor: 'machine',
      },
      show,
    ),
  )
  const posts = await all('posts', 'drip', drip)
  const held = posts.filter((p) => p.state === 'for review').length
  const { missing } = await must('drips', drip)
  return { message: outcome(posts.length, held, missing.length), posts: posts.length, drip }
}

function outcome(posts: number, held: number, missing: number): string {
  const n = (count: number, word: string): string => `${count} ${word}${count === 1 ? '' : 's'}`
  return [
    n(posts, 'post'),
    ...(held ? [`${held} held for review`] : []),
    ...(missing ? [`${n(missing, 'place')} without a caption`] : []),
  ].join(', ')
}
