import { openDB, type IDBPObjectStore } from 'idb'
import type { Row } from '../../core/model'
import { FactBase } from '../../core/results'

/** So many are read at once. */
const BATCH = 5000

/** What is known of a brand. */
interface Known {
  base: FactBase
  /**
   * When the latest of all readings was taken by then, how many of the brand's were taken before that and how many then; null before
   * any was read.
   */
  read: { takenAt: string; before: number; there: number } | null
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
 * One brand after the other.
 */
export function followReadings(brand: string, anew: boolean): Promise<boolean> {
  const known = brands.get(brand) ?? { base: new FactBase(), read: null }
  brands.set(brand, known)
  const next = last.then(() => {
    if (anew) known.read = null
    return follow(brand, known)
  })
  last = next.catch(() => undefined)
  return next
}

async function follow(brand: string, known: Known): Promise<boolean> {
  // Opened as it is and closed again, so that no change of its schema ever waits for a worker.
  const db = await openDB('dripline')
  try {
    const { store } = db.transaction('readings')
    const all = await store.index('brand').count(brand)
    const { read } = known
    const fresh = read && (await since(store, brand, read.takenAt))
    const more = read !== null && fresh !== null && all - fresh.length === read.before
    if (more) known.base.read(fresh)
    else {
      known.base.forgetReadings()
      for await (const batch of batches(store, brand, all)) known.base.read(batch)
    }
    const last = await store.index('takenAt').openKeyCursor(null, 'prev')
    const takenAt = String(last?.key ?? '')
    const there = (await since(store, brand, takenAt))?.length ?? 0
    known.read = { takenAt, before: all - there, there }
    return !more || fresh.length !== read.there
  } finally {
    db.close()
  }
}

type Reading = Row<'readings'>
type Store = IDBPObjectStore<unknown, ['readings'], 'readings'>

/** A brand's readings from a moment on; null where there are so many of all brands that they are better read anew. */
async function since(store: Store, brand: string, moment: string): Promise<Reading[] | null> {
  const range = IDBKeyRange.lowerBound(moment)
  const byTime = store.index('takenAt')
  if ((await byTime.count(range)) > BATCH) return null
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
