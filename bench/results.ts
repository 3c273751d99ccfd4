import { anAccount, aPost, aWording } from '../core/model/samples'
import { AGES, type Age, type Post, type Reading } from '../core/model'
import { NETWORKS } from '../core/networks'
import { seededRandom } from '../core/planning'
import { factsOf, resultsOf, toldApart, type Asked } from '../core/results'

const DAY = 86_400_000
const NOW = Date.parse('2026-11-30T12:00:00Z')
const POSTS = 50_000

/** Fifty thousand posts of two years on eighteen accounts, each with what was read of it at every age that it has. */
export function manyResults(): Record<'know' | 'ask' | 'tellApart', () => unknown> {
  const random = seededRandom(5)
  const accounts = NETWORKS.flatMap((n) =>
    [1, 2].map((i) => anAccount({ id: `${n.id}-${i}`, network: n.id })),
  )
  const posts: Post[] = []
  const readings: Pick<Reading, 'post' | 'generation' | 'age' | 'measures'>[] = []
  for (let i = 0; i < POSTS; i++) {
    const account = accounts[Math.floor(random() * accounts.length)]
    if (!account) continue
    const at = NOW - random() * 730 * DAY
    const id = `p${i}`
    const question = random() < 0.3
    posts.push(
      aPost({
        id,
        account: account.id,
        network: account.network,
        passage: null,
        piece: `piece ${i % 300}`,
        state: 'published',
        publishedAt: new Date(at).toISOString(),
        wording: aWording({ text: question ? 'Why does oak bend?' : 'Oak bends where it is warm.' }),
      }),
    )
    const impressions = Math.round(1000 * Math.exp(0.3 * (random() - 0.5)) * (question ? 1.1 : 1))
    for (const [age, after] of Object.entries(AGES) as [Age, number][])
      if (at + after < NOW)
        readings.push({
          post: id,
          generation: 1,
          age,
          measures: { impressions, reactions: Math.round(impressions * 0.03) },
        })
  }
  const known = factsOf(posts, readings, accounts, [])
  const asked: Asked = {
    from: NOW - 91 * DAY,
    to: NOW,
    by: 'opening',
    counted: 'impressions',
    age: '7 d',
    network: null,
    account: null,
    pipeline: null,
  }
  return {
    know: () => factsOf(posts, readings, accounts, []),
    ask: () => resultsOf(known, asked, NOW),
    tellApart: () => toldApart(known, { ...asked, network: 'murmur' }, NOW),
  }
}
