import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { readArticle } from '../../demo/content'
import { likeness, LIKENESS_BOUND } from '../judging'
import { firstPicture, PLAIN_MAKE, showings, type Post } from '../model'
import { aBrand, anAccount, aPost } from '../model/samples'
import { readFragment } from '../reading'
import { earlierCaptions, singlePost, takeWriting, toPassages, type SingleRequest } from '.'

const article = readArticle(
  readFileSync(join(import.meta.dirname, '../../demo/content/oakum-yard/seven-tools.md'), 'utf8'),
)
const owner = { id: 'piece', brand: 'brand', source: 'source', now: '2026-11-24T10:00:00.000Z' }
const piece = {
  ...takeWriting(readFragment(article.html, { title: article.title }), owner, {
    itemId: 'x',
    kind: 'manuscript',
  }),
  images: ['a', 'b'].map((name) => ({
    url: `https://a.example/${name}.png`,
    alt: name,
    caption: '',
    width: 1200,
    height: 900,
    block: 0,
  })),
}
let n = 0
const passages = toPassages(piece, () => `passage-${n++}`)
const hall = anAccount({ id: 'hall', network: 'guildhall' })
const one = (change: Partial<SingleRequest> = {}) =>
  singlePost({
    now: owner.now,
    newId: () => 'new',
    brand: aBrand(),
    piece,
    passages,
    passage: passages[0]?.id ?? null,
    account: hall,
    pipeline: { id: 'pipeline', name: 'Journal', make: { ...PLAIN_MAKE, pictures: 'from the piece' } },
    drip: 'drip',
    beat: 2,
    wished: '2026-12-01T12:00:00.000Z',
    seed: 1,
    standing: [],
    ...change,
  })

describe('one more post of a piece', () => {
  it('is worded for its account, from the passage that was asked for, and waits for review', () => {
    expect(one()).toMatchObject({
      id: 'new',
      account: 'hall',
      network: 'guildhall',
      drip: 'drip',
      beat: 2,
      pipeline: 'pipeline',
      passage: passages[0]?.id,
      state: 'for review',
      at: null,
    })
  })

  it('is unlike what stands on the account, and takes a passage that it has not said', () => {
    const first = { ...one(), id: 'first', at: '2026-11-30T12:00:00.000Z' }
    const second = one({ passage: null, standing: [first] })
    expect(second.passage).not.toBe(first.passage)
    expect(likeness(second.wording.text, first.wording.text)).toBeLessThanOrEqual(LIKENESS_BOUND)
  })

  it('never says again what its account said of the piece within a year', () => {
    const { wording, passage } = one()
    const ago = (days: number): string => new Date(Date.parse(owner.now) - days * 86_400_000).toISOString()
    const said = (days: number): Post =>
      aPost({
        id: 'was',
        account: 'hall',
        network: 'guildhall',
        piece: piece.id,
        passage,
        wording,
        at: ago(days),
      })
    expect(one({ standing: [said(300)] }).wording.text).not.toBe(wording.text)
    expect(one({ standing: [said(370)] }).wording.text).toBe(wording.text)
  })

  it('shows the picture that the account has not shown about then', () => {
    const pictures = anAccount({ id: 'pictures', network: 'shutterleaf' })
    const shown = (url: string, at: string) =>
      aPost({
        id: url,
        account: 'pictures',
        network: 'shutterleaf',
        at,
        media: [{ source: { from: 'address', url }, alt: '', shape: null, hash: null }],
      })
    const url = (standing: SingleRequest['standing']) => firstPicture(one({ account: pictures, standing }))
    expect(url([shown('https://a.example/a.png', '2026-11-29T12:00:00.000Z')])).toBe(
      'https://a.example/b.png',
    )
    expect(
      url([
        shown('https://a.example/a.png', '2026-10-01T12:00:00.000Z'),
        shown('https://a.example/b.png', '2026-11-29T12:00:00.000Z'),
      ]),
    ).toBe('https://a.example/a.png')
    // What is set aside is not shown.
    const [a, b] = ['https://a.example/a.png', 'https://a.example/b.png'] as const
    const day = (which: string): string => `2026-11-${which}T12:00:00.000Z`
    expect(url([shown(a, day('30')), shown(b, day('28'))])).toBe(b)
    expect(url([{ ...shown(a, day('30')), state: 'set aside' }, shown(b, day('28'))])).toBe(a)
    // A brand's pictures rest as long as it says: after two days the first one is free again.
    const standing = [shown(b, day('20')), shown(a, day('28')), shown('https://a.example/c.png', day('30'))]
    const brand = aBrand()
    const brief = { ...brand, weights: { ...brand.weights, pictureDays: 2 } }
    expect(url(standing)).toBe(b)
    expect(firstPicture(one({ account: pictures, standing, brand: brief }))).toBe(a)
  })

  it('counts the days on which pictures stand from one day on', () => {
    const media: Post['media'] = [{ source: { from: 'address', url: 'x' }, alt: '', shape: null, hash: null }]
    const days = ['2026-11-29T23:00:00.000Z', '2026-12-04T01:00:00.000Z'].map((at) => aPost({ at, media }))
    expect(showings(days, '2026-12-01').map((s) => s.day)).toEqual([-2, 3])
    expect(showings([aPost({ media: [] })], '2026-12-01')).toEqual([])
  })

  it('is refused with the reason where no passage is left', () => {
    expect(() => one({ passages: [] })).toThrow(/passage/)
  })
})

it('minds the captions of a piece for a year, those of a season ago less', () => {
  const now = '2026-11-24T10:00:00.000Z'
  const daysAgo = (days: number): Post =>
    aPost({
      id: `${days}`,
      piece: 'piece',
      state: 'published',
      at: new Date(Date.parse(now) - days * 86_400_000).toISOString(),
    })
  const told = (days: number, piece: string): (boolean | undefined)[] =>
    earlierCaptions([daysAgo(days)], now, piece).map((c) => c.longAgo)
  expect([told(90, 'piece'), told(91, 'piece'), told(365, 'piece'), told(366, 'piece')]).toEqual([
    [false],
    [true],
    [true],
    [],
  ])
  expect([told(90, 'other'), told(91, 'other')]).toEqual([[false], []])
})
