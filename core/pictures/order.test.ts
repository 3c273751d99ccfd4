import { expect, it } from 'vitest'
import { usualLook } from '../model'
import { orderOf, orderSize, USUAL_PICTURE } from './order'

const look = usualLook('The yard')

it('an order says how the picture looks, what it shows, and what it must not have', () => {
  const order = orderOf({ words: ' A “mallet”\n rings. ', title: 'Caulking', brief: ' Ink on paper. ', look })
  expect(order.split('\n\n')).toEqual([
    'Ink on paper.',
    'It shows what this says: “A mallet rings.”, from a text called “Caulking”.',
    'Colours near #f3efe4, #22302e and #12686b. No letters, no numbers, no logos, no frame.',
  ])
  expect(orderOf({ words: 'Oak.', title: '', brief: '', look })).toContain(
    `${USUAL_PICTURE}\n\nIt shows what this says: “Oak.”.`,
  )
  const long = `The first sentence stands. ${'And then it goes on and on. '.repeat(20)}`
  expect(orderOf({ words: long, title: '', brief: undefined, look })).toContain(
    'says: “The first sentence stands.”.',
  )
})

it('is as large as its shape wants', () => {
  expect(orderSize({ width: 4, height: 5 })).toEqual({ width: 960, height: 1200 })
  expect(orderSize({ width: 9, height: 16 })).toEqual({ width: 676, height: 1200 })
  expect(orderSize(null)).toEqual({ width: 1200, height: 800 })
})
