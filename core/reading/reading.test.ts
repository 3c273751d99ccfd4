import { describe, expect, it } from 'vitest'
import { readFragment, readPage, read } from '.'
import { readSentences } from '../language'
import { parseCues } from './transcript'

const PAGE = `<!doctype html><html lang="en"><head><title>Raking a seam – The yard</title><link rel="canonical" href="/raking"><meta property="article:published_time" content="2026-03-01T09:00:00Z"></head><body>
<nav class="site-nav"><a href="/">Home</a><a href="/courses">Courses</a></nav>
<main><article><h1>Raking a seam</h1><p class="byline">By <a rel="author">Rita Vance</a></p>
<p>Rake the seam out to bare wood before you drive anything into it. The old cotton has gone to black string, and everything above it sits on string.</p>
<figure><img src="/seam.png" alt="A seam" width="1200" height="800"><figcaption>A raked seam</figcaption></figure>
<h2>What you need</h2><p>Three things, all of them old:</p><ul><li>A bent file.</li><li>A knife.</li></ul>
<blockquote>Stop the moment you see clean timber.</blockquote>
<p>Pull the tool towards you and never push it, because a groove in the edge of the plank is a new leak under the old one. It takes an hour a yard, and no one has ever done it faster and been glad of it afterwards.</p>
<ol><li>Rake.</li><li>Brush.</li></ol>
<div class="author-box"><p>Rita Vance has taught at the yard since the slip was mud.</p></div>
<div class="newsletter"><p>Get our Sunday letter in your inbox.</p><form><input><button>Go</button></form></div>
<div class="related"><h3>Read next</h3><ul><li><a href="/x">Larch or oak</a></li></ul></div>
</article></main><footer><p>© The yard</p></footer><div class="cookie-notice"><p>We use one cookie.</p></div><script>alert(1)</script></body></html>`

describe('readPage', () => {
  const piece = readPage(PAGE, { url: 'https://yard.example/raking?utm_source=x' })
  const own = piece.blocks.filter((b) => b.furniture === null).map((b) => piece.text.slice(b.start, b.end))

  it('takes title, author, date, canonical address and language from the page', () => {
    expect(piece).toMatchObject({
      title: 'Raking a seam',
      author: 'Rita Vance',
      publishedAt: '2026-03-01T09:00:00.000Z',
      url: 'https://yard.example/raking',
      language: 'en',
    })
  })

  it.each([
    // The name of the site, then the article; a manual whose parts each have a main heading; one heading, whatever the title says.
    ['Caulking – The yard', ['The yard', 'Caulking'], 'Caulking'],
    ['The yard’s handbook', ['Abstract', 'Contents', 'Indices'], 'The yard’s handbook'],
    ['Home', ['Caulking'], 'Caulking'],
    ['', ['Abstract', 'Contents'], 'Abstract'],
  ])('takes of the title “%s” and the main headings %j “%s”', (title, headings, expected) => {
    const text = 'Rake the seam out to bare wood before you drive anything into it. '.repeat(4)
    const parts = headings.map((h) => `<h1>${h}</h1><p>${text}</p>`).join('')
    const page = `<html><head><title>${title}</title></head><body>${parts}</body></html>`
    expect(readPage(page, { url: null }).title).toBe(expected)
  })

  it('keeps the article’s blocks in order with their kinds', () => {
    expect(own[0]).toMatch(/^Rake the seam out/)
    expect(piece.blocks.filter((b) => b.furniture === null).map((b) => b.kind)).toEqual([
      'paragraph',
      'heading',
      'paragraph',
      'item',
      'item',
      'quotation',
      'paragraph',
      'item',
      'item',
    ])
    expect(piece.blocks.filter((b) => b.kind === 'item' && b.furniture === null).map((b) => b.list)).toEqual([
      { id: 0, ordered: false, index: 0 },
      { id: 0, ordered: false, index: 1 },
      { id: 1, ordered: true, index: 0 },
      { id: 1, ordered: true, index: 1 },
    ])
  })

  it('marks furniture and never lets it pass for the piece', () => {
    expect(own.join(' ')).not.toMatch(
      /since the slip was mud|Sunday letter|Larch or oak|cookie|Courses|alert/,
    )
    const marks = new Set(piece.blocks.flatMap((b) => b.furniture ?? []))
    expect(marks).toContain('biography')
    expect(marks).toContain('sign-up box')
  })

  it('keeps places exact: the text is the blocks joined by a blank line', () => {
    expect(piece.blocks.map((b) => piece.text.slice(b.start, b.end)).join('\n\n')).toBe(piece.text)
    for (const s of piece.sentences) {
      const block = piece.blocks[s.block]
      expect(s.start).toBeGreaterThanOrEqual(block?.start ?? Infinity)
      expect(s.end).toBeLessThanOrEqual(block?.end ?? -1)
    }
  })

  it('keeps pictures with size, alternative text, caption and their place', () => {
    expect(piece.images).toEqual([
      {
        url: 'https://yard.example/seam.png',
        alt: 'A seam',
        caption: 'A raked seam',
        width: 1200,
        height: 800,
        block: expect.any(Number) as number,
      },
    ])
  })
})

