import { describe, expect, it } from 'vitest'
import type { SieveRule } from '../model'
import { aPiece, aPipeline, aSource } from '../model/samples'
import {
  firstNumber,
  foldDoubles,
  judge,
  matchingWords,
  pieceState,
  readsText,
  sieve,
  sieveContext,
  isFor,
  sourcesOf,
  waitingPieces,
  type Sieved,
} from '.'

const now = '2026-11-24T10:00:00.000Z'
const context = sieveContext({
  now,
  // Fourteen hours ahead: there what came out at ten in the morning is of the next day.
  zone: 'Pacific/Kiritimati',
  lists: [{ id: 'shop', brand: 'brand', name: 'Shop', words: ['sale', 'offer*'] }],
  sources: [aSource()],
  pieces: Array.from({ length: 20 }, (_, i) => aPiece({ id: `p${i}`, counts: { shares: i * 10 } })),
})
const piece = (change: Partial<Sieved> = {}): Sieved => ({
  ...aPiece({
    title: 'Varnishing in damp weather',
    url: 'https://www.yard.example/varnish',
    author: 'Rita Vance',
    categories: ['Varnish', 'finish'],
    words: 800,
    publishedAt: '2026-11-14T10:00:00.000Z',
    counts: { shares: 180 },
    fields: { 'g:price': '1.250,50 EUR', 'walk.distance_km': '12 km' },
    images: [{ url: 'u', alt: '', caption: '', width: null, height: null, block: -1 }],
  }),
  text: 'Lay your palm on the wood. The dew point decides.',
  ...change,
})
const WORDS: Extract<SieveRule, { kind: 'words' }> = {
  kind: 'words',
  need: 'any',
  words: ['x'],
  lists: [],
  where: 'the title and the text',
}

