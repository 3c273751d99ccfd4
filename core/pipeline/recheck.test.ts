import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { checkCaption } from '../judging'
import { aBrand, aPost, aWording } from '../model/samples'
import { contextFor, neighboursOf } from '.'

/** Captions of few words, so that many share some in a row, with tags, links and marks among them. */
const word = fc.constantFrom('oak', 'Oak,', 'larch', '#Oak', 'is', 'http://yard.localhost/a')
const caption = fc.array(word, { maxLength: 8 }).map((words) => words.join(' '))
const post = fc
  .record({
    text: caption,
    account: fc.constantFrom('a', 'b'),
    network: fc.constantFrom('murmur', 'murmur', 'guildhall'),
  })
  .map(({ text, ...rest }) => aPost({ ...rest, piece: null, wording: aWording({ text }) }))

describe('the neighbours of a caption', () => {
  it('are all that its checks can mind: the others change nothing', () => {
    let minded = 0
    let left = 0
    fc.assert(
      fc.property(post, fc.array(post, { maxLength: 8 }), (mine, others) => {
        const all = others.map((p, i) => ({ ...p, id: `other ${i}` }))
        const near = neighboursOf(mine, all)
        const found = (posts: typeof all) =>
          checkCaption(mine.wording.text, contextFor(mine, aBrand(), null, posts))
        expect(found(near)).toEqual(found(all))
        if (found(all).some((c) => c.code === 'too-alike' || c.code === 'same-words')) minded++
        left += all.length - near.length
      }),
      { numRuns: 1500 },
    )
    expect(minded).toBeGreaterThan(50)
    expect(left).toBeGreaterThan(1500)
  })
})

describe('what a caption is held against', () => {
  const words = 'An old lathe wants a drop of oil every month. Put a cover over it when you leave the shed.'
  /** The same beginning: seven runs of three words of nineteen and sixteen, a quarter to a half of all. */
  const alike = 'An old lathe wants a drop of oil every month. So does the vice.'
  const found = (text: string, daysBefore: number): string[] => {
    const day = (n: number): string => new Date(Date.UTC(2026, 10, 30) - n * 86_400_000).toISOString()
    const mine = aPost({ id: 'mine', at: day(0), wording: aWording({ text: words }) })
    const other = aPost({ id: 'other', at: day(daysBefore), wording: aWording({ text }) })
    return checkCaption(words, contextFor(mine, aBrand(), null, [mine, other]))
      .map((c) => c.code)
      .filter((c) => c === 'too-alike')
  }

  it('is alike within a season, the same within a year, and nothing after that', () => {
    expect([90, 91].map((days) => found(alike, days).length)).toEqual([1, 0])
    expect([-90, -91].map((days) => found(alike, days).length)).toEqual([1, 0])
    expect([91, 365, 366].map((days) => found(words, days).length)).toEqual([1, 1, 0])
  })
})
