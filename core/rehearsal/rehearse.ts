import {
  isToCome,
  type Account,
  type Brand,
  type Drip,
  type Passage,
  type Piece,
  type PieceRow,
  type Pipeline,
  type Post,
  type Source,
} from '../model'
import { accountsOf, beatsOf, blankPost, nothingYet, rowsFor, wishedAt, type Beats } from '../pipeline'
import {
  addDays,
  beatCount,
  beatDays,
  daysBetween,
  laneFigures,
  localDay,
  mondayOf,
  placePosts,
  dayNumber,
  weekNumber,
  toWall,
  type LaneFigures,
} from '../planning'
import { sieveContext, isFor } from '../sieve'
import { fromShelf } from './fromShelf'
import { followsRhythm, inRhythm, toAccount, withRhythm, type Change } from './change'

/** What a rehearsal is played with. */
export interface RehearsalRequest {
  now: string
  brand: string
  accounts: readonly Account[]
  brands: readonly Brand[]
  drips: readonly Drip[]
  pipelines: readonly Pipeline[]
  posts: readonly Post[]
  /** The local days between which it is played, both included. */
  from: string
  to: string
  changes: readonly Change[]
  /** Whether new pieces come in as often as they did lately, or none comes. */
  arrivals: boolean
  /** The pieces there are: when they were published, and what the sieves said of them. */
  pieces: readonly Piece[]
  sources: readonly Source[]
  /** What may come from the shelf, and how many times its account's usual each passage earned. */
  passages: readonly Passage[]
  worth: ReadonlyMap<string, number>
}

/** The months to come as they would be played. */
export interface Rehearsal {
  /** The accounts that have a lane, in order; one that is not linked yet among them. */
  accounts: Account[]
  /** The posts that stand or would stand in the span; made-up ones have an id that begins with a space. */
  posts: Post[]
  figures: LaneFigures[]
  /** Posts by account and week of the span, the first week first. */
  weeks: number[][]
  /** The first days of the weeks. */
  mondays: string[]
  /** The last day with a post of each pipeline; null where nothing is planned. */
  dry: { pipeline: string; day: string | null; takesIn: boolean }[]
  pressure: Pressure
}

/** How hard the rules press: what had to stand elsewhere, and which rules stood in the way. */
interface Pressure {
  /** Posts that stand on another day than they wished, and by how many days on average. */
  moved: number
  meanDays: number
  unplaced: number
  /** How often each rule stood in the way of a post, by its code, most first. */
  rules: { code: string; times: number }[]
}

/** Both ways side by side, and what would have to move for the second. */
export interface Comparison {
  before: Rehearsal
  after: Rehearsal
  /** Posts that are there and would stand elsewhere. */
  moves: { post: Post; from: string | null; to: string | null }[]
  /** Posts that are there and would go out no more. */
  dropped: Post[]
  /** Posts that would have to be written: for each, the one it is worded like, and its account. */
  wanted: { like: string; account: string; wished: string }[]
}

/** So many days back are looked at for how often pieces come. */
const LATELY_DAYS = 84
const DAY = 86_400_000

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

/** The drips that would come if pieces came in as often as lately. */
function arriving(
  request: RehearsalRequest,
  pipelines: readonly Pipeline[],
  accounts: readonly Account[],
): { posts: Post[]; drips: Drip[] } {
  const posts: Post[] = []
  const drips: Drip[] = []
  const brand = request.brands.find((b) => b.id === request.brand)
  const { now, sources, pieces } = request
  const context = sieveContext({ now, zone: brand?.zone ?? 'UTC', lists: [], sources, pieces })
  for (const pipeline of pipelines) {
    if (pipeline.brand !== request.brand || !pipeline.on || pipeline.held || pipeline.endedAt) continue
    const days = daysBetween(request.from, request.to)
    const every = daysApart(pipeline, request)
    const like = passedOf(pipeline, request)
    for (let n = 1; every !== null && n * every <= days; n++) {
      const piece = like[(n - 1) % like.length]
      const startDay = addDays(request.from, Math.round(n * every))
      for (const { row, takes } of piece ? rowsFor({ ...piece, text: '' }, pipeline.release, context) : []) {
        const beats = takes && piece ? beatsOrNone(row, piece, startDay) : null
        const lanes = accountsOf(row, accounts)
        if (!beats || lanes.length === 0) continue
        const id = ` to come ${pipeline.id} ${n}`
        const drip = dripToCome({ id, row: row.id, seed: n }, pipeline, beats, lanes, now)
        drips.push(drip)
        posts.push(...postsToCome(drip, lanes, brand?.weights.staggerMinutes ?? 0))
      }
    }
  }
  return { posts, drips }
}

