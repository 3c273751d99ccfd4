const DAY = 86_400_000
const WEEK = 7 * DAY
/** The weeks over which the pace of a source is counted. */
const COUNTED = 8

/** How often a source brings something new, and whether it has fallen silent. */
export interface Pace {
  /** New pieces a week over the last eight weeks, or since the first one where that is later. */
  perWeek: number
  /** Since when it is silent (ISO 8601), where that is much longer than it usually is; else null. */
  silentSince: string | null
}

/**
 * The pace of a source from the dates of its items (ISO 8601). It counts as silent when nothing
 * came for three times its usual interval (the median) and at least three weeks.
 */
export function paceOf(dates: readonly string[], now: string): Pace {
  const times = dates
    .map((d) => Date.parse(d))
    .filter((t) => t <= Date.parse(now))
    .sort((a, b) => a - b)
  const last = times[times.length - 1]
  const first = times[0]
  if (last === undefined || first === undefined) return { perWeek: 0, silentSince: null }
  const end = Date.parse(now)
  const span = Math.min(COUNTED * WEEK, Math.max(WEEK, end - first))
  const perWeek = times.filter((t) => t > end - span).length / (span / WEEK)
  const gaps = times
    .slice(1)
    .map((t, i) => t - (times[i] ?? t))
    .sort((a, b) => a - b)
  const usual = gaps[Math.floor(gaps.length / 2)] ?? WEEK
  const silent = end - last > Math.max(3 * usual, 3 * WEEK)
  return { perWeek: Math.round(perWeek * 10) / 10, silentSince: silent ? new Date(last).toISOString() : null }
}
