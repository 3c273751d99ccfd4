import { useMemo } from 'react'
import useSWR from 'swr'
import type { Account, HourTrial, Leaning, Passage, Post, Row } from '../../core/model'
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
import { heavy } from '../workers'
import { gatherReport, type Reported } from './actions/report'
import { clockNow } from './clock'
import { numberOf, useRows } from './hooks'
import { all } from './store'

interface Known {
  posts: Post[]
  readings: Row<'readings'>[]
  accounts: Account[]
  passages: Pick<Passage, 'id' | 'kind'>[]
}

/** Which lists the worker has of each brand, or is being given. */
const sent = new Map<string, { key: string; there: Promise<void> }>()

/** Hands the worker what is known of a brand, once. */
function handOver(brand: string, { posts, readings, accounts, passages }: Known): Promise<void> {
  const key = [posts, readings, accounts, passages].map(numberOf).join(' ')
  const known = sent.get(brand)
  if (known?.key === key) return known.there
  const out = posts.filter((p) => p.state === 'published').map(slim)
  const kinds = passages.map(({ id, kind }) => ({ id, kind }))
  const there = heavy().keepFacts(brand, out, readings, accounts, kinds)
  sent.set(brand, { key, there })
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
  const readings = useRows('readings', 'brand', brand)
  const accounts = useRows('accounts', 'brand', brand)
  const passages = useRows('passages', 'brand', brand)
  if (!posts || !readings || !accounts || !passages) return null
  return { posts, readings, accounts, passages }
}

async function handOverBrand(brand: string): Promise<void> {
  const [posts, readings, accounts, passages] = await Promise.all([
    all('posts', 'brand', brand),
    all('readings', 'brand', brand),
    all('accounts', 'brand', brand),
    all('passages', 'brand', brand),
  ])
  await handOver(brand, { posts, readings, accounts, passages })
}

/** Better times for an account's slots, learned from what its brand's posts earned (`bestTimes`). */
export async function learnedTimes(account: Account): Promise<BestTimes> {
  await handOverBrand(account.brand)
  const { id, network, slots, gapMinutes } = account
  return heavy().bestTimes(account.brand, { id, network, slots, gapMinutes }, clockNow())
}

/** The trials of other hours that an account makes with a share of its slots in the week from a Monday on (`hourTrialsOf`). */
export async function drawnTrials(account: Account, share: number, monday: string): Promise<HourTrial[]> {
  await handOverBrand(account.brand)
  const { id, network, slots, gapMinutes } = account
  return heavy().hourTrials(account.brand, { id, network, slots, gapMinutes, share }, monday, clockNow())
}

/** How many times as much as is usual for their accounts the posts of each passage of a brand earned, by its id (`worthOf`). */
export async function passageWorth(brand: string): Promise<Map<string, number>> {
  await handOverBrand(brand)
  return heavy().worth(brand, clockNow())
}

/** What a brand's captions are to lean to, by its results (`leaningsOf`). */
export async function learnedFrom(
  brand: string,
  before: readonly Leaning[],
  today: string,
): Promise<Leaning[]> {
  await handOverBrand(brand)
  return heavy().learn(brand, before, today, clockNow())
}

/** What the worker says of a brand's published posts, once it has them; undefined while that is worked out. */
function useTold<T>(brand: string, question: unknown, ask: () => Promise<T>): T | undefined {
  const have = useKnown(brand)
  return useSWR(
    have && ['results', brand, Object.values(have).map(numberOf).join(' '), JSON.stringify(question)],
    async () => {
      if (have) await handOver(brand, have)
      return ask()
    },
    { revalidateOnFocus: false, keepPreviousData: true },
  ).data
}

/** What a brand's published posts say, as it is asked; undefined while that is worked out. */
export function useResults(brand: string, asked: Asked): Results | undefined {
  return useTold(brand, asked, () => heavy().results(brand, asked, clockNow())) ?? undefined
}

/** What was told apart of a brand's posts, as it is asked, and what holds some of them back; undefined while that is worked out. */
export function useEffects(
  brand: string,
  asked: Asked,
  posts: readonly string[],
): Awaited<ReturnType<ReturnType<typeof heavy>['effects']>> | undefined {
  return useTold(brand, [asked, posts], () => heavy().effects(brand, asked, posts, clockNow()))
}

/** What a report tells of a brand's posts, with so many of the best (`gatherReport`); undefined until it is gathered. */
export function useReport(brand: string, asked: AskedReport, best: number): Reported | undefined {
  return useTold(brand, ['report', asked, best], () => gatherReport(brand, asked, best))
}

/** How often planned posts will have been seen after a week (`expectedOf`); null where too little is known, and until it is worked out. */
export function useExpected(brand: string, planned: readonly Planned[]): Expected | null {
  return (
    useTold(brand, ['expected', planned], () => heavy().expected(brand, planned, '7 d', clockNow())) ?? null
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
  return useTold(brand, 'tiring', () => heavy().tiring(brand, clockNow())) ?? NOTHING
}
const NOTHING: readonly Tiring[] = []

/** How many times as much the mean post of the last 28 days earned as that of the 28 before; null where nobody can say. */
export function useLineChange(brand: string): Estimate | null {
  return useTold(brand, 'line change', () => heavy().lineChange(brand, clockNow())) ?? null
}
