import { describe, expect, it } from 'vitest'
import { houseOf, PLAIN_HOUSE, type House } from '../house'
import { danglingWords, readSentences } from '../language'
import { HouseStyle } from '../model'
import { aWording } from '../model/samples'
import { measure, network } from '../networks'
import { weighPassages } from '../passages'
import { briefOf } from '../house'
import { pollsOf, stockOf, threadOf } from '../writers'
import { reword, rewordSelection, WAYS, writeDrip } from '.'
import { KITES } from './testing/kites'
import { strangeSentences } from './testing/verbatim'

const house = (style: object): House =>
  houseOf({ name: 'Hill', houseStyle: HouseStyle.parse(style), briefs: [] })
const stock = stockOf(KITES)
/** Without what a voice contracts and what makes a question of an order. */
const plain = (text: string): string =>
  text
    .replace(/n[’']t\b/g, ' not')
    .replace(/\b(it|that)[’']s\b/gi, '$1 is')
    .replace(/\bDo you\b/g, '')

describe('threads and polls', () => {
  it('a thread’s every part stands alone and fits', () => {
    const profile = network('murmur')
    const threads = weighPassages(KITES)
      .map((w) => w.passage)
      .flatMap((p) => threadOf(stock, p, profile, briefOf(profile), 'https://hill.example/kites') ?? [])
    expect(threads.length).toBeGreaterThan(0)
    for (const { parts } of threads) {
      expect(parts.length).toBeGreaterThanOrEqual(3)
      expect(parts.at(-1)).toContain('https://hill.example/kites')
      for (const part of parts) {
        expect(measure(part, profile.text)).toBeLessThanOrEqual(300)
        const said = part.replace(/https:\S+|^\d+\. |^[^:\n]+:\n\d+\. /g, '')
        const [first] = readSentences(said)
        expect([part, danglingWords(first?.tokens ?? [], said.slice(first?.start, first?.end))]).toEqual([
          part,
          null,
        ])
      }
    }
  })

  it('threads and polls follow the house: its words, its link tags, its never-say list', () => {
    const found = weighPassages(KITES).map((w) => w.passage)
    const forms = (style: object) =>
      found
        .flatMap((passage) =>
          (['as a thread', 'as a poll'] as const).flatMap((way) =>
            reword({
              piece: KITES,
              passages: found,
              spare: [],
              house: house(style),
              link: 'https://hill.example/kites',
              seed: 1,
              account: { id: 'murmur', network: 'murmur' },
              current: aWording(),
              passage,
              way,
            }),
          ),
        )
        .map(({ wording }) => wording)
    const tagged = forms({
      linkTags: [{ name: 'utm_source', value: '{network}' }],
      swaps: [{ from: 'silk', to: 'nylon', network: null }],
    })
    expect(tagged.length).toBeGreaterThan(1)
    for (const w of tagged) {
      expect([w.text, ...w.parts].join(' ')).toContain('kites?utm_source=murmur')
      expect([w.text, ...w.parts, ...w.poll].join(' ')).not.toMatch(/\bsilk\b/i)
    }
    for (const w of forms({ neverSay: ['silk'] }))
      expect([w.text, ...w.parts].join(' ')).not.toMatch(/\bsilk\b/i)
  })

  it('polls are alternatives that the piece puts itself, on networks that have them', () => {
    expect(pollsOf(KITES, network('murmur')).map((p) => [p.question, p.answers])).toEqual([
      ['Silk or cotton?', ['Silk', 'Cotton']],
    ])
    expect(pollsOf(KITES, network('shutterleaf'))).toEqual([])
    const advice = { ...KITES, title: 'Eat before you board, or very late', blocks: [], sentences: [] }
    expect(pollsOf(advice, network('murmur'))).toEqual([])
  })
})

describe('other wordings', () => {
  const found = weighPassages(KITES).map((w) => w.passage)
  const post = writeDrip({
    piece: KITES,
    passages: found.slice(0, 4),
    accounts: [{ id: 'murmur', network: 'murmur' }],
    days: [0, 7],
    house: PLAIN_HOUSE,
    link: 'https://hill.example/kites',
    seed: 2,
  }).find((p) => p.wording && p.beat === 1)!
  const ask = (way: (typeof WAYS)[number], change = {}) =>
    reword({
      piece: KITES,
      passages: found.slice(0, 4),
      spare: found.slice(4),
      house: PLAIN_HOUSE,
      link: 'https://hill.example/kites',
      seed: 1,
      account: { id: 'murmur', network: 'murmur' },
      current: post.wording!,
      passage: post.passage,
      way,
      ...change,
    })
  const size = (text: string): number => measure(text, network('murmur').text)

  it.each(WAYS)('%s: differ from what there is, keep to the piece, and are what was asked', (way) => {
    const current = post.wording!
    for (const { wording, passage } of ask(way)) {
      expect(wording.text).not.toBe(current.text)
      for (const text of [wording.text, ...wording.parts])
        expect(strangeSentences(plain(text), `${KITES.title}\n${KITES.text}`)).toEqual([])
      if (way === 'shorter') expect(size(wording.text)).toBeLessThan(size(current.text))
      if (way === 'longer') expect(size(wording.text)).toBeGreaterThan(size(current.text))
      if (way === 'as a question') expect(wording.text.split(/(?<=[.!?]) /)[0]).toContain('?')
      if (way === 'another angle') expect(wording.angle).not.toBe(current.angle)
      if (way === 'another passage') expect(passage.start).not.toBe(post.passage?.start)
      if (way === 'as a poll') expect(wording.poll.length).toBeGreaterThan(1)
    }
  })

  it('there is another passage, another angle and a poll of this piece', () => {
    for (const way of ['another passage', 'another angle', 'as a poll'] as const)
      expect(ask(way).length).toBeGreaterThan(0)
    const story = ask('another angle', { to: 'myth' })
    expect(story.every((w) => w.wording.angle === 'myth')).toBe(true)
  })

  it('change a selection by grammar alone', () => {
    expect(rewordSelection('The cloth keeps the bread soft, because steam cannot leave.', 'shorter')).toEqual(
      ['The cloth keeps the bread soft.'],
    )
    expect(rewordSelection('Stand with your back to the wind.', 'as a question')).toEqual([
      'Do you stand with your back to the wind?',
    ])
    expect(rewordSelection('Do not run.', 'warmer')).toEqual(['Don’t run.'])
    expect(rewordSelection('Silk lifts.', 'as a question')).toEqual([])
    expect(rewordSelection('', 'shorter')).toEqual([])
  })
})
