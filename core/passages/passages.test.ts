import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { readArticle } from '../../demo/content'
import type { PieceContent } from '../model'
import { readFragment } from '../reading'
import { readSentences } from '../reading/language'
import { findPassages, passageAt } from '.'
import { lexRank } from './centrality'
import { ageingWords, danglingWords, isImperative, isPast } from './features'

const dangling = (text: string): string | null => {
  const [first] = readSentences(text)
  return danglingWords(first?.tokens ?? [], text)
}
const tokens = (text: string) => readSentences(text)[0]?.tokens ?? []

/** The demo's articles, read as the feed would bring them. */
function articles(): PieceContent[] {
  const folder = join(import.meta.dirname, '../../demo/content/oakum-yard')
  return readdirSync(folder).map((f) => {
    const a = readArticle(readFileSync(join(folder, f), 'utf8'))
    return readFragment(a.html, { title: a.title, author: a.author, categories: a.categories })
  })
}

describe('what points out of a sentence', () => {
  it.each([
    ['It leaks at every corner.', 'It'],
    ['However, nobody writes it down.', 'However'],
    ['This third is for the putty.', 'This'],
    ['The other eighty-one go elsewhere.', 'The other'],
    ['Do not bend it in jerks.', 'it'],
    ['If all seven are sound, ask why.', 'all seven'],
    ['More is not better.', 'More'],
    ['The last one is the one people leave out.', 'The last'],
    ['As shown above, the seam is open.', 'As shown'],
    ['Larch weighs about 590.', '590'],
  ])('%s', (text, words) => {
    expect(dangling(text)).toBe(words)
  })

  it.each([
    'It is rain that kills boats.',
    'Nobody has ever come into a hut and said they wished they had turned back later.',
    'Boats do not wear out in summer.',
    'If you cannot see two cairns ahead, stop.',
    'There is a moment when the talking stops.',
    'A plank at ten per cent will swell, and it will crush its neighbour.',
  ])('nothing in: %s', (text) => {
    expect(dangling(text)).toBeNull()
  })
})

it('tells instructions and stories from statements', () => {
  for (const text of [
    'Rake the seam out to bare wood.',
    'Do not push it.',
    'Never work from the tin.',
    'Plane both planks at once.',
  ])
    expect(isImperative(tokens(text)), text).toBe(true)
  for (const text of [
    'Oak belongs where things are fastened.',
    'We rake the seam.',
    'Planks are shorter than boats.',
  ])
    expect(isImperative(tokens(text)), text).toBe(false)
  expect(isPast(tokens('Our first frame broke in her hands.'))).toBe(true)
  expect(isPast(tokens('A frame breaks on the outside.'))).toBe(false)
})

it('knows what ages', () => {
  expect(ageingWords('Every plank we cut out last winter had one.')).toBe('last winter')
  expect(ageingWords('The prices of 2026 will not hold.')).toBe('2026')
  expect(ageingWords('Varnish laid in November stays soft.')).toBeNull()
})

it('ranks the sentence that shares most with the others highest', () => {
  const rank = lexRank([['oak', 'steam'], ['oak', 'frame'], ['oak', 'steam', 'frame'], ['tea']])
  expect(rank.indexOf(Math.max(...rank))).toBe(2)
  expect(rank[3]).toBeLessThan(rank[0] as number)
  expect(lexRank([])).toEqual([])
})

describe('findPassages', () => {
  it('finds enough for a Trickle in every article, exact, apart, whole and without furniture', () => {
    for (const piece of articles()) {
      const found = findPassages(piece)
      expect(found.length, piece.title).toBeGreaterThanOrEqual(8)
      const ends = new Set(piece.sentences.map((s) => s.end))
      for (const p of found) {
        expect(piece.text.slice(p.start, p.end)).toBe(p.text)
        expect(ends.has(p.end), p.text).toBe(true)
        expect(found.every((q) => q === p || q.end <= p.start || q.start >= p.end)).toBe(true)
        expect(p.text).not.toMatch(/^(It (?!is \w+ that)|(They|This|But|And|So|However)\b)/)
      }
      expect([...found].sort((a, b) => b.score - a.score)).toEqual(found)
    }
  })

  it('keeps a list whole with its lead-in', () => {
    const piece = readFragment(
      '<p>Before you open the box, look at four things:</p><ul><li>gloves on</li><li>clamps open</li><li>path clear</li><li>somebody at the far end who knows what you shout</li></ul><p>Nothing more is needed for it.</p>',
      { title: 'Steam' },
    )
    expect(findPassages(piece)[0]).toMatchObject({
      kind: 'steps',
      text: expect.stringMatching(/^Before you open[\s\S]*you shout$/) as string,
    })
  })

  it('never quotes furniture', () => {
    const piece = readFragment(
      `<p>${'An hour in the box for every inch of thickness. '.repeat(2)}</p><div class="author-box"><p>Rita Vance has taught at the yard for 40 years and never broke a frame.</p></div>`,
      { title: 'Steam' },
    )
    for (const p of findPassages(piece)) expect(p.text).not.toMatch(/Rita/)
  })

  it('scores a passage chosen by hand like the others', () => {
    const piece = articles()[0] as PieceContent
    const s = piece.sentences[0]!
    expect(passageAt(piece, s.start, s.end)).toMatchObject({
      text: piece.text.slice(s.start, s.end),
      reasons: expect.arrayContaining(['chosen by hand']) as string[],
    })
  })
})
