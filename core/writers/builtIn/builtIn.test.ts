import { describe, expect, it } from 'vitest'
import type { FoundPassage, PieceContent } from '../../model'
import { weighPassages } from '../../passages'
import { readTranscript, readWriting } from '../../reading'
import { plainly, type Draft } from '../../setting'
import { skeletonDraft } from '.'
import { runDrafts } from './runs'
import { propose, stockOf } from '..'

/* Fields that no rule was written for. The expectations are by eye, from the texts. */

const of = (piece: PieceContent, words: string, change: Partial<FoundPassage> = {}): Draft[] => {
  const start = piece.text.indexOf(words)
  expect(start).toBeGreaterThanOrEqual(0)
  const passage: FoundPassage = {
    start,
    end: start + words.length,
    text: words,
    kind: 'statement',
    score: 0.7,
    reasons: [],
    ...change,
  }
  return propose(stockOf(piece), passage, 'short')
}
const bodies = (drafts: readonly Draft[]): string[] =>
  drafts.map((d) => d.paragraphs.map(plainly).join('\n\n'))

const CHOIR = readWriting(
  `# How to sing softly without going flat

Amateur choirs go flat when they sing quietly, and their conductors blame their ears. The ears are fine. What sinks is the breath.

## Consonants save the pitch

A choir that is afraid of being too loud stops pronouncing. Then the vowels run together, nobody knows when the note begins, and everybody arrives a little late and a little low. Pitch follows the word.

## Why do singers breathe too late?

Singers breathe late because they listen to their neighbours instead of the beat. A bar of rest is a bar of breathing.

## How to warm up

Hum a fifth down and up with your lips closed. As we saw in chapter 2, a hum is free. A vowel swells over eight beats. But only if the jaw is loose.`,
  'choir',
)

describe('a passage as the author wrote it', () => {
  it('is proposed as it stands, widened behind, and never entered where a sentence leans', () => {
    const found = bodies(of(CHOIR, 'A choir that is afraid of being too loud stops pronouncing.'))
    expect(found[0]).toBe('A choir that is afraid of being too loud stops pronouncing.')
    expect(found).toContain(
      'A choir that is afraid of being too loud stops pronouncing. Then the vowels run together, nobody knows when the note begins, and everybody arrives a little late and a little low.',
    )
    for (const body of found) expect(body).not.toMatch(/^(?:Then|The ears)/)
  })

  it('does not end before what takes it back, nor goes on to what points elsewhere', () => {
    const found = bodies(of(CHOIR, 'A vowel swells over eight beats.'))
    expect(found).not.toContain('A vowel swells over eight beats.')
    for (const body of bodies(of(CHOIR, 'Hum a fifth down and up with your lips closed.')))
      expect(body).not.toContain('chapter 2')
  })

  it('has its heading before it where that is a sentence or a question, and no heading as a label', () => {
    const stated = bodies(of(CHOIR, 'A choir that is afraid of being too loud stops pronouncing.'))
    expect(stated).toContain(
      'Consonants save the pitch. A choir that is afraid of being too loud stops pronouncing.',
    )
    const asked = of(
      CHOIR,
      'Singers breathe late because they listen to their neighbours instead of the beat.',
    )
    expect(bodies(asked)).toContain(
      'Why do singers breathe too late? Singers breathe late because they listen to their neighbours instead of the beat.',
    )
    for (const body of [
      ...stated,
      ...bodies(asked),
      ...bodies(of(CHOIR, 'Hum a fifth down and up with your lips closed.')),
    ])
      expect(body).not.toMatch(/^[^.!?]{3,60}: /)
  })

  it('has a heading before nothing but what stands right under it', () => {
    const second = of(CHOIR, 'A bar of rest is a bar of breathing.')
    for (const body of bodies(second)) expect(body).not.toMatch(/\?.* A bar of rest/)
    expect(bodies(second)).toContain('A bar of rest is a bar of breathing.')
  })

  it('may tell the conclusion of its paragraph first, then what leads to it, and no story or order so', () => {
    const led = (last: string): string[] => {
      const text = `A blunt knife needs force. Force makes the blunt knife slip on an onion. ${last}`
      const stock = stockOf(readWriting(`# On care\n\n${text}`, 'x'))
      const sure = { worth: 3, quotable: 3, alone: 3, never: -5, good: 3 }
      const chances = { odds: stock.features.map(() => sure), ofRun: () => 0.8 }
      const start = stock.piece.text.indexOf('A blunt')
      const passage = { start, end: start + 26, reasons: [] }
      return bodies(runDrafts({ ...stock, chances }, passage)).filter((b) => b.startsWith(last))
    }
    expect(led('A sharp knife is the safest knife in any kitchen.')).toEqual([
      'A sharp knife is the safest knife in any kitchen.\n\nA blunt knife needs force. Force makes the blunt knife slip on an onion.',
    ])
    expect(led('Sharpen the knife on the first day of every month.')).toEqual([])
    expect(led('The knife slipped on an onion in May and cut our cook.')).toEqual([])
    expect(led('A good cook sharpens it before every meal.')).toEqual([])
    expect(led('A piano is tuned twice in every single year.')).toEqual([])
  })

  it('says where its words stand', () => {
    for (const draft of of(CHOIR, 'What sinks is the breath.'))
      for (const [i, span] of draft.spans.entries()) {
        const paragraph = draft.paragraphs[i]
        expect(paragraph && plainly(paragraph)).toBe(CHOIR.text.slice(span.start, span.end))
      }
  })

  it('that a person cut out goes out as it is, whatever its ends', () => {
    const words = 'a little late and a little low'
    expect(bodies(of(CHOIR, words))).toEqual([])
    expect(bodies(of(CHOIR, words, { reasons: ['chosen by hand'] }))).toEqual([words])
  })
})

