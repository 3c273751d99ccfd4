import fc from 'fast-check'
import { beforeEach, describe, expect, it } from 'vitest'
import { emptyDatabase } from './testing/browser'
import { aPost } from '../../core/model/samples'
import type { Post } from '../../core/model'
import { database } from './database'
import { forget, keepUp, keptRows } from './kept'
import { all, announce, commit, patch, put, remove, shared, type Write } from './store'

const stored = async (): Promise<Post[]> => (await database()).getAll('posts')
const post = (id: string, change: Partial<Post> = {}): Write => put('posts', aPost({ id, ...change }))

beforeEach(emptyDatabase)

describe('posts that are kept in memory', () => {
  it('are what the database holds, in its order, whatever is written', async () => {
    const step = fc.record({
      id: fc.constantFrom('a', 'B', 'b', 'ä', 'z1', 'z10', 'z2'),
      what: fc.constantFrom('put', 'patch', 'remove', 'forget'),
      brand: fc.constantFrom('b1', 'b2'),
      asked: fc.subarray(['whole', 'brand', 'drip'] as const),
    })
    const asking = {
      whole: async () => expect(await all('posts')).toEqual(await stored()),
      brand: async () =>
        expect(await all('posts', 'brand', 'b2')).toEqual((await stored()).filter((p) => p.brand === 'b2')),
      drip: async () =>
        expect(await all('posts', 'drip', 'b2')).toEqual((await stored()).filter((p) => p.drip === 'b2')),
    }
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 12 }), async (steps) => {
        await emptyDatabase()
        for (const { id, what, brand, asked } of steps) {
          const of = { brand, drip: brand }
          if (what === 'forget') announce(['posts'])
          else if (what === 'put') await commit('machine', [post(id, of)])
          else if (what === 'remove') await commit('machine', [remove('posts', id)])
          else await commit('machine', [patch('posts', id, (p) => ({ ...p, ...of }))])
          await Promise.all(asked.map((a) => asking[a]()))
        }
        for (const ask of Object.values(asking)) await ask()
      }),
      { numRuns: 40 },
    )
  })

  it('of a brand are the same list until one of them is written, and the same records as in the whole', async () => {
    await commit('machine', [post('a', { brand: 'b1' }), post('b', { brand: 'b2' })])
    const mine = await shared('posts', 'brand', 'b1')
    await commit('machine', [patch('posts', 'b', (p) => ({ ...p, beat: 3 }))])
    expect(await shared('posts', 'brand', 'b1')).toBe(mine)
    // The whole is read after the part, and the other part picked out of the whole.
    const whole = await all('posts')
    expect(whole[0]).toBe(mine[0])
    expect((await shared('posts', 'brand', 'b2'))[0]).toBe(whole[1])
    await commit('machine', [patch('posts', 'b', (p) => ({ ...p, brand: 'b1' }))])
    const both = await shared('posts', 'brand', 'b1')
    expect(both.map((p) => p.id)).toEqual(['a', 'b'])
    expect(both[0]).toBe(mine[0])
    expect(await shared('posts', 'brand', 'b2')).toEqual([])
    expect(() => (both as Post[]).reverse()).toThrow()
  })

  it('of a brand and of all that are read at the same time are the same records', async () => {
    await commit('machine', [post('a', { brand: 'b1' })])
    announce(['posts'])
    const [part, whole] = await Promise.all([shared('posts', 'brand', 'b1'), shared('posts')])
    const later = await shared('posts')
    expect((await shared('posts', 'brand', 'b1'))[0]).toBe(later[0])
    expect(part).toEqual(whole)
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

  it('have what was written while they were being read', async () => {
    let come: (rows: Post[]) => void = () => undefined
    const reading = keptRows('posts', null, () => new Promise<Post[]>((resolve) => (come = resolve)))
    keepUp('posts', 'b', aPost({ id: 'b', beat: 3 }))
    keepUp('posts', 'c', null)
    come([aPost({ id: 'a' }), aPost({ id: 'b' }), aPost({ id: 'c' })])
    expect((await reading).map((p) => [p.id, p.beat])).toEqual([
      ['a', 0],
      ['b', 3],
    ])
    forget(['posts'])
  })

  it('of an action that failed stay as they were', async () => {
    await commit('machine', [post('a')])
    await expect(commit('machine', [post('b'), post('c', { beat: -1 })])).rejects.toThrow()
    expect((await all('posts')).map((p) => p.id)).toEqual(['a'])
  })
})
