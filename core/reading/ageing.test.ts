import { describe, expect, it } from 'vitest'
import { ageingPhrases, ageingWords, howLongItKeeps, overruleKeeps, readWriting } from '.'

const NOW = '2026-11-24T10:00:00.000Z'
const found = (text: string): string[] =>
  ageingPhrases(text, NOW).map((p) => `${text.slice(p.start, p.end)}: ${p.why}`)
const keeps = (text: string, publishedAt = NOW, now = NOW) =>
  howLongItKeeps({ ...readWriting(text, 'A piece'), publishedAt }, now)
const evergreen = Array.from(
  { length: 14 },
  (_, i) =>
    `A beam of ${20 + i} centimetres carries itself and one thing more, and it says so when it has had enough.`,
).join(' ')

describe('what ages a text', () => {
  it.each([
    ['We opened the kiln last week.', 'last week: speaks of a week'],
    ['This spring we glaze twice.', 'This spring: speaks of a season'],
    ['Our latest glaze is grey.', 'latest: claims to be new'],
    ['It was the driest year; this year is wetter.', 'this year: speaks of a year'],
    ['The early-bird place is gone.', 'early-bird: an offer that ends'],
    ['Come on 12 December at ten.', '12 December: a date'],
    ['Come on December 12th at ten.', 'December 12th: a date'],
    ['It closed on 3 October 2026.', '3 October 2026: a date that has passed'],
    ['It starts on 2026-12-12.', '2026-12-12: a date'],
    ['A place costs €45 a head.', '€45: a price'],
    ['A kiln costs £4,200, with its shelves.', '£4,200: a price'],
    ['The current rules say that it may not be let.', 'current rules: speaks of a year'],
    ['Works with firmware 4.2 only.', 'firmware 4.2: names a version'],
    ['The rules for 2027 are out.', '2027: names a year'],
    ['Save the date and bring a cup.', 'Save the date: an event'],
  ])('%s', (text, expected) => {
    expect(found(text)).toEqual([expected])
  })

  it.each([
    'We paid €45 for it and sold it for 60 euros.',
    'In 1987 the kiln burned down.',
    'It was built on 3 May 1911.',
    'A year in the shed does it no harm.',
    'Soak it for a week, then a month.',
    'At the moment when the cone bends, close the damper.',
    'You may 3 times out of 4 be right.',
    'It weighs 900 grams, and 2000 people sat on it.',
    'Every spring the clay thaws.',
    'Today most people fire with gas.',
  ])('but not: %s', (text) => {
    expect(found(text)).toEqual([])
  })

  it('gives the first words that age a caption, leaving its prices alone', () => {
    expect(ageingWords('A bowl costs €45. The latest is grey.')).toBe('latest')
    expect(ageingWords('A bowl costs €45.')).toBeNull()
    expect(ageingWords('A client paid late in 2019.')).toBe('2019')
    expect(ageingWords('A client paid late in 2019.', NOW)).toBeNull()
  })
})

describe('how long a piece keeps', () => {
  it('is evergreen with a phrase here and there, which is named', () => {
    const k = keeps(`${evergreen}\n\nThe owl came back last week. ${evergreen}`)
    expect(k).toMatchObject({ span: 'evergreen', until: null, phrases: [{ why: 'speaks of a week' }] })
  })

  it('ends with its event, and is past after it', () => {
    const text = `On 12 December the kiln is open from ten. ${evergreen}`
    expect(keeps(text)).toMatchObject({ span: 'weeks', until: '2026-12-12' })
    expect(keeps(text, NOW, '2026-12-13T08:00:00.000Z')).toMatchObject({ span: 'past', until: '2026-12-12' })
  })

  it('is not about its day for saying “today”, “right now” and “last year” in passing', () => {
    const text = `Last year we fired with gas, and right now we fire with wood. ${evergreen} Today it is cold, and this week it snows. ${evergreen}`
    expect(keeps(text, '2025-11-20T10:00:00.000Z')).toMatchObject({ span: 'evergreen', until: null })
  })

  it('counts from the day of publication where its subject ends and no day is named', () => {
    const prices = `A bowl costs €45 with its lid. A cup costs €12 in any glaze. A plate costs €20 and a jug €38. ${evergreen}`
    const old = '2026-06-01T10:00:00.000Z'
    expect(howLongItKeeps({ ...readWriting(prices, 'Our prices'), publishedAt: old }, NOW)).toMatchObject({
      span: 'about a year',
      until: '2027-06-01',
      because: expect.stringMatching(/list of prices/) as string,
    })
    expect(
      howLongItKeeps({ ...readWriting(evergreen, 'The tax dates of 2027'), publishedAt: NOW }, NOW),
    ).toMatchObject({
      span: 'about a year',
      because: expect.stringContaining('2027') as string,
    })
    expect(
      howLongItKeeps({ ...readWriting(evergreen, 'Introducing the small kiln'), publishedAt: NOW }, NOW),
    ).toMatchObject({
      span: 'months',
      because: 'It tells news, by its title.',
    })
  })

  it('is what a person says it is, until they take that back', () => {
    const found = keeps(`On 12 December the kiln is open from ten. ${evergreen}`)
    const kept = overruleKeeps(found, true)
    expect(kept).toMatchObject({ span: 'evergreen', until: null, because: found.because })
    expect(overruleKeeps(overruleKeeps(kept, true), false)).toEqual(found)
  })

  it('does not take an event in passing for the matter of the piece', () => {
    expect(keeps(`${evergreen}\n\n${evergreen}\n\nWe open the shed on 12 December.`).span).toBe('evergreen')
  })

  it('looks at no furniture', () => {
    const piece = readWriting(
      `${evergreen}\n\nSubscribe by 12 December to our letter, every week in your inbox.`,
      'A',
    )
    const marked = {
      ...piece,
      blocks: piece.blocks.map((b, i) => (i === 1 ? { ...b, furniture: 'call to subscribe' } : b)),
    }
    expect(howLongItKeeps({ ...marked, publishedAt: NOW }, NOW).phrases).toEqual([])
  })
})

it('knows what ages', () => {
  expect(ageingWords('Every plank we cut out last winter had one.')).toBe('last winter')
  expect(ageingWords('The prices of 2026 will not hold.')).toBe('2026')
  expect(ageingWords('Varnish laid in November stays soft.')).toBeNull()
})
