import { useEffect, useMemo } from 'react'
import useSWR from 'swr'
import type { Account, HourTrial, Leaning, Passage, Post } from '../../core/model'
import {
  followersOf,
  type Asked,
  type AskedReport,
  type BestTimes,
  type Estimate,
  type Expected,
  type FactPost,
  type Followed,
  type Planned,
  type Results,
  type Tiring,
} from '../../core/results'
import { results } from '../workers'
import { gatherReport, type Reported } from './actions/report'
import { clockNow } from './clock'
import { numberOf, useReadings, useRows } from './hooks'
import { all, onWrite, shared } from './store'

interface Known {
  posts: readonly Post[]
  accounts: readonly Account[]
  passages: readonly Pick<Passage, 'id' | 'kind'>[]
}

/** What the worker has of a brand, or is being given: the posts as they were, by id, and what stood beside them. */
interface Sent {
  posts: ReadonlyMap<string, Post>
  around: string
  key: string
  there: Promise<void>
}
const sent = new Map<string, Sent>()

/** How often readings were written since this page began, and how often some that were there changed or went; the worker reads them itself. */
let readingsWritten = 0
let readingsChanged = 0
onWrite((tables, changed) => {
  if (tables.includes('readings')) readingsWritten++
  if (changed.includes('readings')) readingsChanged++
})

/** How often readings had changed when the worker read those of a brand last; `NEVER` where that failed. */
const followed = new Map<string, number>()
const NEVER = -1

/** Lets the worker read a brand's readings while the page reads its posts; once. */
function readAhead(brand: string): void {
  if (followed.has(brand)) return
  followed.set(brand, readingsChanged)
  results()
    .readAhead(brand)
    .catch(() => followed.set(brand, NEVER))
}

/** Hands the worker what changed of a brand since it was handed over last. Rows that did not change are the same objects. */
function handOver(brand: string, { posts, accounts, passages }: Known): Promise<void> {
  const key = [posts, accounts, passages].map(numberOf).concat(readingsWritten).join(' ')
  const before = sent.get(brand)
  if (before?.key === key) return before.there
  const beside = {
    accounts: accounts.map(({ id, zone }) => ({ id, zone })),
    passages: passages.map(({ id, kind }) => ({ id, kind })),
  }
  const around = JSON.stringify(beside)
  const out = new Map(posts.filter((p) => p.state === 'published').map((p) => [p.id, p]))
  const had = before?.around === around ? before.posts : new Map<string, Post>()
  const changed = [...out.values()].filter((p) => had.get(p.id) !== p)
  const gone = [...(before?.posts.keys() ?? [])].filter((id) => !out.has(id))
  const anew = (followed.get(brand) ?? readingsChanged) !== readingsChanged
  followed.set(brand, readingsChanged)
  const there = results().keepFacts(anew, brand, changed.map(slim), gone, beside)
  sent.set(brand, { posts: out, around, key, there })
  // What never arrived is told anew.
  there.catch(() => {
    sent.delete(brand)
    followed.set(brand, NEVER)
  })
  return there
}

function slim(post: Post): FactPost {
  const { id, account, network, piece, pipeline, passage, state, publishedAt, generation, media } = post
  const { angle, format, text, hashtags, tags } = post.wording
  return {
    id,
    account,
    network,
    piece,
    pipeline,
    passage,
    state,
    publishedAt,
    generation,
    media,
    wording: { angle, format, text, hashtags, tags },
  }
}

/** All that is known of a brand's published posts; null while that is read. */
function useKnown(brand: string): Known | null {
  const posts = useRows('posts', 'brand', brand)
  const accounts = useRows('accounts', 'brand', brand)
  const passages = useRows('passages', 'brand', brand)
  if (!posts || !accounts || !passages) return null
  return { posts, accounts, passages }
}

async function handOverBrand(brand: string): Promise<void> {
  const [posts, accounts, passages] = await Promise.all([
    shared('posts', 'brand', brand),
    all('accounts', 'brand', brand),
    all('passages', 'brand', brand),
  ])
  await handOver(brand, { posts, accounts, passages })
}

/** Better times for an account's slots, learned from what its brand's posts earned (`bestTimes`). */
export async function learnedTimes(account: Account): Promise<BestTimes> {
  await handOverBrand(account.brand)
  const { id, network, slots, gapMinutes } = account
  return results().bestTimes(account.brand, { id, network, slots, gapMinutes }, clockNow())
}

