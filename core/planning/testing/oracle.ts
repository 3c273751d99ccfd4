import { bareWords } from '../../text'
import { isQuiet, openingsOn } from '../openings'
import { priceOf } from '../plan'
import type { Plan, Placement } from '../rules'
import { addDays, daysBetween, mondayOf, toWall } from '../zone'

const DAY = 86_400_000

/**
 * Every hard rule that a plan breaks, in words; written anew from the rules' text and sharing
 * nothing with the planner but the clock and the slots' openings.
 */
export function brokenRules(input: Plan, placements: readonly Pick<Placement, 'id' | 'at'>[]): string[] {
  const accounts = new Map(input.accounts.map((a) => [a.id, a]))
  const at = new Map(placements.map((p) => [p.id, p.at]))
  const placed = input.posts.flatMap((post) => {
    const moment = at.get(post.id)
    const account = accounts.get(post.account)
    if (!moment || !account) return []
    const ms = Date.parse(moment)
    return [{ post, account, ms, date: toWall(ms, account.zone).date }]
  })
  const broken: string[] = []
  for (const x of placed) {
    const say = (rule: string): void => void broken.push(`${x.post.id}: ${rule}`)
    const mine = placed.filter((y) => y.account === x.account && y !== x)
    if (x.post.pinnedAt) {
      if (Date.parse(x.post.pinnedAt) !== x.ms) say('a pinned post moved')
      continue
    }
    if (x.ms < Date.parse(input.now)) say('past')
    if (isQuiet(x.date, x.account.quiet)) say('quiet day')
    const opening = narrowest(openingsOn(x.date, x.account), x.ms)
    if (!opening) say('no slot')
    else if (mine.some((y) => same(opening, narrowest(openingsOn(y.date, y.account), y.ms)))) say('taken')
    const first = x.post.earliest
    if (first && (first.length === 10 ? x.date < first : x.ms < Date.parse(first)))
      say('before its first day')
    const last = x.post.latest
    if (last && (last.length === 10 ? x.date > last : x.ms > Date.parse(last))) say('after its last day')
    const sameDay = mine.filter((y) => y.date === x.date)
    if (sameDay.length + 1 > x.account.maxPerDay) say('day full')
    if (mine.filter((y) => mondayOf(y.date) === mondayOf(x.date)).length + 1 > x.account.maxPerWeek)
      say('week full')
    const limit = input.limits.find((l) => l.id === x.post.pipeline)
    const ofPipeline = placed.filter((y) => limit && y.post.pipeline === limit.id && y !== x)
    if (ofPipeline.filter((y) => y.date === x.date).length + 1 > (limit?.aDay ?? Infinity))
      say('pipeline day full')
    if (
      ofPipeline.filter((y) => mondayOf(y.date) === mondayOf(x.date)).length + 1 >
      (limit?.aWeek ?? Infinity)
    )
      say('pipeline week full')
    if (x.post.piece && sameDay.some((y) => y.post.piece === x.post.piece)) say('same piece')
    if (mine.some((y) => Math.abs(y.ms - x.ms) < Math.max(1, x.account.gapMinutes * 60_000))) say('gap')
    const { warmUp } = x.account
    if (warmUp) {
      const age = daysBetween(toWall(Date.parse(warmUp.since), x.account.zone).date, x.date)
      const step = warmUp.steps.find((s) => age < s.days)
      if (step && sameDay.length + 1 > step.postsPerDay) say('warming up')
    }
    for (const y of placed) {
      if (y.account === x.account) continue
      if (
        y.post.beat &&
        y.post.beat === x.post.beat &&
        Math.floor(y.ms / 60_000) === Math.floor(x.ms / 60_000)
      )
        say('same minute')
      if (input.siblingDays === 0 || y.account.network !== x.account.network) continue
      const words = bareWords(x.post.text ?? '')
      if (words && words === bareWords(y.post.text ?? '') && Math.abs(y.ms - x.ms) <= input.siblingDays * DAY)
        say('same words')
    }
  }
  return broken
}

interface Span {
  from: number
  to: number
}

/** The opening that a moment takes up: of those it lies in the narrowest, so that a time within a window is a slot of its own. */
function narrowest(openings: readonly Span[], ms: number): Span | undefined {
  return openings
    .filter((o) => ms >= o.from && ms <= o.to)
    .reduce<Span | undefined>(
      (best, o) => (best && best.to - best.from <= o.to - o.from ? best : o),
      undefined,
    )
}

function same(a: Span, b: Span | undefined): boolean {
  return b !== undefined && a.from === b.from && a.to === b.to
}

/** The fewest and least urgent posts without a place, and among those plans the least price: every combination is tried. */
export function bestOf(input: Plan, firstDay: string, days: number): { price: number; unplaced: number } {
  const choices = input.posts.map((post) => {
    if (post.pinnedAt) return [post.pinnedAt]
    const account = input.accounts.find((a) => a.id === post.account)
    const moments = Array.from({ length: days }, (_, d) => addDays(firstDay, d)).flatMap((date) =>
      account ? openingsOn(date, account).map((o) => o.drawn) : [],
    )
    return [...moments.map((ms) => new Date(ms).toISOString()), null]
  })
  let best = { price: Infinity, unplaced: Infinity }
  const chosen: { id: string; at: string | null }[] = []
  const go = (index: number, unplaced: number): void => {
    if (unplaced > best.unplaced) return
    if (index === input.posts.length) {
      const { price } = priceOf(input, chosen)
      if (unplaced < best.unplaced || price < best.price) best = { price, unplaced }
      return
    }
    for (const at of choices[index] ?? []) {
      chosen.push({ id: input.posts[index]?.id ?? '', at })
      if (brokenRules(input, chosen).length === 0) {
        const priority = input.posts[index]?.priority ?? 0
        const soFar = unplaced + (at ? 0 : priority >= 0 ? 1 + priority : 1 / (1 - priority))
        if (soFar < best.unplaced || (soFar === best.unplaced && priceOf(input, chosen).price < best.price))
          go(index + 1, soFar)
      }
      chosen.pop()
    }
  }
  go(0, 0)
  return best
}
