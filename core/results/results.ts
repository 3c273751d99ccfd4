import type { Measure } from '../model'
import { network } from '../networks'
import { answerOf, hoursOf, rankedOf, type Answer, type Asked, type HourCell, type Ranked } from './answer'
import { effectsOf, type Effect } from './effects'
import type { Estimate } from './estimate'
import { readAt, type Fact } from './facts'

/** What a screen of results shows of a span. */
export interface Results {
  /** As what it was asked. */
  asked: Asked
  answer: Answer
  ranked: Ranked[]
  /** Of one account; empty where several are asked for. */
  hours: HourCell[]
}

/** What is known of the published posts of a span, as it was asked. */
export function resultsOf(facts: readonly Fact[], asked: Asked, now: number): Results {
  return {
    asked,
    answer: answerOf(facts, asked, now),
    ranked: rankedOf(facts, asked, now),
    hours: asked.account === null ? [] : hoursOf(facts, asked, now),
  }
}

/** What was told apart on a network, over all of its posts. */
export interface NetworkEffects {
  network: string
  posts: number
  /** What earns more or less for certain, the largest effect first. */
  named: Effect[]
  /** How many others were looked at, of which nothing is certain. */
  others: number
}

/** The effects on each network, and by post those for certain that it has of itself: not what its account's age does. */
export interface ToldApart {
  effects: NetworkEffects[]
  on: ReadonlyMap<string, readonly Effect[]>
}

/** Of what is asked, that on which effects hang: not the span, since they are told from all posts. */
export type AskedEffects = Pick<Asked, 'to' | 'counted' | 'age' | 'network' | 'account'>

/** What each thing about posts does with all else alike, network by network, over all posts until a moment (`effectsOf`). */
export function toldApart(facts: readonly Fact[], asked: AskedEffects, now: number): ToldApart {
  const work = tellingApart(facts, asked, now)
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
  }
}

/** As `toldApart`, stopping after each network, so that who has other things to do can do them between: of 50,000 posts it takes a second. */
export function* tellingApart(
  facts: readonly Fact[],
  asked: AskedEffects,
  now: number,
): Generator<undefined, ToldApart, undefined> {
  const counted = asked.counted === 'response' ? 'impressions' : asked.counted
  const networks = [...new Set(facts.map((f) => f.network))].filter(
    (n) => mayCount(n, counted) && (asked.network === null || asked.network === n),
  )
  const on = new Map<string, readonly Effect[]>()
  const effects: NetworkEffects[] = []
  for (const id of networks) {
    const counts: number[] = []
    const mine = facts.filter((fact) => {
      if (fact.network !== id || fact.at >= asked.to) return false
      if (asked.account !== null && fact.account !== asked.account) return false
      const read = readAt(fact, asked.age, now)
      const value = typeof read === 'string' ? undefined : read[counted]
      if (value !== undefined) counts.push(value)
      return value !== undefined
    })
    const told = effectsOf(mine, counts)
    for (const [post, its] of told.on) {
      const certain = its.filter((e) => e.named && e.factor !== 'age')
      if (certain.length > 0) on.set(post, certain)
    }
    const named = told.effects
      .filter((e) => e.named)
      .sort((a, b) => Math.abs(Math.log(b.times.at)) - Math.abs(Math.log(a.times.at)))
    effects.push({ network: id, posts: mine.length, named, others: told.effects.length - named.length })
    yield
  }
  return { effects: effects.filter((e) => e.posts > 0).sort((a, b) => b.posts - a.posts), on }
}

/** Whether something may be counted of a network's posts: what the shortener counts hangs on no network. */
export function mayCount(id: string, measure: Measure): boolean {
  return measure === 'link clicks' || network(id).measures.includes(measure)
}

/** The line's number: how the mean post of the last 28 days compares with that of the 28 before; null where nobody can say. */
export function lineChange(facts: readonly Fact[], now: number): Estimate | null {
  const DAYS = 28 * 86_400_000
  const asked: Asked = {
    from: now - DAYS,
    to: now,
    by: 'network',
    counted: 'impressions',
    age: '1 d',
    network: null,
    account: null,
    pipeline: null,
  }
  return answerOf(facts, asked, now).times
}
