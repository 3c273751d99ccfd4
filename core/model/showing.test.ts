import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cardLacks, insideOf, repeatsAmong, showings, type Card, type PostMedia, type Showing } from '.'
import { aPost } from './samples'

const at = (day: number, picture = 'oak', account = 'a', network = 'n'): Showing => ({
  day,
  picture,
  account,
  network,
})

describe('what is shown again too soon', () => {
  it('is the later of two within the rest on a network, or twice in a row on an account', () => {
    expect([...repeatsAmong([at(0), at(20)], 21)]).toEqual([1])
    expect([...repeatsAmong([at(0), at(21, 'oak', 'b')], 21)]).toEqual([])
    expect([...repeatsAmong([at(0), at(20, 'oak', 'b', 'other')], 21)]).toEqual([])
    // Long ago, and still the account's last picture.
    expect([...repeatsAmong([at(0), at(90)], 21)]).toEqual([1])
    expect([...repeatsAmong([at(0), at(40, 'ash'), at(90)], 21)]).toEqual([])
    expect([...repeatsAmong([at(9), at(0)], 21)]).toEqual([0])
  })

  it('is a like one too, under whichever address it comes', () => {
    const shows = (id: string, at: string, print: string) =>
      aPost({
        id,
        at: `${at}T09:00:00.000Z`,
        media: [
          {
            source: { from: 'address', url: `https://a.example/${id}.png` },
            alt: '',
            shape: null,
            print,
            hash: null,
          },
        ],
      })
    const posts = [
      shows('a', '2026-12-01', '00000000ffffffff'),
      shows('b', '2026-12-04', '0f0f0f0f0f0f0f0f'),
      shows('c', '2026-12-08', '0000000fffffff0f'),
    ]
    expect(showings(posts, '2026-12-01').map((s) => s.day)).toEqual([0, 3, 7])
    expect([...repeatsAmong(showings(posts, '2026-12-01'), 21)]).toEqual([2])
    expect([
      ...repeatsAmong(
        showings(posts, '2026-12-01', (key) => key),
        21,
      ),
    ]).toEqual([])
  })

  it('is nothing where all are different, whatever their order', () => {
    const days = fc.uniqueArray(fc.integer({ min: -50, max: 50 }), { maxLength: 12 })
    fc.assert(
      fc.property(
        days,
        (list) =>
          repeatsAmong(
            list.map((d) => at(d, `p${d}`)),
            21,
          ).size === 0,
      ),
    )
  })
})

describe('a card that is not whole', () => {
  const card: Card = { layout: 'words', head: '', text: 'A word.', items: [], speaker: '' }
  it.each<[Partial<Card>, RegExp | null]>([
    [{}, null],
    [{ text: ' ' }, /no words yet.+Words/],
    [{ layout: 'number' }, /Number with its unit.+empty/],
    [{ layout: 'definition' }, /Term.+empty/],
    [{ layout: 'contrast', items: ['one'] }, /two sides/],
    [{ layout: 'contrast', items: ['one', 'two'] }, null],
    [{ layout: 'steps', items: ['one'] }, /at least two/],
    [{ layout: 'list', items: Array.from({ length: 8 }, (_, i) => `${i}`) }, /At most 7/],
    [{ text: 'x'.repeat(281) }, /at most 280/],
    [{ marked: ['word'] }, null],
    [{ marked: ['x'.repeat(81)] }, /stand out.+80/],
  ])('%j: %s', (change, says) => {
    const lacks = cardLacks({ ...card, ...change })
    if (says === null) expect(lacks).toBeNull()
    else expect(lacks).toMatch(says)
  })
})

it('a drop tells a thread from a card, a card from a picture, and a picture from plain words', () => {
  const post = aPost({ media: [] })
  const rest = { alt: '', shape: null, hash: null }
  const picture: PostMedia = { source: { from: 'address', url: 'https://a.example/oak.png' }, ...rest }
  const card: PostMedia = {
    source: { from: 'card', card: { layout: 'words', head: '', text: 'Oak.', items: [], speaker: '' } },
    ...rest,
  }
  expect(insideOf(post)).toBe('plain')
  expect(insideOf({ ...post, media: [picture, card] })).toBe('picture')
  expect(insideOf({ ...post, media: [card] })).toBe('card')
  expect(insideOf({ ...post, media: [card], wording: { ...post.wording, parts: ['and on'] } })).toBe('thread')
})
