import type { Following } from '../model'
import { addDays, toWall } from '../planning'

/** So many days before a day a figure may have been taken to stand for it. */
const STANDS = 3

/** Of how many followers an account grew, over as many days as it is known for. */
export interface Growth {
  /** The day of the figure that it is counted from. */
  since: string
  by: number
  /** What it began with. */
  from: number
}

/** How many follow an account over a span. */
export interface Followed {
  account: string
  /** The last figure of the span, and its day. */
  followers: number
  day: string
  /** From the beginning of the span, or from the first figure in it; null where there is one only. */
  growth: Growth | null
  /** Over the span before of the same length; null where its beginning or its end is not known. */
  before: Growth | null
  /** Each day of the span from the first known on; null for a day on which nobody said. */
  days: { day: string; followers: number | null }[]
}

/** Which accounts a span is looked at for, and its bounds in milliseconds since 1970. */
interface AskedFollowers {
  from: number
  to: number
  network: string | null
  account: string | null
}

/**
 * How many follow each account over a span, as the networks said day by day; an account of which nothing is known in the span is left
 * out. A figure stands for its day and the next three, so that a day on which nobody answered does not hide how an account grew.
 * Differences are counts, which need no estimate.
 */
export function followersOf(
  followings: readonly Pick<Following, 'account' | 'day' | 'followers'>[],
  accounts: readonly { id: string; network: string; zone: string }[],
  { from, to, network, account }: AskedFollowers,
): Followed[] {
  const byAccount = new Map<string, Map<string, number>>()
  for (const { account: id, day, followers } of followings) {
    const days = byAccount.get(id)
    if (days) days.set(day, followers)
    else byAccount.set(id, new Map([[day, followers]]))
  }
  return accounts
    .filter((a) => (account === null || a.id === account) && (network === null || a.network === network))
    .flatMap(({ id, zone }) => {
      const told = followedOf(byAccount.get(id) ?? new Map<string, number>(), zone, from, to)
      return told ? [{ account: id, ...told }] : []
    })
}

function followedOf(
  figures: ReadonlyMap<string, number>,
  zone: string,
  from: number,
  to: number,
): Omit<Followed, 'account'> | null {
  // The last moment of the span is the one before it ends.
  const [first, last] = [from, to - 1].map((at) => toWall(at, zone).date) as [string, string]
  const inSpan = [...figures.keys()].filter((d) => d >= first && d <= last).sort()
  const [earliest, latest] = [inSpan[0], inSpan.at(-1)]
  if (earliest === undefined || latest === undefined) return null
  const begins = standing(figures, first) ?? { day: earliest, followers: figures.get(earliest) as number }
  const ended = { day: latest, followers: figures.get(latest) as number }
  const firstBefore = toWall(from - (to - from), zone).date
  const days: Followed['days'] = []
  for (let day = earliest; day <= last; day = addDays(day, 1))
    days.push({ day, followers: figures.get(day) ?? null })
  return {
    ...ended,
    growth: growthOf(begins, ended),
    before: growthOf(standing(figures, firstBefore), standing(figures, first)),
    days,
  }
}

interface Standing {
  day: string
  followers: number
}

/** The figure that stands for a day: of the day itself, or of one of those shortly before it. */
function standing(figures: ReadonlyMap<string, number>, day: string): Standing | null {
  for (let back = 0; back <= STANDS; back++) {
    const on = addDays(day, -back)
    const followers = figures.get(on)
    if (followers !== undefined) return { day: on, followers }
  }
  return null
}

function growthOf(from: Standing | null, to: Standing | null): Growth | null {
  return from && to && from.day < to.day
    ? { since: from.day, by: to.followers - from.followers, from: from.followers }
    : null
}
