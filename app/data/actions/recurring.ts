import { nanoid } from 'nanoid'
import { Fault, type Recurrence } from '../../../core/model'
import { renewalOf, renewed, type HandPost, type Renewal } from '../../../core/pipeline'
import { addDays, toWall } from '../../../core/planning'
import { heavy } from '../../workers'
import { nowIso } from '../clock'
import { all, commit, must, patch, put } from '../store'
import { tryHandPosts } from './hand'
import { commitRecalled, happensIfMay, removeIfMay } from './life'

/** How far ahead the posts of a recurring one are made, in days. */
const AHEAD_DAYS = 56

/** What a recurring post is begun with. */
export type RecurrenceDraft = Pick<Recurrence, 'words' | 'accounts' | 'rule' | 'from' | 'time'>

/** The posts that a recurring post would have in the next weeks; nothing is kept. */
export async function tryRecurrence(
  brand: string,
  draft: RecurrenceDraft,
  /** The recurring post that would be changed so, where there is one. */
  id: string | null = null,
): Promise<HandPost[]> {
  const before = id ? await must('recurrences', id) : null
  const { made, renewal } = await madeOf(brand, draft, id ?? 'new', before)
  return made.map((m) => ({ ...m, post: renewed(m, renewal) }))
}

/** Begins a recurring post with its posts of the next weeks; the runner makes the later ones. */
export async function startRecurrence(brand: string, draft: RecurrenceDraft): Promise<void> {
  const id = nanoid()
  const { made } = await madeOf(brand, draft, id, null)
  someDay(made)
  const recurrence: Recurrence = {
    ...draft,
    id,
    brand,
    madeUntil: await lastDay(brand),
    held: null,
    endedAt: null,
    createdAt: nowIso(),
  }
  await commit({ brand, label: 'Begin a recurring post' }, [
    put('recurrences', recurrence),
    ...made.map(({ post }) => put('posts', post)),
  ])
}

/** What a change of a recurring post came to, in posts. */
export interface Changed {
  written: number
  gone: number
  /** Edited one by one, and so left as they are. */
  left: number
}

/**
 * Changes what a recurring post says, where or when: its posts to come are written anew, at the
 * moments they have where the time of day stays. What was edited one by one stays as it is.
 */
export async function changeRecurrence(id: string, draft: RecurrenceDraft): Promise<Changed> {
  const before = await must('recurrences', id)
  const { made, renewal } = await madeOf(before.brand, draft, id, before)
  someDay(made)
  const was = renewal.was.flatMap((p) => p ?? [])
  const until = await lastDay(before.brand)
  await commitRecalled(
    { brand: before.brand, label: 'Change a recurring post' },
    [...was, ...renewal.gone],
    [
      patch('recurrences', id, (r) => ({ ...r, ...draft, madeUntil: until })),
      // What went out while this was asked stays as it is.
      ...renewal.gone.map((p) => removeIfMay(p.id)),
      ...made.map((m) => {
        const post = renewed(m, renewal)
        if (!renewal.was[m.row]) return put('posts', post)
        return happensIfMay(post.id, 'move', ({ revision, generation }) => ({
          ...post,
          revision,
          generation,
        }))
      }),
    ],
  )
  return { written: made.length, gone: renewal.gone.length, left: renewal.edited.length }
}

function someDay(made: readonly HandPost[]): void {
  if (made.length === 0)
    throw new Fault('bad-request', 'Its rule names no day in the next eight weeks. Look at its days again.')
}

/** Makes the posts of every recurring post that have come within reach. */
export async function extendRecurrences(): Promise<void> {
  for (const recurrence of await all('recurrences')) {
    const until = await lastDay(recurrence.brand)
    if (recurrence.endedAt !== null || (recurrence.madeUntil ?? '') >= until) continue
    const { made } = await madeOf(recurrence.brand, recurrence, recurrence.id, null, recurrence.madeUntil)
    await commit('machine', [
      put('recurrences', { ...recurrence, madeUntil: until }),
      ...made.map(({ post }) => put('posts', post)),
    ])
  }
}

async function lastDay(brandId: string): Promise<string> {
  const brand = await must('brands', brandId)
  return addDays(toWall(Date.parse(nowIso()), brand.zone).date, AHEAD_DAYS)
}

/** The posts that a draft asks for after a day, and those of `before`, where it changes one, that they stand in for. */
async function madeOf(
  brand: string,
  draft: RecurrenceDraft,
  id: string,
  before: Recurrence | null,
  after: string | null = null,
): Promise<{ made: HandPost[]; renewal: Renewal }> {
  const until = await lastDay(brand)
  const posts = before ? (await all('posts')).filter((p) => p.recurrence === before.id) : []
  // A post that was moved may stand for a day that is over.
  const first = posts.reduce(
    (day, p) => (p.occurrence !== null && p.occurrence < day ? p.occurrence : day),
    addDays(until, -AHEAD_DAYS),
  )
  const days = await heavy().occurrences(draft.rule, draft.from, after ?? addDays(first, -1), until)
  const renewal = renewalOf(days, draft, before, { posts, accounts: await all('accounts'), now: nowIso() })
  const without = new Set([...renewal.gone, ...renewal.was].flatMap((p) => (p ? [p.id] : [])))
  const made = await tryHandPosts(brand, renewal.rows, { kind: 'next openings' }, { recurrence: id, without })
  return { made, renewal }
}
