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
