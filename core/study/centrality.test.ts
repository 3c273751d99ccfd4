import { expect, it } from 'vitest'
import { lexRank } from './centrality'

it('ranks the sentence that shares most with the others highest', () => {
  const rank = lexRank([['oak', 'steam'], ['oak', 'frame'], ['oak', 'steam', 'frame'], ['tea']])
  expect(rank.indexOf(Math.max(...rank))).toBe(2)
  expect(rank[3]).toBeLessThan(rank[0] as number)
  expect(lexRank([])).toEqual([])
})
