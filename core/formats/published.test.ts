import { DOMParser } from 'linkedom'
import { describe, expect, it } from 'vitest'
import { aPost } from '../model/samples'
import { publicationsOf, writePublished } from '.'

const at = (day: number) => `2026-11-${day}T10:00:00.000Z`
const around = { url: 'https://drip.example/published/x.xml', home: 'https://yard.example/', now: at(28) }
const item = (post: string, day: number, change: object = {}) => ({
  post,
  at: at(day),
  network: 'Murmur',
  account: 'yard',
  title: 'Oars & <oak>',
  text: 'Cut ]]> once.\n\nThen & "twice".\u0007',
  link: 'https://yard.example/oars?a=1&b=2',
  publicUrl: `https://murmur.example/${post}?x=1&y=2`,
  tags: ['Oak', 'R&D'],
  ...change,
})
const items = [item('a', 20), item('c', 22, { publicUrl: null, link: null }), item('b', 21)]
const write = (kind: 'RSS' | 'Atom' | 'JSON Feed' | 'CSV', most = 20) =>
  writePublished({ kind, title: 'The Yard & co', items: most }, items, around)
/** An XML document as another library reads it. */
const xml = (text: string) => new DOMParser().parseFromString(text, 'text/xml')
const texts = (text: string, name: string) =>
  [...xml(text).querySelectorAll(name)].map((e) => (e.textContent as string).trim())

describe('published posts as a feed', () => {
  it('RSS has the newest first, no more than wanted, and says every sign as it is', () => {
    const rss = write('RSS', 2)
    expect(texts(rss, 'item > guid')).toEqual(['c', 'b'])
    expect(texts(rss, 'item > title')).toEqual(['Oars & <oak>', 'Oars & <oak>'])
    expect(texts(rss, 'item > link')).toEqual(['https://yard.example/', 'https://murmur.example/b?x=1&y=2'])
    expect(texts(rss, 'item > pubDate')[1]).toBe('Sat, 21 Nov 2026 10:00:00 GMT')
    expect(texts(rss, 'item > category')).toEqual(['Oak', 'R&D', 'Oak', 'R&D'])
    expect(texts(rss, 'item > description')[1]).toBe(
      '<p>Cut ]]&gt; once.</p><p>Then &amp; "twice".</p><p>https://yard.example/oars?a=1&amp;b=2</p>',
    )
    expect(texts(rss, 'channel > link')).toEqual(['https://yard.example/'])
    expect(rss).not.toContain('\u0007')
  })

  it('Atom has an id, a moment and an author for all, as RFC 4287 demands', () => {
    const feed = xml(write('Atom'))
    expect(texts(write('Atom'), 'feed > entry > id')).toEqual(
      ['c', 'b', 'a'].map((id) => `https://drip.example/published/x.xml#${id}`),
    )
    expect(texts(write('Atom'), 'entry > updated')).toEqual([at(22), at(21), at(20)])
    expect(texts(write('Atom'), 'feed > updated')).toEqual([at(22)])
    expect(texts(write('Atom'), 'feed > author > name')).toEqual(['The Yard & co'])
    expect(texts(write('Atom'), 'entry > content')[1]).toBe(
      'Cut ]]> once.\n\nThen & "twice".\n\nhttps://yard.example/oars?a=1&b=2',
    )
    expect(feed.querySelector('feed > link[rel=self]')?.getAttribute('href')).toBe(around.url)
  })

  it('JSON Feed is version 1.1 and names the post and the page apart', () => {
    const feed = JSON.parse(write('JSON Feed')) as { version: string; items: object[] }
    expect(feed.version).toBe('https://jsonfeed.org/version/1.1')
    expect(feed.items[2]).toMatchObject({
      id: 'a',
      url: 'https://murmur.example/a?x=1&y=2',
      external_url: 'https://yard.example/oars?a=1&b=2',
      date_published: at(20),
      tags: ['Oak', 'R&D'],
    })
  })

  it('the sheet has a row each, quoted after RFC 4180, and nothing that a spreadsheet would run', () => {
    const sheet = writePublished(
      { kind: 'CSV', title: 'x', items: 5 },
      [item('a', 20, { title: '=1+1', text: 'One, "two"\nthree', tags: ['Oak'] })],
      around,
    )
    expect(sheet).toBe(
      'published,network,account,piece,text,link,post,tags\r\n' +
        '2026-11-20T10:00:00.000Z,Murmur,yard,\'=1+1,"One, ""two""\nthree",https://yard.example/oars?a=1&b=2,https://murmur.example/a?x=1&y=2,Oak\r\n',
    )
  })
})

it('what went out is published, what is handed over is known without a moment, and nothing else is', () => {
  const posts = [
    aPost({ id: 'out', state: 'published', publishedAt: at(21), at: at(20) }),
    aPost({ id: 'later', state: 'handed over', at: at(29) }),
    aPost({ id: 'down', state: 'published', publishedAt: at(22), visibility: 'gone' }),
    aPost({ id: 'waits', state: 'approved' }),
    aPost({ id: 'failed', state: 'failed' }),
  ]
  expect(publicationsOf(posts, new Map(), new Map()).map(({ post, at: when }) => [post, when])).toEqual([
    ['later', null],
    ['out', at(21)],
  ])
})
