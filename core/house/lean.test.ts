import { expect, it } from 'vitest'
import { Brief, type Leaning } from '../model'
import { network } from '../networks'
import { briefOf, houseOf, leanOf, lengthOf } from '.'
import { aBrand } from '../model/samples'

const leaning = (of: Leaning['of'], at: number, low: number, high: number): Leaning => ({
  network: 'murmur',
  of,
  times: { at, low, high },
  posts: 20,
  since: '2026-11-30',
})
const lean = (leanings: Leaning[], angle: 'question' | 'story' | null = 'question'): number =>
  leanOf({ angle, length: 'long', opening: 'a number' }, leanings)

it('leans as far as is certain, and within bounds', () => {
  expect(lean([])).toBe(1)
  expect(lean([leaning({ angle: 'question' }, 1.2, 1.05, 1.4)])).toBe(1.05)
  expect(lean([leaning({ angle: 'question' }, 0.8, 0.6, 0.95)])).toBe(0.95)
  expect(lean([leaning({ angle: 'question' }, 2, 1.8, 2.3)])).toBe(1.12)
  expect(lean([leaning({ angle: 'question' }, 0.4, 0.3, 0.5)])).toBe(0.9)
  expect(
    lean([leaning({ length: 'long' }, 1.1, 1.02, 1.2), leaning({ angle: 'question' }, 1.2, 1.05, 1.4)]),
  ).toBeCloseTo(1.071)
})

it('leans to how a caption opens', () => {
  expect(lean([leaning({ opening: 'a number' }, 1.2, 1.1, 1.4)])).toBe(1.1)
  expect(lean([leaning({ opening: 'a question' }, 1.2, 1.1, 1.4)])).toBe(1)
})

it('leaves other angles and lengths, and what nobody chose, as they are', () => {
  const both = [leaning({ angle: 'story' }, 1.5, 1.2, 1.9), leaning({ length: 'short' }, 1.5, 1.2, 1.9)]
  expect([lean(both), lean(both, null)]).toEqual([1, 1])
})

it('is for its network, and switched off by its brief', () => {
  const learned = { at: '2026-11-30T00:00:00.000Z', leanings: [leaning({ angle: 'question' }, 2, 1.8, 2.3)] }
  const known = (id: string, briefs = aBrand().briefs): number =>
    briefOf(network(id), houseOf({ ...aBrand({ learned }), briefs })).leanings.length
  expect([known('murmur'), known('guildhall')]).toEqual([1, 0])
  expect(known('murmur', [Brief.parse({ network: 'murmur', leans: false })])).toBe(0)
  expect(known('murmur', [Brief.parse({ network: 'murmur' })])).toBe(1)
})

it('calls a caption short, usual or long by the thirds of its network’s brief', () => {
  const profile = { brief: { ...network('murmur').brief, length: { least: 60, most: 210 } } }
  const of = (n: number): string => lengthOf('x'.repeat(n), profile)
  expect([of(109), of(110), of(160), of(161)]).toEqual(['short', 'usual', 'usual', 'long'])
  expect(lengthOf(`${'x'.repeat(109)} http://journal.localhost/seam`, profile)).toBe('short')
})
