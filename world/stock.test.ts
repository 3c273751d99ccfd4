import { Resvg } from '@resvg/resvg-js'
import { describe, expect, it } from 'vitest'
import { printDistance } from '../core/model'
import { LIKE_BITS } from '../core/model/picture'
import { greyOf, PRINT_SIDE, printOf } from '../core/pictures'
import { searchStock, STOCK } from './stock'

describe('the stand-in of a stock', () => {
  it('has at least 120 pictures, and no two that look alike', () => {
    expect(STOCK.length).toBeGreaterThanOrEqual(120)
    expect(new Set(STOCK.map((p) => p.id)).size).toBe(STOCK.length)
    const small = `width="${PRINT_SIDE}" height="${PRINT_SIDE}" preserveAspectRatio="none"`
    const prints = STOCK.map(({ svg }) => {
      const { pixels } = new Resvg(svg().replace('width="1200" height="800"', small)).render()
      return printOf(greyOf(new Uint8ClampedArray(pixels))) as string
    })
    const alike = prints.flatMap((a, i) =>
      prints
        .slice(0, i)
        .flatMap((b, j) => (printDistance(a, b) <= LIKE_BITS ? [`${STOCK[i]?.id} ${STOCK[j]?.id}`] : [])),
    )
    expect(alike).toEqual([])
  })

  it('is found by words, those first that more of them name', () => {
    expect(searchStock('').length).toBe(STOCK.length)
    expect(searchStock('qwertz')).toEqual([])
    const [first] = searchStock('boats in the Winter!')
    expect(first?.title).toBe('A boat drawn up on the shore in winter')
    expect(searchStock('timber').every((p) => p.tags.includes('timber'))).toBe(true)
  })
})
