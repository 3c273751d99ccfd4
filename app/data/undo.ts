import { Fault, may, next, type Change, type Post, type Row, type TableName } from '../../core/model'
import { alone, recall } from './actions/life'
import { all, commit, one, patch, rewrite, sameContent } from './store'

/** Fields of a post that the machine writes by itself; they do not stand in the way of undoing. */
const MACHINE_FIELDS: readonly (keyof Post)[] = ['revision', 'state', 'media', 'linkCheck', 'shortLink']

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
    const now = await one(entry.store as TableName, entry.id)
    mayChangeBack(change, entry, now)
  }
  await alone(async () => {
    for (const entry of change.entries)
      if (entry.store === 'posts') {
        const post = await one('posts', entry.id)
        if (post) await recall(post)
      }
    await commit('machine', [
      ...change.entries.map((entry) =>
        rewrite(entry.store as TableName, entry.id, (row) => {
          mayChangeBack(change, entry, row)
          return restored(row, entry.before as Row<TableName> | null)
        }),
      ),
      patch('changes', change.id, (c) => ({ ...c, undone: true })),
    ])
  })
  return change.label
}

/** What a record becomes: as it was before, but with the revision the server has seen. */
function restored(now: Row<TableName> | undefined, before: Row<TableName> | null): Row<TableName> | null {
  if (before === null || now === undefined || !isPost(before)) return before
  return next({ ...before, revision: Math.max((now as Post).revision, before.revision) }, 'recall')
}

function isPost(row: Row<TableName>): row is Post {
  return 'generation' in row && 'wording' in row
}

/** Throws where a record, as it is now, is not what the change left. */
function mayChangeBack(
  change: Change,
  entry: Change['entries'][number],
  now: Row<TableName> | undefined,
): void {
  if (entry.store === 'posts' && now && isPost(now)) postMayChangeBack(now, entry.after as Post | null)
  else if (!sameContent(now ?? null, entry.after))
    throw new Fault(
      'older-revision',
      `“${change.label}” cannot be undone: what it changed was changed again since.`,
      entry.store,
    )
}

function postMayChangeBack(now: Post, after: Post | null): void {
  if (may(now, 'take down'))
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
  const handed = now.state === after?.state || (after !== null && next(now, 'recall').state === after.state)
  if (!handed || !sameContent(bare(now), bare(after)))
    throw new Fault('older-revision', 'This cannot be undone: the post was changed again since.', now.id)
}
