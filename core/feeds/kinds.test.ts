import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  chaptersIn,
  commonPlaces,
  decodeText,
  discoverFeeds,
  feedDate,
  paceOf,
  parseChapters,
  parseFeed,
  readOpml,
  sameAddress,
  seconds,
  writeOpml,
} from '.'

const rss = (items: string, head = ''): string =>
  `<rss version="2.0" xmlns:content="http://purl.org/rss/1.0/modules/content/" xmlns:media="http://search.yahoo.com/mrss/" xmlns:itunes="http://www.itunes.com/dtds/podcast-1.0.dtd" xmlns:podcast="https://podcastindex.org/namespace/1.0" xmlns:slash="http://purl.org/rss/1.0/modules/slash/" xmlns:thr="http://purl.org/syndication/thread/1.0" xmlns:georss="http://www.georss.org/georss" xmlns:psc="http://podlove.org/simple-chapters" xmlns:g="http://shop.example/ns" xmlns:dc="http://purl.org/dc/elements/1.1/"><channel><title>Yard</title><link>https://yard.example/</link>${head}${items}</channel></rss>`
const first = (text: string, base: string | null = null) => {
  const item = parseFeed(text, base).items[0]
  if (!item) throw new Error('no item')
  return item
}

describe('every kind of feed comes out in one shape', () => {
  const ITEM =
    '<item><title>Larch</title><link>https://yard.example/larch</link><description>Cold hills.</description></item>'
  it.each([
    [
      'RSS 0.91',
      `<rss version="0.91"><channel><title>Yard</title><link>https://yard.example/</link>${ITEM}</channel></rss>`,
    ],
    [
      'RSS 0.92',
      `<rss version="0.92"><channel><title>Yard</title><link>https://yard.example/</link>${ITEM}</channel></rss>`,
    ],
    ['RSS 2.0', rss(ITEM)],
    [
      'RSS 0.90 (RDF)',
      `<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#" xmlns="http://channel.example/rdf/0.9/"><channel><title>Yard</title><link>https://yard.example/</link></channel>${ITEM}</rdf:RDF>`,
    ],
    [
      'RSS 1.0 (RDF)',
      `<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#" xmlns="http://purl.org/rss/1.0/"><channel rdf:about="x"><title>Yard</title><link>https://yard.example/</link></channel><item rdf:about="https://yard.example/larch"><title>Larch</title><link>https://yard.example/larch</link><description>Cold hills.</description></item></rdf:RDF>`,
    ],
    [
      'Atom 0.3',
      '<feed version="0.3" xmlns="http://purl.org/atom/ns#"><title>Yard</title><link rel="alternate" href="https://yard.example/"/><entry><title>Larch</title><link rel="alternate" href="https://yard.example/larch"/><id>l</id><summary>Cold hills.</summary></entry></feed>',
    ],
    [
      'Atom 1.0',
      '<feed xmlns="http://www.w3.org/2005/Atom"><title>Yard</title><link href="https://yard.example/"/><entry><title>Larch</title><link href="https://yard.example/larch"/><id>l</id><summary>Cold hills.</summary></entry></feed>',
    ],
    [
      'JSON Feed 1',
      '{"version":"https://jsonfeed.org/version/1","title":"Yard","home_page_url":"https://yard.example/","items":[{"id":"l","url":"https://yard.example/larch","title":"Larch","summary":"Cold hills."}]}',
    ],
    [
      'JSON Feed 1.1, its version last',
      `{"title":"Yard","home_page_url":"https://yard.example/","description":"${'x'.repeat(5000)}","items":[{"id":"l","url":"https://yard.example/larch","title":"Larch","summary":"Cold hills."}],"version":"https://jsonfeed.org/version/1.1"}`,
    ],
  ])('%s', (_, text) => {
    const feed = parseFeed(text)
    expect([feed.title, feed.url]).toEqual(['Yard', 'https://yard.example/'])
    expect(feed.items[0]).toMatchObject({
      title: 'Larch',
      url: 'https://yard.example/larch',
      summary: 'Cold hills.',
    })
  })
})

