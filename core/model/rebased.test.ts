import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { rebased, sameContent } from './rebased'

it('what holds the same in another order, or with a field that is undefined, is the same; a list in another order is not', () => {
  expect(sameContent({ a: 1, b: [{ c: 2, d: 3 }] }, { b: [{ d: 3, c: 2 }], a: 1, e: undefined })).toBe(true)
  expect(sameContent({ a: 1 }, { a: 1, e: null })).toBe(false)
  expect(sameContent(['a', 'b'], ['b', 'a'])).toBe(false)
  expect([sameContent(null, {}), sameContent([], {}), sameContent('1', 1)]).toEqual([false, false, false])
})

describe('what was changed from an older view', () => {
  it('keeps two changes of different fields, also deep inside', () => {
    const seen = { gate: 'a', limits: { aDay: 1, aWeek: 7 }, after: null }
    expect(
      rebased<object>(
        seen,
        { ...seen, limits: { aDay: 2, aWeek: 7 } },
        { ...seen, limits: { aDay: 1, aWeek: 9 } },
      ),
    ).toEqual({ gate: 'a', limits: { aDay: 2, aWeek: 9 }, after: null })
  })

  it('is as wanted where both changed the same', () => {
    expect(rebased({ a: 1 }, { a: 2 }, { a: 3 })).toEqual({ a: 2 })
  })

  it('adds to and takes from a list of words, and leaves what was added or taken meanwhile', () => {
    expect(rebased(['a', 'b'], ['b', 'c'], ['a', 'b', 'd'])).toEqual(['b', 'd', 'c'])
    expect(rebased(['a', 'b'], ['a'], ['b'])).toEqual([])
    expect(rebased(['a'], ['a', 'x'], ['a', 'x', 'y'])).toEqual(['a', 'x', 'y'])
  })

  it('takes numbers as they are wanted, since days of a rhythm may stand twice', () => {
    expect(rebased([0, 3], [0, 3, 3], [0, 7])).toEqual([0, 3, 3])
  })

  it('merges rules item by item, which have no name', () => {
    const rule = { kind: 'words', need: 'any', words: [] as string[] }
    const seen = [{ kind: 'age', days: 3 }, rule]
    const none = [seen[0], { ...rule, need: 'none' }]
    const cake = [seen[0], { ...rule, words: ['cake'] }]
    const both = [seen[0], { ...rule, need: 'none', words: ['cake'] }]
    expect(rebased<unknown>(seen, cake, none)).toEqual(both)
    expect(rebased<unknown>(seen, none, cake)).toEqual(both)
  })

  it('takes out a rule that nobody else changed, though another was added', () => {
    const [a, b, c] = ['a', 'b', 'c'].map((kind) => ({ kind }))
    expect(rebased<unknown>([a, b], [b], [a, b, c])).toEqual([b, c])
    const more = { ...a, days: 2 }
    expect(rebased<unknown>([a, b], [more, b], [a, b, c])).toEqual([b, c, more])
  })

  it('takes a record of another kind whole', () => {
    const seen = { by: { kind: 'rhythm', name: 'Echo', days: 1 } }
    const wanted = { by: { kind: 'slots', aWeek: 2 } }
    expect(rebased<object>(seen, wanted, { by: { ...seen.by, days: 5 } })).toEqual(wanted)
    const sooner = { by: { ...seen.by, days: 5 } }
    expect(rebased<object>(seen, sooner, wanted)).toEqual(sooner)
  })

  it('finds items by their names: changed, moved, added and taken out', () => {
    const [x, y, z] = ['x', 'y', 'z'].map((id) => ({ id, to: ['one'], days: 1 }))
    const seen = [x, y]
    const moved = [y, x]
    const more = [{ ...x, to: ['one', 'two'] }, y]
    expect(rebased<unknown>(seen, moved, more)).toEqual([y, { ...x, to: ['one', 'two'] }])
    expect(rebased<unknown>(seen, [{ ...x, days: 4 }, y, z], more)).toEqual([
      { ...x, days: 4, to: ['one', 'two'] },
      y,
      z,
    ])
    expect(rebased<unknown>(seen, [y], [x, y, z])).toEqual([y, z])
    const face = { name: 'Serif', regular: 'a', strong: 'a' }
    const own = { name: 'Own', regular: 'o', strong: null }
    expect(rebased<unknown>([face], [{ ...face, strong: 'x' }], [own, { ...face, regular: 'b' }])).toEqual([
      own,
      { name: 'Serif', regular: 'b', strong: 'x' },
    ])
    const briefs = [{ network: 'murmur', length: 1, leans: true }]
    expect(
      rebased<unknown>(
        briefs,
        [{ ...briefs[0], length: 2 }],
        [{ network: 'guildhall' }, { ...briefs[0], leans: false }],
      ),
    ).toEqual([{ network: 'guildhall' }, { network: 'murmur', length: 2, leans: false }])
  })

  it('drops a field that was taken away, and keeps one that came', () => {
    expect(rebased<object>({ a: 1, b: 1 }, { a: 2 }, { a: 1, b: 1, c: 3 })).toStrictEqual({ a: 2, c: 3 })
  })
})

describe('any two changes', () => {
  const record = fc.dictionary(fc.constantFrom('a', 'b', 'c'), fc.jsonValue({ maxDepth: 2 }))
  it('are nothing where one of them is none', () => {
    fc.assert(
      fc.property(record, record, (seen, other) => {
        expect(rebased(seen, other, seen)).toEqual(other)
        expect(rebased(seen, seen, other)).toEqual(other)
        expect(rebased(seen, other, other)).toEqual(other)
      }),
    )
  })

  it('of different fields are both there, whichever was first', () => {
    fc.assert(
      fc.property(record, fc.jsonValue(), fc.jsonValue(), (seen, x, y) => {
        const one: typeof seen = { ...seen, d: x }
        const two: typeof seen = { ...seen, e: y }
        expect(rebased(seen, one, two)).toEqual({ ...seen, d: x, e: y })
        expect(rebased(seen, two, one)).toEqual({ ...seen, d: x, e: y })
      }),
    )
  })
})
