import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { canonicalAddress, decodeText, discoverFeeds, looksLikeFeed, parseFeed, resolveAddress } from '.'
import { feedDate } from './date'

const BASE = 'https://blog.example/feed'
const rss = (items: string, head = ''): string =>
  `<?xml version="1.0"?><rss version="2.0" xmlns:dc="http://purl.org/dc/elements/1.1/"><channel><title>Notes</title><link>https://blog.example/</link>${head}${items}</channel></rss>`
const item = (inside: string): string => `<item>${inside}</item>`

describe('feeds as they are', () => {
  it.each([
    ['blank lines before the declaration', `\n\n  ${rss(item('<title>A</title><guid>1</guid>'))}`],
    ['a byte-order mark', `\uFEFF${rss(item('<title>A</title><guid>1</guid>'))}`],
    [
      'an unescaped ampersand',
      rss(item('<title>A</title><guid>1</guid><description>salt & tar</description>')),
    ],
    [
      'HTML entities',
      rss(item('<title>A</title><guid>1</guid><description>caf&eacute; &nbsp; bar</description>')),
    ],
    ['no declaration', rss(item('<title>A</title><guid>1</guid>')).replace(/^<\?xml.*?\?>/, '')],
    [
      'capital tags',
      rss(item('<title>A</title><guid>1</guid>')).replace('<rss', '<RSS').replace('</rss>', '</RSS>'),
    ],
    [
      'a comment before the root',
      rss(item('<title>A</title><guid>1</guid>')).replace('<rss', '<!-- made by hand --><rss'),
    ],
  ])('are read in spite of %s', (_, text) => {
    expect(parseFeed(text, BASE).items).toMatchObject([{ title: 'A', id: '1' }])
  })

  it('take whole items of a feed that breaks off in the middle, and say so', () => {
    const whole = rss(item('<title>A</title><guid>1</guid>') + item('<title>B</title><guid>2</guid>'))
    const cut = whole.slice(0, whole.indexOf('<title>B') + 6)
    const feed = parseFeed(cut, BASE)
    expect(feed.items.map((i) => i.id)).toEqual(['1'])
    expect(feed.notes.join(' ')).toMatch(/breaks off in the middle/)
  })

  it('cut off anywhere, give whole items or a sentence, and never throw anything else', () => {
    const whole = rss(
      Array.from({ length: 4 }, (_, i) =>
        item(
          `<title>T${i}</title><guid>g${i}</guid><link>/p${i}</link><description>Words &amp; more.</description>`,
        ),
      ).join(''),
    )
    fc.assert(
      fc.property(fc.integer({ min: 0, max: whole.length }), (at) => {
        try {
          for (const i of parseFeed(whole.slice(0, at), BASE).items) expect(i.id).toMatch(/^g\d$/)
        } catch (error) {
          expect(error).toMatchObject({ code: 'not-a-feed', message: expect.stringMatching(/\.$/) })
        }
      }),
    )
  })

  it('whatever they are, end in a feed or in a sentence', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 400 }), (text) => {
        try {
          parseFeed(text, BASE)
        } catch (error) {
          expect(error).toMatchObject({ code: 'not-a-feed' })
        }
      }),
    )
  })

  it('make addresses absolute, and take a permanent id for the address where there is none', () => {
    const feed = parseFeed(
      rss(
        item('<title>A</title><link>../a?x=1&amp;y=2</link><guid isPermaLink="false">1</guid>') +
          item('<title>B</title><guid isPermaLink="true">https://blog.example/b</guid>') +
          item('<title>C</title><link>javascript:alert(1)</link><guid isPermaLink="false">3</guid>'),
      ),
      BASE,
    )
    expect(feed.items.map((i) => i.url)).toEqual([
      'https://blog.example/a?x=1&y=2',
      'https://blog.example/b',
      null,
    ])
  })

  it('take titles without their markup, and a first sentence where there is no title', () => {
    const feed = parseFeed(
      rss(
        item('<title>&lt;b&gt;Bold&lt;/b&gt; claims</title><guid>1</guid>') +
          item('<guid>2</guid><description>The first sentence. The second one.</description>'),
      ),
      BASE,
    )
    expect(feed.items.map((i) => i.title)).toEqual(['Bold claims', 'The first sentence.'])
  })

  it('take the body where it is, and a summary for a summary', () => {
    const long = `<p>${'Word after word after word. '.repeat(60)}</p>`
    const feed = parseFeed(
      rss(
        item(`<title>A</title><guid>1</guid><description><![CDATA[${long}]]></description>`) +
          item('<title>B</title><guid>2</guid><description>Only a taste.</description>'),
      ),
      BASE,
    )
    expect(feed.items.map((i) => i.html.length > 1000)).toEqual([true, false])
    expect(feed.items[1]).toMatchObject({ summary: 'Only a taste.', html: '' })
  })

  it('read Atom’s constructs, authors and categories', () => {
    const feed = parseFeed(
      `<feed xmlns="http://www.w3.org/2005/Atom"><title type="html">A &amp;amp; B</title><link href="https://blog.example/"/>
      <entry><id>tag:1</id><title>One</title><link rel="alternate" href="/one"/><link rel="enclosure" href="/x.mp3"/>
      <published>2026-11-02T10:00:00+01:00</published><author><name>Ada Fell</name></author>
      <category term="oak"/><category term="larch" label="Larch wood"/><content type="html">&lt;p&gt;Hello.&lt;/p&gt;</content></entry></feed>`,
      BASE,
    )
    expect(feed.items).toMatchObject([
      {
        id: 'tag:1',
        url: 'https://blog.example/one',
        publishedAt: '2026-11-02T09:00:00.000Z',
        author: 'Ada Fell',
        categories: ['oak', 'Larch wood'],
        html: '<p>Hello.</p>',
      },
    ])
  })

  it('read RDF and JSON Feed', () => {
    const rdf = `<?xml version="1.0"?><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#" xmlns="http://purl.org/rss/1.0/" xmlns:dc="http://purl.org/dc/elements/1.1/"><channel rdf:about="https://blog.example/"><title>Old</title><link>https://blog.example/</link><description>d</description></channel><item rdf:about="https://blog.example/x"><title>X</title><link>https://blog.example/x</link><dc:date>2026-11-02</dc:date></item></rdf:RDF>`
    expect(parseFeed(rdf, BASE).items).toMatchObject([
      { title: 'X', url: 'https://blog.example/x', publishedAt: '2026-11-02T00:00:00.000Z' },
    ])
    const json = JSON.stringify({
      version: 'https://jsonfeed.org/version/1.1',
      title: 'J',
      items: [{ id: '1', content_text: 'First line.\n\nSecond & last.', tags: ['a'] }],
    })
    expect(parseFeed(json, BASE).items).toMatchObject([
      { html: '<p>First line.</p>\n<p>Second &amp; last.</p>', categories: ['a'] },
    ])
  })

  it('tell a page from a feed', () => {
    expect(looksLikeFeed('<!doctype html><html><body>rss feed</body></html>')).toBe(false)
    expect(() => parseFeed('<html><body></body></html>')).toThrow(/This is a web page, not a feed/)
    expect(() => parseFeed('hello')).toThrow(/no RSS, Atom or JSON Feed/)
    expect(parseFeed(rss(''), BASE)).toMatchObject({ items: [], notes: ['The feed has no items yet.'] })
  })
})

