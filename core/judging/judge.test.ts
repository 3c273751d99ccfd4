import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { PLAIN_HOUSE } from '../house'
import { measure, network } from '../networks'
import { checkCaption, remedyFor, type CheckContext } from '.'

const KITE =
  'A kite flies on the difference between two winds. Silk lifts in a wind that hardly moves a leaf, although it costs four times as much.'

describe('checks', () => {
  const context = {
    profile: network('murmur'),
    house: PLAIN_HOUSE,
    source: 'Green oak bends at 96 °C. “Say it aloud,” said Rita. It takes twenty seconds.',
    pictures: 0,
    others: [],
  }
  const codes = (text: string, change = {}): string[] =>
    checkCaption(text, { ...context, ...change }).map((c) => c.code)

  it.each([
    ['Green oak bends at 140 °C.', 'not-grounded'],
    ['Green oak bends, says Marta Lind.', 'not-grounded'],
    ['As they say, “oak is for kings”.', 'not-grounded'],
    ['Green oak bends better this year.', 'ages'],
    ['It takes twenty seconds.', 'points-nowhere'],
    ['“Say it aloud, said Rita.', 'unbalanced'],
    ['Green oak bends. {{link}}', 'leftover'],
    ['Green oak bends!!', 'shouting'],
    ['Green oak bends. #a #b #c', 'many-hashtags'],
    ['Green oak bends. #a #b #c #d #e #f', 'too-many-hashtags'],
    ['  ', 'empty'],
  ])('%s → %s', (text, code) => {
    expect(codes(text)).toContain(code)
  })

  it('finds nothing in an honest caption, with numbers as words or figures', () => {
    expect(
      codes(
        'Green oak bends at 96 °C. Rita says: “Say it aloud”. That takes 20 seconds. https://a.example/x #Oak',
      ),
    ).toEqual([])
  })

  it('blocks the never-say list by word, with common endings, not inside other words', () => {
    const house = { ...PLAIN_HOUSE, style: { ...PLAIN_HOUSE.style, neverSay: ['hack'] } }
    expect(codes('Five hacks for oak.', { house })).toContain('never-say')
    expect(codes('Hackney carriages are oak.', { house })).not.toContain('never-say')
  })

  it('blocks the same words on a sibling and flags what is too alike', () => {
    const text = 'Green oak bends when it is hot and wet through.'
    const same = codes(text, { others: [{ text: `${text} #Oak`, sibling: true }] })
    expect(same).toContain('same-words')
    expect(same).not.toContain('too-alike')
    const near = codes(text, { others: [{ text: `${text} Always.`, sibling: true }] })
    expect(near).toContain('too-alike')
    expect(near).not.toContain('same-words')
    expect(codes(text, { others: [{ text: 'Larch is another matter.', sibling: true }] })).not.toContain(
      'too-alike',
    )
  })

  it('never throws and always finds what is over the limit, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 400 }), (text) => {
        const found = checkCaption(text, context)
        expect(found.some((c) => c.code === 'over-limit')).toBe(measure(text, context.profile.text) > 300)
      }),
      { numRuns: 60 },
    )
  })
})

