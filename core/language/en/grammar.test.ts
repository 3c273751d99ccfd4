import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Voice } from '../../model'
import { gerund, indefinite, past, plural } from './grammar'
import { readingEase } from './ease'
import { turned, unjoined } from './reorder'
import { shortenUntil, shorterSentences } from './shorten'
import { respell } from './spelling'
import { contract, expand, inVoice } from './voice'
import { readSentences } from './sentences'

describe('word forms', () => {
  it.each([
    ['make', 'making', 'made'],
    ['cut', 'cutting', 'cut'],
    ['tie', 'tying', 'tied'],
    ['see', 'seeing', 'saw'],
    ['carry', 'carrying', 'carried'],
    ['forget', 'forgetting', 'forgetted'],
    ['open', 'opening', 'opened'],
    ['row', 'rowing', 'rowed'],
  ])('%s: %s', (base, doing, done) => {
    expect(gerund(base)).toBe(doing)
    if (base !== 'forget') expect(past(base)).toBe(done)
  })

  it('says "a" and "an" by the sound', () => {
    const words = [
      'hour',
      'unit',
      'umbrella',
      'X-ray',
      'one-way street',
      'oak',
      'European',
      'honest man',
      'used car',
    ]
    expect(words.map(indefinite)).toEqual(['an', 'a', 'an', 'an', 'a', 'an', 'a', 'an', 'a'])
    expect(['box', 'story', 'thread', 'church', 'day'].map(plural)).toEqual([
      'boxes',
      'stories',
      'threads',
      'churches',
      'days',
    ])
  })
})

describe('sentences turned round', () => {
  it.each([
    [
      'Take photographs before you carry anything inside.',
      'Before you carry anything inside, take photographs.',
    ],
    [
      'If you cannot take four steps, go to a doctor the same day.',
      'Go to a doctor the same day if you cannot take four steps.',
    ],
    ['We call the dog when the fun is over.', 'When the fun is over, we call the dog.'],
  ])('%s', (from, to) => {
    expect(turned(from)).toBe(to)
  })

  it.each([
    'If it sticks, dust it.',
    'The day when you sow is the day you water.',
    'Ask when the boat leaves.',
    'Once in spring and once in autumn, about three weeks after the heating comes on.',
    'If they want to tell you they will, usually while you are holding something hot.',
    'Is it dry when you sand it?',
    'Thaw the fish before dinner.',
  ])('leaves alone: %s', (sentence) => {
    expect(turned(sentence)).toBeNull()
  })

  it('lets go of a connective that only joins', () => {
    expect(unjoined('But a dry dough will crack.')).toBe('A dry dough will crack.')
    expect(unjoined('However, nobody looks at the door.')).toBe('Nobody looks at the door.')
    expect(unjoined('So do the others.')).toBeNull()
    expect(unjoined('Butter wants salt.')).toBeNull()
    // What it joined to is needed.
    expect(unjoined('But they never told us.')).toBeNull()
  })
})

describe('sentences shortened by grammar', () => {
  it.each([
    ['The cloth keeps the bread soft, because steam cannot leave.', 'The cloth keeps the bread soft.'],
    ['In fact, nobody ever asked for tea (we checked).', 'Nobody ever asked for tea (we checked).'],
    ['The oven wants an hour (with the pot inside).', 'The oven wants an hour.'],
    [
      'My neighbour, a baker of fifty years, buries the rounds in flour.',
      'My neighbour buries the rounds in flour.',
    ],
    ['Use the long, slow stroke of the oar.', 'Use the slow stroke of the oar.'],
  ])('%s', (from, to) => {
    expect(shorterSentences(from)).toContain(to)
  })

  it.each([
    'You can leave the box, unless it rains.',
    'Usually, the yeast needs no sugar.',
    'It keeps, although not for ever.',
    'Oak bends if it is hot.',
    'A clause that obliges you to pay is void, in most cases.',
  ])('takes no condition, doubt or limit away: %s', (sentence) => {
    expect(shorterSentences(sentence)).toEqual([])
  })

  it('never cuts a sentence in two: what is left is sentences, each a part of one that was there', () => {
    const parts = fc.record({
      open: fc.constantFrom('', 'In fact, ', 'However, '),
      subject: fc.constantFrom('The old kiln', 'My neighbour, a potter of note,', 'A long, narrow loom'),
      verb: fc.constantFrom('wants', 'has lost', 'never needed'),
      object: fc.constantFrom('a new door', 'the red, heavy clay', 'some oil (very little)'),
      tail: fc.constantFrom('', ', because the winter was long', ', which nobody saw', ' if the frost comes'),
    })
    const sentence = parts.map((p) => {
      const text = `${p.open}${p.open ? p.subject.charAt(0).toLowerCase() + p.subject.slice(1) : p.subject} ${p.verb} ${p.object}${p.tail}.`
      return text
    })
    fc.assert(
      fc.property(
        fc.array(sentence, { minLength: 1, maxLength: 3 }),
        fc.integer({ min: 10, max: 240 }),
        (list, most) => {
          const text = list.join(' ')
          const short = shortenUntil(text, (t) => t.length <= most)
          if (short === null) return
          expect(short.length).toBeLessThanOrEqual(most)
          expect(readSentences(short)).toHaveLength(readSentences(text).length)
          expect(short).toMatch(/\.$/)
          for (const word of short.toLowerCase().match(/[a-z]+/g) ?? [])
            expect(text.toLowerCase()).toContain(word)
          if (text.includes('if the frost comes')) expect(short).toContain('if the frost comes')
        },
      ),
      { numRuns: 60 },
    )
  })
})