describe('what namespaces carry', () => {
  it('media: pictures with size and words, also in a group, keywords as categories', () => {
    const item = first(
      rss(
        '<item><title>A</title><media:group><media:content url="/p.png" medium="image" width="12" height="8"><media:description>An oar.</media:description></media:content><media:thumbnail url="https://yard.example/t.png"/><media:keywords>oars, ash</media:keywords></media:group></item>',
      ),
    )
    expect(item.images).toEqual([
      { url: 'https://yard.example/p.png', alt: 'An oar.', width: 12, height: 8 },
      { url: 'https://yard.example/t.png', alt: '', width: null, height: null },
    ])
    expect(item.categories).toEqual(['oars', 'ash'])
  })

  it('a film: address, duration, views, where its transcript is, chapters of its description', () => {
    const item = first(
      rss(
        '<item><title>A</title><media:group><media:content url="https://yard.example/a.mp4" medium="video" duration="312"/><media:description>About it.\n\n0:00 The box\n2:10 The bend</media:description><media:subTitle type="text/vtt" lang="en" href="/a.vtt"/><media:community><media:statistics views="512" favorites="9"/></media:community></media:group></item>',
      ),
    )
    expect(item.video).toEqual({
      url: 'https://yard.example/a.mp4',
      type: '',
      seconds: 312,
      chapters: [
        { at: 0, title: 'The box' },
        { at: 130, title: 'The bend' },
      ],
      chaptersUrl: null,
      transcripts: [{ url: 'https://yard.example/a.vtt', type: 'text/vtt', language: 'en' }],
    })
    expect(item.counts).toEqual({ views: 512, likes: 9 })
  })

  it('a recording: timed transcripts before others, chapters in the feed or in a file', () => {
    const item = first(
      rss(
        '<item><title>A</title><enclosure url="/a.mp3" type="audio/mpeg" length="9"/><itunes:duration>1:02:03</itunes:duration><podcast:transcript url="/a.html" type="text/html"/><podcast:transcript url="/a.srt" type="application/x-subrip"/><podcast:chapters url="/c.json" type="application/json+chapters"/></item>',
      ),
    )
    expect(item.video).toMatchObject({ seconds: 3723, chaptersUrl: 'https://yard.example/c.json' })
    expect(item.video?.transcripts[0]?.url).toBe('https://yard.example/a.srt')
    const inline = first(
      rss(
        '<item><title>A</title><enclosure url="/a.mp3" type="audio/mpeg" length="9"/><psc:chapters><psc:chapter start="0:00" title="One"/><psc:chapter start="0:01:30" title="Two"/></psc:chapters></item>',
      ),
    )
    expect(inline.video?.chapters.map((c) => c.at)).toEqual([0, 90])
    expect(
      parseChapters(
        '{"version":"1.2.0","chapters":[{"startTime":60,"title":"B"},{"startTime":0,"title":"A"},{"startTime":9,"toc":false,"title":"x"}]}',
      ),
    ).toEqual([
      { at: 0, title: 'A' },
      { at: 60, title: 'B' },
    ])
    expect(parseChapters('{')).toEqual([])
  })

  it('slash, thr and georss: comments and a place; other elements as fields of their own', () => {
    const item = first(
      rss(
        '<item><title>A</title><slash:comments>12</slash:comments><georss:point>45.5 -7.25</georss:point><g:price>12,50 EUR</g:price><content:encoded><![CDATA[<g:price>no</g:price>]]></content:encoded></item>',
      ),
    )
    expect(item.counts).toEqual({ comments: 12 })
    expect(item.place).toEqual({ latitude: 45.5, longitude: -7.25 })
    expect(item.fields).toEqual({ 'g:price': '12,50 EUR' })
    expect(first(rss('<item><title>A</title><thr:total>4</thr:total></item>')).counts).toEqual({
      comments: 4,
    })
    const json = first(
      '{"version":"https://jsonfeed.org/version/1.1","title":"t","items":[{"id":"1","title":"A","_walk":{"distance_km":12,"steep":true},"_price":9}]}',
    )
    expect(json.fields).toEqual({ 'walk.distance_km': '12', price: '9' })
  })

  it('xml:base, of the feed and of an entry, is what addresses are relative to', () => {
    const item = first(
      '<feed xmlns="http://www.w3.org/2005/Atom" xml:base="https://yard.example/blog/"><title>Y</title><entry xml:base="2026/"><title>A</title><id>1</id><link href="larch"/><content type="html">&lt;p&gt;x&lt;/p&gt;</content></entry></feed>',
    )
    expect([item.url, item.base]).toEqual([
      'https://yard.example/blog/2026/larch',
      'https://yard.example/blog/2026/',
    ])
  })
})

