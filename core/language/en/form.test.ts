import { expect, it } from 'vitest'
import { isContrast, isDefinition, promisesList } from './form'
import { readSentences } from './sentences'

const tokens = (text: string) => readSentences(text)[0]?.tokens ?? []

it('hears a contrast only where one thing is set against another', () => {
  for (const text of [
    'An inspector looks at paper, not at intentions.',
    'A soft note needs more support than a loud one.',
    'It is not a safety net, it is noise with a pager.',
    'Use fondant rather than syrup.',
  ])
    expect(isContrast(text), text).toBe(true)
  for (const text of [
    'Nobody likes being overtaken.',
    'Never lift the lid in March.',
    'We waited while it rained.',
  ])
    expect(isContrast(text), text).toBe(false)
})

it('knows a definition, and a sentence that promises a list', () => {
  expect(isDefinition(tokens('A scarf is a joint with two long slopes.'))).toBe(true)
  expect(isDefinition(tokens('A scarf is stronger.'))).toBe(false)
  expect(promisesList('Rot begins in three places.')).toBe(true)
  expect(promisesList('Take these with you:')).toBe(true)
  expect(promisesList('Rot begins in three places: the stem, the sternpost and the deck edge.')).toBe(false)
})
