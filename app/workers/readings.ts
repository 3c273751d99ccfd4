import { openDB, type IDBPDatabase, type IDBPObjectStore } from 'idb'
import type { Row } from '../../core/model'
import { COLUMNS_FORMAT, FactBase, type KeptColumns, type ReadUntil } from '../../core/results'

/** So many are read at once; where no more are new, what is known is not kept anew. */
const BATCH = 5000

/** What is known of a brand. */
interface Known {
  base: FactBase
  /** Until where its readings were read; null before any were. */
  read: ReadUntil | null
  /** How many of what was read are not among what was kept for the next start. */
  unkept: number
}
const brands = new Map<string, Known>()
let last: Promise<unknown> = Promise.resolve()

/** What is known of a brand's posts; undefined before anything was told of it. */
export function knownOf(brand: string): FactBase | undefined {
  return brands.get(brand)?.base
}

/**
 * Brings what is known of a brand up to date with its readings in this browser's database: those taken since the last time, or all of
 * them where others came or went meanwhile, or `anew` says so; gives whether there were any. The page keeps none of them in memory.
 * Of a brand with many, what is known is kept in columns, from which the next start goes on. One brand after the other.
 */
export function followReadings(brand: string, anew: boolean): Promise<boolean> {
  const known = brands.get(brand) ?? { base: new FactBase(), read: null, unkept: 0 }
  brands.set(brand, known)
  const next = last.then(() => follow(brand, known, anew))
  last = next.catch(() => undefined)
  return next
}

/** Lets the next one begin with nothing known, as after a start; for tests. */
export function forgetAll(): void {
  brands.clear()
}

async function follow(brand: string, known: Known, anew: boolean): Promise<boolean> {
  // Opened as it is and closed again, so that no change of its schema ever waits for a worker.
  const db = await openDB('dripline')
  try {
    const tx = db.transaction(['readings', 'columns'])
    const store = tx.objectStore('readings')
    const kept = (await tx.objectStore('columns').get(brand)) as KeptColumns | undefined
    if (anew) known.read = null
    const restored = !anew && !known.read && kept?.made?.format === COLUMNS_FORMAT ? kept.made : null
    if (restored) {
      known.base.restore(restored.columns)
      known.read = restored.read
    }
    const all = await store.index('brand').count(brand)
    const { read } = known
    const fresh = read && (await since(store, brand, read.takenAt, all))
    const more = read !== null && fresh !== null && all - fresh.length === read.before
    if (more) known.base.read(fresh)
    else {
      known.base.forgetReadings()
      for await (const batch of batches(store, brand, all)) known.base.read(batch)
    }
    const last = await store.index('takenAt').openKeyCursor(null, 'prev')
    const takenAt = String(last?.key ?? '')
    const there = (await since(store, brand, takenAt, all))?.length ?? 0
    known.read = { takenAt, before: all - there, there }
    known.unkept = more ? known.unkept + fresh.length - read.there : all
    if (known.unkept > BATCH) await keep(db, brand, known, kept?.stamp)
    return restored !== null || !more || fresh.length !== read.there
  } finally {
    db.close()
  }
}

/** Keeps what is known of a brand's readings, unless some of them changed since they were read. */
async function keep(db: IDBPDatabase, brand: string, known: Known, stamp: string | undefined): Promise<void> {
  if (!known.read) return
  const columns = known.base.columns()
  const tx = db.transaction('columns', 'readwrite')
  const now = (await tx.store.get(brand)) as KeptColumns | undefined
  if (now?.stamp === stamp) {
    const made = { format: COLUMNS_FORMAT, columns, read: known.read }
    await tx.store.put({ id: brand, stamp: stamp ?? '', made } satisfies KeptColumns)
    known.unkept = 0
  }
  await tx.done
}

type Reading = Row<'readings'>
type Store = IDBPObjectStore<unknown, string[], 'readings'>

/**
 * A brand's readings from a moment on; null where there are so many of all brands, against `all` of the brand's, that these are better
 * read anew.
 */
async function since(store: Store, brand: string, moment: string, all: number): Promise<Reading[] | null> {
  const range = IDBKeyRange.lowerBound(moment)
  const byTime = store.index('takenAt')
  if ((await byTime.count(range)) > Math.max(BATCH, all / 2)) return null
  return ((await byTime.getAll(range)) as Reading[]).filter((r) => r.brand === brand)
}

/** A brand's readings, of which there are `all`, in parts: by its index, or with those of others where most are its own. */
async function* batches(store: Store, brand: string, all: number): AsyncGenerator<Reading[], void> {
  if (all <= 4 * BATCH) {
    yield (await store.index('brand').getAll(brand)) as Reading[]
    return
  }
  for (let from: IDBKeyRange | null = null; ;) {
    const batch = (await store.getAll(from, BATCH)) as Reading[]
    yield batch.filter((r) => r.brand === brand)
    if (batch.length < BATCH) return
    from = IDBKeyRange.lowerBound(batch.at(-1)?.id, true)
  }
}
