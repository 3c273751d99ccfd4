import { expect, it } from 'vitest'
import { paintingOf } from './painter'

const order = (prompt: string) => ({ prompt, width: 960, height: 1200 })

it('the stand-in painter paints what most words name, in the light that is named', () => {
  const boat = paintingOf(order('A boat on the shore, a hull of larch, in the evening'), false)
  // The sky of the evening, and the hull of the boat.
  expect(boat).toContain('fill="#e2a267"')
  expect(boat).toContain('M-300 -150')
  expect(paintingOf(order('A boat on the shore, in winter'), false)).toContain('fill="#e4e9ec"')
  expect(boat).toContain('width="960" height="1200"')
})

it('paints the same for the same words, and letters only by mishap', () => {
  expect(paintingOf(order('qwertz'), false)).toBe(paintingOf(order('qwertz'), false))
  expect(paintingOf(order('qwertz'), true)).not.toBe(paintingOf(order('qwertz'), false))
})
