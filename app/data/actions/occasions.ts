import { nanoid } from 'nanoid'
import { houseOf } from '../../../core/house'
import {
  Fault,
  isToCome,
  type Account,
  type Brand,
  type Occasion,
  type OccasionMake,
  type Passage,
  type Piece,
  type Post,
} from '../../../core/model'
import {
  daysOfOccasion,
  nextDayOf,
  themeOf,
  writeOccasion,
  type Hands,
  type Nearness,
  type OccasionGiven,
} from '../../../core/occasions'
import { datedLine } from '../../../core/pipeline'
import { addDays, daysBetween, toWall } from '../../../core/planning'
import { heavy } from '../../workers'
import { nowIso } from '../clock'
import { tagFiguresFor } from '../services'
import { shelfOf } from '../shelf'
import {
  all,
  commit,
  must,
  newAction,
  patch,
  put,
  remove,
  wholePiece,
  type Actor,
  type Write,
} from '../store'
import { commitRecalled, happensIfMay } from './life'
import { tryPlaces } from './plan'

/** So many passages near an occasion are looked at for each of its accounts. */
const MOST_NEAR = 60
/** So many days ahead the captions of an occasion are written that comes again by itself. */
export const AHEAD_DAYS = 56

/** An occasion as a person writes it down. */
export type OccasionDraft = OccasionGiven & Partial<Pick<Occasion, 'again'>>

/** The brand's local day. */
export const todayOf = ({ zone }: Pick<Brand, 'zone'>): string => toWall(Date.parse(nowIso()), zone).date

/** What the days of the coming year are made of: one day of an occasion. */
export interface OccasionOn {
  occasion: Occasion
  day: string
}

/** The days of the coming year that some occasions are on, in order. */
export function yearOf(occasions: readonly Occasion[], zone: string, today: string): OccasionOn[] {
  const last = addDays(today, 365)
  return occasions
    .flatMap((occasion) => daysOfOccasion(occasion.on, zone, today, last).map((day) => ({ occasion, day })))
    .sort((a, b) =>
      a.day === b.day ? a.occasion.name.localeCompare(b.occasion.name) : a.day < b.day ? -1 : 1,
    )
}

/**
 * Writes occasions down. One that stands already under a name takes the day, words and lines of the new one where these say
 * something else. Gives how many are new and how many were changed.
 */
export async function keepOccasions(
  brand: string,
  drafts: readonly OccasionDraft[],
): Promise<{ added: number; changed: number }> {
  const standing = new Map((await all('occasions', 'brand', brand)).map((o) => [o.name.toLowerCase(), o]))
  const rows = drafts.flatMap((draft): Occasion[] => {
    const before = standing.get(draft.name.toLowerCase())
    const row = before ? { ...before, ...filled(draft) } : fresh(brand, draft)
    return before && JSON.stringify(row) === JSON.stringify(before) ? [] : [row]
  })
  const added = rows.filter((r) => !standing.has(r.name.toLowerCase())).length
  if (rows.length)
    await commit(
      {
        brand,
        label: rows.length === 1 ? `Write down “${rows[0]?.name}”` : `Write down ${rows.length} occasions`,
      },
      rows.map((row) => put('occasions', row)),
    )
  return { added, changed: rows.length - added }
}

/** A draft without what it leaves empty. */
function filled({ name, on, theme, lines, again }: OccasionDraft): Partial<Occasion> {
  return {
    name,
    on,
    ...(theme.length ? { theme } : {}),
    ...(lines.length ? { lines } : {}),
    ...(again === undefined ? {} : { again }),
  }
}

function fresh(brand: string, { name, on, theme, lines, again }: OccasionDraft): Occasion {
  return {
    id: nanoid(),
    brand,
    name,
    on,
    theme: [...theme],
    lines: [...lines],
    make: null,
    again: again ?? false,
    missing: [],
    createdAt: nowIso(),
  }
}

/** The changes of occasions that are under way: whoever writes for occasions waits for them. */
let changing: Promise<unknown> = Promise.resolve()

/**
 * Changes some of an occasion. Where its day is another, its posts to come move to the nearest day that it has now, and those
 * that no day is left for are set aside. Gives how many moved and how many were set aside.
 */
