import { expect, it } from 'vitest'
import { readDate } from '../../core/planning'
import { wholeDay } from './DateField'

it('every day that a field shows is read back as itself', () => {
  for (let day = Date.UTC(2024, 0, 1); day < Date.UTC(2028, 0, 1); day += 86_400_000) {
    const date = new Date(day).toISOString().slice(0, 10)
    expect(readDate(wholeDay(date), false)).toBe(date)
  }
  expect(wholeDay('2026-11-24')).toBe('24 Nov 2026')
  expect(wholeDay('')).toBe('')
})
