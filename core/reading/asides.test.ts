import { describe, expect, it } from 'vitest'
import { ASIDES, asideOf } from './asides'

describe.each(ASIDES)('$reason', ({ reason, within: [from, to] = [0, 1], examples, lookAlikes }) => {
  it.each(examples)('is “%s”', (sentence) => {
    expect(asideOf(sentence, (from + to) / 2)?.reason).toBe(reason)
  })
  it.each(lookAlikes)('is not “%s”', (sentence) => {
    expect(asideOf(sentence, (from + to) / 2)).toBeNull()
  })
})
