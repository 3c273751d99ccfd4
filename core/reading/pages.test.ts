import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { PieceContent } from '../model'
import { read, readFragment, readPage, readWriting } from '.'

const prose = (n: number): string =>
  Array.from({ length: n }, (_, i) => `Sentence number ${i + 1} says something about timber and tar.`).join(
    ' ',
  )
const page = (inside: string, head = ''): string =>
  `<!doctype html><html lang="en"><head><title>A title – The site</title>${head}</head><body>${inside}</body></html>`
const article = (inside: string): string =>
  page(`<article><h1>A title</h1><p>${prose(8)}</p>${inside}<p>${prose(8)}</p></article>`)
const texts = (piece: PieceContent, kind?: string): string[] =>
  piece.blocks.filter((b) => !kind || b.kind === kind).map((b) => piece.text.slice(b.start, b.end))
const furniture = (piece: PieceContent): (string | null)[] => piece.blocks.map((b) => b.furniture)

describe('the blocks of a page', () => {
  it('keep lists with their order, also nested ones', () => {
    const piece = readFragment(
      '<p>Take:</p><ol><li>Oak<ul><li>green</li><li>dry</li></ul></li><li>Larch</li></ol>',
    )
    const items = piece.blocks.filter((b) => b.kind === 'item')
    expect(texts(piece, 'item')).toEqual(['Oak', 'green', 'dry', 'Larch'])
    expect(items.map((b) => [b.list?.ordered, b.list?.index])).toEqual([
      [true, 0],
      [false, 0],
      [false, 1],
      [true, 1],
    ])
    expect(new Set(items.map((b) => b.list?.id)).size).toBe(2)
  })

  it('keep quotations, code and table rows as what they are, and no sentence in the last two', () => {
    const piece = readFragment(
      '<blockquote><p>Say it aloud.</p></blockquote><pre>let a = 1\n  let b = 2</pre><table><tr><th>Wood</th><th>Kilos</th></tr><tr><td>Oak</td><td>720</td></tr></table>',
    )
    expect(piece.blocks.map((b) => b.kind)).toEqual(['quotation', 'code', 'row', 'row'])
    expect(texts(piece, 'code')).toEqual(['let a = 1\n  let b = 2'])
    expect(texts(piece, 'row')).toEqual(['Wood | Kilos', 'Oak | 720'])
    expect(piece.sentences.map((s) => piece.text.slice(s.start, s.end))).toEqual(['Say it aloud.'])
  })

  it('part paragraphs at doubled line breaks, and lose soft hyphens and doubled spaces', () => {
    const piece = readFragment('<div>One  line.<br><br>Another\u00AD line.<br>Still the same.</div>')
    expect(texts(piece)).toEqual(['One line.', 'Another line. Still the same.'])
  })

  it('leave out what is hidden, and what is no text', () => {
    const piece = readFragment(
      '<p>Shown.</p><p hidden>Hidden.</p><p aria-hidden="true">Too.</p><script>var a</script><style>p{}</style><button>Buy</button><template><p>Not yet.</p></template>',
    )
    expect(texts(piece)).toEqual(['Shown.'])
  })

  it('drop the title where the page repeats it, and no other heading', () => {
    const piece = readPage(article('<h2>A title for the second part</h2>'))
    expect(texts(piece, 'heading')).toEqual(['A title for the second part'])
    expect(piece.title).toBe('A title')
  })
})

describe('furniture', () => {
  it.each([
    ['a biography by its class', '<div class="author-bio"><p>Ada Fell planes boards.</p></div>', 'biography'],
    ['a sign-up box', '<section class="newsletter-box"><p>Every Sunday.</p></section>', 'sign-up box'],
    ['related links', '<div class="related-posts"><a href="/a">Another piece</a></div>', 'related links'],
    ['sharing', '<div class="share"><a href="#">Send it on</a></div>', 'sharing'],
    ['navigation', '<nav><a href="/">Home</a></nav>', 'navigation'],
    ['an advertisement', '<div class="ad sponsor"><p>Buy glue.</p></div>', 'advertisement'],
    ['a picture credit by its words', '<p>Photograph by Ada Fell.</p>', 'picture credit'],
    [
      'a call to subscribe by its words',
      '<p>Subscribe to our letter for one page every week.</p>',
      'call to subscribe',
    ],
  ])('%s is marked and kept', (_, html, reason) => {
    const piece = readPage(article(html))
    expect(furniture(piece)).toContain(reason)
    expect(piece.blocks.filter((b) => b.furniture === null).length).toBe(2)
    expect(piece.words).toBe(16 * 9)
  })

  it('runs from its heading to the next one of its level', () => {
    const piece = readPage(
      page(
        `<article><h1>A title</h1><p>${prose(9)}</p><h2>About the author</h2><p>Ada planes boards.</p><h2>One more thing</h2><p>${prose(9)}</p></article>`,
      ),
    )
    const by = new Map(piece.blocks.map((b) => [piece.text.slice(b.start, b.start + 12), b.furniture]))
    expect(by.get('About the au')).toBe('biography')
    expect(by.get('Ada planes b')).toBe('biography')
    expect(by.get('One more thi')).toBeNull()
  })

  it('is never the article itself, whatever its container is called', () => {
    const piece = readPage(
      page(`<div class="newsletter-archive"><h1>A title</h1><p>${prose(12)}</p><p>${prose(12)}</p></div>`),
    )
    expect(furniture(piece)).toEqual([null, null])
  })
})

