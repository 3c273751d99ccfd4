import { followingsToDrop, MOST_FOLLOWINGS, MOST_READINGS, readingsToDrop } from '../../../core/results'
import { clockNow, nowIso } from '../clock'
import { database } from '../database'
import { all, commit, patch, remove } from '../store'

/** So many rows are dropped at a time. */
const BATCH = 2000

/** How much is kept in this browser. */
const BOUNDS = { readings: MOST_READINGS, followings: MOST_FOLLOWINGS }

/**
 * Drops old measures where there are more than are kept in one browser, and notes in the workspace how many: what is shown of
 * results says so. Rows are only read where there are too many.
 */
export async function thinMeasures(bounds = BOUNDS): Promise<void> {
  const db = await database()
  if ((await db.count('readings')) > bounds.readings)
    await drop('readings', readingsToDrop(await all('readings'), bounds.readings, clockNow()))
  if ((await db.count('followings')) > bounds.followings)
    await drop('followings', followingsToDrop(await all('followings'), bounds.followings))
}

async function drop(table: keyof typeof BOUNDS, ids: readonly string[]): Promise<void> {
  const [workspace] = await all('workspace')
  if (!workspace) return
  for (let from = 0; from < ids.length; from += BATCH) {
    const some = ids.slice(from, from + BATCH)
    await commit('machine', [
      ...some.map((id) => remove(table, id)),
      patch('workspace', workspace.id, (w) => {
        const before = w.thinned ?? { readings: 0, followings: 0 }
        return { ...w, thinned: { ...before, [table]: before[table] + some.length, at: nowIso() } }
      }),
    ])
  }
}
