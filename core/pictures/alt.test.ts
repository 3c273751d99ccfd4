import { expect, it } from 'vitest'
import { proposedAlt } from '.'

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
