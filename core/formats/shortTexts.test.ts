import { describe, expect, it } from 'vitest'
import { readShortTexts, shortTextsOf } from './shortTexts'

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text)

describe('short texts', () => {
  it('stand one a line, or are parted by blank lines where there are any', () => {
    expect(readShortTexts(' Tie the ladder.\r\n- Varnish is  patience in a tin.\r\n').texts).toEqual([
      'Tie the ladder.',
      'Varnish is patience in a tin.',
    ])
    expect(readShortTexts('Tie the ladder.\nThen climb.\n\n  \nVarnish is patience in a tin.').texts).toEqual(
      ['Tie the ladder. Then climb.', 'Varnish is patience in a tin.'],
    )
  })

  it('are taken once, in whatever letters they come again', () => {
    expect(readShortTexts('Tie the ladder.\nTIE THE LADDER.\nTie the ladder.')).toEqual({
      texts: ['Tie the ladder.'],
      doubles: 2,
    })
  })

  it('come out of a sheet by the name of their column, else from the fullest one', () => {
    expect(
      shortTextsOf(
        'a.csv',
        bytes('no;tip;by\n1;"Tie the ladder; always.";Ines\n2;Oil the hinge twice.;Rui\n'),
      ).texts,
    ).toEqual(['Tie the ladder; always.', 'Oil the hinge twice.'])
    expect(
      shortTextsOf('a.csv', bytes('no,what\n1,Tie the ladder.\n2,Oil the hinge twice.\n')).texts,
    ).toEqual(['Tie the ladder.', 'Oil the hinge twice.'])
    expect(shortTextsOf('a.csv', bytes('Tie the ladder.\nOil the hinge twice.\n')).texts).toEqual([
      'Tie the ladder.',
      'Oil the hinge twice.',
    ])
    expect(shortTextsOf('a.txt', bytes('\uFEFFTie the ladder.')).texts).toEqual(['Tie the ladder.'])
  })

  it.each([
    ['  \n ', /no text in it/],
    ['Tie the ladder.\nOak', /“Oak” is too short/],
    [`${'A long story about a ladder. '.repeat(20)}`, /has 579 characters/],
    [Array.from({ length: 1001 }, (_, i) => `Saying number ${i}.`).join('\n'), /1001 texts/],
  ])('are refused with a sentence: %.20s', (written, why) => {
    expect(() => readShortTexts(written)).toThrow(why)
  })
})
