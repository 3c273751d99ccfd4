import type { Keeps, Rhythm } from '../model'
import { beatDays, RHYTHMS, TRICKLE } from './rhythm'
import { daysBetween } from './zone'

/**
 * The rhythm that suits how long a piece keeps: the longest that ships and ends by the last day
 * on which it is true; for what ends sooner than all of them a few beats up to that day, and a
 * single one for what is past. `today` and the piece's `until` are local dates.
 */
export function proposedRhythm(keeps: Pick<Keeps, 'until'>, today: string): Rhythm {
  if (keeps.until === null) return TRICKLE
  const left = daysBetween(today, keeps.until)
  const fits = RHYTHMS.find((r) => (beatDays(r).at(-1) ?? 0) <= left && r.name !== 'Echo')
  if (fits) return fits
  if (left <= 0) return { name: 'Once', list: [0] }
  const beats = Math.min(4, 1 + Math.ceil(left / 3))
  return {
    name: `Until ${keeps.until}`,
    list: Array.from({ length: beats }, (_, k) => Math.round((left * k) / (beats - 1))),
  }
}

/**
 * A rhythm without the beats that would go out after a piece has aged; null where none is left.
 * `startDay` and the piece's `until` are local dates.
 */
export function rhythmWithin(rhythm: Rhythm, keeps: Pick<Keeps, 'until'>, startDay: string): Rhythm | null {
  if (keeps.until === null) return rhythm
  const left = daysBetween(startDay, keeps.until)
  const days = beatDays(rhythm)
  const list = days.filter((d) => d <= left)
  if (list.length === days.length) return rhythm
  return list.length ? { name: rhythm.name, list } : null
}
