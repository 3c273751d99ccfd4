import { Rhythm } from '../model'

/** The rhythm taken where none was chosen. */
export const TRICKLE: Rhythm = { name: 'Trickle', days: 280, beats: 8, thinning: 1.6 }

/** The rhythms that ship. */
export const RHYTHMS: readonly Rhythm[] = [
  TRICKLE,
  { name: 'Tide', days: 210, beats: 7, thinning: 1.3 },
  { name: 'Swell', days: 84, beats: 6, thinning: 1.1 },
  { name: 'Shower', days: 10, beats: 5, thinning: 1.3 },
  { name: 'Echo', list: [0, 3] },
]

/** A built-in rhythm by its name, without regard to case. */
export function rhythmNamed(name: string): Rhythm | null {
  return RHYTHMS.find((r) => r.name.toLowerCase() === name.toLowerCase()) ?? null
}

/**
 * The day of every beat, counted from the start day, ascending and distinct.
 * With length T, n beats and thinning r, beat k stands at T·(rᵏ − 1)/(rⁿ⁻¹ − 1), a geometric
 * spacing; r = 1 spaces evenly and n = 1 is day 0. Rounding may bring two beats onto one day;
 * the later then moves to the next free one.
 *
 * @example beatDays({ name: 'Echo', list: [0, 3] }) // [0, 3]
 */
export function beatDays(rhythm: Rhythm): number[] {
  if ('list' in rhythm) return distinct([...rhythm.list].sort((a, b) => a - b))
  const { days, beats, thinning } = rhythm
  if (beats === 1) return [0]
  const raw = Array.from({ length: beats }, (_, k) =>
    thinning === 1 ? (days * k) / (beats - 1) : (days * (thinning ** k - 1)) / (thinning ** (beats - 1) - 1),
  )
  return distinct(raw.map(Math.round))
}

/** How many beats a rhythm has. */
export function beatCount(rhythm: Rhythm): number {
  return 'list' in rhythm ? rhythm.list.length : rhythm.beats
}

/**
 * A rhythm of the days that a person listed, in whatever order and with whatever between them;
 * null where there is none or one is out of bounds.
 *
 * @example rhythmOfDays('30, 0 and 3') // { name: 'Your own', list: [0, 3, 30] }
 */
export function rhythmOfDays(text: string): Rhythm | null {
  const days = (text.match(/\d+/g) ?? []).map(Number)
  const list = [...new Set(days)].sort((a, b) => a - b)
  return Rhythm.safeParse({ name: 'Your own', list }).data ?? null
}

function distinct(days: number[]): number[] {
  let last = -1
  return days.map((d) => (last = Math.max(d, last + 1)))
}
