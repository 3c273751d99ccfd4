import { describe, expect, it } from 'vitest'
import { canonicalAddress, decodeText, discoverFeeds, parseFeed, resolveAddress } from '.'
import { feedDate } from './date'

const rss = (items: string, head = ''): string =>
  `<?xml version="1.0"?><rss version="2.0" xmlns:content="http://purl.org/rss/1.0/modules/content/" xmlns:dc="http://purl.org/dc/elements/1.1/"><channel><title>Yard &amp; slip</title><link>https://yard.example/</link>${head}${items}</channel></rss>`
const item = (n: number, more = ''): string =>
  `<item><title>Piece ${n}</title><link>/p/${n}</link><guid isPermaLink="false">id-${n}</guid><pubDate>Tue, 24 Nov 2026 10:00:00 +0100</pubDate>${more}</item>`

describe('parseFeed', () => {
  it('reads RSS with full text, author, categories and absolute addresses', () => {
    const feed = parseFeed(
      rss(
        item(
          1,
          '<dc:creator>Rita</dc:creator><category>oak</category><content:encoded><![CDATA[<p>Steam &amp; oak</p>]]></content:encoded>',
        ),
      ),
    )
    expect(feed).toMatchObject({ title: 'Yard & slip', url: 'https://yard.example/', notes: [] })
    expect(feed.items[0]).toMatchObject({
      title: 'Piece 1',
      url: 'https://yard.example/p/1',
      id: 'id-1',
      publishedAt: '2026-11-24T09:00:00.000Z',
      author: 'Rita',
      categories: ['oak'],
      html: '<p>Steam &amp; oak</p>',
    })
  })

  it('reads Atom with its alternate link and content', () => {
    const feed = parseFeed(
      `<feed xmlns="http://www.w3.org/2005/Atom"><title>Huts</title><link rel="self" href="https://huts.example/feed"/><link href="https://huts.example/"/><entry><id>tag:huts,1</id><title>When to turn back</title><link rel="edit" href="/edit"/><link href="/turn-back"/><updated>2026-10-01T08:00:00Z</updated><author><name>Ines</name></author><summary>Name a time.</summary></entry></feed>`,
      'https://huts.example/feed',
    )
    expect(feed.items[0]).toMatchObject({
      url: 'https://huts.example/turn-back',
      author: 'Ines',
      summary: 'Name a time.',
      html: '',
      publishedAt: '2026-10-01T08:00:00.000Z',
    })
  })

  it('reads JSON Feed', () => {
    const feed = parseFeed(
      JSON.stringify({
        version: 'https://jsonfeed.org/version/1.1',
        title: 'J',
        items: [{ id: '1', url: 'https://j.example/1', content_text: 'One.\n\nTwo & three.' }],
      }),
    )
    expect(feed.items[0]).toMatchObject({ id: '1', html: '<p>One.</p>\n<p>Two &amp; three.</p>' })
  })

  it('takes the whole items of a feed that is cut off, and says so', () => {
    const whole = rss(item(1) + item(2) + item(3))
    const feed = parseFeed(whole.slice(0, whole.indexOf('Piece 3') + 4))
    expect(feed.items.map((i) => i.id)).toEqual(['id-1', 'id-2'])
    expect(feed.notes[0]).toMatch(/breaks off/)
  })

  it('reads unescaped ampersands, leading blank lines and a byte-order mark', () => {
    const feed = parseFeed(`\uFEFF\n\n${rss(item(1).replace('Piece 1', 'Tar & oakum'))}`)
    expect(feed.items[0]?.title).toBe('Tar & oakum')
  })

  it('leaves doubled items out, and names untitled ones by their first sentence', () => {
    const feed = parseFeed(
      rss(
        item(1) +
          item(1) +
          '<item><description>Rake the seam. Then drive.</description><guid>x</guid></item>',
      ),
    )
    expect(feed.items.map((i) => i.title)).toEqual(['Piece 1', 'Rake the seam.'])
    expect(feed.notes[0]).toMatch(/1 doubled item/)
  })

  it('says what is wrong with what is no feed', () => {
    expect(() => parseFeed('<!doctype html><html><body>Hello</body></html>')).toThrow(/web page, not a feed/)
    expect(() => parseFeed('plain words')).toThrow(/not a feed/)
    expect(() => parseFeed('<?xml version="1.0"?><rss version="2.0"><channel><title>X</ti')).toThrow(
      /before its first whole item/,
    )
  })
})

it('reads dates with and without a zone the same anywhere', () => {
  expect(feedDate('2026-11-24')).toBe('2026-11-24T00:00:00.000Z')
  expect(feedDate('Tue, 24 Nov 2026 10:00:00')).toBe('2026-11-24T10:00:00.000Z')
  expect(feedDate('2026-11-24T10:00:00')).toBe('2026-11-24T10:00:00.000Z')
  expect(feedDate('24 Nov 2026 10:00:00 EST')).toBe('2026-11-24T15:00:00.000Z')
  expect(feedDate('someday')).toBeNull()
})

it('decodes by mark, declaration or header, and falls back as browsers do', () => {
  const latin = new Uint8Array([0x63, 0x61, 0x66, 0xe9])
  expect(decodeText(latin, 'text/html; charset=iso-8859-1')).toBe('café')
  expect(decodeText(latin)).toBe('café')
  expect(decodeText(new TextEncoder().encode('café'))).toBe('café')
  expect(decodeText(new Uint8Array([0xff, 0xfe, 0x41, 0x00]))).toBe('A')
})

it('finds the feeds a page names, and undresses addresses', () => {
  const html =
    '<html><head><link rel="alternate" type="application/rss+xml" title="All" href="/feed.xml"><link rel="alternate" type="text/html" href="/fr"></head></html>'
  expect(discoverFeeds(html, 'https://yard.example/blog/')).toEqual([
    { url: 'https://yard.example/feed.xml', title: 'All' },
  ])
  expect(canonicalAddress('https://Yard.example:443/a/?utm_source=x&b=1#top')).toBe(
    'https://yard.example/a?b=1',
  )
  expect(resolveAddress('javascript:alert(1)', 'https://a.example')).toBeNull()
})
