import type { Keeps, Rhythm } from '../model'
import { beatDays, RHYTHMS, TRICKLE } from './rhythm'

const DAY = 86_400_000

/**
 * The rhythm that suits how long a piece keeps: the longest that ships and ends by the last day
 * on which it is true; for what ends sooner than all of them a few beats up to that day, and a
 * single one for what is past. `today` and the piece's `until` are local dates.
 */
export function proposedRhythm(keeps: Pick<Keeps, 'until'>, today: string): Rhythm {
  if (keeps.until === null) return TRICKLE
  const left = Math.round((Date.parse(keeps.until) - Date.parse(today)) / DAY)
  const fits = RHYTHMS.find((r) => (beatDays(r).at(-1) ?? 0) <= left && r.name !== 'Echo')
  if (fits) return fits
  if (left <= 0) return { name: 'Once', list: [0] }
  const beats = Math.min(4, 1 + Math.ceil(left / 3))
  return {
    name: `Until ${keeps.until}`,
    list: Array.from({ length: beats }, (_, k) => Math.round((left * k) / (beats - 1))),
  }
}
