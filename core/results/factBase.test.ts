import fc from 'fast-check'
import { expect, it } from 'vitest'
import { anAccount, aPost } from '../model/samples'
import { AGES, type Age, type Post } from '../model'
import { FactBase, type KnownReading } from './factBase'
import { factsOf } from './facts'

const around = {
  accounts: [anAccount({ id: 'a', zone: 'Asia/Tokyo' })],
  passages: [{ id: 'p', kind: 'steps' as const }],
}
const post = (id: number, generation: number, hour: number, state: Post['state']): Post =>
  aPost({
    id: `post ${id}`,
    account: 'a',
    passage: id % 2 ? 'p' : null,
    generation,
    state,
    publishedAt: new Date(Date.UTC(2026, 0, 1) + hour * 3_600_000).toISOString(),
  })

/** What happens: a post is written or goes, or it is read. */
const step = fc.oneof(
  fc.record({
    do: fc.constant('write' as const),
    id: fc.nat(5),
    generation: fc.integer({ min: 1, max: 2 }),
    hour: fc.nat(5000),
    state: fc.constantFrom<Post['state'][]>('published', 'approved'),
  }),
  fc.record({ do: fc.constant('go' as const), id: fc.nat(5) }),
  fc.record({
    do: fc.constant('read' as const),
    id: fc.nat(5),
    generation: fc.integer({ min: 1, max: 2 }),
    age: fc.constantFrom(...(Object.keys(AGES) as Age[])),
    seen: fc.option(fc.nat(900)),
  }),
  fc.record({ do: fc.constant('read anew' as const) }),
)

it('knows after every change what would be told of all rows at once', () => {
  fc.assert(
    fc.property(fc.array(step, { maxLength: 40 }), (steps) => {
      const base = new FactBase()
      base.posts([], [], around)
      const posts = new Map<string, Post>()
      const readings = new Map<string, KnownReading>()
      for (const s of steps) {
        if (s.do === 'write') {
          const one = post(s.id, s.generation, s.hour, s.state)
          posts.set(one.id, one)
          base.posts([one], [], around)
        } else if (s.do === 'go') {
          posts.delete(`post ${s.id}`)
          base.posts([], [`post ${s.id}`], around)
        } else if (s.do === 'read') {
          const { generation, age } = s
          const one = {
            post: `post ${s.id}`,
            generation,
            age,
            measures: s.seen === null ? null : { impressions: s.seen },
          }
          readings.set(`${one.post} ${generation} ${age}`, one)
          base.read([one])
        } else {
          base.forgetReadings()
          base.read([...readings.values()])
        }
        const whole = factsOf([...posts.values()], [...readings.values()], around.accounts, around.passages)
        const byPost = (a: { post: string }, b: { post: string }): number => (a.post < b.post ? -1 : 1)
        expect([...base.facts()].sort(byPost)).toEqual(whole.sort(byPost))
        const at = base.facts().map((f) => f.at)
        expect(at).toEqual(at.toSorted((a, b) => a - b))
      }
    }),
    { numRuns: 60 },
  )
})

it('takes what was kept in place of what it knows, in the facts that are there', () => {
  const kept = new FactBase()
  kept.read([{ post: 'post 1', generation: 1, age: '1 d', measures: { clicks: 3 } }])
  const base = new FactBase()
  base.posts([post(1, 1, 0, 'published')], [], around)
  base.read([{ post: 'post 1', generation: 1, age: '1 h', measures: { clicks: 1 } }])
  base.restore(kept.columns())
  expect(base.facts().map((f) => f.readings)).toEqual([{ '1 d': { clicks: 3 } }])
})
