import { nanoid } from 'nanoid'
import { isToCome, type Brand, type Occasion, type Post } from '../../../core/model'
import { daysOfOccasion, type OccasionGiven } from '../../../core/occasions'
import { addDays, daysBetween, toWall } from '../../../core/planning'
import { heavy } from '../../workers'
import { nowIso } from '../clock'
import { all, commit, must, patch, put, remove } from '../store'
import { commitRecalled, happensIfMay } from './life'
import { tryPlaces } from './plan'

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

/** The changes of occasions that are under way. */
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

/** Waits for the changes of occasions that are under way: whoever writes for them goes by what is written down. */
export async function changesDone(): Promise<void> {
  await changing
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