/** The trials of other hours that an account makes with a share of its slots in the week from a Monday on (`hourTrialsOf`). */
export async function drawnTrials(account: Account, share: number, monday: string): Promise<HourTrial[]> {
  await handOverBrand(account.brand)
  const { id, network, slots, gapMinutes } = account
  return results().hourTrials(account.brand, { id, network, slots, gapMinutes, share }, monday, clockNow())
}

/** How many times as much as is usual for their accounts the posts of each passage of a brand earned, by its id (`worthOf`). */
export async function passageWorth(brand: string): Promise<Map<string, number>> {
  await handOverBrand(brand)
  return results().worth(brand, clockNow())
}

/** What a brand's captions are to lean to, by its results (`leaningsOf`). */
export async function learnedFrom(
  brand: string,
  before: readonly Leaning[],
  today: string,
): Promise<Leaning[]> {
  await handOverBrand(brand)
  return results().learn(brand, before, today, clockNow())
}

/**
 * What the worker says of a brand's published posts, once it has them; what it said to the question before while another is worked
 * out, and undefined until it has said anything of this brand.
 */
function useTold<T>(brand: string, question: unknown, ask: () => Promise<T>): T | undefined {
  const have = useKnown(brand)
  const read = useReadings(brand)
  useEffect(() => readAhead(brand), [brand])
  const { data } = useSWR(
    have &&
      read !== undefined && [
        'results',
        brand,
        Object.values(have).map(numberOf).join(' '),
        read,
        JSON.stringify(question),
      ],
    async () => {
      if (have) await handOver(brand, have)
      return { brand, told: await ask() }
    },
    { revalidateOnFocus: false, keepPreviousData: true },
  )
  return data?.brand === brand ? data.told : undefined
}

/** What a brand's published posts say, the last time as they were asked before while it is worked out; undefined for the first time. */
export function useResults(brand: string, asked: Asked): Results | undefined {
  return (
    useTold(brand, asked, () => {
      const told = results().results(brand, asked, clockNow())
      figures = told.catch(() => undefined)
      return told
    }) ?? undefined
  )
}

/** The figures that were asked for last, once they are told. */
let figures: Promise<unknown> = Promise.resolve()

/**
 * Waits for the figures that are asked for at this moment: the worker answers one question after the other, what is told apart takes
 * it a second, and what is shown below is asked for first.
 */
async function afterFigures(): Promise<void> {
  await new Promise((resolve) => setTimeout(resolve))
  await figures
}

/** What was told apart of a brand's posts, as it is asked, and what holds some of them back; undefined while that is worked out. */
export function useEffects(
  brand: string,
  asked: Asked,
  posts: readonly string[],
): Awaited<ReturnType<ReturnType<typeof results>['effects']>> | undefined {
  return useTold(brand, [asked, posts], async () => {
    await afterFigures()
    return results().effects(brand, asked, posts, clockNow())
  })
}

/** What a report tells of a brand's posts, with so many of the best (`gatherReport`); undefined until one is gathered. */
export function useReport(brand: string, asked: AskedReport, best: number): Reported | undefined {
  return useTold(brand, ['report', asked, best], () => gatherReport(brand, asked, best))
}

/** How often planned posts will have been seen after a week (`expectedOf`); null where too little is known, and until it is worked out. */
export function useExpected(brand: string, planned: readonly Planned[]): Expected | null {
  return (
    useTold(brand, ['expected', planned], () => results().expected(brand, planned, '7 d', clockNow())) ?? null
  )
}

/** How many follow some accounts of a brand, as it is asked (`followersOf`); nothing until that is read. */
export function useFollowers(
  brand: string,
  accounts: readonly Account[],
  { from, to, network, account }: Pick<Asked, 'from' | 'to' | 'network' | 'account'>,
): readonly Followed[] {
  const followings = useRows('followings', 'brand', brand)
  return useMemo(
    () => followersOf(followings ?? [], accounts, { from, to, network, account }),
    [followings, accounts, from, to, network, account],
  )
}

/** What readers of a brand tire of (`tiringOf`); nothing until that is worked out. */
export function useTiring(brand: string): readonly Tiring[] {
  return useTold(brand, 'tiring', () => results().tiring(brand, clockNow())) ?? NOTHING
}
const NOTHING: readonly Tiring[] = []

/** How many times as much the mean post of the last 28 days earned as that of the 28 before; null where nobody can say. */
export function useLineChange(brand: string): Estimate | null {
  return useTold(brand, 'line change', () => results().lineChange(brand, clockNow())) ?? null
}
