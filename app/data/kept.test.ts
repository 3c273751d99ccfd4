import fc from 'fast-check'
import { beforeEach, describe, expect, it } from 'vitest'
import { emptyDatabase } from './testing/browser'
import { aPost } from '../../core/model/samples'
import type { Post } from '../../core/model'
import { database } from './database'
import { all, announce, commit, patch, put, remove, type Write } from './store'

const stored = async (): Promise<Post[]> => (await database()).getAll('posts')
const post = (id: string, change: Partial<Post> = {}): Write => put('posts', aPost({ id, ...change }))

beforeEach(emptyDatabase)

describe('posts that are kept in memory', () => {
  it('are what the database holds, in its order, whatever is written', async () => {
    const step = fc.record({
      id: fc.constantFrom('a', 'B', 'b', 'ä', 'z1', 'z10', 'z2'),
      what: fc.constantFrom('put', 'patch', 'remove'),
      drip: fc.constantFrom('d1', 'd2'),
    })
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 12 }), async (steps) => {
        await emptyDatabase()
        for (const { id, what, drip } of steps) {
          const write =
            what === 'put'
              ? post(id, { drip })
              : what === 'patch'
                ? patch('posts', id, (p) => ({ ...p, drip }))
                : remove('posts', id)
          await commit('machine', [write])
          expect(await all('posts')).toEqual(await stored())
          expect(await all('posts', 'drip', 'd2')).toEqual((await stored()).filter((p) => p.drip === 'd2'))
        }
      }),
      { numRuns: 30 },
    )
  })

  it('are the same records as long as nobody writes them', async () => {
    await commit('machine', [post('a'), post('b')])
    const [a, b] = await all('posts')
    await commit('machine', [patch('posts', 'b', (p) => ({ ...p, beat: 3 }))])
    const after = await all('posts')
    expect(after[0]).toBe(a)
    expect(after[1]).not.toBe(b)
    expect(after[1]?.beat).toBe(3)
  })

  it('are read anew where another transaction wrote them and said so', async () => {
    await commit('machine', [post('a')])
    expect(await all('posts')).toHaveLength(1)
    await (await database()).put('posts', aPost({ id: 'b' }))
    announce(['posts'])
    expect((await all('posts')).map((p) => p.id)).toEqual(['a', 'b'])
  })

  it('are not changed by who sorts or cuts the list', async () => {
    await commit('machine', [post('a'), post('b')])
    const mine = await all('posts')
    mine.reverse().pop()
    expect((await all('posts')).map((p) => p.id)).toEqual(['a', 'b'])
  })

  it('of a reading that was overtaken by a write are not kept', async () => {
    await commit('machine', [post('a')])
    announce(['posts'])
    const [early] = await Promise.all([all('posts'), commit('machine', [post('b')])])
    expect(early.length).toBeGreaterThan(0)
    expect((await all('posts')).map((p) => p.id)).toEqual(['a', 'b'])
  })

  it('of an action that failed stay as they were', async () => {
    await commit('machine', [post('a')])
    await expect(commit('machine', [post('b'), post('c', { beat: -1 })])).rejects.toThrow()
    expect((await all('posts')).map((p) => p.id)).toEqual(['a'])
  })
})
