import { nowIso } from '../clock'
import { commit, patch, type Write } from '../store'

/** Writes down that a person looked at the Desk now. */
export async function noteVisit(id: string): Promise<void> {
  await commit('machine', [patch('workspace', id, (w) => ({ ...w, lastVisitAt: nowIso() })) as Write])
}
