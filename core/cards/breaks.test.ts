import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { openFaces } from '../../cli/faces'
import { usualLook } from '../model'
import { facesOf } from '.'
import { breakLines, cutToFit, measured, widest } from './breaks'
import type { Face } from './faces'

let face: Face
beforeAll(async () => {
  face = facesOf(usualLook('a'), await openFaces()).words
})
const broken = (text: string, measure: number, most?: number) =>
  breakLines(measured(text, face), measure, most)?.lines.map((l) => l.text)

describe('lines', () => {
  it('are broken as well as in the best of all ways', () => {
    // Words that nothing is known of but their width: what a way costs is its white space, and a word alone at the end.
    const words = fc.array(
      fc.string({ unit: fc.constantFrom('m', 'k', 's', 'v', 't', 'z'), minLength: 3, maxLength: 9 }),
      {
        minLength: 2,
        maxLength: 9,
      },
    )
    fc.assert(
      fc.property(words, fc.integer({ min: 5, max: 16 }), (list, measure) => {
        const text = list.join(' ')
        const costOf = (lines: string[][]): number =>
          lines.reduce((sum, line, i) => {
            const slack = (measure - face.run(line.join(' ')).width) / measure
            const last = i === lines.length - 1 && lines.length > 1
            return slack < 0
              ? Infinity
              : sum +
                  100 * slack * slack +
                  (last && line.length === 1 ? (slack > 0.55 ? 300 : 30) : 0) +
                  (i < lines.length - 1 && slack > 0.5 ? 24 : 0) +
                  (last && slack > 0.7 ? 60 : 0)
          }, 0)
        const ways = Array.from({ length: 2 ** (list.length - 1) }, (_, way) =>
          list.reduce<string[][]>(
            (lines, word, i) => {
              if (i > 0 && way & (1 << (i - 1))) lines.push([])
              lines.at(-1)?.push(word)
              return lines
            },
            [[]],
          ),
        )
        const best = Math.min(...ways.map(costOf))
        const found = broken(text, measure)
        if (!found) {
          expect(best).toBe(Infinity)
          return
        }
        expect(found.join(' ')).toBe(text)
        // Letters that stand closer across a space make the smallest of differences.
        expect(costOf(found.map((l) => l.split(' ')))).toBeLessThan(best + 0.01)
      }),
      { numRuns: 150 },
    )
  })

  it('end where a reader pauses, not on an article, nor between a number and what it counts', () => {
    expect(broken('Two boats lie in the shed, one on the slip', 9)).toEqual([
      'Two boats lie',
      'in the shed,',
      'one on the slip',
    ])
    expect(broken('It took 14 days of rain', 6)?.join('|')).not.toMatch(/14\|/)
    expect(broken('We sanded all of the deck twice', 9.5)?.join('|')).not.toMatch(/\b(?:of|the)\|/)
  })

  it('may not be more than asked for, and there are none where a word is too wide', () => {
    expect(broken('one two three four', 5, 1)).toBeUndefined()
    expect(broken('one unbreakableword', 4)).toBeUndefined()
    expect(broken('', 4)).toEqual([])
  })

  it('keep quotation marks and closing signs with their words', () => {
    const text = 'He said “never” (and meant it) — twice!'
    for (let measure = 6; measure < 20; measure += 0.5)
      for (const line of broken(text, measure) ?? []) expect(line).not.toMatch(/^[”)!]|[“(]$/)
  })
})

describe('a word that no size makes fit', () => {
  it('is cut between letters, with a hyphen, and no letter of it is lost', () => {
    const cut = cutToFit(measured('a Bootsinstandsetzung', face), 5)
    expect(widest(cut)).toBeLessThanOrEqual(5)
    const lines = breakLines(cut, 5)?.lines.map((l) => l.text) ?? []
    expect(lines.length).toBeGreaterThan(2)
    expect(lines.join('').replace(/[-\u200b\s]/g, '')).toBe('aBootsinstandsetzung')
    expect(lines.slice(1, -1).every((l) => /-\u200b?$/.test(l))).toBe(true)
  })

  it('has no hyphen where it is an address, which would change it', () => {
    const cut = cutToFit(measured('https://yard.example/a/long/way', face), 5)
    expect(cut.text.replaceAll('\u200b', '')).toBe('https://yard.example/a/long/way')
  })
})
