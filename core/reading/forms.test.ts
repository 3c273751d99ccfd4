import { describe, expect, it } from 'vitest'
import type { PieceContent } from '../model'
import { readPage } from '.'

/*
 * Forms in which real pages come, made up one by one: what is the piece is told by the paragraphs that
 * were put in, letter by letter, and what is not by words that nobody put there as its own.
 */
const P = [
  'A dry stone wall stands because every stone in it rests on two and carries two, and no mortar ever told the stones a lie about it.',
  'Frost lifts the ground by a finger in a hard winter, and a wall that cannot move with it breaks, while a dry one settles again in April.',
  'Put the large stones at the foot and the long ones through, one in every yard, so that the two faces hold each other by the hand.',
  'A good waller never picks up the same stone twice, since the stone that does not fit here will be wanted before the hour is out.',
]
const [A, B, C, D] = P as [string, string, string, string]
const paragraphs = P.map((p) => `<p>${p}</p>`).join('\n')
const page = (body: string, head = ''): string =>
  `<!DOCTYPE html><html lang="en"><head><title>Dry stone</title>${head}</head><body>${body}</body></html>`
const blocks = (piece: PieceContent): { kind: string; furniture: string | null; text: string }[] =>
  piece.blocks.map((b) => ({ kind: b.kind, furniture: b.furniture, text: piece.text.slice(b.start, b.end) }))
const own = (html: string, kind?: string): string[] =>
  blocks(readPage(html))
    .filter((b) => b.furniture === null && (!kind || b.kind === kind))
    .map((b) => b.text)

describe('a page is read whole where', () => {
  const whole: [string, string][] = [
    [
      'end tags are left out',
      `<html><head><title>Dry stone</title><body><h1>Dry stone</h1><p>${A}<p>${B}<p>${C}<p>${D}`,
    ],
    [
      'list items are not closed',
      `<html><title>Dry stone</title><body><h1>Dry stone</h1><p>${A}<ul><li>${B}<li>${C}</ul><p>${D}`,
    ],
    [
      'a layout table holds it with doubled breaks',
      page(
        `<table width="100%"><tr><td width="150"><a href="/">Home</a><br><a href="/b">Shop</a><br><a href="/c">Links</a></td><td><font size="5"><b>Dry stone</b></font><br><br>${A}<br><br>${B}<br><br>${C}<br><br>${D}</td></tr><tr><td colspan="2"><a href="/x">Back</a> <a href="/y">Next</a></td></tr></table>`,
      ),
    ],
    [
      'breaks stand for paragraphs',
      page(`<div id="content"><h1>Dry stone</h1>${P.join('<br /><br />')}</div>`),
    ],
    [
      'every paragraph is a div',
      page(
        `<div class="wrap"><div><div><h1>Dry stone</h1>${P.map((p) => `<div><div>${p}</div></div>`).join('')}</div></div></div>`,
      ),
    ],
    [
      'words are in spans',
      page(
        `<main>${P.map((p) => `<p><span><span style="font-size:12pt">${p}</span></span></p>`).join('')}</main>`,
      ),
    ],
    [
      'tags are in capitals and attributes bare',
      `<HTML><BODY BGCOLOR=white><H1>Dry stone</H1><CENTER><HR></CENTER><P>${A}<P ALIGN=left>${B}<P>${C}<P>${D}</BODY></HTML>`,
    ],
    [
      'b and i are nested wrongly',
      page(
        `<article><p><b>${A.slice(0, 30)}<i>${A.slice(30, 60)}</b>${A.slice(60)}</i></p><p>${B}</p><p>${C}</p><p>${D}</p></article>`,
      ),
    ],
    [
      'it stands in sections, each in a box of its own',
      page(
        `<main>${P.map((p, i) => `<section class="block-${i}"><div class="inner">${`<p>${p}</p>`}</div></section>`).join('')}</main>`,
      ),
    ],
    [
      'headings are out of order',
      page(
        `<article><h4>Small</h4><p>${A}</p><h2>Large</h2><p>${B}</p><h6>Least</h6><p>${C}</p><p>${D}</p></article>`,
      ),
    ],
    [
      'a form wraps the whole page',
      page(
        `<form id="aspnetForm" action="/"><div class="content"><h1>Dry stone</h1>${paragraphs}</div></form>`,
      ),
    ],
    ['there is no body tag', `<title>Dry stone</title><h1>Dry stone</h1>${paragraphs}`],
    [
      'comments are longer than it',
      page(
        `<article><h1>Dry stone</h1>${paragraphs}</article><div id="comments"><h3>Comments</h3>${Array.from({ length: 12 }, (_, i) => `<div class="comment"><p>Commenter ${i} says that he has never seen such a wall in all his days and that his uncle did it with cement in one weekend.</p></div>`).join('')}</div>`,
      ),
    ],
  ]
  it.each(whole)('%s', (_, html) => {
    const text = own(html)
      .filter((t) => t.length > 60)
      .join('\n')
    for (const p of P) expect(text).toContain(p)
    expect(text).not.toMatch(/Commenter|Shop/)
  })
})