describe('each rule says by what it caught a piece', () => {
  it.each<[string, SieveRule, Partial<Sieved>, RegExp | null]>([
    ['any word, a beginning', { ...WORDS, words: ['varnish*', 'oak'] }, {}, null],
    [
      'any word, whole',
      { ...WORDS, words: ['varnish'] },
      {},
      /None of “varnish” is in the title and the text/,
    ],
    ['a phrase in the text', { ...WORDS, words: ['dew point'] }, {}, null],
    ['a phrase over other marks', { ...WORDS, words: ['wood the dew'] }, {}, null],
    [
      'all of them',
      { ...WORDS, need: 'all', words: ['palm', 'oak', 'larch'] },
      {},
      /“oak” and “larch” are missing/,
    ],
    [
      'none of them',
      { ...WORDS, need: 'none', words: ['palm', 'oak'] },
      {},
      /There is “palm” in the title and the text/,
    ],
    [
      'a saved list',
      { ...WORDS, need: 'none', words: [], lists: ['shop'] },
      { text: 'Special offers inside.' },
      /“offer\*”/,
    ],
    ['the title alone', { ...WORDS, need: 'none', words: ['palm'], where: 'the title' }, {}, null],
    ['the author', { ...WORDS, words: ['vance'], where: 'the author' }, {}, null],
    ['the tags', { ...WORDS, words: ['finish'], where: 'the tags' }, {}, null],
    ['no words at all', { ...WORDS, words: [] }, {}, null],
    ['tags to take', { kind: 'tags', take: true, tags: ['oak'] }, {}, /none of the tags “oak”/],
    ['tags to leave', { kind: 'tags', take: false, tags: ['FINISH'] }, {}, /It is tagged “FINISH”/],
    ['a source to leave', { kind: 'source', take: false, sources: ['source'] }, {}, /comes from The journal/],
    ['a site to take', { kind: 'domain', take: true, domains: ['https://yard.example/'] }, {}, null],
    ['another site', { kind: 'domain', take: true, domains: ['ard.example'] }, {}, /stands at yard\.example/],
    ['its kind', { kind: 'kind', kinds: ['video'] }, {}, /It is an article/],
    ['too short', { kind: 'length', least: 900, most: null }, {}, /800 words, fewer than 900/],
    ['too long', { kind: 'length', least: null, most: 700 }, {}, /more than 700/],
    ['young enough', { kind: 'age', mostDays: 10 }, {}, null],
    [
      'a date within, both days counted in',
      { kind: 'date', from: '2026-11-15', until: '2026-11-15' },
      {},
      null,
    ],
    [
      'a date before',
      { kind: 'date', from: '2026-11-16', until: null },
      {},
      /of 15 November 2026, before 16/,
    ],
    ['a date after', { kind: 'date', from: null, until: '2026-11-14' }, {}, /of 15 November 2026, after 14/],
    ['a date that is open', { kind: 'date', from: null, until: null }, {}, null],
    ['too old', { kind: 'age', mostDays: 9 }, {}, /10 days old, more than 9/],
    [
      'how long it keeps',
      { kind: 'keeps', atLeast: 'about a year' },
      { keeps: { span: 'weeks', until: null, phrases: [] } },
      /keeps some weeks only/,
    ],
    ['its language', { kind: 'language', languages: ['de'] }, { language: 'en-GB' }, /written in English/],
    ['a language that nobody knows', { kind: 'language', languages: ['de'] }, { language: null }, null],
    ['a picture', { kind: 'picture' }, { images: [] }, /no picture/],
    ['popular enough', { kind: 'popularity', measure: 'shares', least: null, top: 0.1 }, {}, null],
    [
      'not in the top tenth',
      { kind: 'popularity', measure: 'shares', least: null, top: 0.1 },
      { counts: { shares: 170 } },
      /top 10 per cent of its source begin at 180/,
    ],
    [
      'at least so many',
      { kind: 'popularity', measure: 'comments', least: 3, top: null },
      {},
      /Nothing is known of its comments/,
    ],
    ['a number in a field', { kind: 'field', name: 'price', least: 1000, most: 1300 }, {}, null],
    [
      'a number out of bounds',
      { kind: 'field', name: 'distance_km', least: null, most: 10 },
      {},
      /distance_km is 12, more than 10/,
    ],
    [
      'a field that is not there',
      { kind: 'field', name: 'depth', least: 1, most: null },
      {},
      /no field called depth/,
    ],
  ])('%s', (_, rule, change, reason) => {
    const result = sieve(piece(change), [rule], context)
    expect(result.passed).toBe(reason === null)
    if (reason) expect(result.reason).toMatch(reason)
  })

  it('names the first rule that catches, and the words', () => {
    const rules: SieveRule[] = [
      { kind: 'picture' },
      { ...WORDS, need: 'none', words: ['palm', 'wood', 'steel'] },
      { kind: 'length', least: 5000, most: null },
    ]
    expect(sieve(piece(), rules, context)).toMatchObject({ rule: 1, words: ['palm', 'wood'] })
    expect(readsText(rules)).toBe(true)
    expect(readsText([{ kind: 'picture' }])).toBe(false)
  })
})

it('a person’s word comes before the rules, and a double never passes', () => {
  const strict: SieveRule[] = [{ kind: 'length', least: 5000, most: null }]
  const who = { ...aPiece(), ...piece() }
  expect(judge({ ...who, letThrough: true }, strict, context)).toMatchObject({ passed: true })
  expect(judge({ ...who, dealt: { by: 'set aside', at: now } }, [], context)).toMatchObject({ passed: false })
  const double = { of: 'other', likeness: 0.9, why: 'the same story' } as const
  expect(judge({ ...who, double }, [], context).reason).toMatch(/folded under another piece/)
  expect(judge({ ...who, double, unfolded: true }, [], context).passed).toBe(true)
})

it('matches whole words, phrases and beginnings, without case and marks', () => {
  expect(
    matchingWords('The Oak’s end-grain, oak.', ['oak', 'end grain', 'gra*', 'ain', 'OAK’S', '']),
  ).toEqual(['oak', 'end grain', 'gra*', 'OAK’S'])
})

