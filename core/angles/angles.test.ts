import { describe, expect, it } from 'vitest'
import { ANGLES } from '../model'
import { readWriting } from '../reading'
import { sentenceFeatures, studyOf } from '../study'
import { angleOf, ASKS, interviewOf } from '.'

const argues = (text: string): string =>
  angleOf(studyOf(readWriting(`# A kiln\n\n${text}`, 'x')).sentences.map((s) => sentenceFeatures(s)))

describe('how a run of sentences argues', () => {
  it.each([
    ['How hot is a kiln? It is hot enough to melt a coin.', 'question'],
    ['Many people believe that a kiln must be hot at once. It must not.', 'myth'],
    ['Open the door. Lift the shelf. Sweep the floor.', 'checklist'],
    ['Open the door a hand wide.', 'how-to'],
    ['My aunt fired the kiln in June. She never burned a shelf.', 'story'],
    ['A kiln of four shelves costs 900 euros.', 'number'],
    ['A kiln is a slow oven for clay.', 'definition'],
    ['Clay wants patience rather than heat.', 'contrast'],
    ['Clay remembers the hand that shaped it.', 'lesson'],
  ])('%s → %s', (text, angle) => {
    expect(argues(text)).toBe(angle)
  })

  it('asks something else of a connected writer for every angle', () => {
    expect(new Set(ANGLES.map((a) => ASKS[a])).size).toBe(ANGLES.length)
  })
})

describe('an interview', () => {
  const SPOKEN = readWriting(
    `# A life with bells

Osric Venn has cast bells for forty years. We met in his yard.

## What is a bell made of?

Copper and tin. I weigh both twice, because tin is the one that cracks.

## Who taught you?

My aunt did. She hit every bell before she bought it.

## What would you do again?

I have kept every mould. They fill a barn that I can no longer enter.`,
    'bells',
  )

  it('names the one who answers, from what stands before the first question', () => {
    const interview = interviewOf(SPOKEN)
    expect(interview?.name).toBe('Osric Venn')
    expect(interview?.answers({ start: SPOKEN.text.indexOf('My aunt') })).toBe(true)
    expect(interview?.answers({ start: SPOKEN.text.indexOf('Osric') })).toBe(false)
  })

  it('is no list of questions that anybody answers', () => {
    const list = readWriting(
      `# Bells\n\nTheo Quill Foundry answers.\n\n## What is it made of?\n\nIt is made of bronze.\n\n## Does it crack?\n\nIt cracks in frost. I saw one.\n\n## Does it rust?\n\nIt never rusts.\n\n## Is it loud?\n\nIt is.`,
      'x',
    )
    expect(interviewOf(list)).toBeNull()
    expect(interviewOf(readWriting('# Bells\n\nA bell is cast.', 'x'))).toBeNull()
  })
})