describe('what is no word of it is left out:', () => {
  const without: [string, string, RegExp][] = [
    [
      'a sign-up box in the middle',
      page(
        `<article><p>${A}</p><div class="newsletter-box"><p>Join 4,000 wallers and get the Friday letter.</p><form><input></form></div><p>${B}</p><p>${C}</p><p>${D}</p></article>`,
      ),
      /Friday letter/,
    ],
    [
      'related links between paragraphs',
      page(
        `<article><p>${A}</p><p>${B}</p><aside><h4>Read next</h4><ul><li><a href="/x">Hedges that hold cattle</a></li></ul></aside><p>${C}</p><p>${D}</p></article>`,
      ),
      /Hedges/,
    ],
    [
      'a pull quote that repeats the text',
      page(
        `<article><p>${A}</p><blockquote class="pull">no mortar ever told the stones a lie about it</blockquote><p>${B}</p><p>${C}</p><p>${D}</p></article>`,
      ),
      /^no mortar/m,
    ],
    [
      'footnote marks and the notes',
      page(
        `<article><p>${A.slice(0, -1)}<sup id="r1"><a href="#n1">1</a></sup>.</p><p>${B}<sup>2</sup></p><p>${C} [3]</p><p>${D}</p><p>[1] Halvard, Walls of the North, 1954.</p></article>`,
      ),
      /\[3\]|it1|April\.2|Halvard/,
    ],
    [
      'pilcrows and section numbers of headings',
      page(
        `<article><h2 id="a">1. The foot <a class="headerlink" href="#a">¶</a></h2><p>${A}</p><h2>2. The face<a href="#b">#</a></h2><p>${B}</p><p>${C}</p><p>${D}</p></article>`,
      ),
      /¶|#|\d\. The/,
    ],
    [
      'labels of figures',
      page(
        `<article><p>${A}</p><img src="/a.png"><p>Figure 2. A wall in section, seen from the gate.</p><p>${B}</p><p>${C}</p><p>${D}</p></article>`,
      ),
      /Figure 2|in section/,
    ],
    [
      'signs that turn the direction of a text',
      page(`<article><p>${A}\u202E</p><p>\u2067${B}</p><p>${C}</p><p>${D}</p></article>`),
      /[\u202A-\u202E\u2066-\u2069]/,
    ],
    [
      'signs and labels before a remark',
      page(`<article><p>${A}</p><p>💡 Tip: ${B}</p><p>NB: ${C}</p><p>${D}</p></article>`),
      /💡|Tip|NB/,
    ],
    [
      'what is hidden by its style',
      page(
        `<article><p>${A}</p><p style="display: none">Skip to content</p><span class="sr-only">Opens in a new tab</span><p>${B}</p><p>${C}</p><p>${D}</p></article>`,
      ),
      /Skip|new tab/,
    ],
    [
      'lines of stars',
      page(`<article><p>${A}</p><p>* * *</p><p>${B}</p><p>${C}</p><p>${D}</p></article>`),
      /\*/,
    ],
    [
      'a biography without a box',
      page(
        `<article><p>${A}</p><p>${B}</p><p>${C}</p><p>${D}</p><p><em>Halvard Oakes is a waller and the author of two books on hedges.</em></p></article>`,
        '<meta name="author" content="Halvard Oakes">',
      ),
      /two books/,
    ],
    [
      'a cookie notice and a menu',
      page(
        `<nav><ul><li><a href="/">Home</a></li></ul></nav><div class="cookie-bar"><p>We use cookies to improve your visit.</p></div><article>${paragraphs}</article>`,
      ),
      /cookies|Home/,
    ],
    [
      'stage directions and times of a talk',
      page(`<article><p>[00:12:34] ${A}</p><p>(laughs) ${B}</p><p>${C} [applause]</p><p>${D}</p></article>`),
      /00:12|laughs|applause/,
    ],
  ]
  it.each(without)('%s', (_, html, words) => {
    const text = own(html).join('\n')
    expect(text).not.toMatch(words)
    for (const p of P.slice(1)) expect(text).toContain(p)
  })
})

