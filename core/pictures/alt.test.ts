import { expect, it } from 'vitest'
import { proposedAlt, standsWith } from '.'

it.each([
  ['A hull on the slip', '', 'A hull on the slip'],
  ['', 'The slip at low water', 'The slip at low water'],
  ['Image of a hull on the slip', '', 'A hull on the slip'],
  ['A black and white photo of the crew', '', 'A black and white photo of the crew'],
  ['An old photograph of the crew', '', 'The crew'],
  ['Picture: the crew', '', 'The crew'],
  ['IMG_2034.JPG', 'The crew', 'The crew'],
  ['DSC 0042', '', 'Title'],
  ['screenshot-12', '', 'Title'],
  ['', '  ', 'Title'],
  ['Photographers at work', '', 'Photographers at work'],
])('of “%s” and “%s” the alternative text is “%s”', (alt, caption, said) => {
  expect(proposedAlt({ alt, caption }, 'Title')).toBe(said)
})

it('a picture of which nothing is said stands with the heading above it, else with the title', () => {
  const text = 'Old boats\n\nThey leak.\n\nThe  seam\n\nPay it.\n\nShare this'
  const block = (words: string, kind: 'heading' | 'paragraph', furniture: string | null = null) => {
    const start = text.indexOf(words)
    return { start, end: start + words.length, kind, furniture }
  }
  const piece = {
    title: 'A boat',
    text,
    blocks: [
      block('They leak.', 'paragraph'),
      block('The  seam', 'heading'),
      block('Pay it.', 'paragraph'),
      block('Share this', 'heading', 'sharing'),
    ],
  }
  expect([-1, 0, 1, 2, 3].map((at) => standsWith({ block: at }, piece))).toEqual([
    'A boat',
    'A boat',
    'The seam',
    'The seam',
    'The seam',
  ])
})
