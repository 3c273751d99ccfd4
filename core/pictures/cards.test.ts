import { describe, expect, it } from 'vitest'
import { Card, cardAlt, LAYOUTS, type Wording } from '../model'
import { cardsFor } from '.'

const piece = { title: 'Keeping bees in a town', language: 'en' }
const of = (
  text: string,
  angle: Wording['angle'] = 'lesson',
  more: { closing?: string; title?: string } = {},
): Card[] =>
  cardsFor(
    { text, angle, closing: more.closing ?? null },
    { ...piece, title: more.title ?? piece.title },
    LAYOUTS,
  )
const first = (...given: Parameters<typeof of>): Card | undefined => of(...given)[0]

describe('the card of a caption', () => {
  it('says its sentences, without links, tags, closing line and what tells of a link', () => {
    const card = first(
      'A hive wants sun before ten. After noon it wants shade.\n\nWhere do yours stand?\n\nLink in the profile.\n\n#Bees #Town',
      'lesson',
      { closing: 'Where do yours stand?' },
    )
    expect(card).toMatchObject({
      layout: 'words',
      text: 'A hive wants sun before ten. After noon it wants shade.',
    })
    expect(first('A hive wants sun. https://bees.example/sun #Bees')?.text).toBe('A hive wants sun.')
  })

  it('ends with a sentence, and before what is too much for a glance', () => {
    const long = 'A swarm hangs in the pear tree for an hour or two while its scouts look for a home.'
    const card = first(`${long} ${long} ${long} Then it is gone.`)
    expect(card?.text).toBe(`${long} ${long}`)
    // No part that promises something or waits for its answer.
    expect(of('Three things matter: sun, water and the neighbours').map((c) => c.layout)).toEqual(['title'])
  })

  it('is a quotation with its name where somebody speaks, also where only the beginning has room', () => {
    expect(first('“The bees know. I only carry the box.” — Ada Wren, beekeeper', 'quotation')).toMatchObject({
      layout: 'quotation',
      text: 'The bees know. I only carry the box.',
      speaker: 'Ada Wren, beekeeper',
    })
    const said =
      'I look after a hive from before the war whose wood is as sound as on the day on which it was joined.'
    expect(first(`“${said} ${said} And more.” — Ada Wren`, 'quotation')).toMatchObject({
      text: said,
      speaker: 'Ada Wren',
    })
    // Somebody's words without the name are on no card.
    expect(of('“The bees know. I only carry the box.', 'quotation').map((c) => c.layout)).toEqual(['title'])
  })

  it.each([
    ['A dry oak plank holds 18 per cent of water.', ['18 per cent']],
    ['Caulk it, then wait forty hours.', ['forty hours']],
    ['It costs £400. It lasts ten years.', ['£400']],
    // No amount: a year, a span of which the end would stand alone, a number with no unit.
    ['In 1998 the hut burnt down.', undefined],
    ['Keep it for ten to twelve days.', undefined],
    ['The two came back.', undefined],
  ])('of “%s” lets %j stand out', (text, marked) => {
    expect(first(text)?.marked).toEqual(marked)
    if (marked) expect(Card.parse(first(text)).marked).toEqual(marked)
  })

  it('is a list or steps where all of them have room, else not', () => {
    expect(first('What a hive needs:\n– Sun in the morning\n– A dry floor')).toEqual({
      layout: 'list',
      head: 'What a hive needs',
      text: '',
      items: ['Sun in the morning', 'A dry floor'],
      speaker: '',
    })
    expect(first('Feeding in March:\n1. Boil the water.\n2. Stir in the sugar.')).toMatchObject({
      layout: 'steps',
      items: ['Boil the water.', 'Stir in the sugar.'],
    })
    const eight = Array.from({ length: 8 }, (_, i) => `– Thing ${i}`).join('\n')
    expect(of(`What a hive needs:\n${eight}`).map((c) => c.layout)).toEqual(['title'])
  })

  it.each([
    ['A colony eats fifteen kilos of honey in a winter.', '15 kilos'],
    ['Some 1,400 bees leave with the old queen.', '1,400 bees'],
    ['The frame costs £38 and lasts for years.', '£38'],
    ['Honey with 20% water ferments.', '20%'],
    ['At eighteen per cent water it keeps.', '18 per cent'],
  ])('gives the number of “%s” as %s', (text, head) => {
    expect(first(text, 'number')).toMatchObject({ layout: 'number', head, text })
  })

  it.each([
    'A hive with two ideas of where to live has none.',
    'Call nine times to end nothing.',
    'It takes ten to fifteen minutes.',
    'In 1998 the town had no hive.',
    'By 1998 bees were gone from the town.',
    'One bee makes a teaspoon.',
    'They work in four hour shifts.',
  ])('has no number to show in “%s”', (text) => {
    expect(of(text, 'number').map((c) => c.layout)).not.toContain('number')
  })

  it('sets two sides against each other, a term over what it means, and a question by itself', () => {
    const sides = 'A calm bee lands and walks. A cross bee never lands at all.'
    expect(first(sides, 'contrast')).toMatchObject({
      layout: 'contrast',
      items: ['A calm bee lands and walks.', 'A cross bee never lands at all.'],
    })
    // Two sentences of which one has a contrast in itself are no two sides.
    const one = 'In a cold shed we lay a bottle on the joint. It looks odd, but it works.'
    expect(of(one, 'contrast').map((c) => c.layout)).not.toContain('contrast')
    expect(of(`${sides} Watch them.`, 'contrast').map((c) => c.layout)).not.toContain('contrast')
    expect(first('A skep is a basket of straw in which bees were kept.', 'definition')).toMatchObject({
      layout: 'definition',
      head: 'Skep',
    })
    expect(first('Who owns a swarm? Nobody does, until it is boxed.', 'question')).toMatchObject({
      layout: 'question',
      text: 'Who owns a swarm?',
    })
  })

  it('has the quotation marks and apostrophes of print', () => {
    expect(first('The label said "good condition", and it wasn\'t.')?.text).toBe(
      'The label said “good condition”, and it wasn’t.',
    )
  })

  it('is none of a layout that the brand does not use, and always fits its own rules', () => {
    const text = 'A colony eats fifteen kilos of honey in a winter.'
    expect(cardsFor({ text, angle: 'number', closing: null }, piece, ['words']).map((c) => c.layout)).toEqual(
      ['words'],
    )
    for (const card of of(text, 'number')) expect(Card.safeParse(card).error).toBeUndefined()
  })

  it('in another language says its sentences as they stand', () => {
    const card = cardsFor(
      {
        text: 'Ein Volk frisst fünfzehn Kilo Honig. Das ist viel.\n\n#Bienen',
        angle: 'number',
        closing: null,
      },
      { title: 'Bienen', language: 'de' },
      LAYOUTS,
    )
    expect(card[0]).toMatchObject({
      layout: 'words',
      text: 'Ein Volk frisst fünfzehn Kilo Honig. Das ist viel.',
    })
  })
})

describe('what is told of a card to those who cannot see it', () => {
  it('is its words, as sentences', () => {
    const card = {
      layout: 'list' as const,
      head: 'What a hive needs',
      text: '',
      items: ['Sun', 'A dry floor'],
      speaker: '',
    }
    expect(cardAlt(card)).toBe('What a hive needs. Sun. A dry floor.')
    // What is left of another layout is not drawn, and not told.
    expect(cardAlt({ ...card, text: 'Old words.', speaker: 'Ada Wren' })).toBe(cardAlt(card))
    expect(
      cardAlt({
        ...card,
        layout: 'quotation',
        head: '',
        items: [],
        text: 'The bees know.',
        speaker: 'Ada Wren',
      }),
    ).toBe('“The bees know.” — Ada Wren')
  })
})