it('powers, ordinals and brackets of the author’s own are words', () => {
  const text = own(
    page(
      `<article><p>A field of 400 m<sup>2</sup> wants 10<sup>3</sup> stones.</p><p>On the 1<sup>st</sup> of May he wrote “an wall [sic]” and (rightly) stopped.</p>${paragraphs}</article>`,
    ),
  ).join('\n')
  expect(text).toContain('A field of 400 m² wants 10³ stones.')
  expect(text).toContain('On the 1st of May he wrote “an wall [sic]” and (rightly) stopped.')
})

it('a bold line is a heading, and numbers that run on only count', () => {
  const html = page(
    `<article><p><b>1. The foot</b></p><p>${A}</p><p><strong>2. The face</strong></p><p>${B}</p><p>3. ${C}</p><p>${D}</p></article>`,
  )
  expect(own(html, 'heading')).toEqual(['The foot', 'The face'])
  expect(own(html, 'paragraph')).toEqual(P)
  expect(
    own(page(`<article><p>1954 was wet.</p><p>7 walls fell that year.</p>${paragraphs}</article>`)),
  ).toContain('7 walls fell that year.')
})

describe('a line in bold before a line break', () => {
  const blocks = (html: string): [string, string][] => {
    const piece = readPage(page(`<article><p>${A}</p>${html}<p>${B}</p><p>${C}</p><p>${D}</p></article>`))
    return piece.blocks.slice(1, 3).map((b) => [b.kind, piece.text.slice(b.start, b.end)])
  }

  it('is a heading over its paragraph, and the name of a list’s item', () => {
    expect(blocks('<p><strong>Cope stones</strong><br>They lie on top and keep the rain out.</p>')).toEqual([
      ['heading', 'Cope stones'],
      ['paragraph', 'They lie on top and keep the rain out.'],
    ])
    expect(blocks('<ul><li><b>Cope</b><br>It lies on top.</li></ul>')[0]).toEqual([
      'item',
      'Cope: It lies on top.',
    ])
  })

  it('stays a sentence where it is one', () => {
    expect(blocks('<p><b>Never build in frost.</b><br>The stones move.</p>')[0]?.[1]).toBe(
      'Never build in frost. The stones move.',
    )
  })
})

