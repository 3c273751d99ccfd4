import { MEASURES, NETWORK_MEASURES, type Age, type Measures, type NetworkMeasure } from '../model'
import { network } from '../networks'
import {
  asRatio,
  meanOf,
  meanWithin,
  pooledSpread,
  pulledRates,
  pulledTogether,
  type Estimate,
  type Share,
} from './estimate'
import { readAt, type Fact } from './facts'

/** By what posts are put together. */
export const GROUPINGS = [
  'network',
  'account',
  'hour',
  'weekday',
  'angle',
  'format',
  'length',
  'what it shows',
  'opening',
  'passage',
  'piece',
  'pipeline',
  'tag',
] as const
export type Grouping = (typeof GROUPINGS)[number]

/** What is counted of a post; `response` is the share of those who saw it who did something. */
export const COUNTED = [...MEASURES, 'response'] as const
export type Counted = (typeof COUNTED)[number]

/** What is asked of the results. Times are in milliseconds since 1970. */
export interface Asked {
  from: number
  to: number
  by: Grouping
  counted: Counted
  /** How old posts are when they are compared. */
  age: Age
  /** Only what is of these; null for all. */
  network: string | null
  account: string | null
  pipeline: string | null
}

/** What is known of posts that have something in common. */
export interface Group {
  key: string
  posts: number
  /** How much was counted a post; of `response`, the rate. */
  mean: number
  /** The same in the span before, and of how many posts; null where there were none. */
  before: { mean: number; posts: number } | null
  /**
   * How many times as much these posts earn as is usual for their accounts, pulled towards 1 as far as few posts ask; of accounts
   * and networks, which are their own usual, how the span compares with the one before. Null where too little is known.
   */
  times: Estimate | null
}

/** What the results answer. */
export interface Answer {
  /** The most earning first; hours and weekdays in their own order. */
  groups: Group[]
  posts: number
  mean: number | null
  before: { mean: number; posts: number } | null
  /** How the span compares with the one before it, each account with itself. */
  times: Estimate | null
  /** Posts that could not be counted: their reading is missing, is still to come, or their network does not count this. */
  missing: number
  young: number
  uncounted: number
  /** What `response` sums up here: what all networks among the posts count. */
  responses: NetworkMeasure[]
}

/** A post with what was counted of it. */
interface Counting {
  fact: Fact
  value: number
  /** The value on the scale on which posts compare: its logarithm, or that of the odds. */
  level: number
  share: Share
}

/** What posts earned in a span, put together and compared with the span before it of the same length. */
export function answerOf(facts: readonly Fact[], asked: Asked, now: number): Answer {
  const { from, to, by } = asked
  const mine = facts.filter((f) => f.at >= from - (to - from) && f.at < to && isAsked(f, asked))
  const responses = responsesOf(mine)
  const counted = countedOf(mine, asked, responses, now)
  const here = counted.posts.filter((c) => c.fact.at >= from)
  const before = counted.posts.filter((c) => c.fact.at < from)
  const usual = usualOf(here)
  const inGroups = grouped(here, by)
  const beforeBy = grouped(before, by)
  const compared =
    by === 'account' || by === 'network'
      ? [...inGroups].map(([key, group]) => change(group, beforeBy.get(key) ?? []))
      : timesOf([...inGroups.values()], usual, asked.counted)
  const groups = [...inGroups].map(([key, group], i): Group => ({
    key,
    posts: group.length,
    mean: figureOf(group, asked.counted),
    before: beforeOf(beforeBy.get(key) ?? [], asked.counted),
    times: compared[i] ?? null,
  }))
  return {
    groups: groups.sort((a, b) =>
      by === 'hour' || by === 'weekday'
        ? Number(a.key) - Number(b.key)
        : (b.times?.at ?? 0) - (a.times?.at ?? 0) || b.mean - a.mean,
    ),
    posts: here.length,
    mean: here.length > 0 ? figureOf(here, asked.counted) : null,
    before: beforeOf(before, asked.counted),
    times: change(here, before),
    missing: counted.missing,
    young: counted.young,
    uncounted: counted.uncounted,
    responses,
  }
}

/** Whether a post is of what is asked, whenever it came out. */
export function isAsked(fact: Fact, asked: Asked): boolean {
  const { network: on, account, pipeline } = asked
  return (
    (on === null || fact.network === on) &&
    (account === null || fact.account === account) &&
    (pipeline === null || fact.pipeline === pipeline)
  )
}

