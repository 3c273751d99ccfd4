import { filesIn, belongsTo, rowsOfBrand } from '../../core/formats'
import {
  asFault,
  Fault,
  isOwnFilm,
  TABLE_NAMES,
  type MediaInfo,
  type Rows,
  type TableName,
} from '../../core/model'
import { heavy } from '../workers'
import { call } from './api'
import { nowIso } from './clock'
import { database } from './database'
import { alone, recall } from './actions/life'
import { dropFilms } from './actions/films'
import { dropSmall } from './actions/seeing'
import { staleColumns } from './columns'
import { all, announce, commit, patch } from './store'

/** The whole workspace, or one brand of it, as one bundle file. Of the whole one it is noted when it was made. */
export async function exportBundle(brand: string | null = null): Promise<Blob> {
  const db = await database()
  const everything = Object.fromEntries(
    await Promise.all(TABLE_NAMES.map(async (t) => [t, await all(t)])),
  ) as Rows
  const rows = brand === null ? everything : rowsOfBrand(everything, brand)
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
  if (brand === null)
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
  const tx = db.transaction([...TABLE_NAMES, 'blobs', 'columns'], 'readwrite')
  await tx.objectStore('columns').clear()
  for (const brand of rows.brands) await tx.objectStore('columns').put(staleColumns(brand.id))
  for (const table of TABLE_NAMES) {
    const store = tx.objectStore(table)
    await store.clear()
    await Promise.all(rows[table].map((row) => store.put(row as never)))
  }
  const blobs = tx.objectStore('blobs')
  // No bundle has the films that were chosen from files: those of this browser stay where what is read in is cut from them.
  for (const key of await blobs.getAllKeys()) if (!isOwnFilm(key)) await blobs.delete(key)
  for (const info of rows.media) {
    const content = media.get(info.id)
    if (content)
      await blobs.put({ id: info.id, blob: new Blob([new Uint8Array(content)], { type: info.type }) })
  }
  await tx.done
  announce(TABLE_NAMES)
  await dropFilms()
}

/**
 * Reads the brands of a bundle in beside those that are here, after it was checked whole; what was handed over
 * elsewhere comes held. Refuses (`bad-request`) where one of them is here already. Gives their names.
 */
export async function addBrands(bytes: Uint8Array, into: string): Promise<string[]> {
  const { rows, media } = await heavy().openBundle(bytes, into, nowIso())
  const here = new Set((await all('brands')).map((b) => b.id))
  const there = rows.brands.filter((b) => here.has(b.id))
  if (there.length > 0)
    throw new Fault(
      'bad-request',
      `${there.map((b) => b.name).join(', ')} ${there.length === 1 ? 'is' : 'are'} here already, so nothing was read in. Remove ${there.length === 1 ? 'it' : 'them'} first, or replace everything by the bundle.`,
    )
  const db = await database()
  const tx = db.transaction([...TABLE_NAMES, 'blobs'], 'readwrite')
  for (const table of TABLE_NAMES)
    if (table !== 'workspace')
      await Promise.all(rows[table].map((row) => tx.objectStore(table).put(row as never)))
  for (const info of rows.media) {
    const content = media.get(info.id)
    if (content)
      await tx
        .objectStore('blobs')
        .put({ id: info.id, blob: new Blob([new Uint8Array(content)], { type: info.type }) })
  }
  await tx.done
  announce(TABLE_NAMES)
  return rows.brands.map((b) => b.name)
}

/**
 * Removes a brand with everything that belongs to it, here and on the server: what was handed over is recalled first,
 * and where that cannot be, nothing is removed. It cannot be undone.
 */
export async function removeBrand(id: string): Promise<void> {
  // Between two rounds of the runner, so that none of them writes for a brand that is gone.
  await navigator.locks.request('dripline-tick', () => alone(() => removeAll(id)))
}

async function removeAll(id: string): Promise<void> {
  for (const post of (await all('posts', 'brand', id)).filter((p) => p.state === 'handed over'))
    await recall(post)
  const accounts = await all('accounts', 'brand', id)
  const [brands, posts, recurrences, pieces, pictures] = await Promise.all([
    all('brands'),
    all('posts'),
    all('recurrences'),
    all('pieces'),
    all('pictures'),
  ])
  const others = <T extends { brand: string }>(list: T[]): T[] => list.filter((row) => row.brand !== id)
  const used = filesIn({
    brands: brands.filter((b) => b.id !== id),
    posts: others(posts),
    recurrences: others(recurrences),
    pieces: others(pieces),
    pictures: others(pictures),
  })
  const gone = (await all('media')).filter((m) => !used.has(m.id)).map((m) => m.id)
  await deleteRows(id, gone)
  await dropSmall()
  await dropFilms()
  // What the server keeps for it is nobody's any more; should it be away now, it only lies there.
  for (const path of [
    ...accounts.map((a) => `/api/accounts/${encodeURIComponent(a.id)}`),
    `/api/calendars/${encodeURIComponent(id)}`,
    `/api/pages/${encodeURIComponent(id)}`,
  ])
    await call('DELETE', path).catch(() => undefined)
}

async function deleteRows(brand: string, pictures: readonly string[]): Promise<void> {
  const tables = TABLE_NAMES.filter((t): t is Exclude<TableName, 'workspace'> => t !== 'workspace')
  const rows = await Promise.all(
    tables.map(async (table) => ({
      table,
      ids: (await all(table)).filter((row) => belongsTo(table, row, brand)).map((row) => row.id),
    })),
  )
  const db = await database()
  const tx = db.transaction([...TABLE_NAMES, 'blobs', 'columns'], 'readwrite')
  await tx.objectStore('columns').delete(brand)
  for (const { table, ids } of rows) for (const id of ids) await tx.objectStore(table).delete(id)
  for (const id of pictures) {
    await tx.objectStore('media').delete(id)
    await tx.objectStore('blobs').delete(id)
  }
  await tx.done
  announce(TABLE_NAMES)
}
