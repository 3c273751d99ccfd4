import type { Account, Brand, Drip, Post } from '../model'
import { network } from '../networks'
import { addDays, plan, toWall, type PlanPost } from '../planning'

export interface PlaceRequest {
  now: string
  accounts: readonly Account[]
  brands: readonly Brand[]
  /** Posts that keep their place, of all accounts. */
  standing: readonly Post[]
  /** Posts that want a place; one that stands legally keeps it. */
  moving: readonly Post[]
  drips: readonly Drip[]
}

/** States in which a post takes up a place in its account's calendar. */
const TAKES_PLACE: ReadonlySet<Post['state']> = new Set([
  'draft',
  'for review',
  'approved',
  'handed over',
  'published',
  'failed',
])

/**
 * Places posts in their accounts' slots around those that stand, and gives them back with `at`
 * and the reasons. A drip's beats keep their order: a post is placed no earlier than half way
 * back to the beat before it.
 */
export function placePosts(request: PlaceRequest): Post[] {
  const accounts = new Map(request.accounts.map((a) => [a.id, a]))
  const drips = new Map(request.drips.map((d) => [d.id, d]))
  const brandQuiet = new Map(request.brands.map((b) => [b.id, b.quiet]))
  const moving = new Set(request.moving.map((p) => p.id))
  const toPlan = (post: Post, fixed: boolean): PlanPost => ({
    id: post.id,
    account: post.account,
    piece: post.piece,
    passage: post.passage,
    picture: post.media?.sourceUrl ?? null,
    text: post.wording.text,
    wished: post.wished,
    earliest: fixed ? null : earliest(post, drips.get(post.drip), accounts.get(post.account)?.zone ?? 'UTC'),
    priority: 0,
    at: post.at,
    pinnedAt: fixed ? (post.publishedAt ?? post.at) : post.pinned ? post.at : null,
  })
  const standing = request.standing.filter(
    (p) =>
      !moving.has(p.id) &&
      TAKES_PLACE.has(p.state) &&
      (p.publishedAt ?? p.at) !== null &&
      accounts.has(p.account),
  )
  const wanting = request.moving.filter((p) => accounts.has(p.account))
  const output = plan({
    now: request.now,
    accounts: request.accounts.map((a) => ({
      id: a.id,
      network: a.network,
      zone: a.zone,
      slots: a.slots,
      quiet: [...a.quiet, ...(brandQuiet.get(a.brand) ?? [])],
      maxPerDay: a.maxPerDay,
      maxPerWeek: a.maxPerWeek,
      gapMinutes: a.gapMinutes,
    })),
    posts: [...standing.map((p) => toPlan(p, true)), ...wanting.map((p) => toPlan(p, false))],
    siblingDays: Math.max(0, ...request.accounts.map((a) => network(a.network).limits.siblingDays)),
  })
  const places = new Map(output.posts.map((p) => [p.id, p]))
  return request.moving.map((post) => {
    const place = places.get(post.id)
    return place ? { ...post, at: place.at, reasons: place.reasons } : post
  })
}

function earliest(post: Post, drip: Drip | undefined, zone: string): string | null {
  if (!drip) return null
  const day = drip.days[post.beat] ?? 0
  const before = post.beat > 0 ? (drip.days[post.beat - 1] ?? 0) : day
  const first = addDays(drip.startDay, Math.ceil((day + before) / 2))
  const today = toWall(Date.parse(post.wished), zone).date
  return first < today ? first : today
}
