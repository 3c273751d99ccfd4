import { expect, it } from 'vitest'
import { anAccount, aPost } from '../../core/model/samples'
import type { Age } from '../../core/model'
import { FactBase } from '../../core/results'
import { commit, put, remove } from '../data/store'
import { emptyDatabase } from '../data/testing/browser'
import { followReadings } from './readings'

const AT = Date.parse('2026-03-02T09:00:00Z')
const reading = (age: Age, minutes: number, impressions: number | null) =>
  put('readings', {
    id: `post:1:${age}`,
    brand: 'brand',
    post: 'post',
    generation: 1,
    account: 'account',
    age,
    takenAt: new Date(AT + minutes * 60_000).toISOString(),
    measures: impressions === null ? null : { impressions },
    reason: '',
  })

it('reads what came since the last time, also at the same moment, and all of it where something went or changed', async () => {
  await emptyDatabase()
  const base = new FactBase()
  const post = aPost({
    id: 'post',
    account: 'account',
    state: 'published',
    publishedAt: new Date(AT).toISOString(),
  })
  base.posts('brand', [post], [], { accounts: [anAccount()], passages: [] })
  const known = () => base.facts('brand')?.[0]?.readings
  expect(await followReadings(base, true)).toBe(true)
  expect(known()).toEqual({})
  await commit('machine', [reading('1 h', 60, 5), reading('6 h', 360, null)])
  expect(await followReadings(base, false)).toBe(true)
  expect(known()).toEqual({ '1 h': { impressions: 5 }, '6 h': null })
  expect(await followReadings(base, false)).toBe(false)
  // Two readings that were taken in one round have the same moment.
  await commit('machine', [reading('1 d', 360, 30)])
  expect(await followReadings(base, false)).toBe(true)
  expect(known()).toEqual({ '1 h': { impressions: 5 }, '6 h': null, '1 d': { impressions: 30 } })
  // One that is older than the latest came late, as in a bundle; and one went.
  await commit('machine', [reading('3 d', 70, 40)])
  await followReadings(base, false)
  expect(known()?.['3 d']).toEqual({ impressions: 40 })
  await commit('machine', [remove('readings', 'post:1:1 h')])
  await followReadings(base, false)
  expect(known()).toEqual({ '6 h': null, '1 d': { impressions: 30 }, '3 d': { impressions: 40 } })
  // A change of one that is there cannot be seen from the times: it is said.
  await commit('machine', [reading('3 d', 70, 44)])
  expect(await followReadings(base, false)).toBe(false)
  expect(await followReadings(base, true)).toBe(true)
  expect(known()?.['3 d']).toEqual({ impressions: 44 })
})
