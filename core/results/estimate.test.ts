import { describe, expect, it } from 'vitest'
import { seededRandom } from '../planning'
import { meanOf, meanWithin, pooledSpread, pulledRates, pulledTogether } from './estimate'
import { normals } from './testing/normal'

const random = seededRandom(12)
const normal = normals(random)
const many = (count: number, of: () => number): number[] => Array.from({ length: count }, of)

describe('a mean and its interval', () => {
  it('is what a book works out by hand', () => {
    // 4, 6 and 8: mean 6, variance 4, and t of 2 degrees 4.30265; 6 ± 4.30265 · 2 / √3.
    const spread = pooledSpread([[4, 6, 8]])
    expect(spread).toEqual({ variance: 4, degrees: 2 })
    expect(meanWithin(6, 3, spread)).toMatchObject({
      low: expect.closeTo(1.0317, 3),
      high: expect.closeTo(10.9683, 3),
    })
    expect(pooledSpread([[4], [9]])).toBeNull()
    expect(meanWithin(4, 1, null)).toBeNull()
  })

  it('holds the true mean 95 times in 100, with few values and with many', () => {
    for (const count of [3, 12]) {
      let held = 0
      for (let i = 0; i < 10_000; i++) {
        const values = many(count, () => 2 + 3 * normal())
        const { low, high } = meanWithin(meanOf(values), count, pooledSpread([values])) ?? { low: 0, high: 0 }
        if (low <= 2 && 2 <= high) held++
      }
      expect(held / 10_000).toBeGreaterThan(0.93)
      expect(held / 10_000).toBeLessThan(0.97)
    }
  })
})

describe('means that are pulled together', () => {
  /** Groups whose true means spread so far, of one to thirty values each that spread by 1. */
  function drawn(among: number) {
    const groups = Array.from({ length: 8 }, () => {
      const truth = among * normal()
      return { truth, values: many(1 + Math.floor(random() * 30), () => truth + normal()) }
    })
    const means = groups.map(({ values }) => ({ mean: meanOf(values), count: values.length }))
    return { groups, means, pulled: pulledTogether(means, pooledSpread(groups.map((g) => g.values))) }
  }

  it.each([0, 0.1, 0.3, 1, 3])(
    'are nearer to the truth than those that are not, where it spreads by %d',
    (among) => {
      let [raw, better, held, all] = [0, 0, 0, 0]
      for (let i = 0; i < 1250; i++) {
        const { groups, means, pulled } = drawn(among)
        for (const [g, { truth }] of groups.entries()) {
          const { at, low, high } = pulled[g] ?? { at: NaN, low: 0, high: 0 }
          raw += ((means[g]?.mean ?? 0) - truth) ** 2
          better += (at - truth) ** 2
          held += low <= truth && truth <= high ? 1 : 0
          all++
        }
      }
      expect(better).toBeLessThanOrEqual(raw)
      // Pulled to a half at most where there is nothing to tell; hardly where there is much.
      if (among === 0) expect(better / raw).toBeLessThan(0.5)
      if (among === 3) expect(better / raw).toBeGreaterThan(0.9)
      expect(all).toBe(10_000)
      // Without the part of the interval that knows the pull to be guessed it is less.
      expect(held / all).toBeGreaterThan(0.94)
    },
  )

  it('stand as they are where there are two, and are nothing where nothing says how values spread', () => {
    const spread = { variance: 4, degrees: 20 }
    const two = [
      { mean: 1, count: 4 },
      { mean: -1, count: 4 },
    ]
    expect(pulledTogether(two, spread).map((e) => e?.at)).toEqual([1, -1])
    expect(pulledTogether(two, null)).toEqual([null, null])
    // Posts without a link are clicked never, all of them.
    const none = [3, 2, 5].map((count) => ({ mean: 0, count }))
    expect(pulledTogether(none, { variance: 0, degrees: 7 })).toEqual(
      none.map(() => ({ at: 0, low: 0, high: 0 })),
    )
  })
})

describe('rates that are pulled together', () => {
  it('hold the true rate 95 times in 100 though posts differ more than chance', () => {
    let [held, all, raw, better] = [0, 0, 0, 0]
    for (let i = 0; i < 1000; i++) {
      const groups = Array.from({ length: 6 }, () => {
        const truth = 0.03 * Math.exp(0.25 * normal())
        const shares = many(2 + Math.floor(random() * 20), () => 200 + Math.floor(random() * 800)).map(
          (of) => {
            const rate = truth * Math.exp(0.3 * normal() - 0.045)
            // Many readers, few who act: as good as Poisson, as good as normal.
            return { of, did: Math.max(0, Math.round(of * rate + Math.sqrt(of * rate) * normal())) }
          },
        )
        return { truth, shares }
      })
      const pulled = pulledRates(groups.map((g) => g.shares))
      for (const [g, { truth, shares }] of groups.entries()) {
        const { at, low, high } = pulled[g] ?? { at: NaN, low: 0, high: 0 }
        const of = shares.reduce((s, x) => s + x.of, 0)
        raw += (shares.reduce((s, x) => s + x.did, 0) / of - truth) ** 2
        better += (at - truth) ** 2
        held += low <= truth && truth <= high ? 1 : 0
        all++
      }
    }
    expect(better).toBeLessThan(raw)
    expect(held / all).toBeGreaterThan(0.93)
    expect(held / all).toBeLessThan(0.97)
  })

  it('are nothing of what nobody saw, and of single posts', () => {
    expect(pulledRates([[{ of: 0, did: 0 }], [{ of: 10, did: 1 }]])).toEqual([null, null])
    const [, none] = pulledRates([
      [
        { of: 100, did: 3 },
        { of: 100, did: 5 },
      ],
      [{ of: 0, did: 0 }],
    ])
    expect(none).toBeNull()
  })
})
