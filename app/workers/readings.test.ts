import { expect, it, vi } from 'vitest'
import { anAccount, aPost } from '../../core/model/samples'
import { AGES, type Age } from '../../core/model'
import { FactBase } from '../../core/results'
import { database } from '../data/database'
import { commit, put, remove } from '../data/store'
import { emptyDatabase } from '../data/testing/browser'
import { followReadings, forgetAll, knownOf } from './readings'

const AT = Date.parse('2026-03-02T09:00:00Z')
const aReading = { brand: 'brand', generation: 1, account: 'account', reason: '' }
const reading = (age: Age, minutes: number, impressions: number | null) =>
  put('readings', {
    ...aReading,
    id: `post:1:${age}`,
    post: 'post',
    age,
    takenAt: new Date(AT + minutes * 60_000).toISOString(),
    measures: impressions === null ? null : { impressions },
  })

it('reads what came since the last time, also at the same moment, and all of it where something went or changed', async () => {
  await emptyDatabase()
  const post = aPost({
    id: 'post',
    account: 'account',
    state: 'published',
    publishedAt: new Date(AT).toISOString(),
  })
  expect(await followReadings('brand', true)).toBe(true)
  knownOf('brand')?.posts([post], [], { accounts: [anAccount()], passages: [] })
  const known = () => knownOf('brand')?.facts()[0]?.readings
  expect(known()).toEqual({})
  await commit('machine', [reading('1 h', 60, 5), reading('6 h', 360, null)])
  expect(await followReadings('brand', false)).toBe(true)
  expect(known()).toEqual({ '1 h': { impressions: 5 }, '6 h': null })
  expect(await followReadings('brand', false)).toBe(false)
  // Two readings that were taken in one round have the same moment.
  await commit('machine', [reading('1 d', 360, 30)])
  expect(await followReadings('brand', false)).toBe(true)
  expect(known()).toEqual({ '1 h': { impressions: 5 }, '6 h': null, '1 d': { impressions: 30 } })
  // One that is older than the latest came late, as in a bundle; and one went.
  await commit('machine', [reading('3 d', 70, 40)])
  await followReadings('brand', false)
  expect(known()?.['3 d']).toEqual({ impressions: 40 })
  await commit('machine', [remove('readings', 'post:1:1 h')])
  await followReadings('brand', false)
  expect(known()).toEqual({ '6 h': null, '1 d': { impressions: 30 }, '3 d': { impressions: 40 } })
  // A change of one that is there cannot be seen from the times: it is said.
  await commit('machine', [reading('3 d', 70, 44)])
  expect(await followReadings('brand', false)).toBe(false)
  expect(await followReadings('brand', true)).toBe(true)
  expect(known()?.['3 d']).toEqual({ impressions: 44 })
})

it('keeps brands apart, also where most readings are another one’s', async () => {
  await emptyDatabase()
  const of = (brand: string, i: number, impressions: number) =>
    put('readings', {
      id: `${brand} ${i}:1:1 h`,
      brand,
      post: `${brand} ${i}`,
      generation: 1,
      account: 'account',
      age: '1 h',
      takenAt: new Date(AT + i * 60_000).toISOString(),
      measures: { impressions },
      reason: '',
    })
  await commit('machine', [of('small', 0, 7), ...Array.from({ length: 20_100 }, (_, i) => of('large', i, i))])
  const out = (id: string) => aPost({ id, state: 'published', publishedAt: new Date(AT).toISOString() })
  for (const brand of ['small', 'large']) {
    expect(await followReadings(brand, false)).toBe(true)
    knownOf(brand)?.posts([out('small 0'), out('large 20099')], [], { accounts: [], passages: [] })
  }
  const seen = (brand: string) =>
    knownOf(brand)
      ?.facts()
      .map((f) => f.readings)
  expect(seen('small')).toEqual([{ '1 h': { impressions: 7 } }, {}])
  expect(seen('large')).toEqual([{}, { '1 h': { impressions: 20_099 } }])
  expect(knownOf('third')).toBeUndefined()
  // What comes for the one is not new for the other.
  await commit('machine', [of('large', 20_100, 1)])
  expect(await followReadings('small', false)).toBe(false)
  expect(await followReadings('large', false)).toBe(true)
})

it('goes on from what was kept at the next start, and reads anew what changed since', async () => {
  await emptyDatabase()
  forgetAll()
  const [posts, ages] = [1100, (Object.keys(AGES) as Age[]).slice(0, -1)]
  const id = (i: number, age: Age): string => `post ${i}:1:${age}`
  const of = (i: number, age: Age, impressions: number) => ({
    ...aReading,
    id: id(i, age),
    post: `post ${i}`,
    age,
    takenAt: new Date(AT + i * 60_000).toISOString(),
    measures: impressions % 7 ? { impressions } : null,
  })
  const all = Array.from({ length: posts }, (_, i) => ages.map((age, n) => of(i, age, 10 * i + n))).flat()
  await commit(
    'machine',
    all.map((row) => put('readings', row)),
  )
  const out = Array.from({ length: posts }, (_, i) =>
    aPost({ id: `post ${i}`, state: 'published', publishedAt: new Date(AT).toISOString() }),
  )
  /** What is known after a start, against the rows that are there. */
  const started = async () => {
    forgetAll()
    expect(await followReadings('brand', false)).toBe(true)
    knownOf('brand')?.posts(out, [], { accounts: [], passages: [] })
    const there = new Map(out.map((p) => [p.id, {} as Record<string, unknown>]))
    for (const row of await (await database()).getAll('readings'))
      Object.assign(there.get(row.post) ?? {}, { [row.age]: row.measures })
    for (const fact of knownOf('brand')?.facts() ?? []) expect(fact.readings).toEqual(there.get(fact.post))
  }
  const kept = async () => (await (await database()).get('columns', 'brand'))?.made ?? null

  await started()
  const first = await kept()
  expect(first?.columns.keys).toHaveLength(posts)
  // What came since is read beside it, and is too little to be kept anew.
  await commit('machine', [
    put('readings', {
      ...of(0, '1 h', 8),
      id: 'late',
      post: 'post 3',
      age: '90 d',
      takenAt: new Date(AT + 1e9).toISOString(),
    }),
  ])
  await started()
  expect(await kept()).toEqual(first)
  // A change that the times do not show.
  await commit('machine', [put('readings', of(5, '1 h', 4321))])
  expect(await kept()).toBeNull()
  await started()
  expect(
    knownOf('brand')
      ?.facts()
      .find((f) => f.post === 'post 5')?.readings['1 h'],
  ).toEqual({ impressions: 4321 })
  expect((await kept())?.columns.keys).toHaveLength(posts)
  // What changes between reading and keeping is not overlooked.
  const change = vi.spyOn(FactBase.prototype, 'forgetReadings').mockImplementationOnce(() => {
    void commit('machine', [put('readings', of(6, '1 h', 1234))])
  })
  await followReadings('brand', true)
  expect(change).toHaveBeenCalled()
  change.mockRestore()
  expect(await kept()).toBeNull()
  await started()
  // Made in a way that is not known any more.
  const wrong = await (await database()).get('columns', 'brand')
  if (wrong?.made) {
    wrong.made.columns.ages.length = 0
    await (await database()).put('columns', { ...wrong, made: { ...wrong.made, format: 0 } })
  }
  await started()
  await commit('machine', [remove('readings', id(7, '1 d'))])
  await started()
})