describe('remedies', () => {
  const context: CheckContext = {
    profile: network('murmur'),
    house: PLAIN_HOUSE,
    source: KITE,
    pictures: 0,
    others: [],
  }
  const mend = (text: string, code: string, change: Partial<CheckContext> = {}): string | null => {
    const all = { ...context, ...change }
    const check = checkCaption(text, all).find((c) => c.code === code)
    expect(check?.remedy, code).toBeTruthy()
    return remedyFor(check!, text, all.profile)
  }

  it.each([
    ['A kite flies. #A #B #C', 'many-hashtags', 'A kite flies. #A #B'],
    ['A kite flies!! On wind!', 'shouting', 'A kite flies! On wind.'],
    ['A kite {{name}} flies.', 'leftover', 'A kite flies.'],
    ['A kite flies., on wind.', 'doubled-marks', null],
    ['A kite flies 🪁🪁🪁', 'many-emoji', 'A kite flies'],
  ])('%s (%s)', (text, code, mended) => {
    if (mended !== null) expect(mend(text, code)).toBe(mended)
  })

  it('take whole sentences from the end of what is too long, and keep link and tags', () => {
    const text = `${'A kite flies on the difference between two winds. '.repeat(8)}https://hill.example/kites #Kites`
    const short = mend(text, 'over-limit') ?? ''
    expect(measure(short, context.profile.text)).toBeLessThanOrEqual(300)
    expect(short).toMatch(/winds\. https:\/\/hill\.example\/kites #Kites$/)
  })

  it('take a link out of a text where it is not live', () => {
    expect(
      mend('A kite flies. https://hill.example/kites', 'link-not-live', {
        profile: network('shutterleaf'),
        pictures: 1,
      }),
    ).toBe('A kite flies.')
  })

  it('leave nothing of what they mended, whatever is typed', () => {
    const bits = fc.array(
      fc.constantFrom(
        'A kite flies.',
        '!!',
        '#Kite',
        '#Silk',
        '{{x}}',
        '..',
        ' ,',
        '🪁',
        '\n',
        'Silk lifts',
        '**',
        'https://hill.example/a',
      ),
      { maxLength: 14 },
    )
    fc.assert(
      fc.property(bits, (list) => {
        const text = list.join(' ')
        for (const check of checkCaption(text, context).filter((c) => c.remedy)) {
          const mended = remedyFor(check, text, context.profile)
          if (mended === null) continue
          const same = checkCaption(mended, context).filter(
            (c) => c.code === check.code && c.words === check.words,
          )
          const before = checkCaption(text, context).filter(
            (c) => c.code === check.code && c.words === check.words,
          )
          expect(same.length).toBeLessThanOrEqual(before.length)
          expect(mended.trim()).not.toBe('')
        }
      }),
      { numRuns: 80 },
    )
  })

  it.each([
    ['there are two clips', { profile: network('loopyard'), clips: 2 }, 'too-many-clips'],
    ['a document has too many pages', { profile: network('guildhall'), pages: 51 }, 'too-many-pages'],
    ['there are pages where none are taken', { profile: network('murmur'), pages: 2 }, 'too-many-pages'],
    [
      'a story shows nothing',
      { profile: network('hearthside'), pictures: 0, beside: { format: 'story' } },
      'story',
    ],
    [
      'a story shows two pictures',
      { profile: network('hearthside'), pictures: 2, beside: { format: 'story' } },
      'story',
    ],
    ['there is a clip beside a picture', { pictures: 1, clips: 1 }, 'clip-and-pictures'],
    ['a title is missing', { profile: network('rackwell'), pictures: 1, beside: { title: '' } }, 'no-title'],
    [
      'a title is too long',
      { profile: network('rackwell'), pictures: 1, beside: { title: 'x'.repeat(101) } },
      'title-too-long',
    ],
    ['a clip is missing', { profile: network('loopyard') }, 'no-media'],
    [
      'a link is missing where one is wanted',
      { profile: network('rackwell'), pictures: 1, link: null },
      'no-link',
    ],
    ['a part is too long', { beside: { parts: ['x'.repeat(301)] } }, 'over-limit'],
    ['the format is unknown', { beside: { format: 'letter' } }, 'no-such-format'],
    ['a poll has one answer', { beside: { poll: ['Silk'] } }, 'poll'],
  ])('blocks where %s', (_, change, code) => {
    expect(checkCaption('A kite flies.', { ...context, ...change })).toContainEqual(
      expect.objectContaining({ code, severity: 'block' }),
    )
  })

  it('blocks a picture whose author has to be named and is not; naming is no claim of the caption', () => {
    const line = 'Picture: Ada Wren, Drawer 1912'
    const found = (text: string) => checkCaption(text, { ...context, credits: [line] })
    const [block] = found('A kite flies. #Kites')
    expect(block).toMatchObject({ code: 'no-credit', severity: 'block', words: line })
    const mended = remedyFor(block!, 'A kite flies. #Kites', context.profile)
    expect(mended).toBe(`A kite flies. #Kites\n\n${line}`)
    expect(found(mended!).map((c) => c.code)).toEqual(
      checkCaption('A kite flies. #Kites', context).map((c) => c.code),
    )
    expect(checkCaption(mended!, context).map((c) => c.code)).toContain('not-grounded')
    expect(found(line).map((c) => c.code)).toContain('empty')
  })

  it('notes what has no alternative text, and what is hard to read', () => {
    expect(checkCaption('A kite flies.', { ...context, alts: [''] }).map((c) => c.code)).toContain('no-alt')
    const hard =
      'Aerodynamic considerations notwithstanding, meteorological predictability necessitates comprehensive preparation.'
    expect(checkCaption(hard, { ...context, source: hard }).map((c) => c.code)).toContain('hard-to-read')
  })

  it('a long-past year is history where one knows when it was written', () => {
    const text = 'A kite of 2019 flies.'
    const codes = (writtenAt: string | null) =>
      checkCaption(text, { ...context, source: text, writtenAt }).map((c) => c.code)
    expect(codes('2026-03-01T00:00:00Z')).not.toContain('ages')
  })
})

it('a link whose page is gone is flagged, with the address', () => {
  const context = {
    profile: network('murmur'),
    house: PLAIN_HOUSE,
    source: 'A seam wants two strands of cotton.',
    pictures: 0,
    others: [],
    link: 'https://yard.example/gone',
  }
  const codes = (link: string | null, n: number) =>
    checkCaption('A seam wants two strands of cotton.', { ...context, link, codes: n }).flatMap((c) =>
      c.code === 'code-without-link' ? c.severity : [],
    )
  expect([codes(null, 1), codes(null, 0), codes(context.link, 1)]).toEqual([['flag'], [], []])
  const said = (linkTrouble: string | null) =>
    checkCaption('A seam wants two strands of cotton.', { ...context, linkTrouble }).find(
      (c) => c.code === 'link-broken',
    )
  expect(said(null)).toBeUndefined()
  expect(said('There is nothing at this address.')).toMatchObject({
    severity: 'flag',
    words: 'https://yard.example/gone',
  })
})
