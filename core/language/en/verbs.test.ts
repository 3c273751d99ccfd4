import { expect, it } from 'vitest'
import { readSentences } from './sentences'
import { hasVerb, isImperative, isPast } from './verbs'

const tokens = (text: string) => readSentences(text)[0]?.tokens ?? []

it.each([
  'In an account that you can empty in a day and that is not the one your card is attached to.',
  'From a variety you like, yes, as long as it is not a hybrid.',
  'From the moment the first truss has set, once a week, with something high in potash.',
  'Usually because the nights are cold and the days are hot.',
  'Once in spring and once in autumn, about three weeks after the heating goes off or comes on.',
])('is the answer to a question and no sentence: “%s”', (text) => {
  expect(hasVerb(tokens(text))).toBe(false)
})

it.each([
  'In the archive at Corran there are sixteen ledgers.',
  'In a greenhouse, tap the canes at noon.',
  'With a tool that is sharp you cut once.',
  'On the day that the lamp went out the keeper was asleep.',
  'When the bell rings and the door opens you may go in.',
  'Before you carry anything inside, take photographs.',
])('has its verb: “%s”', (text) => {
  expect(hasVerb(tokens(text))).toBe(true)
})

it('knows a sentence from a fragment, whatever the tagger takes its verb for', () => {
  for (const text of [
    'The court charges a fee, which you get back if you win.',
    'Nobody looks at the door.',
    'A cup cracks along the line where its handle was joined.',
    'The thing that matters is rest.',
    'A choir that is afraid of being too loud stops pronouncing.',
    'The boat that sank was old.',
    'People ring me when it sounds bad.',
  ])
    expect(hasVerb(tokens(text)), text).toBe(true)
  for (const text of [
    'Twice a year, in a house where people live.',
    'Ten metres of light rope, clipped to a harness and never to a collar.',
    'Week three, on a long line.',
    'Two visits instead of one.',
    'A road across a plain with a tower at the end of it that does not get any nearer.',
    'Big stone at the bottom, as large as two people can turn.',
  ])
    expect(hasVerb(tokens(text)), text).toBe(false)
})

it('tells instructions and stories from statements', () => {
  for (const text of [
    'Rake the seam out to bare wood.',
    'Do not push it.',
    'Never work from the tin.',
    'Plane both planks at once.',
    'Call when there is a distraction a long way off.',
    'Press on the bony knobs at either side of the ankle.',
    'Walk up, show it the cheese, walk backwards and let it follow.',
  ])
    expect(isImperative(tokens(text)), text).toBe(true)
  for (const text of [
    'Oak belongs where things are fastened.',
    'We rake the seam.',
    'Planks are shorter than boats.',
    'Week two, in the garden.',
    'Set beside the barometer, the knee is right on four days out of five.',
    'Paint on the deck is dry by noon.',
  ])
    expect(isImperative(tokens(text)), text).toBe(false)
  expect(isPast(tokens('Our first frame broke in her hands.'))).toBe(true)
  expect(isPast(tokens('A frame breaks on the outside.'))).toBe(false)
})
