import { nanoid } from 'nanoid'
import { Fault, type Recurrence } from '../../../core/model'
import type { HandPost, HandRow, When } from '../../../core/pipeline'
import type { PostField, PostSheetReading, readPostSheet, SheetTable } from '../../../core/formats'
import { addDays, toWall } from '../../../core/planning'
import { heavy, unwrap } from '../../workers'
import { nowIso } from '../clock'
import { all, commit, must, put, type Actor, type Write } from '../store'
import { surroundings } from './plan'

/** How far ahead the posts of a recurring one are made, in days. */
const AHEAD_DAYS = 56

/** Posts as a person wrote them, with their places and checks; nothing is kept. */
export async function tryHandPosts(
  brandId: string,
  rows: readonly HandRow[],
  when: When,
  recurrence: string | null = null,
): Promise<HandPost[]> {
  const around = await surroundings()
  const brand = around.brands.find((b) => b.id === brandId)
  if (!brand) throw new Fault('not-found', 'This brand is no longer there.', brandId)
  const { accounts, brands, drips, pipelines } = around
  return unwrap<HandPost[]>(
    heavy().handPosts({
      now: nowIso(),
      brand,
      rows,
      when,
      recurrence,
      accounts,
      brands,
      drips,
      pipelines,
      standing: around.posts,
    }) as never,
  )
}

/** Keeps posts that were tried. What is for this minute is sent with the moment of keeping. */
export async function keepHandPosts(brand: string, made: readonly HandPost[], actor?: Actor): Promise<void> {
  const now = nowIso()
  const what = made.length === 1 ? 'a post' : `${made.length} posts`
  await commit(
    actor ?? { brand, label: `Write ${what} by hand` },
    made.map(({ post }) => put('posts', post.at && post.at < now ? { ...post, at: now } : post) as Write),
  )
}

/** A sheet of posts that was opened: its table, and which column is thought to be which. */
export function openPostSheet(
  bytes: Uint8Array,
): Promise<{ table: SheetTable; columns: Partial<Record<PostField, string>> }> {
  return unwrap(heavy().openPostSheet(bytes) as never)
}

/** The posts of a sheet by a reading of its columns, and the rows that cannot be taken. */
export async function readPosts(
  brand: string,
  table: SheetTable,
  reading: PostSheetReading,
): Promise<ReturnType<typeof readPostSheet>> {
  const accounts = (await all('accounts', 'brand', brand)).filter((a) => a.endedAt === null)
  return unwrap(heavy().readPostSheet(table, reading, { accounts, now: nowIso() }) as never)
}

/** What a recurring post is begun with. */
export type RecurrenceDraft = Pick<Recurrence, 'words' | 'accounts' | 'rule' | 'from' | 'time'>

/** The posts that a recurring post would have in the next weeks; nothing is kept. */
export function tryRecurrence(brand: string, draft: RecurrenceDraft, id = 'new'): Promise<HandPost[]> {
  return postsBetween(brand, draft, id, null)
}

/** Begins a recurring post with its posts of the next weeks; the runner makes the later ones. */
export async function startRecurrence(brand: string, draft: RecurrenceDraft): Promise<void> {
  const id = nanoid()
  const made = await postsBetween(brand, draft, id, null)
  if (made.length === 0)
    throw new Fault('bad-request', 'Its rule names no day in the next eight weeks. Look at its days again.')
  const recurrence: Recurrence = {
    ...draft,
    id,
    brand,
    madeUntil: await lastDay(brand),
    held: null,
    endedAt: null,
    createdAt: nowIso(),
  }
  await commit({ brand, label: 'Begin a recurring post' }, writesOf(recurrence, made))
}

/** Makes the posts of every recurring post that have come within reach. */
export async function extendRecurrences(): Promise<void> {
  for (const recurrence of await all('recurrences')) {
    const until = await lastDay(recurrence.brand)
    if (recurrence.endedAt !== null || (recurrence.madeUntil ?? '') >= until) continue
    const made = await postsBetween(recurrence.brand, recurrence, recurrence.id, recurrence.madeUntil)
    await commit('machine' satisfies Actor, writesOf({ ...recurrence, madeUntil: until }, made))
  }
}

function writesOf(recurrence: Recurrence, made: readonly HandPost[]): Write[] {
  return [put('recurrences', recurrence) as Write, ...made.map(({ post }) => put('posts', post) as Write)]
}

async function lastDay(brandId: string): Promise<string> {
  const brand = await must('brands', brandId)
  return addDays(toWall(Date.parse(nowIso()), brand.zone).date, AHEAD_DAYS)
}

async function postsBetween(
  brandId: string,
  draft: RecurrenceDraft,
  id: string,
  after: string | null,
): Promise<HandPost[]> {
  const until = await lastDay(brandId)
  const today = addDays(until, -AHEAD_DAYS)
  const days = await unwrap<string[]>(
    heavy().occurrences(draft.rule, draft.from, after ?? addDays(today, -1), until) as never,
  )
  const accounts = new Map((await all('accounts')).map((a) => [a.id, a]))
  const there = draft.accounts.filter((a) => accounts.get(a)?.endedAt === null)
  const now = Date.parse(nowIso())
  // What would have been earlier today is over.
  const rows = days.flatMap((date): HandRow[] => {
    const on = { date, time: draft.time }
    const ahead = there.filter((a) => {
      const wall = toWall(now, accounts.get(a)?.zone ?? 'UTC')
      return date > wall.date || (date === wall.date && (draft.time === null || draft.time > wall.time))
    })
    return ahead.length ? [{ words: draft.words, accounts: ahead, on, earliest: null, latest: null }] : []
  })
  return tryHandPosts(brandId, rows, { kind: 'next openings' }, id)
}
