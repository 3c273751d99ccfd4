import { expect, it } from 'vitest'
import { PLAIN_MAKE } from '../model'
import { anAccount, aPiece, aPipeline, aRow, aSource } from '../model/samples'
import { sieveContext } from '../sieve'
import { lookBack } from '.'

it('counts what would have passed in some days, and the posts that its passages carry', () => {
  const now = '2026-11-24T10:00:00.000Z'
  const on = (day: string, change: Parameters<typeof aPiece>[0] = {}) =>
    aPiece({ id: day, publishedAt: `${day}T08:00:00.000Z`, words: 500, ...change })
  const pieces = [
    on('2026-11-20', { kind: 'video' }),
    on('2026-11-10'),
    on('2026-11-09', { words: 50 }),
    // Dripped long since, and looked at all the same.
    on('2026-10-01', { dealt: { by: 'Journal', at: now } }),
    on('2026-06-01'),
    on('2026-11-12', { source: 'another' }),
  ]
  const accounts = [anAccount({ id: 'a' }), anAccount({ id: 'b' })]
  const pipeline = aPipeline({
    takeIn: { ...aPipeline().takeIn, sieve: [{ kind: 'length', least: 100, most: null }] },
    release: [
      aRow({
        id: '1',
        pieces: { kind: 'that', rules: [{ kind: 'kind', kinds: ['article'] }] },
        accounts: ['a', 'b'],
        by: { kind: 'next openings', posts: 5 },
      }),
    ],
  })
  const looked = (make = PLAIN_MAKE) =>
    lookBack(
      { ...pipeline, make },
      {
        pieces,
        accounts,
        sources: [aSource(), aSource({ id: 'another' })],
        context: sieveContext({ now, zone: 'UTC', lists: [], sources: [], pieces }),
        textOf: () => '',
        kept: (id) => (id === '2026-11-10' ? 3 : 9),
      },
      90,
    )
  // Two articles pass: three posts of one and five of the other, on each of two accounts; no row takes the video.
  expect(looked()).toEqual({
    pieces: 4,
    passed: 3,
    posts: 16,
    left: 1,
    byAccount: new Map([
      ['a', 8],
      ['b', 8],
    ]),
  })
  expect(looked({ ...PLAIN_MAKE, passages: 2 }).posts).toBe(8)
})