describe('dates', () => {
  it.each([
    ['Mon, 02 Nov 2026 10:00:00 +0100', '2026-11-02T09:00:00.000Z'],
    ['02 Nov 2026 10:00:00 GMT', '2026-11-02T10:00:00.000Z'],
    ['Mon, 02 Nov 2026 10:00:00 EST', '2026-11-02T15:00:00.000Z'],
    ['2026-11-02T10:00:00Z', '2026-11-02T10:00:00.000Z'],
    ['2026-11-02T10:00:00', '2026-11-02T10:00:00.000Z'],
    ['2026-11-02', '2026-11-02T00:00:00.000Z'],
    ['yesterday', null],
    ['', null],
  ])('%s is %s', (text, instant) => {
    expect(feedDate(text)).toBe(instant)
  })
})

describe('encodings', () => {
  const bytes = (...codes: number[]): Uint8Array => new Uint8Array(codes)
  it('are taken from the declaration before the header, and guessed as browsers do', () => {
    const latin = new TextEncoder().encode('<?xml version="1.0" encoding="iso-8859-1"?><a>')
    expect(decodeText(new Uint8Array([...latin, 0xe9]), 'text/xml; charset=utf-8')).toMatch(/é$/)
    expect(decodeText(bytes(0xe9), 'text/html; charset=iso-8859-1')).toBe('é')
    expect(decodeText(bytes(0xe9, 0x20))).toBe('é ')
    expect(decodeText(bytes(0xff, 0xfe, 0x61, 0x00))).toBe('a')
    expect(decodeText(new TextEncoder().encode('<meta charset="nonsense">é'))).toContain('é')
  })
})

