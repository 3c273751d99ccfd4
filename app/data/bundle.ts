import { asFault, Fault, TABLE_NAMES, type MediaInfo, type Rows } from '../../core/model'
import { heavy } from '../workers'
import { nowIso } from './clock'
import { database } from './database'
import { alone, recall } from './actions/life'
import { all, announce, commit, patch } from './store'

/** The whole workspace as one bundle file, and a note of when it was made. */
export async function exportBundle(): Promise<Blob> {
  const db = await database()
  const rows = Object.fromEntries(await Promise.all(TABLE_NAMES.map(async (t) => [t, await all(t)]))) as Rows
  const workspace = rows.workspace[0]
  if (!workspace) throw new Fault('not-found', 'There is nothing here to export yet.')
  const media = new Map<string, Uint8Array>()
  const whole: MediaInfo[] = []
  for (const info of rows.media) {
    const stored = await db.get('blobs', info.id)
    if (!stored) continue
    media.set(info.id, new Uint8Array(await stored.blob.arrayBuffer()))
    whole.push(info)
  }
  const madeAt = nowIso()
  const bytes = await heavy().writeBundle({
    workspace: workspace.id,
    madeAt,
    rows: { ...rows, media: whole },
    media,
  })
  await commit('machine', [patch('workspace', workspace.id, (w) => ({ ...w, lastBundleAt: madeAt }))])
  return new Blob([bytes], { type: 'application/zip' })
}

/**
 * Replaces everything in this browser by a bundle, after it was checked whole. A broken bundle
 * throws and changes nothing. `into` is the workspace's id, or null to become the bundle's.
 */
export async function importBundle(bytes: Uint8Array, into: string | null): Promise<string> {
  const { workspace, rows, media } = await heavy().openBundle(bytes, into, nowIso())
  await alone(() => replaceBy(rows, media))
  return workspace
}

async function replaceBy(rows: Rows, media: ReadonlyMap<string, Uint8Array>): Promise<void> {
  // What the server still has of the old rows must not go out when these replace them.
  for (const post of await all('posts', 'state', 'handed over'))
    await recall(post).catch((error: unknown) => {
      if (asFault(error).code !== 'already-sending') throw error
    })
  const db = await database()
  const tx = db.transaction([...TABLE_NAMES, 'blobs'], 'readwrite')
  for (const table of TABLE_NAMES) {
    const store = tx.objectStore(table)
    await store.clear()
    for (const row of rows[table]) await store.put(row as never)
  }
  const blobs = tx.objectStore('blobs')
  await blobs.clear()
  for (const info of rows.media) {
    const content = media.get(info.id)
    if (content)
      await blobs.put({ id: info.id, blob: new Blob([new Uint8Array(content)], { type: info.type }) })
  }
  await tx.done
  announce(TABLE_NAMES)
}
