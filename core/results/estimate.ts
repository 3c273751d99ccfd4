import { betaQuantile, tQuantile } from './distributions'

/** A figure and between which bounds it lies 95 times in 100. */
export interface Estimate {
  at: number
  low: number
  high: number
}

const SURE = 0.975
/** The share of a normal distribution between -1.96 and 1.96 standard deviations. */
const NORMAL = 1.959964

/** The spread of values about the mean of their group, over all groups, and how many degrees of freedom stand behind it. */
export interface Spread {
  variance: number
  degrees: number
}

/** The spread within groups, pooled; null where no group has two values. */
export function pooledSpread(groups: readonly (readonly number[])[]): Spread | null {
  let squares = 0
  let degrees = 0
  for (const values of groups.filter((g) => g.length > 0)) {
    const mean = meanOf(values)
    squares += values.reduce((sum, v) => sum + (v - mean) ** 2, 0)
    degrees += values.length - 1
  }
  return degrees > 0 ? { variance: squares / degrees, degrees } : null
}

/** The mean of values, of which there is at least one. */
export function meanOf(values: readonly number[]): number {
  return values.reduce((sum, v) => sum + v, 0) / values.length
}

/** A mean with its interval by Student's t; null where nothing says how far values spread. */
export function meanWithin(mean: number, count: number, spread: Spread | null): Estimate | null {
  if (!spread) return null
  const reach = tQuantile(SURE, spread.degrees) * Math.sqrt(spread.variance / count)
  return { at: mean, low: mean - reach, high: mean + reach }
}

/** What is known of a group: its mean and how many values it is of. */
export interface GroupMean {
  mean: number
  count: number
}

/**
 * Means of groups, each pulled towards nought, the mean of all, as far as its count and the spread of the groups ask
 * (empirical Bayes: Efron and Morris, JASA 70, 1975; for unequal counts, with intervals that know that the pull itself is
 * guessed: Morris, JASA 78, 1983). With fewer than three groups nothing is known of how groups differ, and where values do not
 * spread at all nothing is left to guess: they stand as they are.
 */
export function pulledTogether(groups: readonly GroupMean[], spread: Spread | null): (Estimate | null)[] {
  if (!spread) return groups.map(() => null)
  const k = groups.length
  if (k < 3 || spread.variance === 0) return groups.map(({ mean, count }) => meanWithin(mean, count, spread))
  const own = groups.map(({ count }) => spread.variance / count)
  const among = spreadAmong(groups, own)
  const widest = tQuantile(SURE, spread.degrees)
  const weight = (i: number): number => 1 / ((own[i] as number) + among)
  const typical =
    groups.reduce((sum, _, i) => sum + weight(i) * (own[i] as number), 0) /
    groups.reduce((sum, _, i) => sum + weight(i), 0)
  return groups.map(({ mean }, i) => {
    const noise = own[i] as number
    const pull = ((k - 2) / k) * noise * weight(i)
    const guess = (2 / (k - 2)) * pull ** 2 * (typical + among) * weight(i) * mean ** 2
    const at = (1 - pull) * mean
    const reach = widest * Math.sqrt(noise * (1 - pull) + guess)
    return { at, low: at - reach, high: at + reach }
  })
}

/** The variance among the true means of groups about nought, by Morris's weighted moments; at least nought. */
function spreadAmong(groups: readonly GroupMean[], own: readonly number[]): number {
  let among = Math.max(0, meanOf(groups.map(({ mean }, i) => mean ** 2 - (own[i] as number))))
  for (let round = 0; round < ROUNDS; round++) {
    const weights = own.map((v) => 1 / (v + among))
    const all = weights.reduce((sum, w) => sum + w, 0)
    const next = groups.reduce(
      (sum, { mean }, i) => sum + ((weights[i] as number) * (mean ** 2 - (own[i] as number))) / all,
      0,
    )
    if (Math.abs(next - among) < 1e-12) break
    among = Math.max(0, next)
  }
  return among
}
const ROUNDS = 100

/** Of so many who saw a post, how many did something. */
export interface Share {
  of: number
  did: number
}

/**
 * The rates of groups of posts, each pulled towards the rate of all (beta-binomial, its prior by moments: Kleinman, JASA 68,
 * 1973). Readers of one post are more alike than those of two, so that a post read by many is worth few more than one read by
 * some (the same likeness as in Williams, Applied Statistics 31, 1982). Null for a group that nobody saw, and for all where no
 * group has two posts.
 */
