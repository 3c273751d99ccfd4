import { describe, expect, it } from 'vitest'
import { houseOf, PLAIN_HOUSE } from '../house'
import { HouseStyle, type Angle } from '../model'
import { aWording } from '../model/samples'
import { proseDraft } from '../setting'
import type { Order } from '../writers'
import { scoreWording } from './score'

/* Expected values are arithmetic on paper; the seed may take up to two per cent. */

const order = { house: PLAIN_HOUSE, seed: 1, link: null } as unknown as Order
const PLAIN = 'An old lathe wants a drop of oil on the first day of every month, and a cover.'
const score = (
  text: string,
  {
    worth = 0.8,
    network = 'murmur',
    last = [] as readonly Angle[],
    change = {},
    before = '',
    opened = '',
  } = {},
): number =>
  scoreWording(
    aWording({ angle: 'lesson', text }),
    proseDraft('lesson', [text], [], worth),
    { order: { ...order, ...change }, account: { id: 'a', network } },
    last.map((angle) => aWording({ angle, text: before })),
    new Set([opened]),
  )
const near = (value: number, paper: number): void => {
  expect(value).toBeLessThanOrEqual(Math.round(paper * 1000) / 1000)
  expect(value).toBeGreaterThanOrEqual(paper * 0.979 - 0.001)
}

describe('the score of a wording', () => {
  it('is what readers would post, where its form suits the network', () => {
    near(score(PLAIN), 0.8)
    near(score(PLAIN, { worth: 0.4 }), 0.4)
  })

  it('is less for what is shorter than the brief’s least', () => {
    // Forty of sixty characters: three quarters and a quarter of two thirds.
    near(score('An old lathe wants a drop of oil a month.'.slice(0, 40)), 0.8 * (0.75 + (0.25 * 40) / 60))
  })

  it('is less for a hook that is too long to be read at a glance, or too short to say anything', () => {
    const long = `An old lathe ${'that nobody has oiled '.repeat(6)}wants a drop on the first day of every month.`
    near(score(long), 0.8 * (1 - (long.length - 110) / 500))
    near(score(`Oil it. ${PLAIN}`.replace('Oil it', 'Oil the lathe')), 0.8 * 0.9)
  })

  it('is less for the account’s last angle again, and a little less for the one before', () => {
    near(score(PLAIN, { last: ['lesson'] }), 0.8 * 0.88)
    near(score(PLAIN, { last: ['story', 'lesson'] }), 0.8 * 0.96)
    near(score(PLAIN, { last: ['story'] }), 0.8)
    near(score(PLAIN, { last: ['story'], before: PLAIN }), 0.8 * 0.97)
  })

  it('is less for what opens as the account did long ago', () => {
    near(score(PLAIN, { opened: 'an old lathe wants' }), 0.8 * 0.85)
    near(score(PLAIN, { opened: 'an old lathe has' }), 0.8)
  })

  it('is less for one sentence where readers consider', () => {
    // 78 characters of at least 280, and one sentence alone.
    near(score(PLAIN, { network: 'guildhall' }), 0.8 * 0.8 * (0.75 + (0.25 * PLAIN.length) / 280))
  })

  it('leans to what earned more there, and to nothing on another network', () => {
    const leaning = {
      of: { angle: 'lesson' as const },
      times: { at: 1.1, low: 1.08, high: 1.2 },
      posts: 20,
      since: '2026-11-30',
    }
    const leaningOn = (network: string): object => ({
      house: { ...PLAIN_HOUSE, leanings: [{ ...leaning, network }] },
    })
    near(score(PLAIN, { change: leaningOn('murmur') }), 0.8 * 1.08)
    near(score(PLAIN, { change: leaningOn('guildhall') }), 0.8)
  })

  it('is less where another speaks than the brand', () => {
    const we = houseOf({
      name: 'Shop',
      briefs: [],
      houseStyle: HouseStyle.parse({ voice: { speaker: 'we' } }),
    })
    const I = PLAIN.replace('An old lathe wants', 'I give my lathe')
    near(score(I, { change: { house: we } }), 0.8 * 0.95)
    near(score(I.replace('I give my', 'We give our'), { change: { house: we } }), 0.8)
  })

  it('is the same for the same seed, whatever was scored before', () => {
    const one = score(PLAIN)
    score('Another sentence that has nothing to do with it at all.')
    expect(score(PLAIN)).toBe(one)
    const seeds = new Set([1, 2, 3, 4, 5, 6].map((seed) => score(PLAIN, { change: { seed } })))
    expect(seeds.size).toBeGreaterThan(1)
  })
})
