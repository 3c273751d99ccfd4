import { asRatio, meanOf, pulledTogether, type Estimate, type Spread } from './estimate'
import { readAt, type Fact } from './facts'

const DAY = 86_400_000
/** What is usual for an account is told from its posts so near in time, so that one that shrinks tires nothing of itself. */
const NEAR = 60 * DAY
/** So often something has to be shown on an account before its further times say anything. */
const OFTEN = 3

/** Something that readers tire of: for certain it earns less each further time. */
export interface Tiring {
  kind: 'passage' | 'picture'
  /** The passage's id, or the address of the picture. */
  key: string
  posts: number
  /** How many times as much it earns each further time on an account. */
  times: Estimate
}

/**
 * The passages and pictures that readers tire of, the most tired first. Each is given the slope of what its posts earned, on the
 * scale of logarithms, over how often its account had shown it before; the slopes of all are pulled towards none as far as their
 * spread asks (`pulledTogether`), and only those are told that are below it 95 times in 100.
 */
export function tiringOf(facts: readonly Fact[], now: number): Tiring[] {
  const levels = levelsOf(facts, now)
  return (['passage', 'picture'] as const)
    .flatMap((kind) => tiredOf(kind, facts, levels))
    .sort((a, b) => a.times.at - b.times.at)
}

/**
 * What each fact earned against what was usual for its account about then: a straight line through its posts of the days around
 * (local regression: Cleveland 1979). Of those that were read, by impressions after three days.
 */
function levelsOf(facts: readonly Fact[], now: number): Map<Fact, number> {
  const byAccount = new Map<string, { fact: Fact; level: number }[]>()
  for (const fact of facts) {
    const read = readAt(fact, '3 d', now)
    const count = typeof read === 'string' ? undefined : read.impressions
    if (count === undefined) continue
    const mine = byAccount.get(fact.account) ?? []
    byAccount.set(fact.account, mine)
    mine.push({ fact, level: Math.log(count + 0.5) })
  }
  const levels = new Map<Fact, number>()
  for (const mine of byAccount.values()) {
    const line = new Line()
    let [from, to] = [0, 0]
    for (const { fact, level } of mine) {
      for (; to < mine.length; to++) {
        const { fact: next, level: its } = mine[to] as (typeof mine)[number]
        if (next.at > fact.at + NEAR) break
        line.add(next.at / DAY, its, 1)
      }
      for (; from < to; from++) {
        const { fact: old, level: its } = mine[from] as (typeof mine)[number]
        if (old.at >= fact.at - NEAR) break
        line.add(old.at / DAY, its, -1)
      }
      levels.set(fact, level - line.at(fact.at / DAY))
    }
  }
  return levels
}

/** The straight line through some points by least squares, to which points come and from which they go. */
class Line {
  #count = 0
  #x = 0
  #y = 0
  #xx = 0
  #xy = 0
  /** From where x is counted, so that squares of it stay small. */
  #origin: number | null = null

  /** A point that comes (1) or goes (-1). */
  add(x: number, y: number, sign: 1 | -1): void {
    this.#origin ??= x
    const from = x - this.#origin
    this.#count += sign
    this.#x += sign * from
    this.#y += sign * y
    this.#xx += sign * from * from
    this.#xy += sign * from * y
  }

  at(x: number): number {
    const [mean, middle] = [this.#y / this.#count, this.#x / this.#count]
    const spread = this.#xx - this.#count * middle * middle
    const slope = spread > 1e-6 ? (this.#xy - this.#count * middle * mean) / spread : 0
    return mean + slope * (x - (this.#origin ?? 0) - middle)
  }
}

function tiredOf(kind: Tiring['kind'], facts: readonly Fact[], levels: ReadonlyMap<Fact, number>): Tiring[] {
  const shown = new Map<string, Map<string, number[]>>()
  for (const fact of facts) {
    const key = fact[kind]
    const level = levels.get(fact)
    if (key === null || level === undefined) continue
    const on = shown.get(key) ?? new Map<string, number[]>()
    shown.set(key, on)
    on.set(fact.account, [...(on.get(fact.account) ?? []), level])
  }
  const often = [...shown].flatMap(([key, on]) => {
    const series = [...on.values()].filter((s) => s.length >= OFTEN)
    return series.length ? [{ key, series }] : []
  })
  const slopes = often.map(({ series }) => slopeOf(series))
  const spread = spreadAbout(
    often.map((o) => o.series),
    slopes.map((s) => s.mean),
  )
  const pulled = pulledTogether(slopes, spread)
  return often.flatMap(({ key, series }, i): Tiring[] => {
    const slope = pulled[i]
    if (!slope || slope.high >= 0) return []
    return [{ kind, key, posts: series.flat().length, times: asRatio(slope) }]
  })
}

/** The common slope of some series over their places, each about its own mean; `count` is how far these places lie apart, squared and summed. */
function slopeOf(series: readonly (readonly number[])[]): { mean: number; count: number } {
  let [together, apart] = [0, 0]
  for (const levels of series) {
    const [middle, mean] = [(levels.length - 1) / 2, meanOf(levels)]
    levels.forEach((level, i) => {
      together += (i - middle) * (level - mean)
      apart += (i - middle) ** 2
    })
  }
  return { mean: together / apart, count: apart }
}

/** How far values spread about the lines through them, over all; null where nothing is left to tell. */
function spreadAbout(
  all: readonly (readonly (readonly number[])[])[],
  slopes: readonly number[],
): Spread | null {
  let [squares, degrees] = [0, 0]
  all.forEach((series, k) => {
    for (const levels of series) {
      const [middle, mean] = [(levels.length - 1) / 2, meanOf(levels)]
      levels.forEach((level, i) => {
        squares += (level - mean - (slopes[k] ?? 0) * (i - middle)) ** 2
      })
      degrees += levels.length - 1
    }
    degrees -= 1
  })
  return degrees > 0 ? { variance: squares / degrees, degrees } : null
}