/** What every network among some posts counts of what readers do. */
function responsesOf(facts: readonly Fact[]): NetworkMeasure[] {
  const networks = [...new Set(facts.map((f) => f.network))]
  return NETWORK_MEASURES.filter(
    (m) => m !== 'impressions' && networks.every((n) => network(n).measures.includes(m)),
  )
}

/** What was counted of posts that came out in the span, and of how many nothing could be. */
function countedOf(
  facts: readonly Fact[],
  { counted, age, from }: Asked,
  responses: readonly NetworkMeasure[],
  now: number,
): { posts: Counting[]; missing: number; young: number; uncounted: number } {
  const told = { posts: [] as Counting[], missing: 0, young: 0, uncounted: 0 }
  const leave = (why: 'missing' | 'young' | 'uncounted', fact: Fact): void => {
    if (fact.at >= from) told[why]++
  }
  for (const fact of facts) {
    const read = readAt(fact, age, now)
    if (read === 'missing') leave('missing', fact)
    else if (read === 'too young') leave('young', fact)
    else {
      const one = countOf(fact, read, counted, responses)
      if (one) told.posts.push(one)
      else leave('uncounted', fact)
    }
  }
  return told
}

function countOf(
  fact: Fact,
  read: Measures,
  counted: Counted,
  responses: readonly NetworkMeasure[],
): Counting | null {
  if (counted !== 'response') {
    const value = read[counted]
    return value === undefined
      ? null
      : { fact, value, level: Math.log(value + 0.5), share: { of: 1, did: value } }
  }
  const of = read.impressions
  if (of === undefined || of === 0 || responses.length === 0) return null
  const did = Math.min(
    of,
    responses.reduce((sum, m) => sum + (read[m] ?? 0), 0),
  )
  return { fact, value: did / of, level: Math.log((did + 0.5) / (of - did + 0.5)), share: { of, did } }
}

/** A figure for posts: their mean, or the rate of all who saw them. */
function figureOf(posts: readonly Counting[], counted: Counted): number {
  if (counted !== 'response') return meanOf(posts.map((p) => p.value))
  const of = posts.reduce((sum, p) => sum + p.share.of, 0)
  return posts.reduce((sum, p) => sum + p.share.did, 0) / of
}

function beforeOf(posts: readonly Counting[], counted: Counted): Group['before'] {
  return posts.length > 0 ? { mean: figureOf(posts, counted), posts: posts.length } : null
}

/** What is usual for each account: the mean level of its posts. */
function usualOf(posts: readonly Counting[]): Map<string, number> {
  return new Map(
    [...grouped(posts, 'account')].map(([account, of]) => [account, meanOf(of.map((p) => p.level))]),
  )
}

/** How groups compare with what is usual for their accounts; rates of one account by all who saw its posts. */
function timesOf(
  groups: readonly (readonly Counting[])[],
  usual: ReadonlyMap<string, number>,
  counted: Counted,
): (Estimate | null)[] {
  if (counted === 'response' && usual.size === 1) {
    const shares = groups.map((g) => g.map((p) => p.share))
    const all = figureOf(groups.flat(), counted)
    if (!(all > 0)) return groups.map(() => null)
    return pulledRates(shares).map((e) => e && { at: e.at / all, low: e.low / all, high: e.high / all })
  }
  const levels = groups.map((g) => g.map((p) => p.level - (usual.get(p.fact.account) ?? 0)))
  const means = levels.map((of) => ({ mean: meanOf(of), count: of.length }))
  return pulledTogether(means, pooledSpread(levels)).map((e) => e && asRatio(e))
}

/** How posts compare with those before, each account with itself; null where an account of both has too few. */
function change(here: readonly Counting[], before: readonly Counting[]): Estimate | null {
  const was = grouped(before, 'account')
  const both = [...grouped(here, 'account')].filter(([account]) => was.has(account))
  const pairs = both.map(([account, now]) => ({
    now: now.map((p) => p.level),
    was: (was.get(account) ?? []).map((p) => p.level),
  }))
  const spread = pooledSpread(pairs.flatMap((p) => [p.now, p.was]))
  if (!spread) return null
  // Each account counts by what stands behind its difference.
  const worth = pairs.map((p) => 1 / (1 / p.now.length + 1 / p.was.length))
  const all = worth.reduce((sum, w) => sum + w, 0)
  const mean = pairs.reduce(
    (sum, p, i) => sum + ((worth[i] as number) / all) * (meanOf(p.now) - meanOf(p.was)),
    0,
  )
  const within = meanWithin(mean, all, spread)
  return within && asRatio(within)
}