describe('who speaks', () => {
  const TALK = readWriting(
    `# A day in the bell foundry

We met the founder, Ines Corvalán, in her foundry.

**Anna:** How long does a bell take?

**Ines Corvalán:** A bell takes four months, and a bad bell takes four years off your life. The clay decides when you may pour.

**Anna:** What do people get wrong?

**Ines Corvalán:** People think a bell is cast in metal, but a bell is cast in patience.`,
    'bells',
  )

  it('is said with the name where it is not the brand', () => {
    const drafts = of(TALK, 'A bell takes four months, and a bad bell takes four years off your life.')
    expect(drafts.length).toBeGreaterThan(0)
    for (const draft of drafts) {
      expect(draft.angle).toBe('quotation')
      expect(plainly(draft.paragraphs[0]!)).toMatch(/^“.*” — Ines Corvalán/)
    }
  })

  it('is never told in the brand’s own “I”: what is said is quoted with the name', () => {
    const spoken = readWriting(
      `# A life with bells\n\nOsric Venn has cast bells for forty years. We met in his yard.\n\n## What is a bell made of?\n\nCopper and tin. I weigh both twice, because tin is the one that cracks.\n\n## Who taught you?\n\nMy aunt did. She hit every bell before she bought it.\n\n## What would you do again?\n\nI have kept every mould. They fill a barn that I can no longer enter.`,
      'bells',
    )
    const stock = stockOf(spoken)
    const drafts = spoken.sentences.flatMap((s) =>
      propose(stock, { ...s, text: '', kind: 'statement', score: 0.5, reasons: ['chosen by hand'] }, 'short'),
    )
    const said = bodies(drafts).filter((b) => b.includes('every mould'))
    expect(said).toContain('“I have kept every mould.” — Osric Venn')
    for (const body of bodies(drafts)) expect(body.replace(/“[^”]*”/g, '')).not.toMatch(/\b(?:I|my)\b/i)
  })

  it('nobody goes by half a name whom the piece gives a whole one', () => {
    const piece = readWriting(
      `# A wall\n\nOsric Penhallam built the wall in nine days.\n\nThe hardest stone is the first. Penhallam turned it eleven times before he was satisfied with it.`,
      'wall',
    )
    const drafts = bodies(of(piece, 'The hardest stone is the first.'))
    expect(drafts).toContain('The hardest stone is the first.')
    for (const body of drafts) expect(body).not.toContain('Penhallam turned')
  })
})