it('reads the dates that real feeds have', () => {
  for (const [text, iso] of [
    ['Tue, 24 Nov 2026 10:00:00 +0100', '2026-11-24T09:00:00.000Z'],
    ['24 Nov 2026', '2026-11-24T00:00:00.000Z'],
    ['Tuesday, 24 November 2026', '2026-11-24T00:00:00.000Z'],
    ['Nov 24, 2026', '2026-11-24T00:00:00.000Z'],
    ['2026-11-24 10:00:00', '2026-11-24T10:00:00.000Z'],
    ['2026-11-24 10:00:00 +0100', '2026-11-24T09:00:00.000Z'],
    ['2026-11-24T10:00:00', '2026-11-24T10:00:00.000Z'],
    ['24.11.2026 10:00', '2026-11-24T10:00:00.000Z'],
    ['24/11/2026', '2026-11-24T00:00:00.000Z'],
    ['11/24/2026', '2026-11-24T00:00:00.000Z'],
    ['1795514400', '2026-11-24T10:00:00.000Z'],
  ] as const)
    expect([text, feedDate(text)]).toEqual([text, iso])
  for (const text of ['', 'soon', '99/99/2026', 'Feb']) expect([text, feedDate(text)]).toEqual([text, null])
})

it('hears times, and chapters only where the lines rise from the beginning', () => {
  expect([seconds('1:02:03'), seconds('4:05'), seconds('75'), seconds('PT1M5S'), seconds('soon')]).toEqual([
    3723,
    245,
    75,
    65,
    null,
  ])
  expect(chaptersIn('(0:00) The box\n– 1:10 – The bend\nThe cooling 3:00')).toEqual([
    { at: 0, title: 'The box' },
    { at: 70, title: 'The bend' },
    { at: 180, title: 'The cooling' },
  ])
  expect(chaptersIn('We start at 9:00 sharp.\nLunch 12:30')).toEqual([])
  expect(chaptersIn('0:00 Only one')).toEqual([])
})

describe('finding feeds', () => {
  it('takes link elements first, then links whose address or words say so, each once', () => {
    const html =
      '<html><head><link rel="alternate" type="application/rss+xml" title="Posts" href="/feed.xml"></head><body><a href="/feed.xml">RSS</a><a href="/notes/atom.xml">Notes</a><a href="/about">About</a><a href="/subscribe">RSS feed</a></body></html>'
    expect(discoverFeeds(html, 'https://yard.example/').map((f) => f.url)).toEqual([
      'https://yard.example/feed.xml',
      'https://yard.example/notes/atom.xml',
      'https://yard.example/subscribe',
    ])
  })

  it('knows the common places, at the root and below the page', () => {
    const places = commonPlaces('https://yard.example/blog')
    expect(places).toEqual(
      expect.arrayContaining(['https://yard.example/feed', 'https://yard.example/blog/feed']),
    )
    expect(new Set(places).size).toBe(places.length)
  })
})

describe('lists of feeds', () => {
  it('come in with their headings, each address once, and go out again the same', () => {
    const feeds = [
      { url: 'https://a.example/feed', title: 'A', group: null },
      { url: 'https://b.example/feed', title: 'B & C', group: 'Boats' },
    ]
    expect(readOpml(writeOpml(feeds, 'Sources'))).toEqual(feeds)
    expect(() => readOpml('<opml version="2.0"><body><outline text="Empty"/></body></opml>')).toThrow(
      /no feed in this list/,
    )
    expect(() => readOpml('<opml')).toThrow(/cannot be read as OPML|no feed/)
  })
})

describe('one address in other clothes', () => {
  const plain = sameAddress('https://yard.example/larch')
  it.each([
    'http://yard.example/larch',
    'https://www.yard.example/larch/',
    'https://m.yard.example/larch?utm_source=feed&fbclid=1',
    'https://yard.example/larch/amp/',
    'https://YARD.example:443/larch#top',
    'https://yard.example/larch/index.html',
  ])('%s', (address) => {
    expect(sameAddress(address)).toBe(plain)
  })

  it('keeps apart what is apart, and is the same when taken twice', () => {
    expect(sameAddress('https://yard.example/oak')).not.toBe(plain)
    expect(sameAddress('https://yard.example/larch?page=2')).not.toBe(plain)
    fc.assert(
      fc.property(fc.webUrl({ withQueryParameters: true, withFragments: true }), (url) => {
        const once = sameAddress(url)
        expect(sameAddress(`https://${once}`)).toBe(once)
      }),
    )
  })
})