it('marks a biography and a call to subscribe by their words where the markup says nothing', () => {
  const body = Array.from(
    { length: 8 },
    (_, i) => `<p>Plank number ${i} wants a straight edge and a sharp plane before it goes on.</p>`,
  ).join('')
  const piece = readFragment(
    `${body}<p>Tomas Reyle runs the timber loft and the evening courses.</p><p>Subscribe to the Sunday letter, every week in your inbox.</p>`,
    { title: 'Planks', author: 'Tomas Reyle' },
  )
  expect(piece.blocks.slice(-2).map((b) => b.furniture)).toEqual(['biography', 'call to subscribe'])
  expect(piece.blocks[0]?.furniture).toBeNull()
})

it('refuses a page without running text', () => {
  expect(() => readPage('<html><body><div id="app"></div><script>run()</script></body></html>')).toThrow(
    /no running text/,
  )
})

describe('readSentences', () => {
  const texts = (text: string): string[] => readSentences(text).map((s) => text.slice(s.start, s.end))

  it('does not end a sentence at an abbreviation, an initial or a decimal', () => {
    expect(texts('Dr. Vance and J. R. Reyle paid £3.50 for it, e.g. in oak. Then they left.')).toEqual([
      'Dr. Vance and J. R. Reyle paid £3.50 for it, e.g. in oak.',
      'Then they left.',
    ])
  })

  it('ends a sentence after a common word that is also an abbreviation', () => {
    expect(texts('Paint it before the putty goes in. Bare cotton drinks the oil.')).toEqual([
      'Paint it before the putty goes in.',
      'Bare cotton drinks the oil.',
    ])
  })

  it('keeps a closing quotation mark with its sentence', () => {
    expect(texts('“Stop,” she said. “It rings.” He stopped.')).toEqual([
      '“Stop,” she said.',
      '“It rings.”',
      'He stopped.',
    ])
  })
})

describe('read', () => {
  const bytes = (text: string): Uint8Array => new TextEncoder().encode(text)

  it('recognises feeds, pages, transcripts and writing', async () => {
    expect((await read(bytes('<rss version="2.0"><channel><title>x</title></channel></rss>'))).kind).toBe(
      'feed',
    )
    expect((await read(bytes(PAGE))).kind).toBe('piece')
    const spoken = await read(
      bytes(
        'WEBVTT\n\n00:01.000 --> 00:03.000\nAn hour in the box\n\n00:03.000 --> 00:05.500\nfor every inch.\n\n00:09.000 --> 00:11.000\nNo more.',
      ),
      { name: 'talk.vtt' },
    )
    expect(spoken).toMatchObject({
      kind: 'piece',
      piece: {
        title: 'talk',
        sentences: [
          { from: 1, to: 5.5 },
          { from: 9, to: 11 },
        ],
      },
    })
    expect(
      await read(bytes('# Laying up\n\nRinse the bilge.\n\n- One\n- Two'), { name: 'a.md' }),
    ).toMatchObject({
      kind: 'piece',
      piece: { title: 'Laying up', blocks: [{ kind: 'paragraph' }, { kind: 'item' }, { kind: 'item' }] },
    })
  })

  it('says what is wrong with what cannot be read', async () => {
    await expect(read(bytes('  '))).rejects.toThrow(/empty/)
    await expect(read(new Uint8Array([80, 75, 0, 0, 1, 2]))).rejects.toThrow(/not a text file/)
    expect(() => parseCues('WEBVTT\n\nhello')).toThrow(/no timed lines/)
  })
})
