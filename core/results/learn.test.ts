import { expect, it } from 'vitest'
import type { Effect } from './effects'
import { leaningsOf } from './learn'

const effect = (factor: Effect['factor'], level: string, at: number): Effect => ({
  factor,
  level,
  posts: 12,
  times: { at, low: at - 0.1, high: at + 0.1 },
  named: true,
})
const on = (named: Effect[]) => [{ network: 'murmur', posts: 90, named, others: 4 }]

it('takes angles, lengths and openings that are certain, and nothing a writer cannot go by', () => {
  const found = leaningsOf(
    on([
      effect('hour', '18', 1.4),
      effect('angle', 'story', 1.3),
      effect('length', 'long', 0.7),
      effect('angle', 'by hand', 1.5),
      effect('trait', 'opens with a question', 1.2),
      effect('trait', 'is a list', 1.2),
    ]),
    [],
    '2026-11-30',
  )
  expect(found.map((l) => l.of)).toEqual([{ angle: 'story' }, { length: 'long' }, { opening: 'a question' }])
  expect(found[0]).toMatchObject({ network: 'murmur', posts: 12, since: '2026-11-30', times: { at: 1.3 } })
})

it('keeps the day since which something is known, until it turns round', () => {
  const march = leaningsOf(on([effect('angle', 'story', 1.3)]), [], '2026-03-01')
  expect(leaningsOf(on([effect('angle', 'story', 1.2)]), march, '2026-11-30')[0]?.since).toBe('2026-03-01')
  expect(leaningsOf(on([effect('angle', 'story', 0.8)]), march, '2026-11-30')[0]?.since).toBe('2026-11-30')
  expect(leaningsOf(on([effect('angle', 'myth', 1.2)]), march, '2026-11-30')[0]?.since).toBe('2026-11-30')
})
