import { describe, expect, it } from 'vitest'
import { audienceOf, measuresOf, type Trait } from '../../world/audience'
import { aWorldPost } from '../../world/testing/samples'
import { anAccount, aPost, aWording } from '../model/samples'
import type { Account, Post } from '../model'
import { network } from '../networks'
import { seededRandom } from '../planning'
import { factsOf } from '.'
import { effectsOf, FEWEST } from './effects'

const DAY = 86_400_000
const START = Date.parse('2026-05-01T00:00:00Z')
const WORDS = 'oak larch pitch seam frame plank keel tide slip mast rope wool iron brush tar'.split(' ')

/** Six months of posts of some accounts of a network, each with what its audience, which nothing here knows, made of it. */
function sixMonths(seed: string, networkId: string, accounts: number, perWeek: number) {
  const random = seededRandom([...seed].reduce((h, c) => h * 31 + c.charCodeAt(0), 7) % 1e6)
  const profile = network(networkId)
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)] as T
  const some = (share: number): boolean => random() < share
  const owners: Account[] = []
  const posts: Post[] = []
  const counts = new Map<string, number>()
  const likes: Record<Trait, number>[] = []
  for (let a = 0; a < accounts; a++) {
    const id = `${seed}-${a}`
    const owner = anAccount({ id, network: networkId, zone: 'UTC' })
    const audience = audienceOf(seed, { ...owner, about: '', targets: [] } as never)
    owners.push(owner)
    likes.push({ ...audience.likes })
    const out = []
    for (let at = START; at < START + 182 * DAY; at += (7 / perWeek) * DAY * (0.5 + random())) {
      const hour = 6 + Math.floor(random() * 17)
      const moment = Math.floor(at / DAY) * DAY + hour * 3_600_000
      const opening = pick(['?', '9', '“', '.', '.', '.'])
      const say = (): string => Array.from({ length: 6 }, () => pick(WORDS)).join(' ')
      const first = `${opening === '“' ? '“' : ''}${say()}${opening === '9' ? ' 9' : ''}${opening === '?' ? '?' : '.'}`
      const listed = some(0.25) ? '\n- a\n- b\n- c' : ''
      const { least, most } = profile.brief.length
      const long = some(0.4)
      let text = first
      while (text.length < (long ? most - 20 : (least + most) / 3)) text += ` ${say()}.`
      text += listed
      const shows = pick(['', 'picture', 'picture', 'clip'])
      const post = `${id}-${out.length}`
      const made = aWorldPost(post, {
        network: networkId,
        account: id,
        at: moment,
        text,
        media: shows ? [{ id: `${shows} ${post}`, alt: '' }] : [],
      })
      counts.set(
        post,
        measuresOf(audience, profile, made, out.slice(-3), (m) => m.startsWith('clip'), moment + 7 * DAY)
          .impressions ?? 0,
      )
      out.push(made)
      posts.push(
        aPost({
          id: post,
          account: id,
          network: networkId,
          passage: null,
          state: 'published',
          publishedAt: new Date(moment).toISOString(),
          wording: aWording({ text, hashtags: [], tags: [] }),
          media: shows
            ? [
                {
                  source:
                    shows === 'clip'
                      ? { from: 'film', url: 'https://a.example/f', part: null }
                      : { from: 'address', url: 'https://a.example/p' },
                  alt: '',
                  shape: null,
                  hash: null,
                },
              ]
            : [],
        }),
      )
    }
  }
  const facts = factsOf(posts, [], owners, [])
  return {
    ...effectsOf(
      facts,
      facts.map((f) => counts.get(f.post) ?? 0),
    ),
    /** What all accounts' audiences like on average, as a ratio. */
    true: (trait: Trait): number =>
      Math.exp(likes.reduce((sum, l) => sum + Math.log(l[trait]), 0) / likes.length),
  }
}

const TRAITS = [
  ['opens with a question', 'question'],
  ['opens with a number', 'number'],
  ['opens with a quotation', 'quotation'],
  ['is a list', 'list'],
] as const

describe('effects told apart', () => {
  it('are on the right side 95 times in 100 where they are named, and two in three of those over 10 % are', () => {
    let [named, right, real, found] = [0, 0, 0, 0]
    for (let round = 0; round < 24; round++) {
      const on = ['murmur', 'guildhall', 'hearthside'][round % 3] ?? 'murmur'
      const { effects, true: likes } = sixMonths(`audience ${round}`, on, 2, 10)
      // All of them have one format, which tells nothing apart.
      expect(effects.filter((e) => e.factor === 'format')).toEqual([])
      for (const [level, trait] of TRAITS) {
        const effect = effects.find((e) => e.factor === 'trait' && e.level === level)
        const truth = likes(trait)
        if (Math.abs(Math.log(truth)) > Math.log(1.1)) {
          real++
          if (effect?.named) found++
        }
        if (effect?.named) {
          named++
          if (Math.sign(Math.log(truth)) === Math.sign(Math.log(effect.times.at))) right++
        }
      }
    }
    expect(named).toBeGreaterThan(40)
    expect(right / named).toBeGreaterThanOrEqual(0.95)
    expect(found / real).toBeGreaterThan(2 / 3)
  })

  it('are none where there are too few posts', () => {
    const facts = factsOf(
      Array.from({ length: FEWEST - 1 }, (_, i) =>
        aPost({ id: `p${i}`, state: 'published', publishedAt: '2026-05-01T09:00:00Z' }),
      ),
      [],
      [anAccount()],
      [],
    )
    expect(facts).toHaveLength(FEWEST - 1)
    expect(
      effectsOf(
        facts,
        facts.map(() => 100),
      ),
    ).toEqual({ effects: [], on: new Map() })
  })
})
