import type { Age, HourTrial, Leaning } from '../../core/model'
import { seededRandom } from '../../core/planning'
import {
  bestTimes,
  expectedOf,
  hourTrialsOf,
  leaningsOf,
  lineChange,
  reportOf,
  tellingApart,
  tiringOf,
  toldApart,
  resultsOf,
  worthOf,
  type Asked,
  type AskedEffects,
  type AskedReport,
  type Effect,
  type NetworkEffects,
  type ToldApart,
  type BestTimes,
  type Estimate,
  type Expected,
  type Fact,
  type FactBase,
  type Report,
  type Results,
  type Tiring,
  type Trying,
} from '../../core/results'
import { hash32 } from '../../core/text'
import { followReadings, knownOf } from './readings'

/** What is known of a brand's published posts; it is handed over once, followed by what changes, and asked often. */
const factsOf = (brand: string): readonly Fact[] => knownOf(brand)?.facts() ?? []

/** So many answers of what was told apart are kept. */
const KEPT = 8
let told = new Map<string, Promise<ToldApart>>()

/** What is told apart of a brand, network by network, with a moment between them in which other questions are answered. */
async function apart(brand: string, asked: AskedEffects, now: number): Promise<ToldApart> {
  const work = tellingApart(factsOf(brand), asked, now)
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
    await new Promise((resolve) => setTimeout(resolve))
  }
}

/** What the page asks of results. */
export const resultsTasks = {
  /**
   * Keeps what changed of a brand's published posts (`FactBase`), and reads what was read of them since the last time; all of it where
   * `anew` says that some of it changed or went.
   */
  keepFacts: async (anew: boolean, brand: string, ...of: Parameters<FactBase['posts']>): Promise<void> => {
    const [changed, gone] = of
    const read = await followReadings(brand, anew)
    knownOf(brand)?.posts(...of)
    // Another map, so that what is worked out of the facts before is not kept with what is told of these.
    if (read || changed.length + gone.length > 0) told = new Map()
  },

  /** Begins to read what was read of a brand's posts, before they are told. */
  readAhead: async (brand: string): Promise<void> => void (await followReadings(brand, false)),

  /** What a brand's published posts say, as it is asked; null where nothing was kept of it. */
  results: (brand: string, asked: Asked, now: number): Results | null => {
    const kept = knownOf(brand)
    return kept ? resultsOf(kept.facts(), asked, now) : null
  },

  /** How often planned posts of a brand will be seen (`expectedOf`); null where too little is known. */
  expected: (
    brand: string,
    ...of: [planned: Parameters<typeof expectedOf>[1], age: Age, now: number]
  ): Expected | null => expectedOf(factsOf(brand), ...of),

  /** What a report tells of a brand's posts (`reportOf`). */
  report: (brand: string, asked: AskedReport, best: number, now: number): Report =>
    reportOf(factsOf(brand), asked, best, now),

  /** The number of the station Results (`lineChange`); null where nothing was kept, or nobody can say. */
  lineChange: (brand: string, now: number): Estimate | null => lineChange(factsOf(brand), now),

  /** What the posts of each passage of a brand earned after three days, against what is usual for their accounts (`worthOf`). */
  worth: (brand: string, now: number): Map<string, number> =>
    worthOf(factsOf(brand), { counted: 'impressions', age: '3 d' }, now),

  /** What a brand's captions are to lean to (`leaningsOf`), by how many saw its posts within three days. */
  learn: (brand: string, before: readonly Leaning[], today: string, now: number): Leaning[] => {
    const asked = { to: now, counted: 'impressions', age: '3 d', network: null, account: null } as const
    return leaningsOf(toldApart(factsOf(brand), asked, now).effects, before, today)
  },

  /**
   * What was told apart of a brand's posts (`toldApart`), and what holds some of them back; worked out once for what it hangs on.
   */
  effects: async (
    brand: string,
    asked: AskedEffects,
    posts: readonly string[],
    now: number,
  ): Promise<{ effects: NetworkEffects[]; held: Record<string, Effect[]> }> => {
    const { to, counted, age, network, account } = asked
    const key = JSON.stringify([brand, to, counted, age, network, account])
    const known = told.get(key) ?? apart(brand, asked, now)
    told.set(key, known)
    known.catch(() => told.delete(key))
    for (const old of [...told.keys()].slice(0, -KEPT)) told.delete(old)
    const { effects, on } = await known
    const held = posts.map((id): [string, Effect[]] => [id, (on.get(id) ?? []).filter((e) => e.times.at < 1)])
    return { effects, held: Object.fromEntries(held) }
  },

  /** Better times for an account's slots (`bestTimes`); few posts where nothing was kept of its brand. */
  bestTimes: (brand: string, ...of: [account: Parameters<typeof bestTimes>[1], now: number]): BestTimes =>
    bestTimes(factsOf(brand), ...of),

  /** What readers of a brand tire of (`tiringOf`). */
  tiring: (brand: string, now: number): Tiring[] => tiringOf(factsOf(brand), now),

  /** The trials of other hours of an account in the week from a Monday on (`hourTrialsOf`), the same whenever they are drawn. */
  hourTrials: (brand: string, account: Trying, monday: string, now: number): HourTrial[] =>
    hourTrialsOf(factsOf(brand), account, monday, now, seededRandom(hash32(`${account.id} ${monday}`))),
}

export type ResultsTasks = typeof resultsTasks
