import { Fault, type Change, type Post, type Row, type TableName } from '../../core/model'
import { recall } from './actions/recall'
import { all, commit, one, patch, rewrite } from './store'

/** Fields of a post that the machine writes by itself; they do not stand in the way of undoing. */
const MACHINE_FIELDS: readonly (keyof Post)[] = ['revision', 'state', 'media', 'linkCheck']

/** The newest action of a brand that has not been undone, or null. */
export async function lastChange(brand: string): Promise<Change | null> {
  const changes = await all('changes', 'brand', brand)
  return changes.filter((c) => !c.undone).sort((a, b) => (a.id < b.id ? 1 : -1))[0] ?? null
}

/**
 * Takes the newest action of a brand back, as one action of the machine: every record becomes
 * what it was. Refused with a sentence when a record changed since; a post that was handed over
 * is recalled first; a published one can only be taken down. Gives the action's label.
 */
export async function undo(brand: string): Promise<string | null> {
  const change = await lastChange(brand)
  if (!change) return null
  for (const entry of change.entries) {
    const now = (await one(entry.store as TableName, entry.id)) ?? null
    if (entry.store === 'posts' && now !== null) await mayChangeBack(now as Post, entry.after as Post | null)
    else if (!same(now, entry.after))
      throw new Fault(
        'older-revision',
        `“${change.label}” cannot be undone: what it changed was changed again since.`,
        entry.store,
      )
  }
  for (const entry of change.entries)
    if (entry.store === 'posts') {
      const now = await one('posts', entry.id)
      if (now) await recall(now)
    }
  await commit('machine', [
    ...change.entries.map((entry) =>
      rewrite(entry.store as TableName, entry.id, (row) =>
        restored(row, entry.before as Row<TableName> | null),
      ),
    ),
    patch('changes', change.id, (c) => ({ ...c, undone: true })),
  ])
  return change.label
}

/** What a record becomes: as it was before, but with the revision the server has seen. */
function restored(now: Row<TableName> | undefined, before: Row<TableName> | null): Row<TableName> | null {
  if (before === null || now === undefined) return before
  const state = 'state' in before && before.state === 'handed over' ? { state: 'approved' as const } : {}
  return 'revision' in now && 'revision' in before
    ? { ...before, revision: Math.max(now.revision, before.revision), ...state }
    : before
}

async function mayChangeBack(now: Post, after: Post | null): Promise<void> {
  if (now.state === 'published')
    throw new Fault(
      'older-revision',
      'This post has gone out, so it cannot be undone. Open it and take it down instead.',
      now.id,
    )
  const bare = (post: Post | null): unknown =>
    post
      ? Object.fromEntries(
          Object.entries(post).filter(([key]) => !MACHINE_FIELDS.includes(key as keyof Post)),
        )
      : null
  const handed = now.state === after?.state || (now.state === 'handed over' && after?.state === 'approved')
  if (!handed || !same(bare(now), bare(after)))
    throw new Fault('older-revision', 'This cannot be undone: the post was changed again since.', now.id)
}

function same(a: unknown, b: unknown): boolean {
  return stable(a) === stable(b)
}

/** JSON with sorted keys, so that equal records are equal texts. */
function stable(value: unknown): string {
  return JSON.stringify(value, (_key, v: unknown) =>
    v !== null && typeof v === 'object' && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([x], [y]) => (x < y ? -1 : 1)))
      : v,
  )
}
