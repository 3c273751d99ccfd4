import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { anAccount, aPost } from '../model/samples'
import type { PostMedia } from '../model'
import { awayCaption, awayCredits, awayPosts, awaySheet, fileNames } from './takeAway'

const picture = (alt: string, mustShow?: boolean): PostMedia => ({
  source: { from: 'address', url: `https://a.example/${alt}.png` },
  alt,
  shape: null,
  hash: null,
  ...(mustShow === undefined
    ? {}
    : {
        credit: {
          author: 'Ada Wren',
          from: 'Drawer',
          licence: 'Free',
          page: 'https://d.example/1',
          mustShow,
        },
      }),
})
const account = anAccount({ id: 'a', network: 'shutterleaf', handle: 'yard & co', zone: 'Europe/Lisbon' })
const post = (id: string, at: string | null, change: Parameters<typeof aPost>[0] = {}) =>
  aPost({ id, account: 'a', network: 'shutterleaf', at, publishedAt: null, state: 'approved', ...change })

describe('posts that are taken away', () => {
  const late = post('late', '2026-12-04T18:30:00.000Z', { media: [picture('oak'), picture('ash', true)] })
  const posts = [
    late,
    post('same', '2026-12-04T18:30:40.000Z'),
    post('early', '2026-07-04T18:30:00.000Z', { media: [picture('elm', false)] }),
    post('nowhere', null),
    post('aside', '2026-12-01T09:00:00.000Z', { state: 'set aside' }),
    post('orphan', '2026-12-01T09:00:00.000Z', { account: 'gone' }),
  ]
  const away = awayPosts(posts, [account])
  const names = (id: string): string[] => {
    const one = away.find((a) => a.post.id === id)
    const types = ['image/jpeg', 'image/png', 'image/png']
    return one ? fileNames(one, types.slice(0, one.post.media.length)) : []
  }

  it('lie by account, day and time on the account’s clock, no two in one place', () => {
    expect(away.map((a) => [a.post.id, `${a.folder}/${a.stem}`])).toEqual([
      // Summer time.
      ['early', 'shutterleaf-yard-co/2026-07-04-1930'],
      ['late', 'shutterleaf-yard-co/2026-12-04-1830'],
      ['same', 'shutterleaf-yard-co/2026-12-04-1830-again-1'],
      ['nowhere', 'shutterleaf-yard-co/without-a-place'],
    ])
    expect(names('late')).toEqual(['2026-12-04-1830-1.jpg', '2026-12-04-1830-2.png'])
    expect(names('early')).toEqual(['2026-07-04-1930.jpg'])
    expect(fileNames({ stem: 'a' }, ['application/pdf'])).toEqual(['a.pdf'])
    expect(fileNames({ stem: 'a' }, ['video/webm'])).toEqual(['a.webm'])
  })

  it('are a sheet that any spreadsheet reads, with their pictures by name', () => {
    const wording = {
      ...late.wording,
      text: '=1+1, “she” said\nand went',
      title: 'A "title"',
      firstComment: 'x',
    }
    const sheet = awaySheet(
      away.map((a) => (a.post.id === 'late' ? { ...a, post: { ...late, wording } } : a)),
      names,
    )
    const { data, errors } = Papa.parse<Record<string, string>>(sheet, { header: true, skipEmptyLines: true })
    expect(errors).toEqual([])
    expect(data).toHaveLength(4)
    expect(data[1]).toMatchObject({
      account: 'yard & co',
      network: 'Shutterleaf',
      date: '2026-12-04',
      time: '18:30',
      title: 'A "title"',
      text: "'=1+1, “she” said\nand went",
      pictures: 'shutterleaf-yard-co/2026-12-04-1830-1.jpg\nshutterleaf-yard-co/2026-12-04-1830-2.png',
      'alternative texts': 'oak\nash',
      credits: '\nPicture: Ada Wren, Drawer',
    })
    expect(data[3]).toMatchObject({ date: '', time: '', pictures: '' })
  })

  it('say whose their pictures are', () => {
    expect(awayCredits(away, names)).toBe(
      'shutterleaf-yard-co/2026-07-04-1930.jpg: Picture: Ada Wren, Drawer; Free; https://d.example/1\n' +
        'shutterleaf-yard-co/2026-12-04-1830-2.png: Picture: Ada Wren, Drawer; Free; https://d.example/1; has to be named\n',
    )
    expect(awayCredits(away.slice(2), names)).toBe('')
  })

  it('are told as they would be pasted', () => {
    const wording = {
      ...late.wording,
      title: 'Oak',
      text: 'It bends.',
      parts: ['Slowly.'],
      firstComment: 'https://a.example',
    }
    expect(awayCaption({ ...late, wording })).toBe(
      'Oak\n\nIt bends.\n\nSlowly.\n\nFirst comment: https://a.example\n',
    )
  })
})
