import { expect, it } from 'vitest'
import { markedParts } from './marked'

const block = (...lines: string[]) =>
  ({ text: lines.join(' '), lines: lines.map((text) => ({ text, width: 1 })) }) as Parameters<
    typeof markedParts
  >[0]

it('words stand out where they stand first, also where lines say the same', () => {
  expect(markedParts(block('go on', 'go on', 'and stop'), ['go on'])).toEqual([{ line: 0, from: 0, to: 5 }])
  expect(markedParts(block('go on', 'go on', 'and stop'), ['on and'])).toEqual([
    { line: 1, from: 3, to: 5 },
    { line: 2, from: 0, to: 3 },
  ])
  expect(markedParts(block('go on'), [])).toEqual([])
})