describe('a page says', () => {
  const ld = (o: object): string => `<script type="application/ld+json">${JSON.stringify(o)}</script>`
  const date: [string, string, string][] = [
    [
      'JSON-LD',
      ld({
        '@context': 'https://schema.org',
        '@graph': [{ '@type': 'BlogPosting', headline: 'x', datePublished: '2025-02-08T10:00:00+02:00' }],
      }),
      '2025-02-08T08:00:00.000Z',
    ],
    ['a meta tag in capitals', '<META NAME="DC.Date" CONTENT="2025-02-08">', '2025-02-08T00:00:00.000Z'],
    ['a time element of the article', '', '2025-02-08T00:00:00.000Z'],
  ]
  it.each(date)('its date in %s', (name, head, instant) => {
    const time = name.includes('time') ? '<time datetime="2025-02-08">8 Feb</time>' : ''
    expect(readPage(page(`<article>${time}${paragraphs}</article>`, head)).publishedAt).toBe(instant)
  })

  it.each([
    ['8 February 2025', '2025-02-08'],
    ['Posted on February 8th, 2025', '2025-02-08'],
    ['By Ann Ruff | 8 Feb 2025', '2025-02-08'],
    ['Saturday, February 8, 2025', '2025-02-08'],
    ['Published: Sat, 8 Feb 2025 07:30 GMT', '2025-02-08'],
  ])('its date in a line: %s', (line, day) => {
    const { publishedAt } = readPage(
      page(`<article><h1>Dry stone</h1><p class="x">${line}</p>${paragraphs}</article>`),
    )
    expect(publishedAt?.slice(0, 10)).toBe(day)
  })

  it('nothing certain in figures with slashes', () => {
    expect(readPage(page(`<article><p>Posted 3/4/2025</p>${paragraphs}</article>`)).publishedAt).toBeNull()
  })

  it('its author in a byline, JSON-LD or microdata', () => {
    const of = (body: string, head = ''): string | null =>
      readPage(page(`<article><h1>Dry stone</h1>${body}${paragraphs}</article>`, head)).author
    expect(of('<p>By Ann Ruff | 8 February 2025</p>')).toBe('Ann Ruff')
    expect(
      of('', ld({ '@type': 'Article', headline: 'x', author: [{ '@type': 'Person', name: 'Ann Ruff' }] })),
    ).toBe('Ann Ruff')
    expect(of('<span itemprop="author"><span itemprop="name">Ann Ruff</span></span>')).toBe('Ann Ruff')
    expect(of('<p>Words by Ann Ruff, photographs by Bo Lind</p>')).toBe('Ann Ruff')
  })

  it('its tags in keywords, JSON-LD, links and a line', () => {
    const of = (body: string, head = ''): string[] =>
      readPage(page(`<article>${paragraphs}${body}</article>`, head)).categories
    expect(of('', '<meta name="keywords" content="walls, dry stone">')).toEqual(['walls', 'dry stone'])
    expect(of('', ld({ '@type': 'Article', headline: 'x', keywords: ['walls', 'frost'] }))).toEqual([
      'walls',
      'frost',
    ])
    expect(of('<p class="tags"><a href="/t/walls">#walls</a> <a href="/t/frost">frost</a></p>')).toEqual([
      'walls',
      'frost',
    ])
    expect(of('<p>Tags: walls, frost</p>')).toEqual(['walls', 'frost'])
  })

  it.each([
    [
      'a canonical link',
      '<link rel="canonical" href="https://walls.example/dry/stone.html">',
      'https://walls.example/dry/a.png',
    ],
    [
      'a base',
      '<base href="https://cdn.example/p/"><link rel="canonical" href="https://walls.example/dry/">',
      'https://cdn.example/p/a.png',
    ],
    [
      'og:url',
      '<meta property="og:url" content="https://walls.example/dry/stone.html">',
      'https://walls.example/dry/a.png',
    ],
  ])('where its pictures are, against %s', (_, head, address) => {
    const { images } = readPage(
      page(`<article><p>${A}</p><img src="a.png" width="800">${paragraphs}</article>`, head),
    )
    expect(images.map((i) => i.url)).toEqual([address])
  })

  it('the picture that it loads late, and the widest of a set', () => {
    const { images } = readPage(
      page(
        `<article><img src="data:image/gif;base64,R0lGOD" data-src="/late.jpg">${paragraphs}<img srcset="/s.jpg 400w, /l.jpg 1600w"></article>`,
        '<link rel="canonical" href="https://walls.example/">',
      ),
    )
    expect(images.map((i) => i.url)).toEqual([
      'https://walls.example/late.jpg',
      'https://walls.example/l.jpg',
    ])
  })
})

