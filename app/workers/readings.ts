import { openDB } from 'idb'
import type { Reading } from '../../core/model'
import type { FactBase } from '../../core/results'

/** So many are read at once. */
const BATCH = 5000

/** When the latest was taken that the base has, how many were taken before that and how many then; null before any was read. */
let known: { takenAt: string; before: number; there: number } | null = null
let last: Promise<unknown> = Promise.resolve()

/**
 * Brings a base up to date with the readings in this browser's database: those taken since the last time, or all of them where others
 * came or went meanwhile, or `anew` says so; gives whether there were any. The page keeps none of them in memory. One after the other.
 */
export function followReadings(base: FactBase, anew: boolean): Promise<boolean> {
  const next = last.then(() => {
    if (anew) known = null
    return follow(base)
  })
  last = next.catch(() => undefined)
  return next
}

async function follow(base: FactBase): Promise<boolean> {
  // Opened as it is and closed again, so that no change of its schema ever waits for a worker.
  const db = await openDB('dripline')
  try {
    const { store } = db.transaction('readings')
    const byTime = store.index('takenAt')
    const all = await store.count()
    const since = known && IDBKeyRange.lowerBound(known.takenAt)
    const fresh = since ? await byTime.count(since) : all
    const whole = known === null || all - fresh !== known.before || fresh > BATCH
    if (!whole && fresh === known?.there) return false
    let latest = known?.takenAt ?? ''
    const take = (readings: readonly Reading[]): void => {
      base.read(readings)
      for (const { takenAt } of readings) if (takenAt > latest) latest = takenAt
    }
    if (!whole) take(await byTime.getAll(since))
    else {
      base.forgetReadings()
      latest = ''
      for (let from: IDBKeyRange | null = null; ;) {
        const batch = (await store.getAll(from, BATCH)) as Reading[]
        take(batch)
        if (batch.length < BATCH) break
        from = IDBKeyRange.lowerBound(batch.at(-1)?.id, true)
      }
    }
    const before = latest ? await byTime.count(IDBKeyRange.upperBound(latest, true)) : 0
    known = latest ? { takenAt: latest, before, there: all - before } : null
    return true
  } finally {
    db.close()
  }
}
