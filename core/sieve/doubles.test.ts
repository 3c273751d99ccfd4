import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { oakumYard } from '../../demo/content'
import { compare, Doubles, findDoubles, nearDoubles, shingles, sketchOf } from '.'

const articles = oakumYard().articles.map((a) => ({
  id: a.slug,
  title: a.title,
  text: a.html.replace(/<[^>]*>/g, ' ').replace(/\s+/g, ' '),
}))
const [first, second] = articles as [(typeof articles)[number], (typeof articles)[number]]
const words = (text: string): string[] => text.split(' ')
const sketch = (id: string, text: string) => ({ id, brand: 'brand', ...sketchOf(text) })

describe('MinHash', () => {
  it('estimates the Jaccard index of two texts', () => {
    for (const share of [0.2, 0.5, 0.8]) {
      const w = words(first.text)
      const other = [
        ...w.slice(0, Math.round(w.length * share)),
        ...words(second.text).slice(0, Math.round(w.length * (1 - share))),
      ].join(' ')
      const [a, b] = [shingles(first.text), shingles(other)]
      const both = [...a].filter((s) => b.has(s)).length
      const exact = both / (a.size + b.size - both)
      const [x, y] = [sketchOf(first.text), sketchOf(other)]
      const estimate = x.signature.filter((n, i) => n === y.signature[i]).length / x.signature.length
      expect(Math.abs(estimate - exact)).toBeLessThan(0.2)
    }
  })

  it('is the same for the same words, whatever their case and marks', () => {
    expect(sketchOf(first.text.toUpperCase().replace(/[.,]/g, ' ;'))).toEqual(sketchOf(first.text))
    fc.assert(
      fc.property(fc.string(), (text) => {
        const { signature, sample } = sketchOf(text)
        expect(signature).toHaveLength(64)
        expect(sample.every((s) => s % 8 === 0)).toBe(true)
      }),
    )
  })
})

describe('finding doubles', () => {
  const index = new Doubles(articles.map((a) => sketch(a.id, a.text)))

  it('brings up a story told again with other words at its ends, and nothing for a new one', () => {
    const again = `The wardens told us this. ${words(first.text).slice(20, -20).join(' ')} That was all.`
    expect(index.near(sketchOf(again))[0]?.id).toBe(first.id)
    expect(
      index.near(sketchOf('Bees do not sleep in winter; they hang in a ball and shiver, and eat.')),
    ).toEqual([])
    for (const a of articles) expect(index.near(sketchOf(a.text)).map((c) => c.id)).toEqual([a.id])
  })

  it('brings up the whole for an excerpt of a tenth of it', () => {
    const part = words(first.text).slice(200, 290).join(' ')
    expect(index.near(sketchOf(part))[0]).toMatchObject({ id: first.id })
  })

  it('brings up a book of sixty thousand words for a page of it, from wherever in it the page comes', () => {
    // Numbers in words: no two places of it are alike.
    const book = Array.from({ length: 60_000 }, (_, i) => `word${(i * 7919) % 60_013}`)
    const index = new Doubles([sketch('book', book.join(' ')), sketch('other', second.text)])
    for (const from of [0, 17_000, 42_000, 59_000]) {
      const page = book.slice(from, from + 900).join(' ')
      expect([from, index.near(sketchOf(page)).map((c) => c.id)]).toEqual([from, ['book']])
      const back = new Doubles([sketch('page', page)])
      expect([from, back.near(sketchOf(book.join(' '))).map((c) => c.id)]).toEqual([from, ['page']])
    }
    expect(index.near(sketchOf(first.text))).toEqual([])
  })

  it('tells the same story from an excerpt, by how much, and neither from both', () => {
    const again = { title: 'Other words', text: `${words(first.text).slice(30).join(' ')} And so on.` }
    expect(compare(first, again)).toMatchObject({ why: 'the same story' })
    const part = { title: 'A part', text: words(first.text).slice(100, 200).join(' ') }
    expect(compare(part, first)).toMatchObject({ why: 'an excerpt', shorter: 'a', likeness: 1 })
    expect(compare(first, second)).toBeNull()
    expect(compare({ title: 'x', text: 'Short words here.' }, first)).toBeNull()
    expect(compare({ title: 'x', text: '' }, first)).toBeNull()
  })

  it('keeps the oldest as the first, knows an address in other clothes, and folds among the new ones', () => {
    const fresh = [
      { ...first, id: 'late', address: 'b.example/x', publishedAt: '2026-11-03T00:00:00.000Z', takenAt: '' },
      { ...first, id: 'early', address: 'a.example/x', publishedAt: '2026-11-01T00:00:00.000Z', takenAt: '' },
      { ...second, id: 'same', address: 'c.example/y', publishedAt: '2026-11-02T00:00:00.000Z', takenAt: '' },
    ]
    const sketches = fresh.map((f) => sketch(f.id, f.text))
    const told = new Map(fresh.map((f) => [f.id, f]))
    const found = findDoubles(
      fresh,
      [{ id: 'old', address: 'c.example/y' }],
      nearDoubles([], sketches),
      (id) => told.get(id),
    )
    expect([...found]).toEqual([
      ['same', { of: 'old', likeness: 1, why: 'the same address' }],
      ['late', { of: 'early', likeness: 1, why: 'the same story' }],
    ])
  })
})
