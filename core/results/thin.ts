import { AGES, type Age, type Following, type Reading } from '../model'
import { weekdayOf } from '../planning'

/** So many readings, and figures of followers, are kept in one browser. */
export const MOST_READINGS = 400_000
export const MOST_FOLLOWINGS = 200_000

/** Once there are too many, so much more is dropped than must be, so that it is seldom done. */
const SLACK = 0.05
const YEAR = 365 * 86_400_000

/** Ages by what is lost without them, the least first: what is learned, compared and reported goes by three and seven days. */
const LEAST_MISSED: readonly Age[] = ['1 h', '6 h', '30 d', '1 d', '90 d', '3 d', '7 d']

/**
 * The ids of readings to drop, so that no more than `most` stay; none where there are no more. Those of posts that came out over a year
 * ago go first, by age in the order of what is missed least, and of one age the oldest. `now` is in milliseconds since 1970.
 */
export function readingsToDrop(
  readings: readonly Pick<Reading, 'id' | 'age' | 'takenAt'>[],
  most: number,
  now: number,
): string[] {
  const ranked = readings.map(({ id, age, takenAt }) => {
    const publishedAt = Date.parse(takenAt) - AGES[age]
    return {
      id,
      publishedAt,
      rank: (now - publishedAt > YEAR ? 0 : LEAST_MISSED.length) + LEAST_MISSED.indexOf(age),
    }
  })
  return tooMany(ranked, most, (a, b) => a.rank - b.rank || a.publishedAt - b.publishedAt)
}

/** The ids of figures of followers to drop, so that no more than `most` stay: the oldest first, Mondays after all other days. */
export function followingsToDrop(
  followings: readonly Pick<Following, 'id' | 'day'>[],
  most: number,
): string[] {
  const ranked = followings.map(({ id, day }) => ({ id, day, monday: weekdayOf(day) === 1 ? 1 : 0 }))
  return tooMany(ranked, most, (a, b) => a.monday - b.monday || (a.day < b.day ? -1 : a.day > b.day ? 1 : 0))
}

function tooMany<T extends { id: string }>(all: T[], most: number, order: (a: T, b: T) => number): string[] {
  if (all.length <= most) return []
  const stay = Math.floor(most * (1 - SLACK))
  return all
    .sort(order)
    .slice(0, all.length - stay)
    .map((one) => one.id)
}
