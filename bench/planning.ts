import { plan, planChecked, PlanInput } from '../core/planning'
import { seededRandom } from '../core/planning'
import type { Ratio } from './intake'

const NOW = '2026-11-24T08:00:00Z'
const DAY = 86_400_000
/** Two years of posts, 500 an account, so five a week in ten slots. */
const PER_ACCOUNT = 500
const SIZES = [1000, 2000, 5000, 10_000, 20_000, 50_000]

/** Posts wished for at random over two years, with pictures, passages, pipelines and beats of their own. */
export function twoYears(count: number): PlanInput {
  const random = seededRandom(7)
  const upTo = (n: number): number => Math.floor(random() * n)
  const accounts = Math.ceil(count / PER_ACCOUNT)
  return {
    now: NOW,
    accounts: Array.from({ length: accounts }, (_, i) => ({
      id: `account-${i}`,
      network: `network-${i % 6}`,
      zone: ['Europe/Lisbon', 'America/New_York', 'Europe/Dublin'][i % 3] ?? 'UTC',
      slots: [1, 2, 3, 4, 5].flatMap((weekday) => [
        { weekday, at: '09:00' },
        { weekday, from: '16:00', to: '18:00' },
      ]),
      quiet: [{ yearly: '12-25' }],
      maxPerDay: 2,
      maxPerWeek: 9,
      gapMinutes: 120,
    })),
    posts: Array.from({ length: count }, (_, i) => ({
      id: `post-${i}`,
      account: `account-${i % accounts}`,
      piece: `piece-${upTo(count / 60)}`,
      picture: `picture-${upTo(count / 20)}`,
      passage: `passage-${upTo(count / 8)}`,
      pipeline: `pipeline-${upTo(5)}`,
      beat: `beat-${Math.floor(i / 5)}`,
      text: `Words of post ${i} as they would stand in a caption of some length. https://example.org/a #tag`,
      wished: new Date(Date.parse('2026-11-25T12:00:00Z') + upTo(728) * DAY).toISOString(),
    })),
  }
}

const timed = (work: () => unknown): number => {
  const started = performance.now()
  work()
  return performance.now() - started
}
const least = (rounds: number, work: () => unknown): number =>
  Math.min(...Array.from({ length: rounds }, () => timed(work)))

/** How the planner's time grows with the posts, against n log n, and what one change costs. */
export function planningCurve(): Ratio[] {
  plan(twoYears(2000))
  let unit = 0
  const rows = SIZES.map((count): Ratio => {
    const input = PlanInput.parse(twoYears(count))
    const time = least(count > 10_000 ? 1 : 3, () => planChecked(input))
    const share = time / (count * Math.log2(count))
    if (count === SIZES[0]) unit = share
    return {
      what: `plan ${count.toLocaleString('en')} posts of two years for ${input.accounts.length} accounts`,
      time: `${time.toFixed(0)} ms`,
      against: 'n log n, 1 at 1,000 posts',
      ratio: (share / unit).toFixed(2),
      bound: count === 10_000 ? '< 1 s' : 'no more than about 1',
    }
  })
  const input = PlanInput.parse(twoYears(10_000))
  const placed = planChecked(input).posts
  const standing = input.posts.map((p, i) => ({ ...p, at: placed[i]?.at ?? null }))
  const row = (what: string, time: number, bound: string): Ratio => ({
    what: `10,000 posts in place: ${what}`,
    time: `${time.toFixed(0)} ms`,
    against: '–',
    ratio: '–',
    bound,
  })
  // As the app asks: what the change does not touch is given as fixed.
  const [first] = input.accounts
  const touched = (p: { account: string }): boolean => p.account === first?.id
  const fixed = standing.map((p) => (touched(p) ? p : { ...p, pinnedAt: p.at }))
  const quiet = input.accounts.map((a) => (a === first ? { ...a, quiet: [{ weekday: 3 }] } : a))
  const added = { ...(fixed[0] as (typeof fixed)[number]), id: 'one more', at: null }
  return [
    ...rows,
    row(
      'one post more',
      least(5, () => planChecked({ ...input, posts: [...fixed, added] })),
      '< 100 ms',
    ),
    row(
      'an account’s Wednesdays quiet',
      least(5, () => planChecked({ ...input, accounts: quiet, posts: fixed })),
      '–',
    ),
    row(
      'all looked through again, none moves',
      least(5, () => planChecked({ ...input, posts: standing })),
      '–',
    ),
  ]
}
