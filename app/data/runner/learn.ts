import { toWall } from '../../../core/planning'
import { learnedFrom } from '../results'
import { clockNow } from '../clock'
import { all, commit, patch } from '../store'

const DAY = 86_400_000
/** So many days what was learned stands before the results are looked at again. */
const STANDS = 7
/** Fewer published posts of a brand tell nothing. */
const FEWEST = 20

/** Learns once a week from the results of each brand what its captions are to lean to. */
export async function learnSome(): Promise<void> {
  const now = clockNow()
  for (const { id, zone, endedAt, learned } of await all('brands')) {
    if (endedAt !== null || (learned && now - Date.parse(learned.at) < STANDS * DAY)) continue
    const out = (await all('posts', 'brand', id)).filter((p) => p.state === 'published')
    if (out.length < FEWEST) continue
    const leanings = await learnedFrom(id, learned?.leanings ?? [], toWall(now, zone).date)
    const at = new Date(now).toISOString()
    await commit('machine', [patch('brands', id, (b) => ({ ...b, learned: { at, leanings } }))])
  }
}
