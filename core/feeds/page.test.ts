import { describe, expect, it } from 'vitest'
import { FeedItem, itemOfPage } from '.'

const AT = 'https://kiln.example/films/glaze?utm_source=x'
const page = (head: string, body = ''): FeedItem =>
  FeedItem.parse(itemOfPage(`<html lang="en"><head>${head}</head><body>${body}</body></html>`, AT))
const ld = (data: unknown): string => `<script type="application/ld+json">${JSON.stringify(data)}</script>`

describe('one page as an item', () => {
  it('is an article, to be read from the page', () => {
    const head =
      '<title>Glaze – The kiln</title><meta property="og:title" content="Glaze"><link rel="canonical" href="/films/glaze"><meta name="description" content="In short."><meta property="article:published_time" content="2026-11-02T10:00:00Z">'
    expect(page(head, '<h1>Glaze</h1><p>Words. <a href="/notes.vtt">A file</a></p>')).toMatchObject({
      title: 'Glaze',
      id: 'https://kiln.example/films/glaze',
      url: 'https://kiln.example/films/glaze',
      summary: 'In short.',
      publishedAt: '2026-11-02T10:00:00.000Z',
      html: '',
      video: null,
    })
  })

  it('is a film by its linked data, with duration, picture, chapters and a link to its words', () => {
    const film = page(
      ld({
        '@graph': [
          { '@type': 'Organization', name: 'The kiln' },
          {
            '@type': ['VideoObject'],
            name: 'Mixing a glaze',
            description: 'What ash does.',
            duration: 'PT4M10S',
            uploadDate: '2026-10-01',
            thumbnailUrl: ['/t.png'],
            contentUrl: '/glaze.mp4',
            author: { '@type': 'Person', name: 'Ada Fell' },
            hasPart: [
              { '@type': 'Clip', name: 'Ash', startOffset: 0 },
              { '@type': 'Clip', name: 'Sieving', startOffset: '75' },
            ],
          },
        ],
      }),
      '<a href="/films/glaze.vtt">The transcript</a>',
    )
    expect(film).toMatchObject({
      title: 'Mixing a glaze',
      author: 'Ada Fell',
      publishedAt: '2026-10-01T00:00:00.000Z',
      images: [{ url: 'https://kiln.example/t.png' }],
      video: {
        url: 'https://kiln.example/glaze.mp4',
        seconds: 250,
        chapters: [
          { at: 0, title: 'Ash' },
          { at: 75, title: 'Sieving' },
        ],
        transcripts: [{ url: 'https://kiln.example/films/glaze.vtt' }],
      },
    })
  })

  it('is a film by its player, its captions and the times in its text', () => {
    const film = page(
      '<title>Glaze</title>',
      '<main><video><source src="a.mp4"><track kind="chapters" src="c.vtt"><track kind="captions" srclang="en" src="w.vtt"></video><p>0:00 Ash<br>1:15 Sieving</p></main>',
    )
    expect(film.video).toMatchObject({
      url: 'https://kiln.example/films/a.mp4',
      seconds: null,
      chapters: [{ title: 'Ash' }, { at: 75 }],
      transcripts: [{ url: 'https://kiln.example/films/w.vtt', language: 'en' }],
    })
  })

  it.each([
    ['linked data that is broken', '<script type="application/ld+json">{"@type":"VideoObject",</script>'],
    ['linked data of something else', ld({ '@type': 'Recipe', name: 'Bread' })],
    ['nothing at all', ''],
  ])('with %s is an article', (_, head) => {
    expect(page(head).video).toBeNull()
  })

  it('takes nothing but what is there from odd linked data', () => {
    expect(
      page(ld({ '@type': 'VideoObject', name: 7, duration: 'long', hasPart: [null, 'x'] })),
    ).toMatchObject({
      title: '',
      video: { url: null, seconds: null, chapters: [], transcripts: [] },
    })
  })
})
