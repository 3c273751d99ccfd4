import { expect, it } from 'vitest'
import { bareWords, hash32 } from '../text'
import { seededRandom } from '.'

it('hashes as FNV-1a does', () => {
  expect([hash32(''), hash32('a'), hash32('foobar')]).toEqual([0x811c9dc5, 0xe40c292c, 0xbf9cf968])
})

it('gives the same numbers for the same seed, spread evenly over the unit interval', () => {
  const draw = (seed: number, count: number): number[] => {
    const random = seededRandom(seed)
    return Array.from({ length: count }, random)
  }
  expect(draw(7, 5)).toEqual(draw(7, 5))
  expect(draw(7, 5)).not.toEqual(draw(8, 5))
  const many = draw(1, 20_000)
  expect(Math.min(...many)).toBeGreaterThanOrEqual(0)
  expect(Math.max(...many)).toBeLessThan(1)
  for (let tenth = 0; tenth < 10; tenth++) {
    const share = many.filter((x) => Math.floor(x * 10) === tenth).length / many.length
    expect(share).toBeGreaterThan(0.09)
    expect(share).toBeLessThan(0.11)
  }
})

it('finds the same words under case, space, marks, links and tags, and no others', () => {
  const base = bareWords('Green oak bends better.')
  for (const same of [
    'GREEN  OAK\nbends better',
    '“Green oak” bends, better! https://x.example/a #Oak #Bend',
    'Ｇreen oak bends better',
  ])
    expect(bareWords(same)).toBe(base)
  for (const other of ['Green oak bends best.', 'Oak green bends better.', ''])
    expect(bareWords(other)).not.toBe(base)
})