export function changeOccasion(
  id: string,
  change: Partial<Pick<Occasion, 'name' | 'on' | 'theme' | 'lines' | 'again'>>,
): Promise<{ moved: number; aside: number }> {
  const work = changed(id, change)
  changing = Promise.allSettled([changing, work])
  return work
}

async function changed(
  id: string,
  change: Parameters<typeof changeOccasion>[1],
): Promise<{ moved: number; aside: number }> {
  const before = await must('occasions', id)
  const actor = { brand: before.brand, label: `Change “${before.name}”` }
  const { on } = change
  if (on === undefined || JSON.stringify(on) === JSON.stringify(before.on)) {
    await commit(actor, [patch('occasions', id, (o) => ({ ...o, ...change }))])
    return { moved: 0, aside: 0 }
  }
  const brand = await must('brands', before.brand)
  const posts = (await all('posts', 'brand', before.brand)).filter(
    (p) => p.occasion?.id === id && isToCome(p),
  )
  const asked = posts.map((post) => ({ post, day: nearestDay(on, brand.zone, post) }))
  const going = asked.flatMap(({ post, day }) =>
    day !== null && day !== post.occasion?.day ? [onDay(post, day)] : [],
  )
  const aside = asked.filter(({ day }) => day === null).map(({ post }) => post)
  const placed = await tryPlaces(going)
  const reason = { code: 'occasion', message: `“${before.name}” is on no day near the one it stood for.` }
  await commitRecalled(
    actor,
    [...going, ...aside],
    [
      patch('occasions', id, (o) => ({ ...o, ...change, missing: [] })),
      ...placed.map((p) =>
        happensIfMay(p.id, 'move', ({ state, revision, generation }) => ({
          ...p,
          state,
          revision,
          generation,
        })),
      ),
      ...aside.map((p) => happensIfMay(p.id, 'set aside', (row) => ({ ...row, reasons: [reason] }))),
    ],
  )
  return { moved: placed.length, aside: aside.length }
}

/** The day of an occasion nearest to the one that a post stands for, within half a year; null where there is none. */
function nearestDay(on: Occasion['on'], zone: string, { occasion }: Post): string | null {
  const was = occasion?.day ?? ''
  const today = toWall(Date.parse(nowIso()), zone).date
  const from = addDays(was, -182)
  const days = daysOfOccasion(on, zone, from < today ? today : from, addDays(was, 182))
  return days.sort((a, b) => Math.abs(daysBetween(was, a)) - Math.abs(daysBetween(was, b)))[0] ?? null
}

function onDay(post: Post, day: string): Post {
  const days = daysBetween(post.occasion?.day ?? day, day)
  const wished = new Date(Date.parse(post.wished) + days * 86_400_000).toISOString()
  const occasion = post.occasion && { ...post.occasion, day }
  return {
    ...post,
    ...(occasion ? { occasion } : {}),
    earliest: day,
    latest: day,
    wished,
    at: null,
    pinned: false,
  }
}

/** Takes occasions off the calendar; their posts to come are set aside. Gives how many posts that were. */
export async function removeOccasions(occasions: readonly Occasion[]): Promise<number> {
  const [first] = occasions
  if (!first) return 0
  const ids = new Set(occasions.map((o) => o.id))
  const posts = (await all('posts', 'brand', first.brand)).filter(
    (p) => ids.has(p.occasion?.id ?? '') && isToCome(p),
  )
  const what = occasions.length === 1 ? `“${first.name}”` : `${occasions.length} occasions`
  const reason = { code: 'occasion', message: 'Its occasion was taken off the calendar.' }
  await commitRecalled({ brand: first.brand, label: `Take ${what} off the calendar` }, posts, [
    ...occasions.map((o) => remove('occasions', o.id)),
    ...posts.map((p) => happensIfMay(p.id, 'set aside', (row) => ({ ...row, reasons: [reason] }))),
  ])
  return posts.length
}

/** Occasions out of a file: a calendar (iCalendar) or a sheet (CSV), and what of it is left, with the reason. */
export function readOccasionFile(
  brand: Brand,
  name: string,
  bytes: Uint8Array,
): Promise<{ occasions: OccasionDraft[]; left: string[] }> {
  return heavy().readOccasions(name, bytes, { zone: brand.zone, today: todayOf(brand) })
}