describe('what a page says of itself', () => {
  it('is taken from its meta elements, its time and its canonical address', () => {
    const head = `<link rel="canonical" href="/a"><meta name="author" content="Ada Fell"><meta property="article:published_time" content="2026-11-02T10:00:00+01:00"><meta property="article:tag" content="oak"><meta name="description" content="In short.">`
    const piece = readPage(page(`<article><p>${prose(20)}</p></article>`, head), {
      url: 'https://x.example/a?b=1',
    })
    expect(piece).toMatchObject({
      url: 'https://x.example/a',
      author: 'Ada Fell',
      publishedAt: '2026-11-02T09:00:00.000Z',
      categories: ['oak'],
      summary: 'In short.',
      language: 'en',
    })
  })

  it('yields to what the feed knew', () => {
    const piece = readPage(article(''), { title: 'As the feed has it', author: 'Rita', categories: ['tar'] })
    expect(piece).toMatchObject({ title: 'As the feed has it', author: 'Rita', categories: ['tar'] })
  })

  it('leaves out pictures too small to be any, and takes late-loaded ones', () => {
    const piece = readPage(
      article(
        '<img src="/dot.gif" width="1"><img data-src="/big.png" width="900" height="600" alt="A seam"><img src="data:image/png;base64,x">',
      ),
      { url: 'https://x.example/a' },
    )
    expect(piece.images).toMatchObject([
      { url: 'https://x.example/big.png', alt: 'A seam', width: 900, height: 600 },
    ])
  })
})

describe('whatever is read', () => {
  const check = (piece: PieceContent): void => {
    expect(texts(piece).join('\n\n')).toBe(piece.text)
    for (const s of piece.sentences) {
      const block = piece.blocks[s.block]
      expect(s.start >= (block?.start ?? 0) && s.end <= (block?.end ?? 0) && s.start < s.end).toBe(true)
      expect(piece.text.slice(s.start, s.end)).toBe(piece.text.slice(s.start, s.end).trim())
    }
    for (const image of piece.images) expect(image.block).toBeLessThan(piece.blocks.length)
  }
  const tag = fc.constantFrom(
    'p',
    'div',
    'ul',
    'li',
    'h2',
    'blockquote',
    'pre',
    'b',
    'aside',
    'table',
    'td',
    'section',
  )
  const tree = fc.letrec<{ node: string }>((tie) => ({
    node: fc.oneof(
      { maxDepth: 4 },
      fc.string({ maxLength: 30 }).map((s) => s.replace(/[<&]/g, ' ')),
      fc
        .tuple(tag, fc.array(tie('node'), { maxLength: 4 }))
        .map(([t, inside]) => `<${t}>${inside.join('')}</${t}>`),
      // Unclosed, as real pages are.
      fc.tuple(tag, tie('node')).map(([t, inside]) => `<${t}>${inside}`),
    ),
  })).node

  it('keeps every place exact, however the markup nests or breaks', () => {
    fc.assert(
      fc.property(tree, (html) => {
        check(readFragment(`<p>There is always a sentence.</p>${html}`))
      }),
      { numRuns: 120 },
    )
  })

  it('keeps every place exact in Markdown and plain text', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'grapheme', maxLength: 60 }), { maxLength: 6 }), (lines) => {
        check(readWriting(`# A title\n\nThere is always a sentence.\n\n${lines.join('\n\n')}`, 'x'))
      }),
      { numRuns: 80 },
    )
  })

  it('is the same from the same bytes', () => {
    const bytes = new TextEncoder().encode(article('<ul><li>One</li></ul>'))
    expect(read(bytes, { as: 'article' })).toEqual(read(bytes, { as: 'article' }))
  })
})

describe('transcripts', () => {
  const vtt = `WEBVTT

intro
00:00:01.000 --> 00:00:03.500 align:start
<v Rita>We begin with

00:00:03.500 --> 00:00:05.000
the keel. Then the frames.

00:00:09.000 --> 00:00:11.000
After a pause, the planks.`

  it('join cues into sentences that keep their times, and part paragraphs at pauses', async () => {
    const result = await read(new TextEncoder().encode(vtt), { name: 'talk.vtt' })
    if (result.kind !== 'piece') throw new Error('not a piece')
    const { piece } = result
    expect(piece.blocks).toHaveLength(2)
    expect(piece.sentences.map((s) => [piece.text.slice(s.start, s.end), s.from, s.to])).toEqual([
      ['We begin with the keel.', 1, 4.02],
      ['Then the frames.', 4.08, 5],
      ['After a pause, the planks.', 9, 11],
    ])
    expect(piece.title).toBe('talk')
  })

  it('read SubRip with its commas and hours', async () => {
    const srt = '1\n01:00:01,000 --> 01:00:02,000\nAn hour in.\n\n2\n01:00:02,000 --> 01:00:03,000\nAnd on.'
    const result = await read(new TextEncoder().encode(srt))
    expect(result).toMatchObject({
      kind: 'piece',
      piece: { sentences: [{ from: 3601, to: 3602 }, { from: 3602 }] },
    })
  })

  it('without a timed line are refused with what one looks like', async () => {
    await expect(read(new TextEncoder().encode('Just words.'), { as: 'transcript' })).rejects.toThrow(
      /00:01\.000 --> 00:04\.000/,
    )
  })
})
