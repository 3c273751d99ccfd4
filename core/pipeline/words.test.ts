import { expect, it } from 'vitest'
import type { SieveRule, Timing } from '../model'
import { piecesWords, timingWords } from '.'

const sources = [
  { id: 's', title: 'The journal' },
  { id: 't', title: 'The films' },
]
const that = (...rules: SieveRule[]): string => piecesWords({ pieces: { kind: 'that', rules } }, sources)

it('a row says in words which pieces it is for', () => {
  expect(piecesWords({ pieces: { kind: 'rest' } }, sources)).toBe('no row above takes')
  expect(
    that(
      { kind: 'kind', kinds: ['video', 'article'] },
      { kind: 'tags', take: false, tags: ['news', 'prices', 'events'] },
    ),
  ).toBe('are videos or articles and are not tagged news, prices or events')
  expect(that({ kind: 'source', take: true, sources: ['t', 'gone'] })).toBe('come from The films')
  expect(that({ kind: 'keeps', atLeast: 'weeks' })).toBe('keep some weeks or longer')
  expect(that({ kind: 'length', least: 400, most: null })).toBe('have 400 words or more')
  expect(that({ kind: 'tags', take: true, tags: ['a', 'b', 'c', 'd', 'e', 'f'] })).toBe(
    'are tagged a, b, c, d or 2 more',
  )
})

it('a row says in words when its posts go out', () => {
  const said = (by: Timing): string => timingWords(by)
  expect(said({ kind: 'next openings', posts: 1 })).toBe('the next opening')
  expect(said({ kind: 'soon', hours: 3 })).toBe('as soon as possible, within 3 hours')
  expect(said({ kind: 'field', name: 'begins', before: [0, 14, 1] })).toBe(
    'its field “begins”: 14 days before, 1 day before, the day itself',
  )
  expect(said({ kind: 'rule', rule: 'FREQ=WEEKLY;BYDAY=TU', posts: 4 })).toMatch(/Tuesday.*, 4 times$/i)
})