/** The occasions of a brand as a sheet (CSV). */
export async function occasionSheet(brand: Brand): Promise<string> {
  const occasions = await all('occasions', 'brand', brand.id)
  return heavy().writeOccasionSheet(occasions, { zone: brand.zone, today: todayOf(brand) })
}

/** The passages of a brand that are near each of some occasions, nearest first. */
export async function nearTo(
  brand: string,
  occasions: readonly Pick<Occasion, 'name' | 'theme'>[],
): Promise<{ near: Nearness[][]; passages: Map<string, Passage>; pieces: Map<string, Piece> }> {
  const [passages, pieces] = await Promise.all([
    all('passages', 'brand', brand),
    all('pieces', 'brand', brand),
  ])
  const byId = new Map(pieces.map((p) => [p.id, p]))
  const texts = passages.flatMap(({ id, text, piece, choice, shelf, lostPlace }) =>
    (choice === 'kept' || shelf === 'on') && !lostPlace
      ? [{ id, text, title: byId.get(piece)?.title ?? '' }]
      : [],
  )
  const near = await heavy().nearThemes(occasions.map(themeOf), texts, MOST_NEAR)
  return { near, passages: new Map(passages.map((p) => [p.id, p])), pieces: byId }
}

/** What came of writing for some days. */
export interface OccasionsWritten {
  posts: number
  /** How many posts that hang on no day made room. */
  moved: number
  /** Accounts that have no caption for a day, and why. */
  missing: { name: string; day: string; account: string; message: string }[]
  /** Whether it was stopped before the end. */
  stopped: boolean
}

/**
 * Writes captions for days of occasions, a post for each account that has none for its day, and keeps them for review, each as
 * soon as its day is done: where it is stopped, what was written stays.
 */
export async function writeOccasions(
  brandId: string,
  asked: readonly OccasionOn[],
  make: OccasionMake,
  {
    onProgress = () => undefined,
    stopped = () => false,
    actor = {
      brand: brandId,
      label: `Write captions for ${asked.length === 1 ? `“${asked[0]?.occasion.name}”` : `${asked.length} days`}`,
      action: newAction(),
    },
  }: {
    onProgress?: (done: number, all: number) => void
    stopped?: () => boolean
    actor?: Actor
  } = {},
): Promise<OccasionsWritten> {
  const brand = await must('brands', brandId)
  const open = (await all('accounts', 'brand', brandId)).filter((a) => a.endedAt === null)
  // In the order in which they are asked for, which is that of the lines.
  const accounts = make.accounts.flatMap((id) => open.find((a) => a.id === id) ?? [])
  if (accounts.length === 0)
    throw new Fault(
      'bad-request',
      'Choose at least one account. Link one under Dispatch where there is none.',
    )
  await changing
  // As they are written down now, whatever was shown when this was asked for.
  const known = new Map((await all('occasions', 'brand', brandId)).map((o) => [o.id, o]))
  const days = asked.flatMap(({ occasion: { id }, day }) => {
    const occasion = known.get(id)
    return occasion ? [{ occasion, day }] : []
  })
  const [{ near, passages, pieces }, { shelf }] = await Promise.all([
    nearTo(
      brandId,
      days.map((d) => d.occasion),
    ),
    shelfOf(brand),
  ])
  const came: OccasionsWritten = { posts: 0, moved: 0, missing: [], stopped: false }
  for (const [i, { occasion, day }] of days.entries()) {
    if (stopped()) return { ...came, stopped: true }
    const made = await writeOccasion(
      {
        now: nowIso(),
        brand,
        occasion,
        day,
        make,
        accounts,
        near: near[i] ?? [],
        passages,
        pieces,
        shelf,
        standing: await all('posts'),
      },
      hands,
    )
    const posts =
      brand.houseStyle.writer === 'connected' ? await byConnected(made.posts, brand, occasion) : made.posts
    if (posts.length || made.missing.length)
      await commitRecalled(actor, made.moved, [
        ...written(occasion, day, make, accounts, posts, made.missing),
        ...made.moved.map(({ id, at, reasons }) =>
          at === null
            ? happensIfMay(id, 'set aside')
            : happensIfMay(id, 'move', (p) => ({ ...p, at, reasons })),
        ),
      ])
    came.posts += posts.length
    came.moved += made.moved.length
    came.missing.push(...made.missing.map((m) => ({ name: occasion.name, ...m })))
    onProgress(i + 1, days.length)
  }
  return came
}

