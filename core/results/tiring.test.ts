import { describe, expect, it } from 'vitest'
import { seededRandom } from '../planning'
import type { Fact } from './facts'
import { aFact } from './testing/fact'
import { normals } from './testing/normal'
import { tiringOf } from './tiring'

const DAY = 86_400_000
const NOW = 1000 * DAY

const fact = (at: number, level: number, change: Partial<Fact>): Fact =>
  aFact({ at: at * DAY, readings: { '3 d': { impressions: Math.exp(level) - 0.5 } }, ...change })

/** Passages that an account shows so many times each, a day apart; each further time costs what its slope says. */
const shown = (slopes: readonly number[], times: number, noise: number, seed: number, growth = 0): Fact[] => {
  const normal = normals(seededRandom(seed))
  const facts: Fact[] = []
  for (let time = 0; time < times; time++)
    slopes.forEach((slope, passage) => {
      const at = (time * slopes.length + passage) / 4
      const level = 6 + 0.2 * Math.sin(passage) + slope * time + growth * at + noise * normal()
      facts.push(fact(at, level, { post: `${passage} ${time}`, passage: `p${passage}` }))
    })
  return facts
}

describe('what tires', () => {
  it('is told with the slope of its posts and the bounds of Student’s t, as worked out by hand', () => {
    // Posts of other things, far more, keep what is usual at 5.
    const others = Array.from({ length: 4000 }, (_, i) => fact(i / 100, 5, {}))
    const series = [0, -0.4, -0.9, -1.1].map((level, i) => fact(i * 10, 5 + level, { passage: 'p' }))
    const facts = [...others, ...series].sort((a, b) => a.at - b.at)
    const [tired, ...rest] = tiringOf(facts, NOW)
    expect(rest).toEqual([])
    expect(tired).toMatchObject({ kind: 'passage', key: 'p', posts: 4 })
    // Slope: (−1.5·0.6 + −0.5·0.2 + 0.5·−0.3 + 1.5·−0.5) / 5 = −0.38. What is left: 0.03, −0.01… squared 0.018, two degrees.
    expect(Math.log(tired!.times.at)).toBeCloseTo(-0.38, 2)
    const left = [0.6 - 0.57, 0.2 - 0.19, -0.3 + 0.19, -0.5 + 0.57].reduce((sum, r) => sum + r * r, 0)
    const reach = 4.3027 * Math.sqrt(left / 2 / 5)
    expect(Math.log(tired!.times.high)).toBeCloseTo(-0.38 + reach, 2)
    expect(Math.log(tired!.times.low)).toBeCloseTo(-0.38 - reach, 2)
  })

  it('finds what tires among what does not, and seldom names what does not', () => {
    let [found, false_] = [0, 0]
    for (let seed = 0; seed < 40; seed++) {
      const slopes = Array.from({ length: 40 }, (_, i) => (i < 8 ? -0.3 : 0))
      const tired = new Set(tiringOf(shown(slopes, 6, 0.3, seed), NOW).map((t) => t.key))
      for (const key of tired) {
        if (Number(key.slice(1)) < 8) found++
        else false_++
      }
    }
    expect(found / (40 * 8)).toBeGreaterThan(0.9)
    expect(false_ / (40 * 32)).toBeLessThan(0.025)
  })

  it('says nothing of what all of an account does: it grows, or shrinks', () => {
    for (const growth of [-0.01, 0.01]) {
      let named = 0
      for (let seed = 0; seed < 20; seed++)
        named += tiringOf(shown(new Array<number>(40).fill(0), 6, 0.3, seed, growth), NOW).length
      expect(named / (20 * 40)).toBeLessThan(0.025)
    }
  })

  it('looks at passages and pictures, on each account by itself, once they were shown three times', () => {
    const others = Array.from({ length: 400 }, (_, i) => fact(i / 10, 5, { account: i % 2 ? 'a' : 'b' }))
    const falling = (account: string, key: Partial<Fact>, levels: number[]): Fact[] =>
      levels.map((level, i) => fact(i * 10 + 1, 5 + level, { account, ...key }))
    const keys = (facts: Fact[]): string[] =>
      tiringOf(
        [...others, ...facts].sort((x, y) => x.at - y.at),
        NOW,
      ).map((t) => `${t.kind} ${t.key}`)
    expect(keys(falling('a', { picture: 'boat' }, [0, -0.5, -1, -1.5]))).toEqual(['picture boat'])
    expect(keys(falling('a', { passage: 'p' }, [0, -2]))).toEqual([])
    // The second account begins anew.
    expect(
      keys([...falling('a', { passage: 'p' }, [0, -1]), ...falling('b', { passage: 'p' }, [0, -1])]),
    ).toEqual([])
    // What was not read says nothing.
    const unread = falling('a', { passage: 'p' }, [0, -0.5, -1, -1.5]).map((f) => ({
      ...f,
      readings: { '3 d': null },
    }))
    expect(keys(unread)).toEqual([])
  })
})
