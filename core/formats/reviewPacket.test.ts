import type { Post } from '../model'
import { parseHTML } from 'linkedom'
import { describe, expect, it } from 'vitest'
import { anAccount, aPost, aWording } from '../model/samples'
import { flagName, readDecisions, reviewPrint, writePacket, type PacketPost } from '.'

const flag = { code: 'ages', severity: 'flag' as const, message: 'It says <this> year.', words: 'this year' }
const one: PacketPost = {
  post: aPost({
    id: 'p1',
    checks: [flag],
    wording: aWording({ text: 'Pay it </script><b>"now"</b> & go.' }),
  }),
  account: anAccount({ handle: 'the.yard' }),
  when: 'Tue 1 Dec 09:00',
  picture: 'data:image/png;base64,AAAA',
  piece: 'A seam',
}
const page = writePacket({
  id: 'k',
  brand: 'The <Yard>',
  made: '2026-11-28',
  note: 'Read & say.',
  posts: [one, { ...one, post: aPost({ id: 'p2' }), picture: 'data:video/mp4;base64,BBBB' }],
})
const { document } = parseHTML(page)

describe('a review packet', () => {
  it('shows each post as text, whatever stands in it, with its doubts and three choices', () => {
    const [first] = [...document.querySelectorAll('article')]
    expect(document.querySelectorAll('article')).toHaveLength(2)
    expect(first?.querySelector('.caption')?.textContent).toBe('Pay it </script><b>"now"</b> & go.')
    expect(first?.querySelector('.doubts')?.textContent).toBe('It says <this> year.')
    expect(first?.querySelectorAll('b')).toHaveLength(0)
    expect(
      [...(first?.querySelectorAll('input[type=radio]') ?? [])].map((r) => r.getAttribute('value')),
    ).toEqual(['approve', 'reject', 'open'])
    expect(document.querySelector('title')?.textContent).toBe('The <Yard>: captions to review')
  })

  it('shows a picture as it is and a clip to be played, which its own policy lets it', () => {
    const [first, second] = [...document.querySelectorAll('article')]
    expect(first?.querySelector('img')?.getAttribute('src')).toBe('data:image/png;base64,AAAA')
    expect(second?.querySelector('img')).toBeNull()
    expect(second?.querySelector('video[controls]')?.getAttribute('src')).toBe('data:video/mp4;base64,BBBB')
    expect(document.querySelector('meta[http-equiv]')?.getAttribute('content')).toContain('media-src data:')
  })

  it('asks nothing of any host, and carries what its decisions answer to', () => {
    expect(page).not.toMatch(/(?:src|href)="(?!data:)/)
    expect(document.querySelectorAll('link, iframe, script[src]')).toHaveLength(0)
    const data = JSON.parse(document.querySelector('#packet')?.textContent ?? '') as { posts: object[] }
    expect(data.posts).toEqual([
      { post: 'p1', print: reviewPrint(one.post), flags: [flagName(flag)] },
      { post: 'p2', print: reviewPrint(aPost({ id: 'p2' })), flags: [] },
    ])
  })

  it('tells a post apart from itself with other words, another picture or another account', () => {
    const post = aPost()
    const picture: Post['media'] = [
      { source: { from: 'address', url: 'https://a.example/x.png' }, alt: '', shape: null, hash: null },
    ]
    const prints = [
      post,
      aPost({ wording: aWording({ text: 'Other words.' }) }),
      aPost({ wording: aWording({ firstComment: 'Words.' }) }),
      aPost({ media: picture }),
      aPost({ account: 'another' }),
    ].map(reviewPrint)
    expect(new Set(prints).size).toBe(5)
    expect(reviewPrint({ ...post, ...{ state: 'approved', at: null } })).toBe(reviewPrint(post))
  })
})

describe('a file of decisions', () => {
  const whole = {
    format: 'dripline-decisions',
    schema: 1,
    packet: 'k',
    by: 'Ada',
    at: '2026-11-28T10:00:00.000Z',
    decisions: [{ post: 'p1', print: 'x', flags: [], decision: 'approve', comment: '' }],
  }
  it('is read, and refused where it is none', () => {
    expect(readDecisions(JSON.stringify(whole)).decisions).toHaveLength(1)
    expect(() => readDecisions('…')).toThrow(/it is not JSON/)
    expect(() => readDecisions('{}')).toThrow(/format is wrong/)
    expect(() =>
      readDecisions(JSON.stringify({ ...whole, decisions: [{ ...whole.decisions[0], decision: 'maybe' }] })),
    ).toThrow(/decisions\.0\.decision is wrong/)
  })
})