/** What a day's writing is kept as. */
function written(
  { id }: Occasion,
  day: string,
  make: OccasionMake,
  accounts: readonly Account[],
  posts: readonly Post[],
  missing: Occasion['missing'],
): Write[] {
  const asked = new Set(accounts.map((a) => a.id))
  return [
    ...posts.map((p) => put('posts', p)),
    patch('occasions', id, (o) => ({
      ...o,
      make,
      missing: [...o.missing.filter((m) => m.day !== day || !asked.has(m.account)), ...missing],
    })),
  ]
}

const hands: Hands = {
  place: (post, standing, yielding) => tryPlaces([post, ...yielding], { posts: [...standing] }),
  piece: wholePiece,
  word: (request) => heavy().singlePost(request),
}

/** The posts of a day in the words of the connected writer, each of its own piece; where it fails, the built-in writer's stay. */
async function byConnected(posts: readonly Post[], brand: Brand, occasion: Occasion): Promise<Post[]> {
  const { writeConnected } = await import('./connected')
  const made: Post[] = []
  for (const post of posts) {
    const piece = await wholePiece(post.piece ?? '', post.pieceRevision)
    const [passages, standing, tagFigures] = await Promise.all([
      all('passages', 'piece', piece.id),
      all('posts'),
      tagFiguresFor(piece, [post.network]),
    ])
    made.push(
      ...(await writeConnected(
        {
          posts: [post],
          standing: [...standing, ...made],
          brand,
          house: { ...houseOf(brand), dated: datedLine(post) },
          piece,
          passages,
          gate: 'everything',
          tagFigures,
          day: occasion.name,
        },
        () => undefined,
      )),
    )
  }
  return made
}

/** The next day of an occasion for which its captions are to be written by itself, where that day is within reach and nothing was written for it yet. */
function dueDay(occasion: Occasion, brand: Brand, posts: readonly Post[], today: string): string | null {
  if (!occasion.again || occasion.make === null) return null
  const day = nextDayOf(occasion.on, brand.zone, addDays(today, 1))
  if (day === null || day > addDays(today, AHEAD_DAYS)) return null
  const done =
    occasion.missing.some((m) => m.day === day) ||
    posts.some((p) => p.occasion?.id === occasion.id && p.occasion.day === day)
  return done ? null : day
}

/** Writes the captions of occasions that come again each year and have come within reach. */
export async function renewOccasions(): Promise<void> {
  for (const brand of (await all('brands')).filter((b) => b.endedAt === null)) {
    const occasions = (await all('occasions', 'brand', brand.id)).filter((o) => o.again && o.make !== null)
    if (occasions.length === 0) continue
    const posts = await all('posts', 'brand', brand.id)
    for (const occasion of occasions) {
      const day = dueDay(occasion, brand, posts, todayOf(brand))
      const there = (await all('accounts', 'brand', brand.id)).some(
        (a) => a.endedAt === null && occasion.make?.accounts.includes(a.id),
      )
      if (day !== null && occasion.make && there)
        await writeOccasions(brand.id, [{ occasion, day }], occasion.make, { actor: 'machine' })
    }
  }
}

/** The next moment at which captions of an occasion come within reach (ISO 8601 in UTC), or null. */
export async function nextRenewal(): Promise<string | null> {
  const brands = new Map((await all('brands')).map((b) => [b.id, b]))
  const moments = (await all('occasions')).flatMap((o) => {
    const brand = brands.get(o.brand)
    if (!o.again || o.make === null || !brand) return []
    // What is within reach today was written; the one after that comes next.
    const day = nextDayOf(o.on, brand.zone, addDays(todayOf(brand), AHEAD_DAYS + 1))
    return day === null ? [] : [`${addDays(day, -AHEAD_DAYS)}T00:00:00.000Z`]
  })
  return moments.sort()[0] ?? null
}
