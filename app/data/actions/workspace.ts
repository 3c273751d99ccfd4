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