it('takes a page that calls itself Latin-1 but is UTF-8 for what it is', () => {
  const utf8 = new TextEncoder().encode('<?xml version="1.0" encoding="iso-8859-1"?><a>Épée</a>')
  expect(decodeText(utf8)).toContain('Épée')
  const latin = Uint8Array.from(
    [...'<?xml version="1.0" encoding="iso-8859-1"?><a>'].map((c) => c.charCodeAt(0)).concat([0xc9, 0x70]),
  )
  expect(decodeText(latin)).toContain('Ép')
})

it('tells the pace of a source, and when it has fallen silent', () => {
  const day = (n: number): string =>
    new Date(Date.parse('2026-11-24T09:00:00Z') - n * 86_400_000).toISOString()
  const now = '2026-11-24T10:00:00.000Z'
  expect(paceOf([0, 7, 14, 21, 28, 35, 42, 49].map(day), now)).toEqual({ perWeek: 1, silentSince: null })
  expect(paceOf([60, 67, 74, 81].map(day), now)).toEqual({ perWeek: 0, silentSince: day(60) })
  expect(paceOf([100, 300].map(day), now).silentSince).toBeNull()
  expect(paceOf([], now)).toEqual({ perWeek: 0, silentSince: null })
})

it('a summary is the beginning of a long text, cut between words, and a short one whole', () => {
  const feed = (inside: string) =>
    parseFeed(
      `<rss version="2.0"><channel><title>x</title><item><title>a</title><guid>1</guid><description><![CDATA[${inside}]]></description></item></channel></rss>`,
    ).items[0]
  const long = `<p>${'A word of oak. '.repeat(400)}<a href="https://x.example/">end</a></p>`
  expect(feed('<b>Short</b> and whole.')?.summary).toBe('Short and whole.')
  expect(feed(long)?.summary).toMatch(/^(A word of oak\. )+.* …$/)
  expect(feed(long)?.summary.length).toBeLessThanOrEqual(1203)
  expect(feed(long)?.html).toBe(long)
  // Chinese parts no words: the summary still has its beginning.
  expect(feed('船'.repeat(4000))?.summary).toMatch(/^船{1000,1200} …$/)
})

describe('a description that is a text and no summary is the item’s body, in every kind of feed', () => {
  const text = 'Larch from cold hills lasts; larch from warm ones does not. '.repeat(30).trim()
  it.each([
    ['RSS', rss(`<item><title>a</title><description>${text}</description></item>`)],
    ['RSS with media', rss(`<item><title>a</title><media:description>${text}</media:description></item>`)],
    [
      'Atom',
      `<feed xmlns="http://www.w3.org/2005/Atom"><title>x</title><entry><id>1</id><title>a</title><summary>${text}</summary></entry></feed>`,
    ],
    [
      'JSON Feed',
      JSON.stringify({
        version: 'https://jsonfeed.org/version/1.1',
        title: 'x',
        items: [{ id: '1', title: 'a', summary: text }],
      }),
    ],
  ])('%s', (_, bytes) => {
    expect(first(bytes).html).toBe(`<p>${text}</p>`)
    expect(first(bytes).summary.length).toBeLessThan(text.length)
    expect(first(bytes.replace(text, 'Larch lasts.')).html).toBe('')
  })
})

describe('an item that has only', () => {
  const rss = (items: string): string =>
    `<rss version="2.0"><channel><title>Notes</title><link>https://notes.example/</link>${items}</channel></rss>`
  it('words is an item, and two with one date are two', () => {
    const { items, notes } = parseFeed(
      rss(
        '<item><description>The tar boiled over. Nobody was near.</description><pubDate>Sat, 08 Feb 2025 10:00:00 GMT</pubDate></item><item><description>The tar has set.</description><pubDate>Sat, 08 Feb 2025 10:00:00 GMT</pubDate></item>',
      ),
    )
    expect(items.map((i) => i.title)).toEqual(['The tar boiled over.', 'The tar has set.'])
    expect(new Set(items.map((i) => i.id)).size).toBe(2)
    expect(notes).toEqual([])
  })

  it('a file is an item that is called after it', () => {
    const { items } = parseFeed(
      rss(
        '<item><enclosure url="https://notes.example/the-long-seam.mp3" type="audio/mpeg" length="9"/></item>',
      ),
    )
    expect(items[0]).toMatchObject({
      title: 'the long seam',
      video: { url: 'https://notes.example/the-long-seam.mp3' },
    })
  })

  it('nothing is left out, with a note', () => {
    expect(parseFeed(rss('<item><title>One</title></item><item><author>A</author></item>'))).toMatchObject({
      items: [{ title: 'One' }],
      notes: [expect.stringContaining('without words, address or file')],
    })
  })
})