it('minds quotation marks around a word, and the signs that belong to it', () => {
  const found = (text: string, entries: string[]) => matchingWords(text, entries)
  expect(found('She said ‘choir’ and "nave".', ['choir', 'nave'])).toEqual(['choir', 'nave'])
  expect(found("The 'choir' and the boats' names", ['choir', 'boats', "boats'"])).toEqual([
    'choir',
    'boats',
    "boats'",
  ])
  expect(found('Written in C# and C++, not in F#.', ['c', 'f', 'C#', 'c++', 'C+'])).toEqual(['C#', 'c++'])
  expect(found('Plain C, #oak and rock+roll', ['C#', 'c', 'oak', 'roll'])).toEqual(['c', 'oak', 'roll'])
  expect(found('Don’t', ['don', "don't", 't'])).toEqual(["don't"])
})

it('reads numbers as people write them', () => {
  for (const [text, value] of [
    ['12 km', 12],
    ['€ 1.250,50', 1250.5],
    ['1,250.50', 1250.5],
    ['1,250', 1250],
    ['12,5', 12.5],
    ['1 250 kg', 1250],
    ['−3? -3', -3],
    ['none', null],
  ] as const)
    expect([text, firstNumber(text.replace('−3? ', ''))]).toEqual([text, value])
})

it('takes from named sources and from whatever is in a group', () => {
  const sources = [
    aSource({ id: 'a' }),
    aSource({ id: 'b', group: 'Boats' }),
    aSource({ id: 'c', group: 'Huts' }),
  ]
  expect(sourcesOf({ sources: ['a'], groups: ['Boats'] }, sources)).toEqual(new Set(['a', 'b']))
})

it('a piece is for the pipelines of its source, one made of posts for those alone that it was handed to', () => {
  const mine = isFor(aPipeline({ id: 'l' }), [aSource()])
  expect(mine(aPiece())).toBe(true)
  expect(mine(aPiece({ source: 'other' }))).toBe(false)
  expect(mine(aPiece({ source: 'other', handedTo: ['l'] }))).toBe(true)
  expect(mine(aPiece({ through: ['m'], handedTo: ['n'] }))).toBe(false)
  expect(mine(aPiece({ through: ['m'], handedTo: ['l'] }))).toBe(true)
})

it('folds doubles under the first, also through one that is folded itself', () => {
  const under = (of: string) => ({ of, likeness: 0.9, why: 'the same story' as const })
  const pieces = [
    aPiece({ id: 'a' }),
    aPiece({ id: 'b', double: under('a') }),
    aPiece({ id: 'c', double: under('b') }),
    aPiece({ id: 'd', double: under('a'), unfolded: true }),
    aPiece({ id: 'e', double: under('gone') }),
  ]
  const lists = foldDoubles(pieces).map(({ piece, folded }) => [piece.id, folded.map((f) => f.id)])
  expect(lists).toEqual([
    ['a', ['b', 'c']],
    ['d', []],
    ['e', []],
  ])
  const ring = [aPiece({ id: 'x', double: under('y') }), aPiece({ id: 'y', double: under('x') })]
  expect(foldDoubles(ring).flatMap(({ piece, folded }) => [piece, ...folded])).toHaveLength(2)
})

it('says where a piece stands, and what waits for somebody', () => {
  const pipelines = [aPipeline({ id: 'one', name: 'One' }), aPipeline({ id: 'two', name: 'Two' })]
  const verdict = (pipeline: string, passed: boolean) => ({
    pipeline,
    version: 1,
    passed,
    reason: 'Too short.',
  })
  expect(pieceState(aPiece({ verdicts: [verdict('one', false)] }), pipelines)).toEqual({
    kind: 'caught',
    words: 'caught by One',
    reason: 'Too short.',
  })
  expect(
    pieceState(aPiece({ verdicts: [verdict('one', false), verdict('two', true)] }), pipelines).kind,
  ).toBe('waiting')
  expect(pieceState(aPiece({ verdicts: [verdict('gone', false)] }), pipelines).kind).toBe('waiting')
  expect(pieceState(aPiece({ changedAt: now, dealt: { by: 'One', at: now } }), pipelines).kind).toBe(
    'changed',
  )
  const pieces = [
    aPiece({ id: 'a' }),
    aPiece({ id: 'b', verdicts: [verdict('one', false)] }),
    aPiece({ id: 'c', dealt: { by: 'you', at: now } }),
    aPiece({ id: 'd', words: 0 }),
  ]
  expect(waitingPieces(pieces, pipelines).map((p) => p.id)).toEqual(['a', 'd'])
})
