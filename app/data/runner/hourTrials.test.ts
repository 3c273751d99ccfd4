import { beforeEach, describe, expect, it, vi } from 'vitest'
import { oneBrand } from '../testing/brand'
import { setClock } from '../testing/browser'
import { aPost, anAccount } from '../../../core/model/samples'
import type { Post } from '../../../core/model'
import { addDays } from '../../../core/planning'
import { saveTimes, timesOf, withTimes } from '../actions/accounts'
import { difference } from '../actions/plan'
import { all, commit, must, patch, put } from '../store'
import { drawHourTrials, nextDraw } from './hourTrials'

vi.mock('../../workers', async () => (await import('../testing/workers')).inProcess())

/** A Monday; fourteen days on lies the week from 14 December. */
const TODAY = '2026-11-30'
const WEEK = '2026-12-14'
const days = Array.from({ length: 7 }, (_, i) => addDays(WEEK, i))

/** A post a day of that week, at one of its two slots. */
const standing = (change: Partial<Post> = {}): ReturnType<typeof put>[] =>
  days.flatMap((date) =>
    ['09:00', '17:00'].map((time) =>
      put(
        'posts',
        aPost({
          id: `${date} ${time}`,
          account: 'one',
          network: 'murmur',
          drip: null,
          piece: `piece ${date} ${time}`,
          passage: null,
          state: 'approved',
          wished: `${date}T${time}:00.000Z`,
          at: `${date}T${time}:00.000Z`,
          ...change,
        }),
      ),
    ),
  )

const one = anAccount({
  id: 'one',
  network: 'murmur',
  zone: 'UTC',
  maxPerDay: 4,
  hourTrials: { share: 0.2, until: null, days: [] },
})

beforeEach(() =>
  oneBrand(`${TODAY}T06:00:00.000Z`, [one, anAccount({ id: 'other', network: 'guildhall', zone: 'UTC' })]),
)

const account = () => must('accounts', 'one')
const drawn = async () => (await account()).hourTrials?.days ?? []
const timeOf = async (id: string): Promise<string> => (await must('posts', id)).at?.slice(11, 16) ?? 'none'

describe('trials of other hours', () => {
  it('are drawn for the week that comes within reach, once, and what stood at their slots moves within the day', async () => {
    await commit('machine', standing())
    await drawHourTrials()
    const trials = await drawn()
    // A fifth of fourteen slots.
    expect(trials.length).toBeGreaterThanOrEqual(1)
    expect(trials.length).toBeLessThanOrEqual(3)
    for (const { date, slot, at } of trials) {
      expect(days).toContain(date)
      expect(await timeOf(`${date} ${'at' in slot ? slot.at : ''}`)).toBe(at)
    }
    const taken = new Set(trials.map((t) => `${t.date} ${'at' in t.slot ? t.slot.at : ''}`))
    for (const post of await all('posts'))
      if (!taken.has(post.id)) expect(`${post.at?.slice(0, 10)} ${post.at?.slice(11, 16)}`).toBe(post.id)
    await drawHourTrials()
    expect(await drawn()).toEqual(trials)
    expect(await nextDraw()).toBe('2026-12-07T00:00:00.000Z')
    await setClock('2026-12-07T00:00:00.000Z')
    await drawHourTrials()
    expect((await account()).hourTrials?.until).toBe('2026-12-27')
    // The other account tries nothing.
    expect((await must('accounts', 'other')).hourTrials).toBeUndefined()
  })

  it('leave a slot alone at which something stands that does not move', async () => {
    for (const change of [{ pinned: true }, { state: 'handed over' }] satisfies Partial<Post>[]) {
      await commit('machine', [
        ...standing(change),
        patch('accounts', 'one', (a) => ({ ...a, hourTrials: { share: 0.2, until: null, days: [] } })),
      ])
      await drawHourTrials()
      expect(await drawn()).toEqual([])
      for (const post of await all('posts')) expect(post.id).toContain(post.at?.slice(11, 16))
    }
  })

  it('leave a slot alone whose post would have to go to another day', async () => {
    // What is pinned about the middle of the hours that are tried leaves no room by the gap.
    const pinned = days.flatMap((date) =>
      ['07:00', '11:00', '13:00', '15:00', '19:00', '21:00'].map((time) =>
        put(
          'posts',
          aPost({
            id: `pinned ${date} ${time}`,
            account: 'one',
            network: 'murmur',
            drip: null,
            passage: null,
            state: 'approved',
            pinned: true,
            at: `${date}T${time}:00.000Z`,
          }),
        ),
      ),
    )
    await commit('machine', [
      ...standing(),
      ...pinned,
      patch('accounts', 'one', (a) => ({ ...a, maxPerDay: 20, maxPerWeek: 90, gapMinutes: 60 })),
    ])
    await drawHourTrials()
    expect(await drawn()).toEqual([])
  })

  it('mind one another: no two posts of a day come nearer than the gap', async () => {
    // Ten slots of Mondays leave three hours to be tried, and two of the slots are.
    const hours = ['06', '07', '08', '09', '10', '11', '12', '13', '14', '15']
    const slots = hours.map((hour) => ({ weekday: 1, at: `${hour}:00` }))
    await commit('machine', [
      patch('accounts', 'one', (a) => ({ ...a, slots, maxPerDay: 20, gapMinutes: 60 })),
    ])
    let tried = 0
    for (let week = 0; week < 6; week++) {
      const date = addDays(WEEK, 7 * week)
      await setClock(`${addDays(TODAY, 7 * week)}T06:00:00.000Z`)
      await commit(
        'machine',
        slots.map(({ at }) => {
          const moment = `${date}T${at}:00.000Z`
          const own = {
            account: 'one',
            network: 'murmur',
            drip: null,
            passage: null,
            state: 'approved',
          } as const
          return put('posts', aPost({ id: moment, piece: moment, wished: moment, at: moment, ...own }))
        }),
      )
      await drawHourTrials()
      const minutes = (await all('posts'))
        .flatMap((p) => (p.at?.startsWith(date) ? [Date.parse(p.at) / 60_000] : []))
        .sort((a, b) => a - b)
      expect(minutes).toHaveLength(slots.length)
      for (const [i, minute] of minutes.slice(1).entries())
        expect(minute - (minutes[i] ?? 0)).toBeGreaterThanOrEqual(60)
      tried += (await drawn()).filter((t) => t.date === date).length
    }
    expect(tried).toBeGreaterThan(6)
  })

  it('end with what stands at them moved back, as it was shown before', async () => {
    await commit('machine', standing())
    await drawHourTrials()
    const trials = await drawn()
    const { hourTrials: _, ...plain } = timesOf(await account())
    const moves = await difference({ accounts: [withTimes(await account(), plain)] })
    expect(moves).toHaveLength(trials.length)
    await saveTimes('brand', [plain], moves, 'Change when one may post')
    expect(await account()).not.toHaveProperty('hourTrials')
    for (const post of await all('posts'))
      expect(post.id).toBe(`${post.at?.slice(0, 10)} ${post.at?.slice(11, 16)}`)
    await drawHourTrials()
    expect(await account()).not.toHaveProperty('hourTrials')
    expect(await nextDraw()).toBeNull()
  })
})
