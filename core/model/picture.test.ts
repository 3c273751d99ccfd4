import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { withCredits, type PostMedia } from './post'
import { alikeAmong, creditLine, LIKE_BITS, printDistance } from './picture'

const print = fc.bigInt({ min: 0n, max: 2n ** 64n - 1n }).map((n) => n.toString(16).padStart(16, '0'))
const bitsApart = (a: string, b: string): number =>
  [...(BigInt(`0x${a}`) ^ BigInt(`0x${b}`)).toString(2)].filter((bit) => bit === '1').length

it('two prints are as far apart as bits differ', () => {
  expect(printDistance('0000000000000000', 'ffffffffffffffff')).toBe(64)
  expect(printDistance('8000000000000001', '0000000000000000')).toBe(2)
  fc.assert(fc.property(print, print, (a, b) => void expect(printDistance(a, b)).toBe(bitsApart(a, b))))
})

/** Some prints, most of them near one of the others. */
const prints = fc
  .array(fc.tuple(print, fc.array(fc.array(fc.nat(63), { maxLength: 14 }), { maxLength: 5 })), {
    maxLength: 8,
  })
  .map((families) =>
    families.flatMap(([first, changes]) => [
      first,
      ...changes.map((bits) =>
        bits
          .reduce((n, bit) => n ^ (1n << BigInt(bit)), BigInt(`0x${first}`))
          .toString(16)
          .padStart(16, '0'),
      ),
    ]),
  )

describe('like pictures', () => {
  it('go by one key, and only they, also by way of others between them', () => {
    fc.assert(
      fc.property(prints, (all) => {
        const pictures = all.map((print, i) => ({ key: `p${i}`, print }))
        const alike = alikeAmong(pictures)
        // Which can be reached from which by steps that are near, gone through one after the other.
        for (const start of pictures) {
          const reached = new Set([start])
          for (const at of reached)
            for (const other of pictures)
              if (bitsApart(at.print, other.print) <= LIKE_BITS) reached.add(other)
          for (const other of pictures) expect(alike(other.key) === alike(start.key)).toBe(reached.has(other))
        }
      }),
    )
  })

  it('are those whose prints differ in ten bits, and not in eleven', () => {
    const alike = alikeAmong([
      { key: 'a', print: '0000000000000000' },
      { key: 'ten', print: '00000000000003ff' },
      { key: 'far', print: '07ff000000000000' },
    ])
    expect(alike('ten')).toBe(alike('a'))
    expect(alike('far')).not.toBe(alike('a'))
  })

  it('leave any other key as it is', () => {
    const alike = alikeAmong([{ key: 'a', print: '00000000000003ff' }])
    expect([alike('a'), alike('b')]).toEqual(['a', 'b'])
  })
})

it('a credit names the author and where the picture is from, as far as they are known', () => {
  const credit = { author: 'Ada Wren', from: 'The drawer', licence: 'Free', page: null, mustShow: true }
  expect(creditLine(credit)).toBe('Picture: Ada Wren, The drawer')
  expect(creditLine({ ...credit, from: ' ' })).toBe('Picture: Ada Wren')
  expect(creditLine({ ...credit, author: '', from: '' })).toBe('')
})

describe('the lines that name whose pictures a post shows', () => {
  const shows = (author: string, mustShow = true): PostMedia => ({
    source: { from: 'address', url: `https://a.example/${author}.png` },
    alt: '',
    shape: null,
    credit: { author, from: '', licence: 'Free', page: null, mustShow },
    hash: null,
  })
  it('come with them and go with them, each once, and only where they have to', () => {
    const text = 'Oak bends.\n\n#Oak'
    const one = withCredits(text, [], [shows('Ada'), shows('Ada'), shows('Ben', false)])
    expect(one).toBe('Oak bends.\n\n#Oak\n\nPicture: Ada')
    expect(withCredits(one, [shows('Ada')], [shows('Ada'), shows('Cid')])).toBe(`${one}\n\nPicture: Cid`)
    expect(withCredits(one, [shows('Ada')], [shows('Cid')])).toBe('Oak bends.\n\n#Oak\n\nPicture: Cid')
    expect(withCredits(one, [shows('Ada')], [])).toBe(text)
    expect(withCredits(text, [shows('', true)], [shows('', true)])).toBe(text)
  })
})
