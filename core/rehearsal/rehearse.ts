import { isToCome, type Account, type Brand, type Drip, type Pipeline, type Post } from '../model'
import { blankPost, wishedAt } from '../pipeline'
import {
  addDays,
  beatCount,
  daysBetween,
  laneFigures,
  localDay,
  mondayOf,
  placePosts,
  dayNumber,
  weekNumber,
  toWall,
} from '../planning'
import { fromShelf } from './fromShelf'
import { followsRhythm, inRhythm, toAccount, withRhythm, type Change } from './change'
import type { RehearsalRequest, Rehearsal, Pressure, Comparison } from './request'
import { arriving } from './toCome'

/**
 * Plays the coming months as they are planned, and once more with some changes. Posts that stand
 * legally stay, in both; with changes only what they touch is placed anew, by the planner. Nothing is
 * kept. Where pieces are let come in, each pipeline that is on gets as many as its sources published
 * in the last twelve weeks and its sieve lets through of them, evenly spaced, each like one that came before,
 * with a drip by every row that would take it (rules about words see the title alone). Rows that drip from the shelf go on
 * with what stands on it now.
 */
export function rehearse(request: RehearsalRequest): Comparison {
  const before = playing(request, [])
  const after = playing(request, request.changes)
  const known = new Map(request.posts.map((p) => [p.id, p]))
  const stood = new Map(before.posts.map((p) => [p.id, p.at]))
  const moves = after.posts.flatMap((post) => {
    const was = known.get(post.id)
    return was && was.at !== post.at ? [{ post, from: was.at, to: post.at }] : []
  })
  const left = new Set(after.posts.map((p) => p.id))
  const dropped = request.posts.filter((p) => stood.has(p.id) && !left.has(p.id))
  return {
    before: before.rehearsal,
    after: after.rehearsal,
    moves,
    dropped,
    wanted: after.wanted,
  }
}

interface Played {
  rehearsal: Rehearsal
  posts: Post[]
  wanted: Comparison['wanted']
}

function playing(request: RehearsalRequest, changes: readonly Change[]): Played {
  const world = changed(request, changes)
  const fresh = request.arrivals
    ? arriving(request, world.pipelines, world.accounts)
    : { posts: [], drips: [] }
  const shelved = fromShelf(request, world.pipelines, world.accounts, [...world.standing, ...world.moving])
  const moving = [...world.moving, ...fresh.posts, ...shelved]
  const placed = moving.length
    ? placePosts({
        now: request.now,
        accounts: world.accounts,
        brands: world.brands,
        drips: [...world.drips, ...fresh.drips],
        pipelines: world.pipelines,
        standing: world.standing,
        moving,
      })
    : []
  // A day without a free opening gets nothing from the shelf.
  const stand = placed.filter((p) => p.at !== null || p.shelf === undefined || !p.id.startsWith(' '))
  const posts = [...world.standing, ...stand].filter((p) => p.brand === request.brand)
  const published = new Map([
    ...request.pieces.flatMap((p) => (p.publishedAt ? [[p.id, p.publishedAt] as const] : [])),
    ...fresh.drips.map((d) => [d.piece, `${d.startDay}T00:00:00.000Z`] as const),
  ])
  return { rehearsal: told(request, world, posts, published), posts, wanted: world.wanted }
}

interface World {
  accounts: Account[]
  brands: Brand[]
  pipelines: Pipeline[]
  drips: Drip[]
  standing: Post[]
  moving: Post[]
  wanted: Comparison['wanted']
}

