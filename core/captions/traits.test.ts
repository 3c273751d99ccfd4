import { describe, expect, it } from 'vitest'
import { weighPassages } from '../passages'
import { readWriting } from '../reading'
import { PLAIN_HOUSE } from './brief'
import { bareDraft, draftsFor, type Draft } from './drafts'
import { interviewOf } from './interview'
import type { Headline } from './titles'
import { titleFor } from './titling'
import { topicOf } from './topics'
import { beginsLike, traitsOf } from './traits'
import { writeDrip } from './write'

const GLASS = readWriting(
  `# Blowing a glass float

A glass float is a hollow ball that holds a net up. Ingrid Saar has blown them since the harbour had herring.

## How hot is the furnace?

The furnace stands at 1,100 degrees day and night. Letting it go cold cracks the pot, so nobody does.

## Letting it cool

A float that cools in air bursts before supper. The oven takes a day to come down. Ingrid never opens it early.

It is a sound one does not forget.`,
  'glass',
)
const topic = topicOf(GLASS)
const subject = new Set(['float', 'glass', 'furnace'])
const draft = (text: string, change: Partial<Draft> = {}): Draft => ({
  ...bareDraft('lesson', [text], {
    start: GLASS.text.indexOf(text),
    end: GLASS.text.indexOf(text) + text.length,
  }),
  opens: 'statement',
  known: text.startsWith('The '),
  lemmas: new Set(text.toLowerCase().match(/[a-z]{4,}/g)),
  ...change,
})
const traits = (text: string, change?: Partial<Draft>) => traitsOf(draft(text, change), GLASS, topic, subject)

describe('what a reader makes of a draft alone', () => {
  it('one statement without a word of the subject is lone; an order, a second sentence or a subject is company', () => {
    expect(traits('Nobody whistles in the yard.').lone).toBe(true)
    expect(traits('A float that cools in air bursts before supper.').lone).toBe(false)
    expect(traits('Never whistle in the yard.', { opens: 'order' }).lone).toBe(false)
    expect(traits('Nobody whistles in the yard. Wind listens there.').lone).toBe(false)
  })

  it('“the” and a thing told before is strange, unless it is the subject or says itself which', () => {
    expect(traits('The oven takes a day to come down.').strange).toBe(true)
    expect(traits('The furnace stands at 1,100 degrees day and night.').strange).toBe(false)
    expect(traits('The man that sweeps the yard is paid in floats.').strange).toBe(false)
  })

  it('a name is strange once the piece has told who it is, and not where it is told', () => {
    expect(traits('Ingrid never opens it early.').strange).toBe(true)
    const told = 'Ingrid Saar has blown them since the harbour had herring.'
    expect(traits(told).strange).toBe(false)
  })

  it('a label stands before nothing that begins with it', () => {
    expect(beginsLike('Letting it cool takes a day.', 'Letting it cool')).toBe(true)
    expect(beginsLike('A float bursts before supper.', 'Letting it cool')).toBe(false)
  })
})

describe('a title for a draft', () => {
  const headline = (text: string, why: Headline['why'] = 'a heading'): Headline => {
    const start = GLASS.text.indexOf(text)
    return { text, why, span: start < 0 ? null : { start, end: start + text.length } }
  }
  const cooling = draft('A float that cools in air bursts before supper.')

  it('is not what the draft says first, in whichever order of words', () => {
    const again = headline('A float that bursts before supper cools in air', 'a sentence')
    expect(titleFor(cooling, [again], GLASS)).toBeNull()
    expect(titleFor(cooling, [again, headline('Letting it cool')], GLASS)).toBe('Letting it cool')
  })

  it('that asks stands only over what answers it', () => {
    const asks = headline('How hot is the furnace?', 'a question')
    expect(titleFor(draft('The furnace stands at 1,100 degrees day and night.'), [asks], GLASS)).toBe(
      asks.text,
    )
    expect(titleFor(cooling, [asks], GLASS)).toBeNull()
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
    expect(interviewOf(GLASS)).toBeNull()
  })

  it('is never told in the brand’s own “I”: what is said is quoted with the name', () => {
    const found = weighPassages(SPOKEN).map((w) => w.passage)
    for (const passage of found)
      for (const { paragraphs } of draftsFor(SPOKEN, passage))
        if (/\b(?:I|my)\b/i.test(paragraphs.join(' ').replace(/“[^”]*”/g, '')))
          throw new Error(paragraphs.join())
    const posts = writeDrip({
      piece: SPOKEN,
      passages: found,
      spare: [],
      accounts: [{ id: 'm', network: 'murmur' }],
      days: found.map((_, i) => i),
      house: PLAIN_HOUSE,
      link: null,
      seed: 1,
    })
    const quoted = posts.flatMap((p) => p.wording ?? []).filter((w) => w.angle === 'quotation')
    expect(quoted.some((w) => /“.+” — Osric Venn/.test(w.text))).toBe(true)
  })
})
