import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { readOwn } from '../reading'
import { ThemeIndex, themeOf, type ThemeText } from '.'

const text = (id: string, words: string, title = ''): ThemeText => ({ id, text: words, title })

describe('what is near a theme', () => {
  it('is counted by the formula, worked out by hand', () => {
    const index = new ThemeIndex([
      text('a', 'frost splits planks'),
      text('b', 'frost frost on the deck in spring'),
      text('c', 'varnish dries slowly'),
    ])
    // Three texts of 3, 7 and 3 words, 13/3 on average; "frost" in two of them.
    const rare = Math.log(1 + (3 - 2 + 0.5) / (2 + 0.5))
    const held = (words: number): number => 0.25 + (0.75 * words) / (13 / 3)
    const [first, second, ...rest] = index.near(['frost'])
    expect(rest).toEqual([])
    expect(first).toMatchObject({ id: 'b', says: ['frost'] })
    expect(first?.score).toBeCloseTo((rare * 2 * 2.2) / (2 + 1.2 * held(7)), 10)
    expect(second?.id).toBe('a')
    expect(second?.score).toBeCloseTo((rare * 1 * 2.2) / (1 + 1.2 * held(3)), 10)
  })

  it('sums the words of a theme, and a rare one counts more than a common one', () => {
    const index = new ThemeIndex([
      text('both', 'ice and wind'),
      text('rare', 'only ice here'),
      text('common', 'the wind blows'),
      text('also', 'more wind again'),
      text('none', 'nothing to see'),
    ])
    const near = index.near(['ice', 'wind'])
    expect(near.map((n) => n.id)).toEqual(['both', 'rare', 'also', 'common'])
    expect(near[0]?.says).toEqual(['ice', 'wind'])
  })

  it('knows words in every form, phrases whole, and the title over a text at half', () => {
    const index = new ThemeIndex([
      text('forms', 'We were freezing on the quay'),
      text('phrase', 'Lay up the boat dry'),
      text('apart', 'Lay the oars down and look up'),
      text('titled', 'Keep it dry', 'Freezing weather'),
    ])
    expect(index.near(['freeze']).map((n) => n.id)).toEqual(['forms', 'titled'])
    expect(index.near(['lay up']).map((n) => n.id)).toEqual(['phrase'])
    expect(index.near(['lay-up']).map((n) => n.id)).toEqual(['phrase'])
    expect(index.near(['laying up']).map((n) => n.id)).toEqual(['phrase'])
    expect(index.near(['glue', ''])).toEqual([])
    expect(new ThemeIndex([]).near(['glue'])).toEqual([])
  })

  it('goes by the name where there is no theme, without the words that all names of days have', () => {
    expect(themeOf({ name: 'First Caulking Day', theme: [] })).toEqual(['caulking'])
    expect(themeOf({ name: 'International Week of the Hut', theme: [] })).toEqual(['hut'])
    expect(themeOf({ name: 'First day', theme: [] })).toEqual([])
    expect(themeOf({ name: 'First Caulking Day', theme: ['oakum', 'pitch'] })).toEqual(['oakum', 'pitch'])
  })

  it('finds the article that a title was taken from, among many that nobody here wrote for it', async () => {
    const folder = new URL('../../train/quotable/', import.meta.url)
    const titles: { file: string; title: string }[] = []
    const texts: ThemeText[] = []
    for (const file of readdirSync(folder).filter((f) => /^[a-z]\d\d-.*\.md$/.test(f))) {
      const [piece] = (await readOwn(new Uint8Array(readFileSync(new URL(file, folder))), file)).chapters
      if (!piece) continue
      titles.push({ file, title: piece.title })
      for (const { kind, furniture, start, end } of piece.blocks)
        if (furniture === null && kind !== 'heading' && end - start > 60)
          // The title itself is kept away.
          texts.push(text(`${file} ${start}`, piece.text.slice(start, end)))
    }
    const index = new ThemeIndex(texts)
    const found = titles.filter(({ file, title }) =>
      index
        .near(themeOf({ name: title, theme: [] }))
        .slice(0, 3)
        .some((n) => n.id.startsWith(`${file} `)),
    )
    expect(titles.length).toBeGreaterThan(90)
    expect(found.length / titles.length).toBeGreaterThan(0.83)
  })
})
