import {
  Fault,
  may,
  USUAL_WEIGHTS,
  type Account,
  type Brand,
  type Drip,
  type Pipeline,
  type Post,
  type Rhythm,
  type Weights,
} from '../../../core/model'
import { beatDays, planOf, toWall, withPlaces, type OpenPlace, type StartDay } from '../../../core/planning'
import type { readQuietDays } from '../../../core/formats'
import { heavy } from '../../workers'
import { nowIso } from '../clock'
import { all, commit, must, patch, type Write } from '../store'
import { commitRecalled, happensIfMay } from './life'

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

/** Whether the planner may still change a post's place. */
export function isMovable(post: Post): boolean {
  return !post.pinned && may(post, 'move')
}

/** Places posts among all the others, without writing anything. `change` may put other settings in their place. */
export async function tryPlaces(
  moving: readonly Post[],
  change: Partial<Surroundings> = {},
): Promise<Post[]> {
  const around = { ...(await surroundings()), ...change }
  // Only what the planner minds of the posts goes to the worker.
  const plan = planOf({ ...around, now: nowIso(), standing: around.posts, moving })
  return withPlaces(moving, await heavy().plan(plan))
}

/** A post that would stand elsewhere. */
export interface Move {
  post: Post
  from: string | null
  to: string | null
}

/** Which posts of an account, brand or pipeline would move under changed settings. What is due this minute stays. */
export async function difference(change: {
  accounts?: Account[]
  brands?: Brand[]
  pipelines?: Pipeline[]
}): Promise<Move[]> {
  const around = await surroundings()
  const merge = <T extends { id: string }>(rows: T[], changed: readonly T[] | undefined): T[] =>
    rows.map((r) => changed?.find((c) => c.id === r.id) ?? r)
  const accounts = merge(around.accounts, change.accounts)
  const brands = merge(around.brands, change.brands)
  const pipelines = merge(around.pipelines, change.pipelines)
  const ofPipelines = new Set((change.pipelines ?? []).map((p) => p.id))
  const touched = new Set([
    ...(change.accounts ?? []).map((a) => a.id),
    ...accounts.filter((a) => change.brands?.some((b) => b.id === a.brand)).map((a) => a.id),
  ])
  const moving = around.posts.filter(
    (p) => (touched.has(p.account) || ofPipelines.has(p.pipeline ?? '')) && isMovable(p) && isToCome(p),
  )
  return movesOf(moving, await tryPlaces(moving, { accounts, brands, pipelines }))
}

function isToCome(post: Post): boolean {
  return post.at === null || post.at > nowIso()
}

function movesOf(before: readonly Post[], after: readonly Post[]): Move[] {
  return after.flatMap((post, i) => {
    const was = before[i]
    return was && was.at !== post.at ? [{ post, from: was.at, to: post.at }] : []
  })
}

/** Some posts, were they wished so many days later (or earlier): which of them move, and where to. */
export async function shifted(ids: readonly string[], days: number): Promise<Move[]> {
  const chosen = (await all('posts')).filter((p) => ids.includes(p.id) && isMovable(p))
  const later = chosen.map((p) => ({
    ...p,
    at: null,
    wished: new Date(Date.parse(p.at ?? p.wished) + days * DAY).toISOString(),
  }))
  return movesOf(chosen, await tryPlaces(later))
}

/** Posts that are wished at other moments: which of them move, and where to, at the nearest legal place. */
export async function wishedAt(changes: readonly { id: string; at: string }[]): Promise<Move[]> {
  const wanted = new Map(changes.map((c) => [c.id, c.at]))
  const chosen = (await all('posts')).filter((p) => wanted.has(p.id) && isMovable({ ...p, pinned: false }))
  const wished = chosen.map((p) => ({ ...p, at: null, pinned: false, wished: wanted.get(p.id) ?? p.wished }))
  return movesOf(chosen, await tryPlaces(wished))
}

/** Posts of an account or of a choice, placed anew as if none of them had a place yet. */
export async function placedAnew(ids: readonly string[]): Promise<Move[]> {
  const chosen = (await all('posts')).filter((p) => ids.includes(p.id) && isMovable(p) && isToCome(p))
  return movesOf(chosen, await tryPlaces(chosen.map((p) => ({ ...p, at: null }))))
}

/** Two posts of one account in each other's place; refused with the rule that this would break. */
export async function swapped(first: string, second: string): Promise<Move[]> {
  const [a, b] = [await must('posts', first), await must('posts', second)]
  if (a.account !== b.account)
    throw new Fault('bad-request', 'Only posts of one account can change places. Choose two of one lane.')
  for (const p of [a, b])
    if (!isMovable({ ...p, pinned: false }) || !p.at || !isToCome(p))
      throw new Fault('bad-request', 'Only posts that are still to come can change places.')
  for (const [post, at] of [
    [a, b.at],
    [b, a.at],
  ] as const) {
    const why = await whyNot(post, at ?? '', [a.id, b.id])
    if (why) throw new Fault('bad-request', `They cannot change places: ${why}.`)
  }
  return movesOf(
    [a, b],
    [
      { ...a, at: b.at, reasons: [BY_HAND] },
      { ...b, at: a.at, reasons: [BY_HAND] },
    ],
  )
}

