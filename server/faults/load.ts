import { performance } from 'node:perf_hooks'
import type { Receipt } from '../../core/model'
import { seededRandom } from '../../core/planning'
import { CountingNetwork } from './network'
import { Yard } from './yard'

/** What is at stake in each of the fault tests, as the network and the receipts have it. */
export interface Sum {
  posts: number
  /** How many of them the network took, and how often it took another than the first of one. */
  taken: number
  doubled: number
  /** How often one was taken after one of its account that is due later. */
  inversions: number
  outcomes: Record<string, number>
  /** Receipts that say other than what is public. */
  untrue: string[]
}

/** Adds up what came of posts. */
export function sumOf(yard: Yard, posts: number, receipts: readonly Receipt[]): Sum {
  const { taken } = yard.network
  const postOf = (key: string): string => key.split(':')[1] ?? ''
  const out = new Set(taken.map((t) => postOf(t.key)))
  const outcomes: Record<string, number> = {}
  for (const { outcome } of receipts) outcomes[outcome] = (outcomes[outcome] ?? 0) + 1
  return {
    posts,
    taken: out.size,
    doubled: taken.length - out.size,
    inversions: yard.inversions(),
    outcomes,
    untrue: receipts
      .filter((r) => (r.outcome === 'published') !== out.has(r.post) && r.outcome !== 'unsure')
      .map((r) => `${r.post} ${r.outcome}`),
  }
}

/** The sum where everything went out as it should. */
export function whole(posts: number): Sum {
  return { posts, taken: posts, doubled: 0, inversions: 0, outcomes: { published: posts }, untrue: [] }
}

export interface Load {
  sum: Sum
  /** Posts handed over, and published, a second of real time. */
  handedOver: number
  published: number
  troubles: Record<string, number>
  /** The largest memory of the first server, in MB, where the system tells it. */
  memory: number | null
}

/**
 * Lets posts be due within ten minutes for many accounts, a share of them in trouble. `published` is told up to the moment
 * at which only those in trouble are left, which wait for minutes.
 */
export async function load(options: {
  folder: string
  accounts: number
  posts: number
  trouble: number
  databaseUrl?: string
  servers?: number
}): Promise<Load> {
  const { accounts, posts, trouble } = options
  const network = new CountingNetwork(trouble, seededRandom(posts))
  const yard = new Yard({ ...options, accounts, network })
  try {
    await yard.open()
    for (let n = 1; n < (options.servers ?? 1); n++) await yard.start()
    const due = (await yard.now()) + 3_600_000
    let began = performance.now()
    await yard.handOver(posts, due, 600_000)
    const handedOver = (posts / (performance.now() - began)) * 1000
    began = performance.now()
    void yard
      .call('POST', '/api/clock/advance', { to: new Date(due + 600_000).toISOString() })
      .catch(() => null)
    let published = 0
    for (let quiet = 0, before = 0; quiet < 10 && network.taken.length < posts;) {
      await new Promise((resolve) => setTimeout(resolve, 100))
      const { length } = network.taken
      if (length > before) published = (length / (performance.now() - began)) * 1000
      quiet = length > before || length === 0 ? 0 : quiet + 1
      before = length
    }
    const receipts = await yard.receipts(posts)
    return {
      sum: sumOf(yard, posts, receipts),
      handedOver,
      published,
      troubles: network.troubles,
      memory: yard.memory(),
    }
  } finally {
    await yard.close()
  }
}
