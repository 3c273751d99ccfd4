import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ungrounded } from './grounding'

const SOURCE = `Ebba Stroud kept the light for forty years. In 1880 there were 2,311 sails and 96 steamers.
Nine in ten sprains heal by themselves. The room is kept at sixteen degrees; the beam was 12 metres long.
“I have had the light,” she wrote, “and the light has had me.” Grey weather coloured the glass. A litre costs 4 crowns.`
const found = (caption: string, allowed: string[] = []) =>
  ungrounded(caption, SOURCE, allowed).map((f) => `${f.kind}: ${f.words}`)

describe('what is not in the piece', () => {
  it.each([
    ['She kept it for 41 years.', 'number: 41'],
    ['There were 2311 sails, and 97 steamers.', 'number: 97'],
    ['A litre costs 12 crowns.', 'number: 12'],
    ['The beam was twelve litres long.', 'number: twelve'],
    ['Twenty-three sprains heal.', 'number: Twenty-three'],
    ['The light was kept by Marta Lind.', 'name: Marta Lind'],
    ['She wrote, “the light has had us all”.', 'quotation: “the light has had us all”'],
    ['The light was the brightest.', 'superlative: brightest'],
    ['It is the best light.', 'superlative: best'],
    ['The light saved the fishermen.', 'word: fishermen'],
  ])('%s', (caption, what) => {
    expect(found(caption)).toContain(what)
  })

  it.each([
    'Ebba Stroud kept the light for 40 years.',
    'In 1880 there were 2311 sails.',
    'Sixteen degrees is the room, 16 degrees.',
    'Nine in ten sprains heal.',
    'A 12-metre beam.',
    '“I have had the light,” she wrote.',
    'Gray weather colored the glasses.',
    'The lights were kept; she keeps one.',
    'Four crowns a litre.',
  ])('knows: %s', (caption) => {
    expect(found(caption)).toEqual([])
  })

  it('says each thing once', () => {
    expect(
      found('Marta kept it, and Marta saw 97 ships, 97 of them.').filter((f) => f.includes('97')),
    ).toEqual(['number: 97'])
  })

  it('takes the brand’s words and the library’s for known', () => {
    expect(found('Lantern House keeps the light.')).toContain('name: House')
    expect(found('Kept for you by Lantern House.', ['Lantern House', 'for you'])).toEqual([])
  })

  it('finds every number that the piece has not, wherever it stands', () => {
    const own = new Set([1880, 2311, 96, 16, 12, 4, 40, 9, 10])
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 99_999 }), fc.nat(3), (value, place) => {
        const words = ['The light', 'was kept', 'for years', 'by Ebba']
        words.splice(place, 0, String(value))
        const numbers = ungrounded(words.join(' '), SOURCE).filter((f) => f.kind === 'number')
        expect(numbers.length > 0).toBe(!own.has(value))
      }),
    )
  })

  it('never throws, and finds nothing in the piece’s own sentences', () => {
    for (const sentence of SOURCE.match(/[^.]+\./g) ?? []) expect(found(sentence.trim())).toEqual([])
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 200 }), (text) => {
        ungrounded(text, SOURCE)
      }),
    )
  })
})

it('a name with a number in it is one name', () => {
  const names = (text: string, source: string) =>
    ungrounded(text, source).flatMap((u) => (u.kind === 'name' ? u.words : []))
  expect(names('We print it on A3 with the B2 plotter.', 'Print it on A3; the B2 plotter is slow.')).toEqual(
    [],
  )
  expect(names('We print it on the B7 plotter.', 'The B2 plotter is slow to print.')).toEqual(['B7'])
})
