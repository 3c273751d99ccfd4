import { describe, expect, it } from 'vitest'
import { languageOf } from '../language'
import { gateState } from '../pipeline'
import { weighPassages } from '../passages'
import { readPage } from '../reading'
import { writeDrip } from '../drips'
import { PLAIN_HOUSE } from '../house'

const PARAGRAPHS = [
  'Eine Trockenmauer steht, weil jeder Stein auf zweien ruht und zwei trägt, und weil kein Mörtel den Steinen je etwas vorgelogen hat.',
  'Der Frost hebt den Boden in einem harten Winter um einen Finger, z. B. im Januar, und eine Mauer, die sich nicht bewegen kann, bricht.',
  'Die großen Steine gehören nach unten, die langen quer hindurch, einer auf jeden Meter, damit die beiden Seiten einander festhalten.',
  'Ein guter Maurer hebt denselben Stein nie zweimal auf, denn der Stein, der hier nicht passt, wird noch vor dem Abend gebraucht.',
]
const html = (lang: string): string =>
  `<html lang="${lang}"><head><title>Trockenmauern</title><meta name="keywords" content="Mauern, Naturstein"></head><body><article><h1>Trockenmauern bauen</h1>${PARAGRAPHS.map((p) => `<p>${p}</p>`).join('')}</article></body></html>`

describe('a piece in another language', () => {
  it('is known for it, also where its page declares English or nothing', () => {
    for (const lang of ['de', 'en', '']) expect(readPage(html(lang)).language).toBe('de')
    expect(
      languageOf('The wall stands because every stone of it rests on two others and carries two more.', 'en'),
    ).toBe('en')
    expect(
      languageOf('Le mur tient parce que chaque pierre repose sur deux autres et en porte deux.', null),
    ).toBe('fr')
  })

  it('has whole paragraphs for passages, and its sentences end where they end', () => {
    const piece = readPage(html('de'))
    expect(piece.sentences.map((s) => piece.text.slice(s.start, s.end)).slice(-4)).toEqual(PARAGRAPHS)
    const found = weighPassages(piece)
    expect(found.map((w) => w.passage.text).sort()).toEqual([...PARAGRAPHS].sort())
    expect(found[0]?.passage.reasons.join()).toContain('German')
  })

  it('goes out in its own words and tags alone, and never without a person', () => {
    const piece = readPage(html('de'))
    const posts = writeDrip({
      piece,
      passages: weighPassages(piece).map((w) => w.passage),
      accounts: ['murmur', 'guildhall'].map((id) => ({ id, network: id })),
      days: [0, 7, 20],
      house: PLAIN_HOUSE,
      link: 'https://mauer.example/a',
      seed: 1,
    })
    const made = posts.filter((p) => p.wording)
    expect(made.length).toBeGreaterThan(3)
    for (const { wording, checks } of made) {
      const words = wording!.text.replace(/https:\S+|#\S+/g, '').trim()
      expect(PARAGRAPHS).toContain(words)
      expect(['Mauern', 'Naturstein']).toEqual(expect.arrayContaining(wording!.hashtags))
      expect(checks).toContainEqual(expect.objectContaining({ code: 'other-language', severity: 'flag' }))
      expect(gateState(checks, 'what is flagged')).toBe('for review')
    }
  })
})
