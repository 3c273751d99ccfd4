import { describe, expect, it } from 'vitest'
import { ownPicture, type LibraryPicture, type Piece, type PostMedia } from '../model'
import { aPiece, aPost } from '../model/samples'
import { findIn, libraryOf, type LibraryEntry, type LibraryQuery } from './library'

const url = (name: string): string => `https://a.example/${name}.png`
const image = (name: string, more: Partial<Piece['images'][number]> = {}): Piece['images'][number] => ({
  url: url(name),
  alt: '',
  caption: '',
  width: null,
  height: null,
  block: -1,
  ...more,
})
const shows = (...names: string[]): PostMedia[] =>
  names.map((name) => ({ source: { from: 'address', url: url(name) }, alt: '', shape: null, hash: null }))
const card: PostMedia = {
  source: { from: 'card', card: { layout: 'words', head: '', text: 'Bees sleep.', items: [], speaker: '' } },
  alt: 'Bees sleep.',
  shape: null,
  hash: null,
}
const own: LibraryPicture = {
  id: 'own',
  brand: 'brand',
  url: ownPicture('a'.repeat(64)),
  origin: 'stock',
  title: 'A field of rape',
  alt: '',
  credit: { author: 'Ada Wren', from: 'Drawer', licence: 'Free', page: null, mustShow: true },
  width: 900,
  height: 600,
  bytes: 1000,
  print: 'f0f0f0f0f0f0f0f0',
  addedAt: '2026-11-20T08:00:00.000Z',
}

const pieces = [
  aPiece({
    id: 'one',
    title: 'Keeping bees',
    takenAt: '2026-11-01T08:00:00.000Z',
    images: [
      image('hive', {
        caption: 'A hive in spring',
        alt: 'A white hive',
        seen: { print: '0f0f0f0f0f0f0f0f', trouble: null },
      }),
      image('gone', { seen: { print: null, trouble: 'There is no picture.' } }),
    ],
  }),
  aPiece({
    id: 'two',
    title: 'Lime honey',
    takenAt: '2026-11-10T08:00:00.000Z',
    images: [
      image('hive', { width: 800, height: 600 }),
      image('hive-small', { seen: { print: '0f0f0f0f0f0f0f0e', trouble: null } }),
    ],
  }),
]
const posts = [
  aPost({
    id: 'p1',
    media: shows('hive', 'hive'),
    publishedAt: '2026-11-12T09:00:00.000Z',
    state: 'published',
  }),
  aPost({
    id: 'p2',
    media: shows('hive'),
    at: '2026-12-24T09:00:00.000Z',
    state: 'approved',
    publishedAt: null,
  }),
  aPost({ id: 'p3', media: [card], at: '2026-12-20T09:00:00.000Z', state: 'draft', publishedAt: null }),
  aPost({ id: 'p4', media: shows('hive-small'), state: 'set aside', publishedAt: null }),
]
const library = libraryOf({ pieces, pictures: [own], posts })
const entry = (key: string): LibraryEntry | undefined => library.find((e) => e.key === key)
const ask = (query: Partial<LibraryQuery>): string[] =>
  findIn(library, { words: '', origin: null, used: null, like: null, order: 'newest', ...query }).map((e) =>
    e.origin === 'card' ? 'card' : e.key.replace(/^https:\/\/a\.example\/|\.png$|:.*/g, ''),
  )

describe('the library of a brand', () => {
  it('has each picture once, with the pieces that bring it and the posts that show it', () => {
    expect(entry(url('hive'))).toMatchObject({
      origin: 'piece',
      title: 'A hive in spring',
      alt: 'A white hive',
      size: { width: 800, height: 600 },
      pieces: [{ id: 'one' }, { id: 'two' }],
      uses: [
        { post: 'p1', out: true },
        { post: 'p2', out: false },
      ],
      lastSeen: '2026-11-12T09:00:00.000Z',
      nextSeen: '2026-12-24T09:00:00.000Z',
      trouble: null,
    })
    expect(entry(url('gone'))).toMatchObject({
      title: 'Keeping bees',
      trouble: 'There is no picture.',
      uses: [],
    })
    // What is set aside shows nothing.
    expect(entry(url('hive-small'))?.uses).toEqual([])
  })

  it('counts what looks alike', () => {
    expect(entry(url('hive'))?.others).toBe(1)
    expect(entry(url('hive'))?.like).toBe(entry(url('hive-small'))?.like)
    expect(entry(own.url)?.others).toBe(0)
    expect(ask({ like: entry(url('hive'))!.like })).toEqual(['hive-small', 'hive'])
  })

  it('is read in an order and by words, where it is from and whether it is used', () => {
    expect(ask({})).toEqual(['picture', 'hive-small', 'hive', 'gone'])
    expect(ask({ origin: 'card' })).toEqual(['card'])
    expect(ask({ order: 'most used' })[0]).toBe('hive')
    expect(ask({ order: 'longest not seen' }).at(-1)).toBe('hive')
    expect(ask({ used: true })).toEqual(['hive'])
    expect(ask({ used: false, origin: 'piece' })).toEqual(['hive-small', 'gone'])
    expect(ask({ words: 'BEES' })).toEqual(['hive', 'gone'])
    expect(ask({ words: 'spring hiv' })).toEqual(['hive'])
    expect(ask({ words: 'wren' })).toEqual(['picture'])
    expect(ask({ words: 'lime hive' })).toEqual(['hive'])
    expect(ask({ words: 'ive' })).toEqual([])
  })
})
