import { expect, it } from 'vitest'
import { recipeOf, type Recipe } from '../model'
import { aPipeline, aRow } from '../model/samples'
import { differs } from '.'

const base = recipeOf(aPipeline({ release: [aRow({ id: 'a' }), aRow({ id: 'b' })] }))
const other = (change: Partial<Recipe>): string[] => differs(base, { ...base, ...change })

it('two recipes differ in what was changed, each said once', () => {
  expect(other({})).toEqual([])
  expect(
    other({ gate: 'nothing', takeIn: { ...base.takeIn, aWeek: 2, sources: [], groups: ['x'] } }),
  ).toEqual(['sources', 'pieces a week', 'gate'])
  expect(other({ limits: { ...base.limits, aDay: 1 }, make: { ...base.make, after: 'So.' } })).toEqual([
    'closing line',
    'posts a day',
  ])
  expect(other({ release: [aRow({ id: 'b' }), aRow({ id: 'a', accounts: ['x'] })] })).toEqual([
    'row 2',
    'the order of rows',
  ])
  expect(other({ release: [aRow({ id: 'a' }), aRow({ id: 'c' }), aRow({ id: 'd' })] })).toEqual([
    '2 rows more',
    '1 row fewer',
  ])
})

it('every field of a recipe has its word', () => {
  const [takeIn, make, limits] = [base.takeIn, base.make, base.limits] as Record<string, unknown>[]
  for (const [part, fields] of Object.entries({ takeIn, make, limits }))
    for (const key of Object.keys(fields ?? {})) {
      const [word] = other({ [part]: { ...(fields as object), [key]: 'something else' } })
      expect(word).toMatch(/^[a-z ]+$/)
      expect(['since', 'after', 'from', 'to', 'ahead', 'changed']).not.toContain(word)
    }
})