/** The workspace as it would be with the changes, and which posts have to look for a place. */
function changed(request: RehearsalRequest, changes: readonly Change[]): World {
  const { now } = request
  const accounts = request.accounts.filter((a) => a.endedAt === null)
  const world: World = {
    accounts: [...accounts],
    brands: [...request.brands],
    pipelines: [...request.pipelines],
    drips: [...request.drips],
    standing: request.posts.filter((p) => p.state !== 'set aside'),
    moving: [],
    wanted: [],
  }
  const movable = (p: Post): boolean => isToCome(p) && !p.pinned && (p.at === null || p.at > now)
  const touched = new Set<string>()
  const rewished = new Map<string, Post>()
  const made: Post[] = []
  for (const change of changes) {
    if (change.kind === 'pause') {
      world.standing = world.standing.filter((p) => p.pipeline !== change.pipeline || !isToCome(p))
      world.pipelines = world.pipelines.map((p) => (p.id === change.pipeline ? { ...p, on: false } : p))
    } else if (change.kind === 'slots') {
      touched.add(change.account)
      world.accounts = world.accounts.map((a) =>
        a.id === change.account ? { ...a, slots: change.slots } : a,
      )
    } else if (change.kind === 'quiet') {
      for (const a of accounts) if (a.brand === change.brand) touched.add(a.id)
      world.brands = world.brands.map((b) =>
        b.id === change.brand ? { ...b, quiet: [...b.quiet, ...change.days] } : b,
      )
    } else if (change.kind === 'rhythm') {
      world.pipelines = world.pipelines.map((p) =>
        p.id === change.pipeline ? inRhythm(p, change.rhythm) : p,
      )
      rewish(world, change, movable, request, rewished)
    } else addAccount(world, change, request, made)
  }
  // The rhythm may have dropped what comes later in the list, so the posts are gathered at the end.
  const moving = world.standing.filter((p) => movable(p) && (touched.has(p.account) || rewished.has(p.id)))
  const ids = new Set(moving.map((p) => p.id))
  world.moving = [...moving.map((p) => rewished.get(p.id) ?? p), ...made]
  world.standing = world.standing.filter((p) => !ids.has(p.id))
  return world
}

/** The posts to come of a pipeline's drips at the days of another rhythm; those beyond its beats go. */
function rewish(
  world: World,
  change: Extract<Change, { kind: 'rhythm' }>,
  movable: (post: Post) => boolean,
  request: RehearsalRequest,
  rewished: Map<string, Post>,
): void {
  const beats = beatCount(change.rhythm)
  const accounts = new Map(world.accounts.map((a) => [a.id, a]))
  const stagger = new Map(world.brands.map((b) => [b.id, b.weights.staggerMinutes]))
  const drips = new Map<string, Drip>()
  const pipeline = world.pipelines.find((p) => p.id === change.pipeline)
  world.drips = world.drips.map((d) => {
    if (d.pipeline !== change.pipeline || d.endedAt || !followsRhythm(d, pipeline)) return d
    const next = withRhythm(d, change.rhythm)
    drips.set(d.id, next)
    return next
  })
  world.standing = world.standing.filter((post) => {
    const drip = drips.get(post.drip ?? '')
    const account = accounts.get(post.account)
    if (!drip || !account || !movable(post)) return true
    if (post.beat >= beats) return false
    const wished = wishedAt(drip, post.beat, account, stagger.get(post.brand) ?? 0)
    rewished.set(post.id, {
      ...post,
      at: null,
      wished: wished < request.now ? request.now : wished,
      reasons: [],
    })
    return true
  })
}

/** A post more at each beat that is still to come, as it would be worded for the account. */
function addAccount(
  world: World,
  change: Extract<Change, { kind: 'account' }>,
  request: RehearsalRequest,
  made: Post[],
): void {
  const { account } = change
  if (!world.accounts.some((a) => a.id === account.id)) world.accounts.push(account)
  world.pipelines = world.pipelines.map((p) => (p.id === change.pipeline ? toAccount(p, account.id) : p))
  const row = world.pipelines.find((p) => p.id === change.pipeline)?.release[0]?.id
  const brand = world.brands.find((b) => b.id === account.brand)
  for (const drip of world.drips) {
    if (drip.pipeline !== change.pipeline || drip.endedAt || drip.row !== row) continue
    if (drip.accounts.includes(account.id)) continue
    const widened = { ...drip, accounts: [...drip.accounts, account.id] }
    drip.days.forEach((_, beat) => {
      const like = world.standing.find(
        (p) => p.drip === drip.id && p.beat === beat && isToCome(p) && (p.at ?? p.wished) > request.now,
      )
      if (!like) return
      const wished = wishedAt(widened, beat, account, brand?.weights.staggerMinutes ?? 0)
      const moment = wished < request.now ? request.now : wished
      world.wanted.push({ like: like.id, account: account.id, wished: moment })
      made.push(
        blankPost(account, {
          id: ` wanted ${account.id} ${drip.id} ${beat}`,
          brand: drip.brand,
          drip: drip.id,
          pipeline: drip.pipeline,
          piece: drip.piece,
          beat,
          wording: { ...like.wording, text: `${like.wording.text} ${account.id}` },
          latest: like.latest,
          wished: moment,
        }),
      )
    })
  }
}

