import { isToCome, type Check, type Piece, type Pipeline, type WordList } from '../../../core/model'
import { rulesOf } from '../../../core/pipeline'
import { overruleKeeps } from '../../../core/reading'
import { nowIso } from '../clock'
import { all, commit, must, newAction, one, patch, put, type Actor } from '../store'
import { startDrip } from './drips'

/** Sets pieces aside, or puts them back among what waits in Intake. */
export async function dealWith(ids: readonly string[], dealt: boolean): Promise<void> {
  await change(ids, dealt ? 'Set aside' : 'Put back', (p) => ({
    ...p,
    dealt: dealt ? { by: 'set aside', at: nowIso() } : null,
    letThrough: dealt ? false : p.letThrough,
  }))
}

/** Lets pieces through whatever a sieve says, or leaves them to the sieves again. */
export async function letThrough(ids: readonly string[], through: boolean): Promise<void> {
  await change(ids, through ? 'Let through' : 'Leave to the sieve', (p) => ({
    ...p,
    letThrough: through,
    dealt: through && p.dealt?.by === 'set aside' ? null : p.dealt,
  }))
}

/**
 * Says that a piece keeps for good, whatever was found in it, or takes that back. Its posts to come lose
 * the last day that the piece had given them, and the flag that they go out after it.
 */
export async function keepForGood(id: string, forGood: boolean): Promise<void> {
  const piece = await must('pieces', id)
  const { until } = forGood ? piece.keeps : { until: null }
  const posts = until
    ? (await openPostsOf(id)).filter((p) => p.latest === until || p.checks.some(outlives))
    : []
  await commit(
    {
      brand: piece.brand,
      label: forGood ? `Say that “${piece.title}” keeps` : `Go by what “${piece.title}” says of time`,
    },
    [
      patch('pieces', id, (p) => ({ ...p, keeps: overruleKeeps(p.keeps, forGood) })),
      ...posts.map((post) =>
        // A last day that falls away moves nothing, so the server keeps what it has.
        patch('posts', post.id, (p) => ({
          ...p,
          latest: p.latest === until ? null : p.latest,
          checks: p.checks.filter((c) => !outlives(c)),
        })),
      ),
    ],
  )
}

const outlives = (check: Check): boolean => check.code === 'outlives-piece'

/** Takes a piece out from under its double for good, or lets it fold again. */
export async function unfold(id: string, unfolded: boolean): Promise<void> {
  await change([id], unfolded ? 'Unfold' : 'Fold', (p) => ({ ...p, unfolded }))
}

async function change(ids: readonly string[], verb: string, edit: (piece: Piece) => Piece): Promise<void> {
  const first = ids[0]
  if (!first) return
  const { brand, title } = await must('pieces', first)
  const label = ids.length === 1 ? `${verb} “${title}”` : `${verb} ${ids.length} pieces`
  await commit(
    { brand, label },
    ids.map((id) => patch('pieces', id, edit)),
  )
}

/** What can be done about a piece that changed: the posts of it that have not gone out, by drip. */
export async function openPostsOf(piece: string) {
  const posts = await all('posts', 'piece', piece)
  return posts.filter(isToCome)
}

/** Leaves the posts of a changed piece as they are; the change counts as seen. */
export async function leaveChanged(id: string): Promise<void> {
  const { brand, title } = await must('pieces', id)
  await commit({ brand, label: `Leave the posts of “${title}”` }, [
    patch('pieces', id, (p) => ({ ...p, changedAt: null })),
  ])
}

/**
 * Makes the posts of a changed piece that have not gone out again from its new words: each drip
 * keeps its days to come and its accounts; the old posts are recalled and set aside. A pipeline does
 * so with its own drips, by its gate; a person with all of them, held for review.
 */
export async function makeAgain(
  id: string,
  show: (done: number, all: number) => void,
  by: Pipeline | null = null,
): Promise<number> {
  const piece = await must('pieces', id)
  const all_ = await openPostsOf(id)
  const open = all_.filter((p) => by === null || p.pipeline === by.id)
  const drips = [...new Set(open.flatMap((p) => p.drip ?? []))]
  const actor: Actor = by
    ? 'machine'
    : { brand: piece.brand, label: `Make the posts of “${piece.title}” again`, action: newAction() }
  let made = 0
  for (const dripId of drips) {
    show(made, drips.length)
    const drip = await must('drips', dripId)
    const mine = open.filter((p) => p.drip === dripId)
    const beats = [...new Set(mine.map((p) => p.beat))].sort((a, b) => a - b)
    const days = beats.map((b) => drip.days[b] ?? 0)
    const first = days[0] ?? 0
    const startDay = new Date(Date.parse(`${drip.startDay}T00:00:00Z`) + first * 86_400_000)
      .toISOString()
      .slice(0, 10)
    await startDrip({
      piece: id,
      accounts: drip.accounts,
      rhythm: { name: drip.rhythm.name, list: days.map((d) => d - first) },
      startDay,
      gate: by?.gate ?? 'everything',
      pipeline: drip.pipeline ? ((await one('pipelines', drip.pipeline)) ?? null) : null,
      row: drip.row,
      time: drip.time,
      instead: mine,
      actor,
    })
    made++
  }
  // What others made of it waits for a person.
  if (open.length === all_.length)
    await commit('machine', [patch('pieces', id, (p) => ({ ...p, changedAt: null }))])
  return made
}

/** Saves a list of words that sieves share; the pipelines that use it sieve anew. */
export async function saveWordList(list: WordList): Promise<void> {
  const users = (await all('pipelines', 'brand', list.brand)).filter((p) =>
    rulesOf(p).some((r) => r.kind === 'words' && r.lists.includes(list.id)),
  )
  await commit({ brand: list.brand, label: `Save the word list ${list.name}` }, [
    put('wordLists', list),
    ...users.map((p) => patch('pipelines', p.id, (row) => ({ ...row, version: row.version + 1 }))),
  ])
}