const BY_HAND = { code: 'by-hand', message: 'A person put it there.' }
const DAY = 86_400_000

/** Every opening of a post's account on some days, as that post would find it. */
export async function placesFor(post: Post, from: string, days: number): Promise<OpenPlace[]> {
  const around = await surroundings()
  return openFor(post, around, from, days)
}

/** Days over which the hard rules reach: a week either way, and the sibling days. */
const RULES_REACH = 15

function openFor(post: Post, around: Surroundings, from: string, days: number): Promise<OpenPlace[]> {
  // What stands further away than any rule or weight reaches is nothing to it.
  const { pictureDays, passageDays } =
    around.brands.find((b) => b.id === post.brand)?.weights ?? USUAL_WEIGHTS
  const reach = Math.max(RULES_REACH, pictureDays, passageDays) + 1
  const first = new Date(Date.parse(from) - reach * DAY).toISOString()
  const last = new Date(Date.parse(from) + (days + reach) * DAY).toISOString()
  const standing = around.posts.filter((p) => {
    const at = p.publishedAt ?? p.at
    return at !== null && at >= first && at <= last
  })
  const plan = planOf({ ...around, now: nowIso(), standing, moving: [post] })
  return heavy().openPlaces(plan, post.id, from, days)
}

/** The rule that a post would break at a moment, in words; null where it may go. `without` are left out of account. */
async function whyNot(post: Post, at: string, without: readonly string[]): Promise<string | null> {
  const around = await surroundings()
  const zone = around.accounts.find((a) => a.id === post.account)?.zone ?? 'UTC'
  const { date } = toWall(Date.parse(at), zone)
  const posts = around.posts.filter((p) => !without.includes(p.id))
  const places = await openFor(post, { ...around, posts }, date, 1)
  const place = places.find((p) => p.from <= at && at <= p.to)
  if (!place) return `${date} has no slot at that time`
  return place.rule ? `${date} ${place.against}` : null
}

/**
 * Takes a difference over: what was handed over is recalled first, and handed over anew by the runner. Posts
 * that went out since it was made are left.
 */
export async function applyMoves(moves: readonly Move[], label: string, pin = false): Promise<void> {
  const [first] = moves
  if (!first) return
  const posts = moves.map((m) => m.post)
  await commitRecalled({ brand: first.post.brand, label }, posts, writesOf(moves, pin))
}

/** The writes that put posts where a difference says. */
export function writesOf(moves: readonly Move[], pin = false): Write[] {
  return moves.map((m) =>
    happensIfMay(m.post.id, 'move', (p) => ({
      ...p,
      wished: m.post.wished,
      at: m.to,
      reasons: m.post.reasons,
      pinned: pin || p.pinned,
    })),
  )
}

/** Puts a post at a moment and pins it there, since a person chose it. */
export async function putAt(post: Post, at: string): Promise<void> {
  await applyMoves([{ post: { ...post, reasons: [BY_HAND] }, from: post.at, to: at }], 'Move a post', true)
}

/** Pins posts where they stand, or lets the planner move them again. */
export async function pinPosts(ids: readonly string[], pinned: boolean): Promise<void> {
  const chosen = (await all('posts')).filter(
    (p) => ids.includes(p.id) && may(p, 'move') && (p.at !== null || !pinned),
  )
  const [first] = chosen
  if (!first) return
  const what = chosen.length === 1 ? 'a post' : `${chosen.length} posts`
  // The server keeps the gap of a post that is not pinned, so it is told.
  await commitRecalled(
    { brand: first.brand, label: pinned ? `Pin ${what}` : `Unpin ${what}` },
    chosen,
    chosen.map((p) => happensIfMay(p.id, 'move', (row) => ({ ...row, pinned }))),
  )
}

/** The whole days of a calendar file as quiet days, and what of it is left and why. */
export function readCalendar(text: string): Promise<ReturnType<typeof readQuietDays>> {
  return heavy().readQuietDays(text, nowIso().slice(0, 10))
}

/** The days from one on at which a drip may begin, the one that collides least with what stands first. */
export async function startsFor(
  accounts: readonly string[],
  rhythm: Rhythm,
  from: string,
): Promise<StartDay[]> {
  const around = await surroundings()
  const plan = planOf({ ...around, now: nowIso(), standing: around.posts, moving: [] }, true)
  return heavy().startDays(plan, { accounts, days: beatDays(rhythm) }, from)
}

/** What the planner's soft rules count for a brand. What stands stays where it is. */
export async function saveWeights(brand: string, weights: Weights): Promise<void> {
  await commit({ brand, label: 'Change what the planner weighs' }, [
    patch('brands', brand, (b) => ({ ...b, weights })),
  ])
}
