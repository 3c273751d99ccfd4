import type { Notices } from '../../../core/model'
import { nowIso } from '../clock'
import { commit, patch } from '../store'

/** Who comes back to the Desk within so many milliseconds is still on the same visit. */
const VISIT = 3 * 3_600_000

/** Writes down that a person looks at the Desk now: a new visit, unless the last one goes on. */
export async function noteVisit(id: string): Promise<void> {
  const now = nowIso()
  await commit('machine', [
    patch('workspace', id, (w) =>
      w.lastVisitAt !== null && Date.parse(now) - Date.parse(w.lastVisitAt) < VISIT
        ? undefined
        : { ...w, lastVisitAt: now, visitBefore: w.lastVisitAt },
    ),
  ])
}

/** Says of how many days to come posts are handed over. What is handed over already stays so. */
export async function handOverAhead(id: string, days: number): Promise<void> {
  await commit('machine', [patch('workspace', id, (w) => ({ ...w, aheadDays: days }))])
}

/** Changes what is told, and where. A summary that is asked for begins now. */
export async function saveNotices(id: string, change: Partial<Notices>): Promise<void> {
  await commit('machine', [
    patch('workspace', id, (w) => ({
      ...w,
      notices: {
        ...w.notices,
        ...change,
        ...(change.summary && change.summary !== w.notices.summary ? { summedUpAt: nowIso() } : {}),
      },
    })),
  ])
}

/**
 * Writes down what there is to tell, and gives what was not told before; of several tabs one gets it. What is over
 * falls out, so that it is told again should it come again.
 */
export async function claimNotices<T extends { key: string }>(id: string, found: readonly T[]): Promise<T[]> {
  let fresh: T[] = []
  await commit('machine', [
    patch('workspace', id, (w) => {
      fresh = found.filter((n) => !w.notices.told.includes(n.key))
      return { ...w, notices: { ...w.notices, told: found.map((n) => n.key) } }
    }),
  ])
  return fresh
}

/** Writes down that the summary of a moment is told; false where another tab did so. */
export async function claimSummary(id: string, due: string): Promise<boolean> {
  let mine = false
  await commit('machine', [
    patch('workspace', id, (w) => {
      mine = (w.notices.summedUpAt ?? '') < due
      return mine ? { ...w, notices: { ...w.notices, summedUpAt: due } } : undefined
    }),
  ])
  return mine
}
