import {
  Fault,
  type Account,
  type Brand,
  type Occasion,
  type OccasionMake,
  type Passage,
  type Piece,
  type Post,
} from '../../../core/model'
import {
  nextDayOf,
  themeOf,
  themeTexts,
  writeOccasion,
  type Hands,
  type Nearness,
} from '../../../core/occasions'
import { addDays } from '../../../core/planning'
import { heavy } from '../../workers'
import { nowIso } from '../clock'
import { shelfOf } from '../shelf'
import { all, must, newAction, patch, put, wholePiece, type Actor, type Write } from '../store'
import { byItsWriter } from './byItsWriter'
import { commitRecalled, happensIfMay } from './life'
import { changesDone, todayOf, type OccasionOn } from './occasions'
import { tryPlaces } from './plan'

/** So many passages near an occasion are looked at for each of its accounts. */
const MOST_NEAR = 60
/** So many days ahead the captions of an occasion are written that comes again by itself. */
const AHEAD_DAYS = 56

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
  const near = await heavy().nearThemes(occasions.map(themeOf), themeTexts(passages, byId), MOST_NEAR)
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
  await changesDone()
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
    const posts: Post[] = []
    for (const post of made.posts)
      posts.push(await byItsWriter(post, brand, { gate: 'everything', beside: posts, day: occasion.name }))
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
