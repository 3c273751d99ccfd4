import { Fault } from '../../../core/model'
import type { HandPost, HandRow, When } from '../../../core/pipeline'
import type { PostField, PostSheetReading, readPostSheet, SheetTable } from '../../../core/formats'
import { heavy } from '../../workers'
import { nowIso } from '../clock'
import { all, put, type Actor } from '../store'
import { gaveWay, givingWay } from './giveWay'
import { commitRecalled } from './life'
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
  // What is from the shelf gives way to what a person writes (`keepHandPosts`); what comes again by a rule goes around it.
  const yielding = recurrence === null ? await givingWay(accounts.map((a) => a.id)) : []
  const away = new Set([...(without ?? []), ...yielding.map((p) => p.id)])
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
    standing: around.posts.filter((p) => !away.has(p.id)),
  })
}

/** Keeps posts that were tried. What is for this minute is sent with the moment of keeping. */
export async function keepHandPosts(brand: string, made: readonly HandPost[], actor?: Actor): Promise<void> {
  const now = nowIso()
  const what = made.length === 1 ? 'a post' : `${made.length} posts`
  const posts = made.map(({ post }) => (post.at && post.at < now ? { ...post, at: now } : post))
  const { touched, writes } = await gaveWay(
    posts.map((p) => p.account),
    posts,
  )
  await commitRecalled(actor ?? { brand, label: `Write ${what} by hand` }, touched, [
    ...posts.map((p) => put('posts', p)),
    ...writes,
  ])
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
