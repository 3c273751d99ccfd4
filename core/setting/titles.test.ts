import { describe, expect, it } from 'vitest'
import { readWriting } from '../reading'
import { studyOf } from '../study'
import { proseDraft, type Draft } from './draft'
import { headlines, isEmptyHeading, type Headline } from './titles'
import { titleFor } from './titling'

const GLASS = readWriting(
  `# Blowing a glass float

A glass float is a hollow ball that holds a net up. Ingrid Saar has blown them since the harbour had herring.

## How hot is the furnace?

The furnace stands at 1,100 degrees day and night. Letting it go cold cracks the pot, so nobody does.

## Letting it cool

A float that cools in air bursts before supper. The oven takes a day to come down. Ingrid never opens it early.

## Conclusion

It is a sound one does not forget.`,
  'glass',
)

const draft = (text: string): Draft => {
  const start = GLASS.text.indexOf(text)
  return proseDraft('lesson', [text], [{ start, end: start + text.length }], 0.5)
}

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

describe('headlines', () => {
  const found = headlines(studyOf(GLASS))

  it('are the piece’s, its title first, unlike each other, and without a full stop', () => {
    expect(found[0]).toEqual({ text: 'Blowing a glass float', why: 'its title', span: null })
    expect(new Set(found.map((h) => h.text.toLowerCase())).size).toBe(found.length)
    for (const h of found) {
      expect(h.text).not.toMatch(/\.$/)
      expect(`${GLASS.title}\n${GLASS.text}`).toContain(h.text)
    }
  })

  it('leave out what names a kind of part, what points out of itself, and what tells of somebody', () => {
    const texts = found.map((h) => h.text)
    expect(texts).toContain('A float that cools in air bursts before supper')
    for (const none of ['Conclusion', 'Letting it cool', 'It is a sound one does not forget'])
      expect(texts).not.toContain(none)
  })

  it('take at most as many and as long as is asked', () => {
    expect(headlines(studyOf(GLASS), 2)).toHaveLength(2)
    for (const h of headlines(studyOf(GLASS), 10, 30)) expect(h.text.length).toBeLessThanOrEqual(30)
  })

  it.each(['Introduction', 'FAQ', 'TL;DR', 'Final thoughts', 'What you need:', 'Chapter 3'])(
    '“%s” says nothing',
    (heading) => {
      expect(isEmptyHeading(heading)).toBe(true)
    },
  )
})
