import fc from 'fast-check'
import { expect, it } from 'vitest'
import { differences, shortened } from '.'

it('tells a rewritten passage as one change', () => {
  expect(
    differences(
      'We meet in the loft. From one o’clock there is soup in the sail room, made in a pot. It is clean.',
      'We meet in the loft. From noon there is soup in the loft, made in a pot. It is clean.',
    ),
  ).toEqual([
    { kind: 'same', text: 'We meet in the loft. From ' },
    { kind: 'gone', text: 'one o’clock ' },
    { kind: 'new', text: 'noon ' },
    { kind: 'same', text: 'there is soup in the ' },
    { kind: 'gone', text: 'sail room' },
    { kind: 'new', text: 'loft' },
    { kind: 'same', text: ', made in a pot. It is clean.' },
  ])
  expect(differences('a cat sat on one mat', 'a dog sat on two mats').map((d) => d.text)).toEqual([
    'a ',
    'cat sat on one mat',
    'dog sat on two mats',
  ])
  expect(differences('as it was', 'as it was')).toEqual([{ kind: 'same', text: 'as it was' }])
})

it('gives both texts back, whatever they are', () => {
  const text = fc
    .array(fc.constantFrom('oak', 'tar', 'seam,', 'plank.', '\n\n', 'the', 'cold'), { maxLength: 30 })
    .map((words) => words.join(' '))
  fc.assert(
    fc.property(text, text, (a, b) => {
      const parts = differences(a, b)
      const without = (kind: string) =>
        parts
          .filter((p) => p.kind !== kind)
          .map((p) => p.text)
          .join('')
      expect(without('new')).toBe(a)
      expect(without('gone')).toBe(b)
    }),
  )
})

it('shortens what stayed at words, on the sides where changes are', () => {
  const long = 'one two three four five six seven eight nine ten'
  expect(shortened(long, 10, { after: true, before: true })).toBe('one two … nine ten')
  expect(shortened(long, 10, { after: true, before: false })).toBe('one two … ')
  expect(shortened('one two', 10, { after: true, before: true })).toBe('one two')
})
