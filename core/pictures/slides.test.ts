import { expect, it } from 'vitest'
import { cardLacks, type Card } from '../model'
import { slidesOf } from '.'

const list: Card = {
  layout: 'list',
  head: 'What a hive needs',
  text: '',
  items: ['Sun in the morning.', 'A dry floor.'],
  speaker: '',
}

it('a list becomes slides: what it is of, a point on each, the brand’s line last', () => {
  const slides = slidesOf(list, 'The bee yard', 10) ?? []
  expect(slides.map((s) => [s.layout, s.head, s.text])).toEqual([
    ['title', '', 'What a hive needs'],
    ['words', '', 'Sun in the morning.'],
    ['words', '', 'A dry floor.'],
    ['title', '', 'The bee yard'],
  ])
  expect(slides.map(cardLacks)).toEqual([null, null, null, null])
})

it('steps are counted, and without a line of the brand the last step is the last slide', () => {
  const slides = slidesOf({ ...list, layout: 'steps' }, ' ', 10) ?? []
  expect(slides.map((s) => s.head)).toEqual(['', '1', '2'])
})

it('a code stands on the last of them', () => {
  expect(slidesOf({ ...list, code: true }, 'x', 10)?.map((s) => s.code ?? false)).toEqual([
    false,
    false,
    false,
    true,
  ])
})

it('there are none of anything else, without a head, nor more than the network takes', () => {
  expect(slidesOf({ ...list, layout: 'words', text: 'A word.' }, 'x', 10)).toBeNull()
  expect(slidesOf({ ...list, head: '' }, 'x', 10)).toBeNull()
  expect(slidesOf(list, 'x', 4)).toHaveLength(4)
  expect(slidesOf(list, 'x', 3)).toBeNull()
})
