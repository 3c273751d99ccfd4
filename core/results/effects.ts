import { normally, asRatio, type Estimate } from './estimate'
import type { Fact } from './facts'
import { fitMixed, type Observation } from './mixed'

const DAY = 86_400_000
const RESTED = 60 * DAY

/** One thing about posts whose effect is told apart from all others. */
export interface Effect {
  /** What it belongs to, as "hour", and which it is, as "6 to 9". */
  factor: Factor
  level: string
  /** How many posts it is seen in. */
  posts: number
  /** How many times as much posts earn with it, all else alike: against those without it, or the usual of its kind. */
  times: Estimate
  /** Whether it can be told from none: 95 times in 100 it is one, on the same side. */
  named: boolean
}

/**
 * What posts are told apart by. `trait` holds what a post has or has not; the others name each post one of several ways, and
 * their effects stand against the usual of all of these.
 */
export const FACTORS = [
  'hour',
  'weekday',
  'angle',
  'format',
  'length',
  'shows',
  'trait',
  'crowd',
  'rest',
  'age',
] as const
export type Factor = (typeof FACTORS)[number]

/** Hours of a day that are looked at together. */
export const HOURS_TOGETHER = 2

/** Fewer posts of a network tell nothing apart. */
export const FEWEST = 20
/** A level of which there are fewer posts is left to chance. */
const RARE = 4

/** What a fit tells: the effects, and by post those that are on it. */
export interface Told {
  effects: Effect[]
  on: ReadonlyMap<string, readonly Effect[]>
}

/**
 * What the posts of one network earn for each thing about them, all else alike: a linear model of the logarithm of what was
 * counted, in which every account has a level of its own and the effects of each factor are drawn together (`fitMixed`). That
 * many are looked at at once needs no correction of its own: where a kind of effect is none, all of that kind are drawn to none
 * (Gelman, Hill and Yajima, "Why we (usually) don't have to worry about multiple comparisons", 2012).
 * `counts` holds what was counted of each fact. Empty where there are too few posts.
 */
export function effectsOf(facts: readonly Fact[], counts: readonly number[]): Told {
  if (facts.length < FEWEST) return { effects: [], on: new Map() }
  const told = describe(facts)
  const seenIn = new Map<string, number>()
  for (const post of told) for (const key of post.keys()) seenIn.set(key, (seenIn.get(key) ?? 0) + 1)
  const keys = [...seenIn.keys()].filter((k) => {
    const posts = seenIn.get(k) as number
    // What nearly all posts have tells none of them apart; all of them have an age.
    return posts >= RARE && (factorOf(k) === 'age' || posts <= facts.length - RARE)
  })
  const accounts = [...new Set(facts.map((f) => f.account))]
  const columns = new Map([...accounts.map((a) => `account ${a}`), ...keys].map((k, i) => [k, i]))
  const observations = facts.map((fact, i): Observation => {
    const own = [...(told[i] as Map<string, number>)].flatMap(([key, value]): [number, number][] => {
      const column = columns.get(key)
      return column === undefined ? [] : [[column, value]]
    })
    return {
      columns: [[columns.get(`account ${fact.account}`) as number, 1], ...own],
      seen: Math.log((counts[i] as number) + 0.5),
    }
  })
  const groups = [...columns.keys()].map((k) => (k.startsWith('account ') ? null : factorOf(k)))
  const fit = fitMixed(observations, groups)
  const effects = keys.map((key): Effect => {
    const column = columns.get(key) as number
    const effect = normally(fit.effects[column] as number, fit.deviations[column] as number)
    return {
      factor: factorOf(key),
      level: key.slice(key.indexOf(' ') + 1),
      posts: seenIn.get(key) as number,
      times: asRatio(effect),
      named: effect.low > 0 || effect.high < 0,
    }
  })
  const byKey = new Map(keys.map((key, i) => [key, effects[i] as Effect]))
  const on = facts.map((fact, i): [string, Effect[]] => [
    fact.post,
    [...(told[i] as Map<string, number>).keys()].flatMap((key) => byKey.get(key) ?? []),
  ])
  return { effects, on: new Map(on) }
}

const factorOf = (key: string): Factor => key.slice(0, key.indexOf(' ')) as Factor

/** Each post by what it is told apart by, in order of `facts`, which are the oldest first. */
function describe(facts: readonly Fact[]): Map<string, number>[] {
  const first = new Map<string, number>()
  const out = new Map<string, number[]>()
  const last = new Map<string, number>()
  return facts.map((fact) => {
    const { account, at } = fact
    if (!first.has(account)) first.set(account, at)
    const earlier = out.get(account) ?? []
    const today = earlier.filter((t) => at - t < DAY).length
    out.set(account, [...earlier.slice(-20), at])
    const told = new Map<string, number>()
    const from = Math.floor(fact.hour / HOURS_TOGETHER) * HOURS_TOGETHER
    told.set(`hour ${from}`, 1)
    told.set(`weekday ${fact.weekday}`, 1)
    told.set(`angle ${fact.angle}`, 1)
    told.set(`format ${fact.format}`, 1)
    told.set(`length ${fact.length}`, 1)
    told.set(`shows ${fact.shows}`, 1)
    if (fact.opening !== 'a statement') told.set(`trait opens with ${fact.opening}`, 1)
    if (fact.listed) told.set('trait is a list', 1)
    // Each further post of the same day, up to three.
    if (today > 0) told.set('crowd another post the day before it', Math.min(3, today))
    const like = fact.passage && `${account} ${fact.passage}`
    const before = like && last.get(like)
    // Whole where it comes again at once, nought after sixty days.
    if (before && at - before < RESTED) told.set('rest the same passage before', 1 - (at - before) / RESTED)
    if (like) last.set(like, at)
    told.set('age each further half year of the account', (at - (first.get(account) as number)) / (182 * DAY))
    return told
  })
}
