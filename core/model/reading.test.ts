import { describe, expect, it } from 'vitest'
import { ageAfter, AGES, firstReading, whenRead, type Age } from './reading'

const HOUR = 3_600_000

describe('when measures are read', () => {
  it('is at the ages, each until the middle to the next', () => {
    const out = (Object.keys(AGES) as Age[]).map((age) => {
      const { at, until } = whenRead(0, age)
      return [age, at / HOUR, until / HOUR]
    })
    expect(out).toEqual([
      ['1 h', 1, 3.5],
      ['6 h', 6, 15],
      ['1 d', 24, 48],
      ['3 d', 72, 120],
      ['7 d', 168, 444],
      ['30 d', 720, 1440],
      ['90 d', 2160, 2880],
    ])
    expect(firstReading(5)).toEqual({ age: '1 h', at: HOUR + 5, until: 3.5 * HOUR + 5 })
  })

  it('comes in order, and ends', () => {
    const ages: (Age | null)[] = ['1 h']
    while (ages.at(-1)) ages.push(ageAfter(ages.at(-1) as Age))
    expect(ages).toEqual(['1 h', '6 h', '1 d', '3 d', '7 d', '30 d', '90 d', null])
  })
})
