import { describe, expect, it } from 'vitest'
import type { PieceContent } from '../model'
import { weighPassages } from '../passages'
import { readWriting } from '../reading'
import { draftsFor, type Draft } from './drafts'

/* Texts from fields the demo does not touch, so that nothing is tuned to boats. */

const CHOIR = readWriting(
  `# How to sing softly without going flat

Amateur choirs go flat when they sing quietly, and their conductors blame their ears. The ears are fine. What sinks is the breath.

## Why consonants save the pitch

A choir that is afraid of being too loud stops pronouncing. Then the vowels run together, nobody knows when the note begins, and everybody arrives a little late and a little low. Pitch follows the word.

## How to warm up

Hum a fifth down and up with your lips closed. Let one vowel swell over eight beats, and let it shrink over eight more.`,
  'choir',
)

const HIVE = readWriting(
  `# Feeding bees in February

## Feeding without opening

If a hive feels light when you tip it with one hand, it wants food now. Use fondant, not syrup.

1. Warm the fondant until it bends.
2. Cut it to the size of your hand.
3. Lay it over the hole in the crown board.

Both of these take less than a minute. Neither needs smoke.

## Two reasons to wait

- The cluster is still tight.
- The willow has not flowered.
- Nobody has seen pollen carried in.`,
  'hive',
)

const around = (piece: PieceContent, words: string): Draft[] => {
  const start = piece.text.indexOf(words)
  const end = start + words.length
  return draftsFor(piece, { start, end, kind: 'statement' })
}
const bodies = (drafts: readonly Draft[]): string[] => drafts.map((d) => d.paragraphs.join('\n'))

describe('drafts of a passage', () => {
  it('are the piece’s own sentences, and their spans say which', () => {
    for (const piece of [CHOIR, HIVE])
      for (const passage of weighPassages(piece).map((w) => w.passage))
        for (const draft of draftsFor(piece, passage)) {
          const body = draft.paragraphs.join(' ').replace(/\s+/g, ' ')
          for (const span of draft.spans.filter(() => !draft.framed && !body.includes(': ')))
            expect(body).toContain(piece.text.slice(span.start, span.end).split('\n')[0])
        }
  })

  it('move only a paragraph’s conclusion to the front, before what leads to it', () => {
    const drafts = around(
      CHOIR,
      'A choir that is afraid of being too loud stops pronouncing. Then the vowels run together, nobody knows when the note begins, and everybody arrives a little late and a little low. Pitch follows the word.',
    )
    const firsts = new Set(bodies(drafts).map((b) => b.split(/(?<=\.) |\n/)[0]))
    expect(firsts).toContain('Pitch follows the word.')
    // The middle sentence begins with "Then", so nothing ever begins with it.
    for (const first of firsts) expect(first).not.toMatch(/^Then/)
  })

  it('never join what a list or a heading parts', () => {
    for (const body of bodies(
      around(HIVE, 'If a hive feels light when you tip it with one hand, it wants food now.'),
    ))
      expect(body).not.toMatch(/Both of these|Neither needs/)
  })

  it('make a heading that says how to do it the label of what it tells', () => {
    const labelled = bodies(around(CHOIR, 'Hum a fifth down and up with your lips closed.'))
    expect(labelled).toContain('How to warm up: hum a fifth down and up with your lips closed.')
    for (const body of labelled) expect(body).not.toMatch(/How to warm up\?/)
  })

  it('keep a list whole, numbered as the piece does, under a heading that counts no other number', () => {
    const steps = (kindOf: string): Draft[] => {
      const start = HIVE.text.indexOf(kindOf)
      const list = HIVE.blocks.find((b) => b.start === start)?.list
      const last = HIVE.blocks.filter((b) => b.list?.id === list?.id).at(-1)
      return draftsFor(HIVE, { start, end: last?.end ?? start, kind: 'steps' })
    }
    expect(steps('Warm the fondant')[0]).toMatchObject({
      angle: 'checklist',
      paragraphs: [
        'Feeding without opening:',
        '1. Warm the fondant until it bends.\n2. Cut it to the size of your hand.\n3. Lay it over the hole in the crown board.',
      ],
    })
    // "Two reasons" does not stand over three; the title, which counts nothing, may.
    expect(steps('The cluster is')[0]?.paragraphs[0]).toBe('Feeding bees in February:')
  })

  it('take a passage that a person cut freely as it is', () => {
    const words = 'a little late and a little low'
    expect(around(CHOIR, words)).toMatchObject([{ paragraphs: [words] }])
  })
})
