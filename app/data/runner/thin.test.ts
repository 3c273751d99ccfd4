import { beforeEach, expect, it } from 'vitest'
import { aWorkspace } from '../../../core/model/samples'
import { AGES, type Age } from '../../../core/model'
import { emptyDatabase, setClock } from '../testing/browser'
import { all, commit, put } from '../store'
import { thinMeasures } from './thin'

const NOW = Date.parse('2026-11-30T09:00:00Z')
const DAY = 86_400_000

beforeEach(async () => {
  await emptyDatabase()
  setClock(new Date(NOW).toISOString())
  await commit('machine', [
    put('workspace', aWorkspace()),
    ...[500, 20].flatMap((days) =>
      (['1 h', '7 d'] as Age[]).map((age) =>
        put('readings', {
          id: `${days}:1:${age}`,
          brand: 'brand',
          post: String(days),
          generation: 1,
          account: 'acc',
          age,
          takenAt: new Date(NOW - days * DAY + AGES[age]).toISOString(),
          measures: { impressions: 9 },
          reason: '',
        }),
      ),
    ),
    ...['2026-11-22', '2026-11-23', '2026-11-24'].map((day) =>
      put('followings', {
        id: `acc:${day}`,
        brand: 'brand',
        account: 'acc',
        day,
        takenAt: `${day}T09:00:00.000Z`,
        followers: 12,
      }),
    ),
  ])
})

const left = async (): Promise<string[]> =>
  [...(await all('readings')), ...(await all('followings'))].map((r) => r.id).sort()
const told = async () => (await all('workspace'))[0]?.thinned

it('leaves measures alone as long as there is room', async () => {
  await thinMeasures({ readings: 4, followings: 3 })
  expect(await left()).toHaveLength(7)
  expect(await told()).toBeNull()
})

it('drops what is missed least of the oldest posts, and says how much in all', async () => {
  await thinMeasures({ readings: 3, followings: 2 })
  // Of four readings two stay, which leaves room for the next: a twentieth of three, rounded up.
  expect(await left()).toEqual(['20:1:1 h', '20:1:7 d', 'acc:2026-11-23'])
  expect(await told()).toMatchObject({ readings: 2, followings: 2 })
  await thinMeasures({ readings: 1, followings: 2 })
  expect(await told()).toMatchObject({ readings: 4, followings: 2 })
})
