import {
  Fault,
  type Brand,
  type Gate,
  type Passage,
  type Pipeline,
  type Post,
  type Rhythm,
  type TagFigures,
  type WholePiece,
} from '../../../core/model'
import { houseOf } from '../../../core/house'
import { heavy, proxy } from '../../workers'
import type { DripResult } from '../../../core/pipeline'
import { nowIso } from '../clock'
import { all, commit, must, patch, put, wholePiece, type Actor, type Write } from '../store'
import { tagFiguresFor } from '../services'
import { gaveWay, givingWay } from './giveWay'
import { commitRecalled, happensIfMay } from './life'
import { surroundings } from './plan'
import { seenPiece } from './seeing'

export interface StartDrip {
  piece: string
  accounts: readonly string[]
  rhythm: Rhythm
  startDay: string
  /** The last day on which a post of it may go out; null where nothing bounds it. */
  until?: string | null
  gate: Gate
  pipeline: Pipeline | null
  /** The row of the pipeline that it follows, by its id, and how often that had dripped the piece before. */
  row?: string | null
  time?: number
  /** Within how many hours each post has to go out; null or absent where the rhythm says when. */
  hours?: number | null
  /** Posts in whose place it comes: they are set aside with its start. */
  instead?: readonly Post[]
  actor: Actor
}

/** Writes and places the posts of a piece and keeps them. Gives the drip's id. */
export async function startDrip(
  request: StartDrip,
  onProgress: (done: number, all: number) => void = () => undefined,
): Promise<string> {
  const instead = request.instead ?? []
  const gone = new Set(instead.map((p) => p.id))
  const { result, passages, tagFigures, brand, piece } = await tryDrip(request, onProgress, {
    standing: (p) => !gone.has(p.id),
  })
  if (result.posts.length === 0)
    throw new Fault(
      'bad-request',
      passages.some((p) => p.choice === 'kept')
        ? 'No caption could be made for these accounts: what is kept of this piece opens like posts of it that stand already, or does not fit. Keep or add another passage, then try again.'
        : 'No caption could be made from this piece: none of its passages is kept. Keep one, or add one by selecting text, then try again.',
    )
  const posts =
    brand.houseStyle.writer === 'connected'
      ? await (
          await import('./connected')
        ).writeConnected(
          {
            posts: result.posts,
            standing: (await all('posts')).filter((p) => !gone.has(p.id)),
            brand,
            house: houseOf(brand, request.pipeline?.make),
            piece,
            passages,
            gate: request.gate,
            tagFigures,
          },
          onProgress,
        )
      : result.posts
  const by = request.pipeline?.name ?? 'you'
  const { touched, writes: shelved } = await gaveWay(request.accounts, posts)
  const writes: Write[] = [
    ...instead.map((p) => happensIfMay(p.id, 'set aside')),
    put('drips', result.drip),
    ...posts.map((p) => put('posts', p)),
    ...shelved,
    patch('pieces', request.piece, (p) => ({
      ...p,
      dealt: { by, at: result.drip.createdAt },
      trouble: null,
    })),
  ]
  await commitRecalled(request.actor, [...instead, ...touched], writes)
  return result.drip.id
}

/**
 * A drip as it would be written and placed now, with the passages it had to choose from; nothing is kept. `standing`
 * says which posts count as there, `beside` which others that are not kept; `given` is a piece with its passages in the
 * place of what is kept.
 */
export async function tryDrip(
  request: Omit<StartDrip, 'actor'>,
  onProgress: (done: number, all: number) => void = () => undefined,
  {
    standing = () => true,
    beside = [],
    given = null,
  }: {
    standing?: (post: Post) => boolean
    beside?: readonly Post[]
    given?: { piece: WholePiece; passages: readonly Passage[] } | null
  } = {},
): Promise<{
  result: DripResult
  passages: Passage[]
  brand: Brand
  piece: WholePiece
  tagFigures: Record<string, TagFigures>
}> {
  if (!given) await seenPiece(request.piece)
  const piece = given?.piece ?? (await wholePiece(request.piece))
  const brand = await must('brands', piece.brand)
  const [around, yielding, passages] = await Promise.all([
    surroundings(),
    givingWay(request.accounts),
    given ? [...given.passages] : all('passages', 'piece', piece.id),
  ])
  const accounts = request.accounts.flatMap(
    (id) => around.accounts.find((a) => a.id === id && a.endedAt === null) ?? [],
  )
  if (accounts.length === 0)
    throw new Fault('bad-request', 'A drip wants at least one account. Link one under Dispatch.')
  const away = new Set(yielding.map((p) => p.id))
  const now = nowIso()
  const tagFigures = await tagFiguresFor(
    piece,
    accounts.map((a) => a.network),
  )
  const result = await heavy().makeDrip(
    {
      now,
      brand,
      piece,
      passages,
      accounts,
      rhythm: request.rhythm,
      startDay: request.startDay,
      until: request.until ?? null,
      seed: [...piece.id].reduce((sum, c) => (sum * 31 + c.charCodeAt(0)) | 0, around.drips.length + 1),
      pipeline: request.pipeline,
      row: request.pipeline?.release.find((r) => r.id === request.row) ?? null,
      time: request.time ?? 0,
      hours: request.hours ?? null,
      gate: request.gate,
      allAccounts: around.accounts,
      allBrands: around.brands,
      standing: [...around.posts.filter((p) => standing(p) && !away.has(p.id)), ...beside],
      tagFigures,
    },
    proxy(onProgress),
  )
  return { result, passages, brand, piece, tagFigures }
}

/** Puts the columns of a drip in another order; its posts stay as they are. */
export async function orderColumns(id: string, accounts: readonly string[]): Promise<void> {
  const drip = await must('drips', id)
  const order = [...new Set([...accounts.filter((a) => drip.accounts.includes(a)), ...drip.accounts])]
  await commit({ brand: drip.brand, label: 'Order the columns' }, [
    patch('drips', id, (d) => ({ ...d, accounts: order })),
  ])
}
