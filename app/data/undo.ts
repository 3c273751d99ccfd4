import {
  Fault,
  may,
  next,
  sameContent,
  type Brand,
  type Change,
  type Post,
  type Row,
  type TableName,
} from '../../core/model'
import { alone, recall } from './actions/life'
import { all, commit, one, patch, rewrite } from './store'

/** Fields that the machine writes by itself; they do not stand in the way of undoing. */
const MACHINE_FIELDS: Partial<Record<TableName, readonly string[]>> = {
  posts: ['revision', 'state', 'media', 'linkCheck', 'shortLink'] satisfies (keyof Post)[],
  brands: ['learned'] satisfies (keyof Brand)[],
}

/** A record without what the machine writes in it by itself. */
function bare(store: string, row: object | null): object | null {
  const fields = MACHINE_FIELDS[store as TableName] ?? []
  return row && Object.fromEntries(Object.entries(row).filter(([key]) => !fields.includes(key)))
}

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
  if (before === null || now === undefined) return before
  // What was learned meanwhile is nobody's change.
  if ('learned' in now && now.learned) return { ...before, learned: now.learned } as Row<TableName>
  if (!isPost(before)) return before
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
  else if (!sameContent(bare(entry.store, now ?? null), bare(entry.store, entry.after as object | null)))
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
  const handed = now.state === after?.state || (after !== null && next(now, 'recall').state === after.state)
  if (!handed || !sameContent(bare('posts', now), bare('posts', after)))
    throw new Fault('older-revision', 'This cannot be undone: the post was changed again since.', now.id)
}
