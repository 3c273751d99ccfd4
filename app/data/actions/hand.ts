import { Fault } from '../../../core/model'
import type { HandPost, HandRow, When } from '../../../core/pipeline'
import type { PostField, PostSheetReading, readPostSheet, SheetTable } from '../../../core/formats'
import { heavy } from '../../workers'
import { nowIso } from '../clock'
import { all, commit, put, type Actor } from '../store'
import { surroundings } from './plan'

/**
 * Posts as a person wrote them, with their places and checks; nothing is kept. Posts of a recurring
 * one name it; `without` are posts in whose place they come.
 */
export async function tryHandPosts(
  brandId: string,
  rows: readonly HandRow[],
  when: When,
  { recurrence = null, without }: { recurrence?: string | null; without?: ReadonlySet<string> } = {},
): Promise<HandPost[]> {
  const around = await surroundings()
  const brand = around.brands.find((b) => b.id === brandId)
  if (!brand) throw new Fault('not-found', 'This brand is no longer there.', brandId)
  const { accounts, brands, drips, pipelines } = around
  return heavy().handPosts({
    now: nowIso(),
    brand,
    rows,
    when,
    recurrence,
    accounts,
    brands,
    drips,
    pipelines,
    standing: without ? around.posts.filter((p) => !without.has(p.id)) : around.posts,
  })
}

/** Keeps posts that were tried. What is for this minute is sent with the moment of keeping. */
export async function keepHandPosts(brand: string, made: readonly HandPost[], actor?: Actor): Promise<void> {
  const now = nowIso()
  const what = made.length === 1 ? 'a post' : `${made.length} posts`
  await commit(
    actor ?? { brand, label: `Write ${what} by hand` },
    made.map(({ post }) => put('posts', post.at && post.at < now ? { ...post, at: now } : post)),
  )
}

/** A sheet of posts that was opened: its table, and which column is thought to be which. */
export function openPostSheet(
  bytes: Uint8Array,
): Promise<{ table: SheetTable; columns: Partial<Record<PostField, string>> }> {
  return heavy().openPostSheet(bytes)
}

/** The posts of a sheet by a reading of its columns, and the rows that cannot be taken. */
export async function readPosts(
  brand: string,
  table: SheetTable,
  reading: PostSheetReading,
): Promise<ReturnType<typeof readPostSheet>> {
  const accounts = (await all('accounts', 'brand', brand)).filter((a) => a.endedAt === null)
  return heavy().readPostSheet(table, reading, { accounts, now: nowIso() })
}
