import { MEASURES, type Measure } from '../model'
import { answerOf, isAsked, rankedOf, type Answer, type Asked, type Ranked } from './answer'
import { readAt, type Fact } from './facts'
import { mayCount, toldApart, type NetworkEffects } from './results'

const DAY = 86_400_000
/** Spans of more days than this are told in steps of four weeks, shorter ones week by week. */
const LONG = 200

/** All that readers did of one kind in a span, and in the one before of the same length. */
interface Total {
  measure: Measure
  sum: number
  /** How many posts it is of: those of networks that count it, as far as they were read. */
  posts: number
  before: { sum: number; posts: number }
}

/** A step of a span: how many posts came out, and what was counted of those that were read. */
export interface Week {
  from: number
  to: number
  posts: number
  sum: number
  /** How many of the posts were read. */
  read: number
}

/** What a report tells of a span to somebody who was not there. */
export interface Report {
  /** By network. */
  answer: Answer
  /** How many posts came out, read or not. */
  out: number
  /** On how many networks. */
  networks: number
  totals: Total[]
  weeks: Week[]
  /** Those that earned more than is usual for their accounts, the best first. */
  best: Ranked[]
  effects: NetworkEffects[]
}

/** What is asked for a report: what it is put together by is fixed, and it counts what all networks do. */
export type AskedReport = Omit<Asked, 'by' | 'counted'>

/** What the posts of a span did, network by network and week by week, as a report tells it; so many of the best are named. */
export function reportOf(facts: readonly Fact[], of: AskedReport, best: number, now: number): Report {
  const asked: Asked = { ...of, by: 'network', counted: 'impressions' }
  const { from, to, age } = of
  const mine = facts.filter((f) => isAsked(f, asked))
  const here = mine.filter((f) => f.at >= from && f.at < to)
  const before = mine.filter((f) => f.at >= from - (to - from) && f.at < from)
  const sumOf = (posts: readonly Fact[], measure: Measure): { sum: number; posts: number } => {
    const counts = posts.flatMap((f) => {
      const read = readAt(f, age, now)
      return typeof read === 'string' ? [] : (read[measure] ?? [])
    })
    return { sum: counts.reduce((a, b) => a + b, 0), posts: counts.length }
  }
  const step = to - from > LONG * DAY ? 28 * DAY : 7 * DAY
  const steps = Math.ceil((to - from) / step)
  const weeks = Array.from({ length: steps }, (_, i): Week => {
    // Steps are whole from the end on; the first may be shorter.
    const [begins, ends] = [Math.max(from, to - (steps - i) * step), to - (steps - i - 1) * step]
    const posts = here.filter((f) => f.at >= begins && f.at < ends)
    const { sum, posts: read } = sumOf(posts, 'impressions')
    return { from: begins, to: ends, posts: posts.length, sum, read }
  })
  const counted = MEASURES.filter((m) =>
    m === 'link clicks' ? sumOf(here, m).posts > 0 : here.some((f) => mayCount(f.network, m)),
  )
  return {
    answer: answerOf(facts, asked, now),
    out: here.length,
    networks: new Set(here.map((f) => f.network)).size,
    totals: counted.map((measure) => ({
      measure,
      ...sumOf(here, measure),
      before: sumOf(before, measure),
    })),
    weeks,
    best: rankedOf(facts, asked, now)
      .filter((r) => r.times > 1)
      .slice(0, best),
    effects: toldApart(facts, asked, now).effects.filter((e) => e.named.length > 0),
  }
}
