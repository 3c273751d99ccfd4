import { nowIso } from '../clock'
import { commit, patch } from '../store'

/** Writes down that a person looked at the Desk now. */
export async function noteVisit(id: string): Promise<void> {
  await commit('machine', [patch('workspace', id, (w) => ({ ...w, lastVisitAt: nowIso() }))])
}
