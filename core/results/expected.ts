import type { Age } from '../model'
import { tQuantile } from './distributions'
import { meanOf, pooledSpread, type Estimate } from './estimate'
import { readAt, type Fact } from './facts'

/** So far back posts say what those to come will earn. */
const LOOKED_BACK = 182 * 86_400_000
/** Of an account with fewer posts nothing is said. */
const FEWEST = 3
const SURE = 0.975
/** So much is added to a count before its logarithm is taken, since it may be nought. */
const HALF = 0.5

/** How many posts are planned on an account. */
export interface Planned {
  account: string
  posts: number
}

/** How often posts to come will be seen in all. */
export interface Expected {
  seen: Estimate
  /** How many posts that is of, and how many that went out it is told from. */
  posts: number
  from: number
  /** The accounts of which too little is known; their posts are in no figure. */
  unknown: string[]
}

/**
 * How often planned posts will have been seen at an age, all together, if they earn what posts of their accounts did in the last
 * half year. What a post earns is taken to be lognormal about its account's level, with one spread for all accounts; levels go
 * back to counts by the mean of what was left over (smearing: Duan, JASA 78, 1983), and the sum is taken for lognormal too, by
 * its mean and variance (Fenton, IRE Transactions on Communications Systems 8, 1960), in which it counts that levels are
 * themselves guessed. The bounds hold what comes 95 times in 100. Null where nothing is known of any account.
 */
export function expectedOf(
  facts: readonly Fact[],
  planned: readonly Planned[],
  age: Age,
  now: number,
): Expected | null {
  const levels = levelsOf(facts, age, now)
  const known = planned.filter(({ account }) => (levels.get(account)?.length ?? 0) >= FEWEST)
  const of = [...levels.values()].filter((l) => l.length >= FEWEST)
  const spread = pooledSpread(of)
  if (known.length === 0 || !spread) return null
  const over = of.flatMap((group) => {
    const mean = meanOf(group)
    return group.map((level) => Math.exp(level - mean))
  })
  const smear = meanOf(over)
  const varies = meanOf(over.map((v) => v ** 2)) - smear ** 2
  let [sum, variance, posts, from] = [0, 0, 0, 0]
  for (const { account, posts: n } of known) {
    const group = levels.get(account) ?? []
    const usual = Math.exp(meanOf(group))
    // Levels are of half a view more than was counted.
    const mean = n * (usual * smear - HALF)
    sum += mean
    variance += n * usual ** 2 * varies + mean ** 2 * Math.expm1(spread.variance / group.length)
    posts += n
    from += group.length
  }
  const wide = Math.sqrt(Math.log1p(variance / sum ** 2))
  const middle = Math.log(sum) - wide ** 2 / 2
  const reach = tQuantile(SURE, spread.degrees) * wide
  return {
    seen: { at: sum, low: Math.exp(middle - reach), high: Math.exp(middle + reach) },
    posts,
    from,
    unknown: planned.filter((p) => !known.includes(p)).map((p) => p.account),
  }
}

/** What posts of the last half year were seen at an age, as logarithms, by account. */
function levelsOf(facts: readonly Fact[], age: Age, now: number): Map<string, number[]> {
  const levels = new Map<string, number[]>()
  for (const fact of facts) {
    if (fact.at < now - LOOKED_BACK) continue
    const read = readAt(fact, age, now)
    const seen = typeof read === 'string' ? undefined : read.impressions
    if (seen === undefined) continue
    const level = Math.log(seen + HALF)
    const group = levels.get(fact.account)
    if (group) group.push(level)
    else levels.set(fact.account, [level])
  }
  return levels
}