/** The pieces that a pipeline's sieve let through, the newest first; all of its sources where it looked at none. */
function passedOf(pipeline: Pipeline, { pieces, sources }: RehearsalRequest): Piece[] {
  const mineOf = isFor(pipeline, sources)
  const mine = pieces.filter((p) => mineOf(p) && p.double === null)
  const passed = mine.filter((p) => p.verdicts.some((v) => v.pipeline === pipeline.id && v.passed))
  return (passed.length ? passed : mine).sort((a, b) =>
    (b.publishedAt ?? '').localeCompare(a.publishedAt ?? ''),
  )
}

/** The beats of a row for a piece, which is taken to keep; null where its timing leaves none. */
function beatsOrNone(row: PieceRow, piece: Piece, startDay: string): Beats | null {
  try {
    return beatsOf(row.by, { fields: piece.fields, keeps: { ...piece.keeps, until: null } }, startDay)
  } catch {
    return null
  }
}

function dripToCome(
  { id, row, seed }: { id: string; row: string; seed: number },
  pipeline: Pipeline,
  { startDay, rhythm }: Beats,
  lanes: readonly Account[],
  createdAt: string,
): Drip {
  return {
    id: `${id} ${row}`,
    brand: pipeline.brand,
    piece: id,
    revision: 1,
    pipeline: pipeline.id,
    row,
    time: 0,
    rhythm,
    startDay,
    accounts: lanes.map((a) => a.id),
    days: beatDays(rhythm),
    missing: [],
    seed,
    until: null,
    followed: [],
    held: null,
    endedAt: null,
    createdAt,
  }
}

function postsToCome(drip: Drip, lanes: readonly Account[], staggerMinutes: number): Post[] {
  return lanes.flatMap((account) =>
    drip.days.map((_, beat) =>
      blankPost(account, {
        id: `${drip.id} ${account.id} ${beat}`,
        brand: drip.brand,
        drip: drip.id,
        pipeline: drip.pipeline,
        piece: drip.piece,
        beat,
        wording: nothingYet(`${drip.id} ${account.id} ${beat}`),
        wished: wishedAt(drip, beat, account, staggerMinutes),
      }),
    ),
  )
}

/**
 * After how many days a pipeline would take in another piece: by what its sources published lately,
 * and the part of it that its sieve let through; null where nothing came.
 */
function daysApart(pipeline: Pipeline, { now, pieces, sources }: RehearsalRequest): number | null {
  const mineOf = isFor(pipeline, sources)
  const mine = pieces.filter((p) => mineOf(p) && p.double === null)
  const since = new Date(Date.parse(now) - LATELY_DAYS * DAY).toISOString()
  const appeared = mine.flatMap((p) => p.publishedAt ?? []).filter((at) => at <= now)
  const lately = appeared.filter((at) => at >= since).length
  const judged = mine.flatMap((p) => p.verdicts.filter((v) => v.pipeline === pipeline.id))
  const passing = judged.length ? judged.filter((v) => v.passed).length / judged.length : 1
  if (lately * passing === 0) return null
  const first = appeared.reduce((a, b) => (b < a ? b : a))
  const days = Math.min(LATELY_DAYS, Math.max(7, (Date.parse(now) - Date.parse(first)) / DAY))
  return days / (lately * passing)
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
