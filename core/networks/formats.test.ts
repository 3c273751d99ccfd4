import { describe, expect, it } from 'vitest'
import type { Card, PostMedia } from '../model'
import { aPost, aWording } from '../model/samples'
import { cardPictures, clipMedia } from '../pipeline'
import { formatOf, isDocument, mediaIn, mostSlides, noStory, shownIn, STORY } from '.'

const card: Card = { layout: 'words', head: '', text: 'A word.', items: [], speaker: '' }
const steps: Card = { ...card, layout: 'steps', head: 'Feeding', text: '', items: ['Boil it.', 'Stir it.'] }
const photo: PostMedia = {
  source: { from: 'address', url: 'https://a.example/a.png' },
  alt: 'A seam',
  shape: { width: 1, height: 1 },
  hash: 'a',
}

describe('a document', () => {
  const post = (media: PostMedia[], format = 'post') =>
    aPost({ network: 'guildhall', wording: aWording({ format }), media })

  it('is what cards become where the network takes one, four to five, the brand’s line last', () => {
    const media = cardPictures(steps, 'guildhall', { sign: 'The yard' })
    expect(media.map((m) => [m.alt, m.shape])).toEqual(
      ['Feeding.', '1. Boil it.', '2. Stir it.', 'The yard.'].map((alt) => [alt, { width: 4, height: 5 }]),
    )
    expect(formatOf(post(media))).toBe('document')
    expect(mediaIn(post(media))).toEqual({ pictures: 0, clips: 0, pages: 4 })
    expect(mostSlides('guildhall')).toBe(50)
    expect([mostSlides('shutterleaf'), mostSlides('murmur')]).toEqual([10, 0])
  })

  it('is not made of one card, nor of photographs, nor in another format, nor elsewhere', () => {
    const media = cardPictures(steps, 'guildhall', { sign: '' })
    expect(isDocument(post(media.slice(0, 1)))).toBe(false)
    expect(isDocument(post([...media, photo]))).toBe(false)
    expect(isDocument(post(media, 'poll'))).toBe(false)
    expect(isDocument({ ...post(media), network: 'murmur' })).toBe(false)
    expect(mediaIn(post([...media, photo])).pictures).toBe(4)
  })
})

describe('a story', () => {
  const story = aPost({ network: 'shutterleaf', wording: aWording({ format: STORY }) })
  const TALL = { width: 9, height: 16 }

  it('shows the first alone, tall and cut anew; what is tall already stays as it is', () => {
    const shown = shownIn(story, [{ ...photo, cut: { x: 0, y: 0, width: 1, height: 1 } }, photo])
    expect(shown.map((m) => [m.shape, m.hash, m.cut])).toEqual([[TALL, null, undefined]])
    expect(shownIn(story, [...cardPictures(card, 'shutterleaf', { sign: '' })])[0]?.shape).toEqual(TALL)
    const chosen = [{ ...photo, shape: TALL, cut: { x: 0.2, y: 0, width: 0.3, height: 1 } }]
    expect(shownIn(story, chosen)).toEqual(chosen)
    expect(shownIn({ ...story, wording: aWording({ format: 'feed' }) }, [photo])).toEqual([photo])
    expect(formatOf({ ...story, media: shown })).toBe('story')
  })

  it('is brought back to the shapes of the network’s usual posts', () => {
    const tall = [
      photo,
      ...cardPictures(card, 'shutterleaf', { sign: '' }),
      clipMedia(card, '', 'shutterleaf'),
    ].flatMap((m) => shownIn(story, [m]))
    expect(noStory(tall, 'shutterleaf').map((m) => m.shape)).toEqual([
      { width: 1, height: 1 },
      { width: 4, height: 5 },
      TALL,
    ])
  })
})
