import {
  alikeIn,
  firstPicture,
  USUAL_WEIGHTS,
  type Account,
  type Brand,
  type Drip,
  type Pipeline,
  type Post,
} from '../model'
import { network } from '../networks'
import { planChecked } from './plan'
import type { Plan, PlanOutput, PlanPost } from './rules'
import { addDays, toWall } from './zone'

export interface PlaceRequest {
  now: string
  accounts: readonly Account[]
  brands: readonly Brand[]
  /** Posts that keep their place, of all accounts. */
  standing: readonly Post[]
  /** Posts that want a place; one that stands legally keeps it. */
  moving: readonly Post[]
  drips: readonly Drip[]
  pipelines: readonly Pipeline[]
}

/**
 * Places posts in their accounts' slots around those that stand, and gives them back with `at`
 * and the reasons; one that stays keeps the reasons it had. A post is bounded by its own first
 * and last day, by the end of its drip and by the first and last day of its pipeline. A drip's beats keep
 * their order: a post is placed no earlier than half way back to the beat before it, unless its
 * last day is earlier.
 */
export function placePosts(request: PlaceRequest): Post[] {
  return withPlaces(request.moving, planChecked(planOf(request)))
}

/** Posts with the moments and reasons that the planner gave them. */
export function withPlaces(moving: readonly Post[], output: PlanOutput): Post[] {
  const places = new Map(output.posts.map((p) => [p.id, p]))
  return moving.map((post) => {
    const place = places.get(post.id)
    if (!place) return post
    const stays = place.at !== null && place.at === post.at && post.reasons.length > 0
    return { ...post, at: place.at, reasons: stays ? post.reasons : place.reasons }
  })
}

/**
 * What the planner is given: the accounts with their limits, and the posts around those that
 * move, or all of them where `everything` is asked for.
 */
export function planOf(request: PlaceRequest, everything = false): Plan {
  const accounts = new Map(request.accounts.map((a) => [a.id, a]))
  const drips = new Map(request.drips.map((d) => [d.id, d]))
  const pipelines = new Map(request.pipelines.map((p) => [p.id, p]))
  const brands = new Map(request.brands.map((b) => [b.id, b]))
  const moving = new Set(request.moving.map((p) => p.id))
  const limited = request.pipelines.filter((p) => p.limits.aDay !== null || p.limits.aWeek !== null)
  const near = neighbourhood(request, accounts, new Set(limited.map((p) => p.id)))
  const networks = request.accounts.map((a) => a.network)
  const alone = new Set(networks.filter((n) => networks.indexOf(n) === networks.lastIndexOf(n)))
  const alike = alikeIn([...request.standing, ...request.moving].flatMap((p) => p.media))
  const shownAs = (post: Post): string | null => {
    const first = firstPicture(post)
    return first === null ? null : alike(first)
  }
  const toPlan = (post: Post, fixed: boolean): PlanPost => {
    const drip = drips.get(post.drip ?? '')
    const limits = pipelines.get(post.pipeline ?? '')?.limits
    const zone = accounts.get(post.account)?.zone ?? 'UTC'
    // Of what stays nobody asks how far it might go.
    const half = fixed ? null : halfWayBack(post, drip, zone)
    const latest = earliestOf([post.latest, drip?.until, limits?.to])
    return {
      id: post.id,
      account: post.account,
      piece: post.piece,
      passage: post.passage,
      picture: shownAs(post),
      pipeline: post.pipeline,
      beat: post.drip ? `${post.drip} ${post.beat}` : null,
      // Without a sibling nobody minds its words.
      text: alone.has(post.network) ? null : post.wording.text,
      wished: post.wished,
      earliest: fixed
        ? null
        : latestOf([post.earliest, latest && half && half > latest ? null : half, limits?.from]),
      latest: fixed ? null : latest,
      priority: Math.max(
        -10,
        Math.min(10, post.priority + (pipelines.get(post.pipeline ?? '')?.priority ?? 0)),
      ),
      at: post.at,
      pinnedAt: fixed ? (post.publishedAt ?? post.at) : post.pinned ? post.at : null,
    }
  }
  const standing = request.standing.filter(
    (p) =>
      !moving.has(p.id) &&
      p.state !== 'set aside' &&
      (p.publishedAt ?? p.at) !== null &&
      accounts.has(p.account) &&
      (everything || near(p)),
  )
  const wanting = request.moving.filter((p) => accounts.has(p.account))
  return {
    now: request.now,
    accounts: request.accounts.map((a) => ({
      id: a.id,
      network: a.network,
      zone: a.zone,
      slots: a.slots,
      hourTrials: a.hourTrials?.days ?? null,
      quiet: [...a.quiet, ...(brands.get(a.brand)?.quiet ?? [])],
      maxPerDay: a.maxPerDay,
      maxPerWeek: a.maxPerWeek,
      gapMinutes: a.gapMinutes,
      warmUp: a.openedOn
        ? { since: `${a.openedOn}T12:00:00Z`, steps: a.warmUp ?? network(a.network).warmUp }
        : null,
      weights: brands.get(a.brand)?.weights ?? null,
    })),
    limits: limited.map((p) => ({ id: p.id, aDay: p.limits.aDay, aWeek: p.limits.aWeek })),
    posts: [...standing.map((p) => toPlan(p, true)), ...wanting.map((p) => toPlan(p, false))],
    siblingDays: Math.max(0, ...request.accounts.map((a) => network(a.network).limits.siblingDays)),
    weights: USUAL_WEIGHTS,
  }
}

/** Whether a post may matter to those that move: on their accounts, with siblings, of their drips, or of a limited pipeline of theirs. */
function neighbourhood(
  request: PlaceRequest,
  accounts: ReadonlyMap<string, Account>,
  limited: ReadonlySet<string>,
): (post: Post) => boolean {
  const drips = new Set(request.moving.flatMap((p) => p.drip ?? []))
  const networks = new Set(request.moving.flatMap((p) => accounts.get(p.account)?.network ?? []))
  const pipelines = new Set(request.moving.flatMap((p) => p.pipeline ?? []).filter((id) => limited.has(id)))
  return (post) =>
    networks.has(post.network) ||
    (post.drip !== null && drips.has(post.drip)) ||
    (post.pipeline !== null && pipelines.has(post.pipeline))
}

/** The first day of a beat: half way back to the beat before it, or its wished day if that is earlier. */
function halfWayBack(post: Post, drip: Drip | undefined, zone: string): string | null {
  if (!drip) return null
  const day = drip.days[post.beat] ?? 0
  const before = post.beat > 0 ? (drip.days[post.beat - 1] ?? 0) : day
  const first = addDays(drip.startDay, Math.ceil((day + before) / 2))
  const wished = toWall(Date.parse(post.wished), zone).date
  return first < wished ? first : wished
}

/** Of local days, the latest; null where there is none. */
function latestOf(days: readonly (string | null | undefined)[]): string | null {
  return days.reduce<string | null>((a, b) => (b && (!a || b > a) ? b : a), null)
}

function earliestOf(days: readonly (string | null | undefined)[]): string | null {
  return days.reduce<string | null>((a, b) => (b && (!a || b < a) ? b : a), null)
}
