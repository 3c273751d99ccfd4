import { describe, expect, it } from 'vitest'
import type { Card } from '../model'
import { aPost, aWording } from '../model/samples'
import { alikeWith, cardMedia, cardPictures, formatOf, mediaOf } from './blank'

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
    expect(cardPictures(steps, 'shutterleaf', 'The yard').map((m) => m.alt)).toEqual([
      'Feeding in March.',
      '1. Boil it.',
      '2. Stir it.',
      'The yard.',
    ])
    expect(cardPictures(steps, 'rackwell', 'The yard').map((m) => m.alt)).toEqual([
      'Feeding in March. Boil it. Stir it.',
    ])
    expect(cardPictures(card, 'shutterleaf', 'The yard')).toHaveLength(1)
  })
})

it('a post of several pictures goes out to be leafed through where the network has that, and no other form is changed', () => {
  const media = cardPictures(steps, 'shutterleaf', '')
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