describe('who speaks', () => {
  const talk = (turns: string): { speaker: string | undefined; text: string }[] => {
    const piece = readPage(
      page(
        `<article><h1>Stones</h1><p>We met Lorna Tidewell, a bridge inspector with the county, at a diner on a wet morning in March, and asked her what bridges say.</p>${turns}<p>When the rain had stopped, Lorna paid for the pie and drove back to her bridge.</p></article>`,
        '<meta name="author" content="Garrett Nwosu">',
      ),
    )
    return piece.blocks
      .filter((b) => b.furniture === null)
      .map((b) => ({ speaker: b.speaker, text: piece.text.slice(b.start, b.end) }))
  }
  const lorna = 'Lorna Tidewell, bridge inspector with the county'
  const said = [
    'Good concrete rings, and bad concrete sounds like somebody who knocks on a cardboard box.',
    'Rust is honest: it stains everything below it and practically signs its name.',
  ]
  const forms: [string, string][] = [
    [
      'whole names',
      `<p>Garrett Nwosu: What does the hammer tell you?</p><p>Lorna Tidewell: ${said[0]}</p><p>Garrett Nwosu: And rust?</p><p>Lorna Tidewell: ${said[1]}</p>`,
    ],
    [
      'times and names in capitals',
      `<p>[00:00:04] GARRETT: What does the hammer tell you?</p><p>[00:00:09] LORNA: ${said[0]}</p><p>[00:01:00] GARRETT: And rust?</p><p>[00:01:12] LORNA: ${said[1]}</p>`,
    ],
    [
      'names in bold',
      `<p><b>Garrett</b> What does the hammer tell you?</p><p><b>Lorna</b> ${said[0]}</p><p><b>Garrett</b> And rust?</p><p><b>Lorna</b> ${said[1]}</p>`,
    ],
    [
      'initials',
      `<p><strong>GN:</strong> What does the hammer tell you?</p><p><strong>LT:</strong> ${said[0]}</p><p><strong>GN:</strong> And rust?</p><p><strong>LT:</strong> ${said[1]}</p>`,
    ],
    [
      'Q and A',
      `<p>Q. What does the hammer tell you?</p><p>A. ${said[0]}</p><p>Q. And rust?</p><p>A. ${said[1]}</p>`,
    ],
    [
      'terms of a list',
      `<dl><dt>Garrett</dt><dd>What does the hammer tell you?</dd><dt>Lorna</dt><dd>${said[0]}</dd><dt>Garrett</dt><dd>And rust?</dd><dt>Lorna</dt><dd>${said[1]}</dd></dl>`,
    ],
  ]
  it.each(forms)('is known by %s', (_, turns) => {
    const found = talk(turns)
    for (const words of said) expect(found.find((b) => b.text === words)?.speaker).toBe(lorna)
    expect(found.find((b) => b.text === 'And rust?')?.speaker).toBeUndefined()
    expect(found.at(-1)?.speaker).toBeUndefined()
  })

  it('is nobody where a colon only follows a word', () => {
    const found = talk(`<p>Myth: ${A}</p><p>Fact: ${B}</p><p>Myth: ${C}</p><p>Fact: ${D}</p>`)
    expect(found.every((b) => b.speaker === undefined)).toBe(true)
    expect(found[1]?.text).toMatch(/^Myth: /)
  })
})
