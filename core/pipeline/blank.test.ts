import { describe, expect, it } from 'vitest'
import { codedCard, pictureKey, type Card } from '../model'
import { aPost, aWording } from '../model/samples'
import { alikeWith, cardMedia, cardPictures, cardShown, clipMedia, mediaOf } from './blank'
import { formatOf } from '../networks'

const card: Card = { layout: 'words', head: '', text: 'A word.', items: [], speaker: '' }
const steps: Card = {
  ...card,
  layout: 'steps',
  head: 'Feeding in March',
  text: '',
  items: ['Boil it.', 'Stir it.'],
}

describe('the pictures that a card becomes', () => {
  it('have the tallest shape that the network takes, and are square where it takes any', () => {
    expect(cardMedia(card, 'shutterleaf').shape).toEqual({ width: 4, height: 5 })
    expect(cardMedia(card, 'rackwell').shape).toEqual({ width: 2, height: 3 })
    expect(cardMedia(card, 'murmur').shape).toEqual({ width: 1, height: 1 })
  })

  it('are slides where the network has posts to be leafed through, else one', () => {
    expect(cardPictures(steps, 'shutterleaf', { sign: 'The yard' }).map((m) => m.alt)).toEqual([
      'Feeding in March.',
      '1. Boil it.',
      '2. Stir it.',
      'The yard.',
    ])
    expect(cardPictures(steps, 'rackwell', { sign: 'The yard' }).map((m) => m.alt)).toEqual([
      'Feeding in March. Boil it. Stir it.',
    ])
    expect(cardPictures(card, 'shutterleaf', { sign: 'The yard' })).toHaveLength(1)
  })
})

describe('the link as a code', () => {
  const codes = (of: Card, id: string, look = { sign: 'The yard', codes: true }) =>
    cardShown(of, 'Oak', id, look).map(({ source }) => codedCard(source))

  it('stands on new cards where links cannot be followed and the brand wishes it, of slides on the last', () => {
    expect(codes(card, 'shutterleaf')).toEqual([true])
    expect(codes(steps, 'shutterleaf')).toEqual([false, false, false, true])
    expect(codes(card, 'loopyard')).toEqual([true])
    expect(codes(card, 'murmur')).toEqual([false])
    expect(codes(card, 'shutterleaf', { sign: 'The yard', codes: false })).toEqual([false])
  })

  it('is told to those who cannot see it, and makes it no other picture', () => {
    const [{ alt, source } = { alt: '', source: { from: 'card' as const, card } }] = cardShown(
      card,
      'Oak',
      'shutterleaf',
      { sign: '', codes: true },
    )
    expect(alt).toBe('A word. With the link as a QR code.')
    expect(pictureKey(source)).toBe(pictureKey({ from: 'card', card }))
  })
})

describe('a card that moves', () => {
  it('opens with the title of its piece, unless it says what it is of, or that is too long', () => {
    const hook = (of: Card, title: string) => clipMedia(of, title, 'loopyard').source
    expect(hook(card, ' Why oak bends ')).toEqual({ from: 'moving', card, hook: 'Why oak bends' })
    expect(hook(steps, 'Why oak bends')).toMatchObject({ hook: '' })
    expect(hook({ ...card, layout: 'title' }, 'Why oak bends')).toMatchObject({ hook: '' })
    expect(hook(card, 'x'.repeat(121))).toMatchObject({ hook: '' })
  })

  it('has the shape its network takes clips in, and is tall where it takes any but nothing still', () => {
    const shape = (id: string) => clipMedia(card, '', id).shape
    expect(shape('loopyard')).toEqual({ width: 9, height: 16 })
    expect(shape('shutterleaf')).toEqual({ width: 9, height: 16 })
    expect(shape('longwave')).toEqual({ width: 9, height: 16 })
    expect(shape('murmur')).toEqual({ width: 1, height: 1 })
  })

  it('comes by itself where a network takes nothing else, and goes out as a clip', () => {
    const media = cardShown(card, 'Oak', 'longwave', { sign: 'The yard' })
    expect(media.map((m) => m.source.from)).toEqual(['moving'])
    expect(cardShown(card, 'Oak', 'murmur', { sign: 'The yard' }).map((m) => m.source.from)).toEqual(['card'])
    const post = aPost({ network: 'longwave', wording: aWording({ format: 'video' }), media })
    expect(formatOf(post)).toBe('clip')
    expect(formatOf({ ...post, network: 'murmur', wording: aWording({ format: 'post' }) })).toBe('post')
  })
})

it('a post of several pictures goes out to be leafed through where the network has that, and no other form is changed', () => {
  const media = cardPictures(steps, 'shutterleaf', { sign: '' })
  const post = aPost({ network: 'shutterleaf', wording: aWording({ format: 'feed' }), media })
  expect(formatOf(post)).toBe('carousel')
  expect(formatOf({ ...post, media: media.slice(0, 1) })).toBe('feed')
  expect(formatOf({ ...post, wording: aWording({ format: 'story' }) })).toBe('story')
  expect(formatOf({ ...post, network: 'murmur', wording: aWording({ format: 'post' }) })).toBe('post')
})

it('a picture is told by its page’s words, else by its caption, else by the title it stands with', () => {
  const image = { url: 'https://a.example/a.png', alt: '', caption: 'The slip', width: 1600, height: 900 }
  expect(mediaOf(image, 'Title', 'shutterleaf')).toEqual({
    source: { from: 'address', url: 'https://a.example/a.png' },
    alt: 'The slip',
    shape: { width: 1, height: 1 },
    hash: null,
  })
  // What was found when it was looked at goes with it.
  const seen = { print: '00000000ffffffff', trouble: null }
  expect(mediaOf({ ...image, seen }, 'Title', 'shutterleaf').print).toBe(seen.print)
})

it('like pictures of a piece and of posts go by one key', () => {
  const image = { url: 'https://a.example/a.png', alt: '', caption: '', width: null, height: null, block: -1 }
  const print = '00000000ffffffff'
  const media = [
    { ...mediaOf({ ...image, url: 'https://b.example/b.png' }, '', 'murmur'), print: '00000000fffffff0' },
  ]
  const alike = alikeWith({ images: [{ ...image, seen: { print, trouble: null } }] }, [aPost({ media })])
  expect(alike(image.url)).toBe(alike('https://b.example/b.png'))
  expect(alike('https://c.example/c.png')).toBe('https://c.example/c.png')
})
