import fc from 'fast-check'
import { expect, it } from 'vitest'
import { AGES, MEASURES, type Age, type Measures } from '../model'
import { eachOf, toColumns } from './columns'

const someMeasures = fc.dictionary(fc.constantFrom(...MEASURES), fc.nat({ max: 2 ** 40 }))
const atAges = fc.dictionary(fc.constantFrom(...Object.keys(AGES)), fc.option(someMeasures))

it('give back what was put into columns, also after a copy as a database makes one', () => {
  fc.assert(
    fc.property(fc.dictionary(fc.string(), atAges, { maxKeys: 12 }), (made) => {
      const readings = new Map(Object.entries(made)) as Map<string, Partial<Record<Age, Measures | null>>>
      const back = new Map<string, Partial<Record<Age, Measures | null>>>()
      eachOf(structuredClone(toColumns(readings)), (key, age, measures) =>
        back.set(key, { ...back.get(key), [age]: measures }),
      )
      const told = [...readings].filter(([, read]) => Object.keys(read).length > 0)
      expect(Object.fromEntries(back)).toEqual(Object.fromEntries(told))
    }),
  )
})

it('have a column for what was counted only', () => {
  const { keys, ages } = toColumns(
    new Map([
      ['a:1', { '1 h': { clicks: 0 } }],
      ['b:1', {}],
      ['c:1', { '1 h': null }],
    ]),
  )
  expect(keys).toEqual(['a:1', 'c:1'])
  expect(ages).toEqual([
    {
      age: '1 h',
      state: Uint8Array.of(2, 1),
      counted: [{ measure: 'clicks', values: Float64Array.of(0, NaN) }],
    },
  ])
})