describe('lists and whole pieces', () => {
  const HIVE = readWriting(
    `# Feeding bees in February

## Feeding without opening

1. Warm the fondant until it bends.
2. Cut it to the size of your hand.
3. Lay it over the hole in the crown board.

## Two reasons to wait

- The cluster is still tight.
- The willow has not flowered.
- Nobody has seen pollen carried in.`,
    'hive',
  )
  const list = (first: string): Draft[] => {
    const start = HIVE.text.indexOf(first)
    const { id } = HIVE.blocks.find((b) => b.start === start)?.list ?? {}
    const end = HIVE.blocks.filter((b) => b.list?.id === id).at(-1)?.end ?? start
    return of(HIVE, HIVE.text.slice(start, end), { kind: 'steps' })
  }

  it('keep every item, numbered as the piece does, under a heading that counts no other number', () => {
    expect(bodies(list('Warm the fondant'))).toEqual([
      'Feeding without opening:\n1. Warm the fondant until it bends.\n2. Cut it to the size of your hand.\n3. Lay it over the hole in the crown board.',
    ])
    // "Two reasons" does not stand over three; the title, which counts nothing, may.
    expect(bodies(list('The cluster is'))[0]).toMatch(/^Feeding bees in February:\n– The cluster/)
  })

  const points = (text: string): string | null => {
    const draft = skeletonDraft(stockOf(readWriting(text, 'x')))
    return draft && draft.paragraphs.map(plainly).join('\n')
  }
  const body = (headings: readonly string[]): string =>
    headings.map((h) => `## ${h}\n\nA sentence says what is meant by it.`).join('\n\n')
  const FOUR = ['Dig before the frost', 'Plant on a dull day', 'Water at the root', 'Prune nothing yet']

  it.each([
    [
      `# Four rules for a hedge\n\n${body(FOUR)}`,
      `Four rules for a hedge:\n1. ${FOUR.join('\n2. ').replace('2. Water', '3. Water').replace('2. Prune', '4. Prune')}`,
    ],
    [
      `# Four rules for a hedge\n\n${body([...FOUR, 'So long'])}`,
      /^Four rules for a hedge:\n1\. Dig[\s\S]*4\. Prune nothing yet$/,
    ],
    [
      `# How to plant a hedge\n\n${body(['Introduction', ...FOUR, 'Conclusion'])}`,
      /^How to plant a hedge:\n– Dig[\s\S]*– Prune nothing yet$/,
    ],
    [
      `# Why hedges die\n\n${body(['Mistake #1: Planting in frost', 'Mistake #2: Watering the leaves', 'Mistake #3: Pruning too early'])}`,
      /^Why hedges die:\n– Planting in frost\n– Watering the leaves\n– Pruning too early$/,
    ],
  ])('gives the points of a piece that promises them: %#', (text, expected) => {
    if (typeof expected === 'string') expect(points(text)).toBe(expected)
    else expect(points(text)).toMatch(expected)
  })

  it.each([
    ['another count', `# Five rules for a hedge\n\n${body(FOUR.slice(0, 3))}`],
    ['mere names', `# Three tips for puppies\n\n${body(['Biting', 'Recall', 'Leads'])}`],
    [
      'days of a journey',
      `# Three days on foot\n\n${body(['Day 1: to the ford', 'Day 2: to the pass', 'Day 3: to the sea'])}`,
    ],
    ['parts of an essay', `# On hedges\n\n${body(['What a hedge is', 'The old way', 'On not knowing'])}`],
    [
      'questions',
      `# Three questions about hedges\n\n${body(['Does it die?', 'Does it grow?', 'Does it flower?'])}`,
    ],
  ])('has none of %s', (_, text) => {
    expect(points(text)).toBeNull()
  })
})

it('what was said is written without its ums', () => {
  const film = readTranscript(
    'WEBVTT\n\n00:00.000 --> 00:08.000\nA spar that bends um saves the sail, and a stiff one saves nothing.\n\n00:08.000 --> 00:16.000\nWet silk is twice as heavy as dry silk and half as strong.',
    { title: 'Kites' },
  )
  const drafts = weighPassages(film).flatMap((w) => propose(stockOf(film), w.passage, 'short'))
  expect(drafts.length).toBeGreaterThan(0)
  for (const body of bodies(drafts)) expect(body).not.toMatch(/\bum\b/)
})
