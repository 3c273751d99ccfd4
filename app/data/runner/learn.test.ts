import { beforeEach, expect, it, vi } from 'vitest'
import { emptyDatabase } from '../testing/browser'
import { aBrand, aPost, aWording, anAccount } from '../../../core/model/samples'
import type { Angle, Post } from '../../../core/model'
import { saveBrand } from '../actions/brands'
import { announce, commit, must, patch, put } from '../store'
import { undo } from '../undo'
import { learnSome } from './learn'

vi.mock('../../workers', async () => (await import('../testing/workers')).inProcess())

const DAY = 86_400_000
/** A post of so many days ago that so many saw. */
const seen = (n: number, angle: Angle, impressions: number): ReturnType<typeof put>[] => {
  const publishedAt = new Date(Date.now() - (10 + n) * DAY).toISOString()
  const post: Post = aPost({
    id: `post ${n}`,
    account: 'one',
    network: 'murmur',
    state: 'published',
    publishedAt,
    passage: null,
    wording: aWording({
      angle,
      text: 'A lathe wants oil on the first day of every month, and a cover for the rest.',
    }),
  })
  const measures = { impressions }
  return [
    put('posts', post),
    put('readings', {
      id: `reading ${n}`,
      brand: 'brand',
      post: post.id,
      generation: post.generation,
      age: '3 d',
      account: 'one',
      takenAt: publishedAt,
      reason: '',
      measures,
    }),
  ]
}
const ANGLES = ['question', 'story', 'lesson', 'how-to', 'contrast', 'number'] as const
/** Ninety posts in six angles, of which those that ask are seen so many times as often; with a little of chance besides. */
const posts = (times: number) =>
  Array.from({ length: 90 }, (_, n) => {
    const angle = ANGLES[(n * 5) % 6] ?? 'story'
    return seen(n, angle, Math.round((angle === 'question' ? times : 1) * (100 + ((n * 37) % 23))))
  }).flat()

beforeEach(async () => {
  await emptyDatabase()
  // Readings of the same moments take the place of those of the test before.
  announce(['readings'])
  await commit('machine', [
    put('brands', aBrand({ zone: 'UTC' })),
    put('accounts', anAccount({ id: 'one', network: 'murmur', zone: 'UTC' })),
  ])
})

it('learns once a week from the results what earned more for certain', async () => {
  await commit('machine', posts(2))
  await learnSome()
  const { learned } = await must('brands', 'brand')
  const of = learned?.leanings.map((l) => [JSON.stringify(l.of), l.times.at > 1])
  expect(of).toEqual([['{"angle":"question"}', true]])
  await commit('machine', posts(0.5))
  await learnSome()
  expect((await must('brands', 'brand')).learned).toEqual(learned)
  vi.useFakeTimers({ now: Date.now() + 8 * DAY, toFake: ['Date'] })
  await learnSome()
  vi.useRealTimers()
  const after = (await must('brands', 'brand')).learned?.leanings.map((l) => [
    JSON.stringify(l.of),
    l.times.at > 1,
  ])
  expect(after).toEqual([['{"angle":"question"}', false]])
})

it('learns nothing from posts that earned alike, nor from a few', async () => {
  await commit('machine', posts(1))
  await learnSome()
  expect((await must('brands', 'brand')).learned?.leanings).toEqual([])
  await emptyDatabase()
  await commit('machine', [put('brands', aBrand({ zone: 'UTC' })), ...posts(2).slice(0, 38)])
  await learnSome()
  expect((await must('brands', 'brand')).learned).toBeUndefined()
})

it('stands in the way of no undo, and neither a change of the brand nor its undoing takes it away', async () => {
  await commit('machine', posts(2))
  const before = await must('brands', 'brand')
  await saveBrand(before, { ...before, name: 'Another name' })
  await learnSome()
  const { learned } = await must('brands', 'brand')
  expect(learned?.leanings).toHaveLength(1)
  expect(await undo('brand')).toBe('Change Another name')
  expect(await must('brands', 'brand')).toEqual({ ...before, learned })
  // Whoever saves may have read the brand before it learned.
  await saveBrand(before, { ...before, name: 'A third name' })
  expect(await must('brands', 'brand')).toMatchObject({ name: 'A third name', learned })
  // What a person changed meanwhile still stands in the way.
  await commit('machine', [patch('brands', 'brand', (b) => ({ ...b, zone: 'Europe/Dublin' }))])
  await expect(undo('brand')).rejects.toThrow('cannot be undone')
})
