import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { fillersIn, withoutFillers } from '.'

describe('speech written down', () => {
  it.each([
    ['So this is, um, the last step.', 'So this is the last step.'],
    ['If the back has, er, rust pits, stop.', 'If the back has rust pits, stop.'],
    ['I work it with this, um, this little brush.', 'I work it with this little brush.'],
    ['A ridge like a, like a vein on an arm.', 'A ridge like a vein on an arm.'],
    ['You, um, you hold a box.', 'You hold a box.'],
    ['Because, you know, people come in.', 'Because people come in.'],
    ['Okay, so we are up in the loft.', 'So we are up in the loft.'],
    ['Knots. Right. A tight knot is fine.', 'Knots. A tight knot is fine.'],
    ['Um, press and draw.', 'Press and draw.'],
    ['Nobody had plugged it, you know.', 'Nobody had plugged it.'],
  ])('%s', (said, written) => {
    expect(withoutFillers(said)).toBe(written)
  })

  it.each([
    'You know how it ends.',
    'Well water is cold.',
    'It looks like rain.',
    'Hold it right there, and press.',
    'The umbrella and the ermine are dry.',
    'Never, never push.',
  ])('leaves alone: %s', (text) => {
    expect(withoutFillers(text)).toBe(text)
    expect(fillersIn(text)).toEqual([])
  })

  it('marks what is hidden so that hiding it leaves the rest as it was', () => {
    const text = 'I say that because, you know, people, um, come.'
    const places = fillersIn(text)
    expect(places.map((p) => text.slice(p.start, p.end))).toEqual(['you know, ', 'um, '])
  })

  it('takes nothing but words of the text, whatever it is', () => {
    const words = fc.array(
      fc.constantFrom('um,', 'you know,', 'the', 'oak', 'is', 'dry.', 'Well,', 'er', 'like,'),
    )
    fc.assert(
      fc.property(words, (list) => {
        const text = list.join(' ')
        const kept = withoutFillers(text).toLowerCase().match(/\w+/g) ?? []
        const said = text.toLowerCase().match(/\w+/g) ?? []
        let at = 0
        for (const word of kept) {
          const next = (said as string[]).indexOf(word, at)
          expect(next).toBeGreaterThanOrEqual(at)
          at = next + 1
        }
        const places = fillersIn(text)
        places.forEach((p, i) => expect(p.start).toBeGreaterThanOrEqual(places[i - 1]?.end ?? 0))
      }),
    )
  })
})
