import { describe, expect, it } from 'vitest'
import type { Follow, Recipe } from '../model'
import { aDrip, aPipeline, aPost } from '../model/samples'
import { recipeOf } from '../model'
import { circle, filledIn, followsSince, isFinished, unfilled } from '.'

const handsOn = (pipeline: string): Follow => ({
  kind: 'pipeline',
  id: `to ${pipeline}`,
  pipeline,
  takes: 'the finished piece',
})
const named = (id: string, ...to: string[]) =>
  aPipeline({ id, name: id.toUpperCase(), follows: to.map(handsOn) })

describe('a message', () => {
  it('is filled in once: what is filled in is never read again', () => {
    expect(
      filledIn('{title} on {network}: {text}', { title: 'Of {text}', network: 'Murmur', text: '$& x' }),
    ).toBe('Of {text} on Murmur: $& x')
  })

  it('keeps what nobody knows, and leaves no space where there is nothing to say', () => {
    expect(filledIn('{title} {nonsense} {constructor} {link}\nend', { title: 'A', link: '' })).toBe(
      'A {nonsense} {constructor}\nend',
    )
    expect(unfilled('{title} {reason} {reason} {x}', 'is published')).toEqual(['reason', 'x'])
    expect(unfilled('{title} {reason}', 'fails')).toEqual([])
  })
})

describe('a circle of pipelines', () => {
  it('is found over any number of them, and told by name', () => {
    const pipelines = [named('a', 'b'), named('b', 'c'), named('c'), named('d', 'd')]
    expect(circle(pipelines, 'c', 'a')).toEqual(['C', 'A', 'B', 'C'])
    expect(circle(pipelines, 'a', 'a')).toEqual(['A', 'A'])
    expect(circle(pipelines, 'c', 'd')).toBeNull()
    expect(circle(pipelines, 'a', 'c')).toBeNull()
    expect(circle(pipelines, 'a', 'gone')).toBeNull()
  })

  it('counts what was changed and waits to be put to work', () => {
    const draft: Recipe = { ...recipeOf(named('b', 'a')) }
    expect(circle([named('a'), { ...named('b'), draft }], 'a', 'b')).toEqual(['A', 'B', 'A'])
  })

  it('is found exactly where a walk over all ways finds one', () => {
    // Every graph of four pipelines with up to twelve edges, by its bits; the ways by matrix powers.
    const ids = ['a', 'b', 'c', 'd']
    for (let bits = 0; bits < 4096; bits += 7) {
      const edge = (i: number, j: number): boolean =>
        i !== j && ((bits >> (i * 3 + (j > i ? j - 1 : j))) & 1) === 1
      const pipelines = ids.map((id, i) => named(id, ...ids.filter((_, j) => edge(i, j))))
      let reach = ids.map((_, i) => ids.map((__, j) => i === j || edge(i, j)))
      for (let n = 0; n < 3; n++)
        reach = reach.map((row) => ids.map((_, j) => row.some((r, k) => r && reach[k]![j])))
      for (const [i, from] of ids.entries())
        for (const [j, to] of ids.entries())
          expect([bits, from, to, circle(pipelines, from, to) !== null]).toEqual([
            bits,
            from,
            to,
            reach[j]![i],
          ])
    }
  })
})

it('what follows counts from the version that had it first, without a gap since', () => {
  const sheet: Follow = { kind: 'sheet', id: 'f', title: 'x' }
  const version = (n: number, follows: Follow[]) => ({
    version: n,
    at: `2026-01-0${n}T00:00:00.000Z`,
    recipe: { ...recipeOf(aPipeline()), follows },
  })
  const since = (...versions: Follow[][]) =>
    followsSince({ versions: versions.map((f, i) => version(i + 1, f)), savedAt: 'saved' }, 'f')
  expect(since()).toBe('saved')
  expect(since([], [sheet], [sheet])).toBe('2026-01-02T00:00:00.000Z')
  expect(since([sheet], [], [sheet])).toBe('2026-01-03T00:00:00.000Z')
  expect(since([sheet], [sheet])).toBe('2026-01-01T00:00:00.000Z')
  expect(since([sheet], [])).toBe('saved')
})

describe('a piece is finished', () => {
  const drip = aDrip({ id: 'd', days: [0, 3], accounts: ['one'], missing: [] })
  const post = (beat: number, state: 'published' | 'approved' | 'failed' | 'set aside') =>
    aPost({ drip: 'd', beat, account: 'one', state, at: '2026-01-01T00:00:00.000Z' })

  it('once nothing is to come and something went out', () => {
    expect(isFinished([drip], [post(0, 'published'), post(1, 'published')])).toBe(true)
    expect(isFinished([drip], [post(0, 'published'), post(1, 'set aside')])).toBe(true)
    expect(isFinished([drip], [post(0, 'published'), post(1, 'approved')])).toBe(false)
    expect(isFinished([drip], [post(0, 'published'), post(1, 'failed')])).toBe(false)
    expect(isFinished([drip], [post(0, 'set aside'), post(1, 'set aside')])).toBe(false)
  })

  it('not while posts of later days are still to be written, unless no caption can be made or it was ended', () => {
    const out = [post(0, 'published')]
    expect(isFinished([drip], out)).toBe(false)
    expect(isFinished([{ ...drip, missing: [{ beat: 1, account: 'one', message: '' }] }], out)).toBe(true)
    expect(isFinished([{ ...drip, endedAt: '2026-01-02T00:00:00.000Z' }], out)).toBe(true)
  })
})