// Forms that another parser's own cases hold and that came out wrong here.
describe('rare but whole feeds', () => {
  const atom = (inner: string): string =>
    `<feed xmlns="http://www.w3.org/2005/Atom" version="0.3">${inner}</feed>`

  it('without anything in them yet are empty feeds, not broken ones', () => {
    expect(parseFeed(atom('<author><homepage>http://yard.example</homepage></author>'))).toMatchObject({
      items: [],
      notes: ['The feed has no items yet.'],
    })
    const { items, notes } = parseFeed('<rss><channel><item><author><b>x</b></author></item></channel></rss>')
    expect(items).toEqual([])
    expect(notes.join()).toMatch(/left out/)
  })

  it.each([
    ['mode="base64"', 'R3JlZW4gbGFyY2g='],
    ['type="application/octet-stream"', 'R3JlZW4gbGFyY2g='],
    ['type="text/html" mode="base64"', 'PGI+R3JlZW48L2I+IGxhcmNo'],
  ])('with words as base64 (%s) are read', (how, coded) => {
    expect(
      parseFeed(atom(`<entry><id>a</id><title ${how}>\n ${coded} </title></entry>`)).items[0]?.title,
    ).toBe('Green larch')
  })

  it('with something that only says it is base64 keep what they hold', () => {
    expect(
      parseFeed(atom('<entry><id>a</id><title mode="base64">Larch</title></entry>')).items[0]?.title,
    ).toBe('Larch')
  })

  it('whose content lies elsewhere are items with that address, a film where it is one', () => {
    const [item] = parseFeed(
      atom('<entry><content type="video/mp4" src="http://yard.example/larch.mp4"/></entry>'),
    ).items
    expect(item).toMatchObject({
      url: 'http://yard.example/larch.mp4',
      video: { url: 'http://yard.example/larch.mp4' },
    })
  })
})

describe('addresses', () => {
  it('are only those that a browser would follow over the web', () => {
    expect(resolveAddress('/a', 'https://x.example/b/')).toBe('https://x.example/a')
    expect(resolveAddress('//y.example/a', 'https://x.example')).toBe('https://y.example/a')
    for (const bad of ['javascript:alert(1)', 'mailto:a@b.example', 'data:text/html,x', '', null, 'relative'])
      expect(resolveAddress(bad)).toBeNull()
  })

  it('lose their tracking and their fragment, and keep what says which page it is', () => {
    expect(canonicalAddress('https://x.example/a/?utm_source=f&id=3&fbclid=9#top')).toBe(
      'https://x.example/a?id=3',
    )
    expect(canonicalAddress('https://x.example/')).toBe('https://x.example/')
    expect(canonicalAddress('not an address')).toBe('not an address')
  })

  it('of feeds are found in a page once each, absolute, in its order', () => {
    const page = `<html><head><link rel="alternate" type="application/rss+xml" href="/feed" title="All">
      <link rel="alternate" type="application/atom+xml" href="https://x.example/atom"><link rel="alternate" type="application/rss+xml" href="/feed">
      <link rel="alternate" hreflang="pt" href="/pt"><link rel="stylesheet" href="/a.css"></head></html>`
    expect(discoverFeeds(page, 'https://x.example/blog')).toEqual([
      { url: 'https://x.example/feed', title: 'All' },
      { url: 'https://x.example/atom', title: '' },
    ])
  })
})