export function pulledRates(groups: readonly (readonly Share[])[]): (Estimate | null)[] {
  const seen = groups.map((shares) => shares.filter((s) => s.of > 0))
  const alike = likeness(seen)
  if (alike === null) return groups.map(() => null)
  const worth = seen.map((shares) => {
    const of = shares.map((s) => s.of / (1 + (s.of - 1) * alike))
    return total(shares.map((s, i) => ({ of: of[i] as number, did: ((of[i] as number) * s.did) / s.of })))
  })
  const known = worth.filter((w) => w.of > 0)
  const all = total(known)
  const rate = all.did / all.of
  const prior = priorWorth(known, rate)
  return worth.map((w) => (w.of === 0 ? null : pulledRate(w, rate, prior, known.length)))
}

/** A rate pulled towards that of all of k groups, which is worth so many readers; its interval knows that the pull is guessed. */
function pulledRate({ of, did }: Share, rate: number, prior: number, k: number): Estimate {
  if (!(rate > 0 && rate < 1)) return { at: rate, low: rate, high: rate }
  const pull = k > 3 ? (((k - 3) / (k - 1)) * prior) / (of + prior) : 0
  const at = (1 - pull) * (did / of) + pull * rate
  // A group in which nobody did anything is as unsure as the rate of all has it.
  const unsure = Math.max(at * (1 - at), rate * (1 - rate)) / of
  const guess = k > 3 ? (2 / (k - 3)) * pull ** 2 * (did / of - rate) ** 2 : 0
  const variance = unsure * (1 - pull) + guess
  const worth = Math.max(at * (1 - at), rate * (1 - rate)) / variance
  const [a, b] = [Math.max(at * worth, LEAST_DID), (1 - at) * worth]
  return { at, low: betaQuantile(1 - SURE, a, b), high: betaQuantile(SURE, a, b) }
}
/** So few stand behind a rate of nought: half a reader, as Jeffreys would have it. */
const LEAST_DID = 0.5

function total(shares: readonly Share[]): Share {
  return shares.reduce((sum, s) => ({ of: sum.of + s.of, did: sum.did + s.did }), { of: 0, did: 0 })
}

/** How alike readers of one post are, from 0 to 1 (their intra-class correlation, by moments); null where it cannot be told. */
function likeness(groups: readonly (readonly Share[])[]): number | null {
  let [squares, chance, pairs, posts, degrees] = [0, 0, 0, 0, 0]
  for (const shares of groups) {
    const { of, did } = total(shares)
    const rate = did / of
    if (!(rate > 0 && rate < 1)) continue
    for (const s of shares) {
      squares += (s.did - s.of * rate) ** 2
      chance += s.of * rate * (1 - rate)
      pairs += s.of * (s.of - 1) * rate * (1 - rate)
    }
    posts += shares.length
    degrees += shares.length - 1
  }
  if (degrees === 0 || pairs === 0) return null
  return Math.min(1, Math.max(0, ((squares * posts) / degrees - chance) / pairs))
}

/** How many readers the rate of all is worth when a group's own is judged; many where groups hardly differ. */
function priorWorth(groups: readonly Share[], rate: number): number {
  const k = groups.length
  const all = groups.reduce((sum, g) => sum + g.of, 0)
  const spread = groups.reduce((sum, g) => sum + g.of * (g.did / g.of - rate) ** 2, 0)
  const room = all - groups.reduce((sum, g) => sum + g.of * g.of, 0) / all
  const among = room > 0 ? Math.max(0, (spread - rate * (1 - rate) * (k - 1)) / room) : 0
  return among > 0 ? (rate * (1 - rate)) / among : MOST_WORTH * all
}
/** Where groups do not differ at all, the rate of all is worth so many times what is known. */
const MOST_WORTH = 10

/** A figure on the scale of logarithms as a ratio: 0 is 1, and 0.1 is about a tenth more. */
export function asRatio({ at, low, high }: Estimate): Estimate {
  return { at: Math.exp(at), low: Math.exp(low), high: Math.exp(high) }
}

/** An estimate from its mean and standard deviation. */
export function normally(at: number, deviation: number): Estimate {
  return { at, low: at - NORMAL * deviation, high: at + NORMAL * deviation }
}