function told(
  request: RehearsalRequest,
  world: World,
  posts: readonly Post[],
  published: ReadonlyMap<string, string>,
): Rehearsal {
  const { from, to } = request
  const accounts = world.accounts.filter((a) => a.brand === request.brand)
  const zones = new Map(accounts.map((a) => [a.id, a.zone]))
  const first = weekNumber(dayNumber(from))
  const count = weekNumber(dayNumber(to)) - first + 1
  const index = new Map(accounts.map((a, i) => [a.id, i]))
  const weeks = accounts.map(() => new Array<number>(count).fill(0))
  const inSpan: Post[] = []
  for (const post of posts) {
    const at = post.publishedAt ?? post.at
    const lane = index.get(post.account)
    if (lane === undefined) continue
    if (at === null) {
      if (isToCome(post)) inSpan.push(post)
      continue
    }
    const day = localDay(Date.parse(at), zones.get(post.account) ?? 'UTC')
    if (day < dayNumber(from) || day > dayNumber(to)) continue
    inSpan.push(post)
    const row = weeks[lane]
    const week = weekNumber(day) - first
    if (row) row[week] = (row[week] ?? 0) + 1
  }
  return {
    accounts,
    posts: inSpan,
    figures: accounts.map((a) => laneFigures(a, posts, from, to, published)),
    weeks,
    mondays: Array.from({ length: count }, (_, i) => addDays(mondayOf(from), i * 7)),
    dry: world.pipelines
      .filter((p) => p.brand === request.brand && p.endedAt === null)
      .map((p) => {
        const last = posts
          .filter((post) => post.pipeline === p.id && isToCome(post))
          .reduce((latest, post) => ((post.at ?? '') > latest ? (post.at ?? '') : latest), '')
        const takesIn =
          request.arrivals &&
          p.on &&
          p.held === null &&
          posts.some((post) => post.piece?.startsWith(` to come ${p.id} `))
        return { pipeline: p.id, day: last ? last.slice(0, 10) : null, takesIn }
      }),
    pressure: pressureOf(inSpan, zones),
  }
}

function pressureOf(posts: readonly Post[], zones: ReadonlyMap<string, string>): Pressure {
  const times = new Map<string, number>()
  let moved = 0
  let days = 0
  let unplaced = 0
  for (const post of posts) {
    if (!isToCome(post)) continue
    if (post.at === null) unplaced++
    else {
      const zone = zones.get(post.account) ?? 'UTC'
      const apart = Math.abs(
        daysBetween(toWall(Date.parse(post.wished), zone).date, toWall(Date.parse(post.at), zone).date),
      )
      if (apart > 0) moved++
      days += apart
    }
    for (const code of new Set(post.reasons.map((r) => r.code)))
      if (!NO_RULE.has(code)) times.set(code, (times.get(code) ?? 0) + 1)
  }
  return {
    moved,
    meanDays: moved ? days / moved : 0,
    unplaced,
    rules: [...times]
      .map(([code, n]) => ({ code, times: n }))
      .sort((a, b) => b.times - a.times || (a.code < b.code ? -1 : 1)),
  }
}

/** Reasons that are no rule in the way. */
const NO_RULE = new Set(['as-wished', 'moved', 'by-hand', 'now', 'next-opening', 'room', 'past'])
