import type { Account, Brand, Drip, Pipeline, Post } from '../../../core/model'
import { heavy, unwrap } from '../../workers'
import { nowIso } from '../clock'
import { all } from '../store'

/** Everything the planner looks at. */
export interface Surroundings {
  accounts: Account[]
  brands: Brand[]
  drips: Drip[]
  pipelines: Pipeline[]
  posts: Post[]
}

export async function surroundings(): Promise<Surroundings> {
  const [accounts, brands, drips, pipelines, posts] = await Promise.all([
    all('accounts'),
    all('brands'),
    all('drips'),
    all('pipelines'),
    all('posts'),
  ])
  return { accounts, brands, drips, pipelines, posts }
}

/** States whose place may still change. */
export function isMovable(post: Post): boolean {
  return (
    !post.pinned &&
    (post.state === 'draft' ||
      post.state === 'for review' ||
      post.state === 'approved' ||
      post.state === 'handed over')
  )
}

/** Places posts among all the others, without writing anything. `change` may put other settings in their place. */
export async function tryPlaces(
  moving: readonly Post[],
  change: Partial<Surroundings> = {},
): Promise<Post[]> {
  const around = { ...(await surroundings()), ...change }
  return unwrap(
    heavy().placePosts({
      now: nowIso(),
      accounts: around.accounts,
      brands: around.brands,
      drips: around.drips,
      pipelines: around.pipelines,
      standing: around.posts,
      moving,
    }) as never,
  )
}

/** A post that would stand elsewhere. */
export interface Move {
  post: Post
  from: string | null
  to: string | null
}

/** Which posts of an account or brand would move under changed settings. */
export async function difference(change: { accounts?: Account[]; brands?: Brand[] }): Promise<Move[]> {
  const around = await surroundings()
  const merge = <T extends { id: string }>(rows: T[], changed: readonly T[] | undefined): T[] =>
    rows.map((r) => changed?.find((c) => c.id === r.id) ?? r)
  const accounts = merge(around.accounts, change.accounts)
  const brands = merge(around.brands, change.brands)
  const touched = new Set([
    ...(change.accounts ?? []).map((a) => a.id),
    ...accounts.filter((a) => change.brands?.some((b) => b.id === a.brand)).map((a) => a.id),
  ])
  const moving = around.posts.filter((p) => touched.has(p.account) && isMovable(p))
  const placed = await tryPlaces(moving, { accounts, brands })
  return placed.flatMap((post, i) => {
    const before = moving[i]
    return before && before.at !== post.at ? [{ post, from: before.at, to: post.at }] : []
  })
}