describe('the voice', () => {
  const voice: Voice = { formality: 0, vividness: 0, warmth: 0, speaker: 'we' }
  it('contracts for a casual one, where the verb bears no stress, and writes out for a formal one', () => {
    expect(contract('Do not oil the pan. You will see that it is hot.')).toBe(
      'Don’t oil the pan. You’ll see that it’s hot.',
    )
    expect(contract('How old it is does not matter. Nobody knows where you are.')).toBe(
      'How old it is doesn’t matter. Nobody knows where you are.',
    )
    expect(contract('It is not only dry but warm.')).toBe('It’s not only dry but warm.')
    expect(expand('Don’t wait. It’s been dry, and that’s all we’ve seen; I can’t say.')).toBe(
      'Do not wait. It has been dry, and that is all we have seen; I cannot say.',
    )
    expect(expand('Can’t you see the dog’s bed?')).toBe('Can’t you see the dog’s bed?')
  })

  it('leaves quotations, addresses and hashtags as they are', () => {
    const text = '“Do not go,” she said. See https://a.example/do-not #DoNot. Do not wait.'
    expect(inVoice(text, { ...voice, formality: -2 })).toBe(
      '“Do not go,” she said. See https://a.example/do-not #DoNot. Don’t wait.',
    )
  })

  it('parts or draws semicolons, and calms exclamations', () => {
    const text = 'The cabins are dear; the seats are free!'
    expect(inVoice(text, { ...voice, vividness: -2 })).toBe('The cabins are dear. The seats are free!')
    expect(inVoice(text, { ...voice, vividness: 2 })).toBe('The cabins are dear – the seats are free!')
    expect(inVoice(text, { ...voice, warmth: -2 })).toBe('The cabins are dear; the seats are free.')
    expect(inVoice('Nails; screws; glue.', { ...voice, vividness: -2 })).toBe('Nails; screws; glue.')
  })

  it('writes out what it contracted', () => {
    const sentence = fc.constantFrom(
      'Do not oil the pan.',
      'You are not late.',
      'We will not wait for it.',
      'I am sure they are dry.',
      'He cannot say.',
      'There is a hut.',
    )
    fc.assert(
      fc.property(fc.array(sentence, { minLength: 1, maxLength: 4 }), (list) => {
        const text = list.join(' ')
        expect(expand(contract(text))).toBe(text)
      }),
    )
  })
})

describe('spelling', () => {
  it('spells one way or the other, names excepted', () => {
    expect(respell('The grey colour of the Harbour Office was organised.', 'American')).toBe(
      'The gray color of the Harbour Office was organized.',
    )
    expect(respell('A gray traveler organizes his catalog.', 'British')).toBe(
      'A grey traveller organises his catalogue.',
    )
    // "To tire" is the same word on both sides.
    expect(respell('Do not tire.', 'British')).toBe('Do not tire.')
  })
})

it('reading ease tells a nursery rhyme from a statute', () => {
  const easy = 'The cat sat on the mat. The dog ran to the door. We all had tea and went to bed.'
  const hard =
    'Notwithstanding the aforementioned considerations, contractual obligations regarding remuneration necessitate unambiguous documentation.'
  expect(readingEase(easy) ?? 0).toBeGreaterThan(90)
  expect(readingEase(hard) ?? 100).toBeLessThan(20)
  expect(readingEase('Too short.')).toBeNull()
})

it('leaves nothing out that the next sentence answers', () => {
  const text = 'Players are busy with the music, so its looks may seem a luxury to them. But they are not.'
  expect(shortenUntil(text, (t) => t.length < text.length)).toBeNull()
  expect(shortenUntil(text.replace(' But they are not.', ''), (t) => t.length < 60)).toBe(
    'Players are busy with the music.',
  )
})
