import { next, type Hold, type Post } from '../../../core/model'
import { nowIso } from '../clock'
import { all, commit, patch, type Write } from '../store'
import { commitRecalled, happens, happensIfMay } from './life'
import { isMovable, surroundings, tryPlaces, type Surroundings } from './plan'

/** What can be held. The whole workspace is the switch on the Desk. */
export type Holdable = {
  table: 'workspace' | 'brands' | 'accounts' | 'pipelines' | 'drips' | 'recurrences' | 'posts'
  id: string
  brand: string
  name: string
}

/** Everything that can hold a post, looked up once for many posts. */
export interface Holds {
  workspace: Hold | null
  brands: ReadonlyMap<string, Hold | null>
  accounts: ReadonlyMap<string, Hold | null>
  pipelines: ReadonlyMap<string, Hold | null>
  drips: ReadonlyMap<string, Hold | null>
  recurrences: ReadonlyMap<string, Hold | null>
}

export async function readHolds(): Promise<Holds> {
  const [workspace, brands, accounts, pipelines, drips, recurrences] = await Promise.all([
    all('workspace'),
    all('brands'),
    all('accounts'),
    all('pipelines'),
    all('drips'),
    all('recurrences'),
  ])
  const map = (rows: { id: string; held: Hold | null }[]): Map<string, Hold | null> =>
    new Map(rows.map((r) => [r.id, r.held]))
  return {
    workspace: workspace[0]?.held ?? null,
    brands: map(brands),
    accounts: map(accounts),
    pipelines: map(pipelines),
    drips: map(drips),
    recurrences: map(recurrences),
  }
}

/** What holds a post, or null where it may go. */
export function heldBy(post: Post, holds: Holds): Hold | null {
  return (
    holds.workspace ??
    holds.brands.get(post.brand) ??
    holds.accounts.get(post.account) ??
    holds.pipelines.get(post.pipeline ?? '') ??
    holds.drips.get(post.drip ?? '') ??
    holds.recurrences.get(post.recurrence ?? '') ??
    post.held
  )
}

/** Holds something: nothing of it goes out until it is lifted. Handed-over posts are recalled by the runner at once. */
export async function hold(what: Holdable): Promise<void> {
  const held: Hold = { reason: `${what.name} is held.`, since: nowIso() }
  await commit({ brand: what.brand, label: `Hold ${what.name}` }, [
    what.table === 'posts'
      ? happens(what.id, 'hold', (post) => ({ ...post, held }))
      : patch(what.table, what.id, (row) => ({ ...row, held })),
  ])
}

/**
 * Lifts a hold. Posts whose time passed meanwhile are placed anew, or set aside, in the same action;
 * those that stand in the future keep their place. Gives how many had passed.
 */
export async function lift(
  what: Holdable,
  passedBy: 'place anew' | 'set aside' = 'place anew',
): Promise<number> {
  const around = await surroundings()
  const holds = await readHolds()
  const lifted = without(holds, what)
  const now = nowIso()
  const passed = around.posts.filter(
    (p) =>
      isMovable(p) &&
      p.state === 'approved' &&
      p.at !== null &&
      p.at < now &&
      heldBy(p, holds) !== null &&
      heldBy(what.table === 'posts' && p.id === what.id ? { ...p, held: null } : p, lifted) === null,
  )
  const placed =
    passedBy === 'place anew'
      ? await placeFromNow(passed, around, now)
      : passed.map((p) => next(p, 'set aside'))
  const writes: Write[] = [
    patch(what.table, what.id, (row) => ({ ...row, held: null })),
    ...placed.map((p) =>
      happensIfMay(p.id, passedBy === 'place anew' ? 'move' : 'set aside', (row) => ({
        ...row,
        at: p.at,
        reasons: p.reasons,
      })),
    ),
  ]
  await commitRecalled({ brand: what.brand, label: `Lift the hold on ${what.name}` }, passed, writes)
  return placed.length
}

function without(holds: Holds, what: Holdable): Holds {
  const clear = (map: ReadonlyMap<string, Hold | null>): ReadonlyMap<string, Hold | null> =>
    new Map([...map, [what.id, null]])
  if (what.table === 'workspace') return { ...holds, workspace: null }
  return what.table === 'posts' ? holds : { ...holds, [what.table]: clear(holds[what.table]) }
}

async function placeFromNow(posts: readonly Post[], around: Surroundings, now: string): Promise<Post[]> {
  return posts.length
    ? tryPlaces(
        posts.map((p) => ({ ...p, at: null, wished: now })),
        around,
      )
    : []
}