/** Posts by what they have in common; one with several tags stands in several groups, one without any in none. */
function grouped(posts: readonly Counting[], by: Grouping): Map<string, Counting[]> {
  const groups = new Map<string, Counting[]>()
  for (const one of posts)
    for (const key of KEYS[by](one.fact)) {
      const group = groups.get(key)
      if (group) group.push(one)
      else groups.set(key, [one])
    }
  return groups
}

const or = (key: string | null): readonly string[] => (key === null ? [] : [key])

/** Under what a post stands, by each way of putting posts together. */
const KEYS: Readonly<Record<Grouping, (fact: Fact) => readonly string[]>> = {
  network: (f) => [f.network],
  account: (f) => [f.account],
  hour: (f) => [String(f.hour)],
  weekday: (f) => [String(f.weekday)],
  angle: (f) => [f.angle],
  format: (f) => [f.format],
  length: (f) => [f.length],
  'what it shows': (f) => [f.shows],
  opening: (f) => [f.opening],
  passage: (f) => or(f.passageKind),
  piece: (f) => or(f.piece),
  pipeline: (f) => or(f.pipeline),
  tag: (f) => f.tags,
}

/**
 * How many times as much as is usual for their accounts the posts of each passage earned, by its id: pulled towards 1 as far as
 * few posts ask, so that a passage with one lucky post does not stand above one that did well five times.
 */
export function worthOf(
  facts: readonly Fact[],
  asked: Pick<Asked, 'counted' | 'age'>,
  now: number,
): Map<string, number> {
  const all = { ...asked, from: -Infinity, to: Infinity, by: 'piece' as const, network: null, account: null }
  const { posts } = countedOf(facts, { ...all, pipeline: null }, responsesOf(facts), now)
  const groups = new Map<string, Counting[]>()
  for (const one of posts) {
    const { passage } = one.fact
    if (passage !== null) groups.set(passage, [...(groups.get(passage) ?? []), one])
  }
  const times = timesOf([...groups.values()], usualOf(posts), asked.counted)
  return new Map([...groups.keys()].flatMap((key, i) => (times[i] ? [[key, times[i].at] as const] : [])))
}

/** A post in its order by results. */
export interface Ranked {
  post: string
  value: number
  /** How many times what is usual for its account it earned. */
  times: number
}

/** The posts of a span in the order of what they earned against what is usual for their accounts, the best first. */
export function rankedOf(facts: readonly Fact[], asked: Asked, now: number): Ranked[] {
  const mine = facts.filter((f) => f.at >= asked.from && f.at < asked.to && isAsked(f, asked))
  const { posts } = countedOf(mine, asked, responsesOf(mine), now)
  const usual = usualOf(posts)
  return posts
    .map(({ fact, value, level }) => ({
      post: fact.post,
      value,
      times: Math.exp(level - (usual.get(fact.account) ?? 0)),
    }))
    .sort((a, b) => b.times - a.times)
}

/** An hour of a weekday of one account, and what its posts earn there. */
export interface HourCell {
  weekday: number
  hour: number
  posts: number
  /** How many times what is usual, pulled towards 1. */
  times: Estimate | null
}

/** What an account's posts earn by hour and weekday. */
export function hoursOf(facts: readonly Fact[], asked: Asked, now: number): HourCell[] {
  const mine = facts.filter((f) => f.at >= asked.from && f.at < asked.to && isAsked(f, asked))
  const { posts } = countedOf(mine, asked, responsesOf(mine), now)
  const cells = new Map<string, Counting[]>()
  for (const one of posts) {
    const key = `${one.fact.weekday} ${one.fact.hour}`
    const cell = cells.get(key)
    if (cell) cell.push(one)
    else cells.set(key, [one])
  }
  const compared = timesOf([...cells.values()], usualOf(posts), asked.counted)
  return [...cells].map(([key, of], i) => {
    const [weekday = 1, hour = 0] = key.split(' ').map(Number)
    return { weekday, hour, posts: of.length, times: compared[i] ?? null }
  })
}
