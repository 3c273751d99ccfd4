import { describe, expect, it } from 'vitest'
import { network } from '../../core/networks'
import { postFaults, type SentPost } from './rules'

const fields = (id: string, post: Partial<SentPost>): string[] =>
  postFaults(network(id), { text: 'Green oak bends.', pictures: [], ...post }).map((f) => f.field)
const rack = { width: 800, height: 1200, bytes: 1000 }
const pdf = { pages: 50, bytes: 100_000 }
const tall = { width: 1080, height: 1920, bytes: 1000 }
const clip = { width: 720, height: 1280, bytes: 900_000, seconds: 20 }
const wide = { ...clip, width: 1280, height: 720 }
const talk = { clips: [{ ...clip, seconds: 300 }], title: 'Paying a seam', format: 'video' }
const video = { clips: [clip], title: 'Paying a seam' }

describe('the rules of the networks', () => {
  it('refuse what breaks their rules, naming the field', () => {
    const picture = { width: 1200, height: 800, bytes: 1000 }
    expect(postFaults(network('murmur'), { text: 'x'.repeat(301), pictures: [] })).toMatchObject([
      { field: 'text' },
    ])
    expect(postFaults(network('shutterleaf'), { text: 'A frame.', pictures: [] })).toMatchObject([
      { field: 'media' },
    ])
    expect(postFaults(network('shutterleaf'), { text: 'A frame.', pictures: [picture] })).toMatchObject([
      { field: 'media' },
    ])
    expect(
      postFaults(network('shutterleaf'), { text: 'A frame.', pictures: [{ ...picture, width: 800 }] }),
    ).toEqual([])
    expect(postFaults(network('murmur'), { text: '#a #b #c #d #e #f', pictures: [] })).toMatchObject([
      { field: 'hashtags' },
    ])
    expect(postFaults(network('murmur'), { text: 'See https://a.example/#b#c', pictures: [] })).toEqual([])
    expect(postFaults(network('murmur'), { text: ' ', pictures: [] })).toMatchObject([{ field: 'text' }])
  })

  // What networks.md says of each, a row a rule.
  it.each([
    ['murmur', { poll: ['Oak', 'Larch'] }, []],
    ['murmur', { format: 'story' }, ['format']],
    ['murmur', { title: 'A title' }, ['title']],
    ['guildhall', { parts: ['More.'] }, ['parts']],
    ['hearthside', { text: 'x'.repeat(5000) }, []],
    ['hearthside', { text: 'x'.repeat(5001) }, ['text']],
    ['rackwell', { title: 'Seams', link: 'https://a.example', pictures: [rack] }, []],
    ['rackwell', { title: 'x'.repeat(101), link: 'https://a.example', pictures: [rack] }, ['title']],
    ['rackwell', { link: 'https://a.example', pictures: [rack] }, ['title']],
    ['rackwell', { title: 'Seams', pictures: [rack] }, ['link']],
    ['rackwell', { title: 'Seams', link: 'https://a.example', pictures: [rack, rack] }, ['media']],
    ['loopyard', {}, ['media']],
    ['loopyard', { clips: [clip] }, []],
    ['loopyard', { clips: [clip, clip] }, ['media']],
    ['loopyard', { clips: [{ ...clip, seconds: 4.9 }] }, ['media']],
    ['loopyard', { clips: [{ ...clip, seconds: 90 }] }, []],
    ['loopyard', { clips: [{ ...clip, seconds: 90.1 }] }, ['media']],
    ['loopyard', { clips: [wide] }, ['media']],
    ['loopyard', { clips: [{ ...clip, bytes: 8_000_001 }] }, ['media']],
    ['murmur', { clips: [wide] }, []],
    ['murmur', { clips: [clip], pictures: [rack] }, ['media']],
    ['shutterleaf', { clips: [clip] }, []],
    ['shutterleaf', { clips: [wide] }, ['media']],
    ['rackwell', { title: 'Seams', link: 'https://a.example', clips: [clip] }, ['media']],
    ['guildhall', { format: 'document', documents: [pdf] }, []],
    ['guildhall', { format: 'document', documents: [{ ...pdf, pages: 51 }] }, ['media']],
    ['guildhall', { format: 'document', documents: [{ ...pdf, bytes: 8_000_001 }] }, ['media']],
    ['guildhall', { format: 'document', documents: [pdf, pdf] }, ['media']],
    ['guildhall', { format: 'document', documents: [pdf], pictures: [rack] }, ['media']],
    ['guildhall', { format: 'document', pictures: [rack] }, ['media']],
    ['guildhall', { documents: [pdf] }, ['media']],
    ['shutterleaf', { format: 'story', text: '', pictures: [tall] }, []],
    ['shutterleaf', { format: 'story', text: '', clips: [clip] }, []],
    ['shutterleaf', { format: 'story', pictures: [tall] }, ['text']],
    ['hearthside', { format: 'story', text: '', pictures: [tall, tall] }, ['media']],
    ['hearthside', { format: 'story', text: '', pictures: [rack] }, ['media']],
    ['shutterleaf', { format: 'story', text: '', pictures: [{ ...tall, bytes: 8_000_001 }] }, ['media']],
    ['longwave', { ...talk, text: 'Oak.\n\n0:00 Why\n1:00 How\n1:10 When' }, []],
    ['longwave', { ...talk, text: 'Oak.\n\n0:00 Why\n1:00 How' }, ['media']],
    ['longwave', { ...talk, text: 'Oak.\n\n0:00 Why\n1:00 How\n1:09 When' }, ['media']],
    ['longwave', { ...talk, text: 'Oak.\n\n0:01 Why\n1:00 How\n1:10 When' }, ['media']],
    ['longwave', { ...talk, format: 'clip' }, ['media']],
    ['longwave', { ...video, tags: ['x'.repeat(250), 'y'.repeat(250)] }, []],
    ['longwave', { ...video, tags: ['x'.repeat(250), 'y'.repeat(251)] }, ['tags']],
    ['courier', { text: 'x'.repeat(4097) }, ['text']],
    ['broadside', { title: 'Oak', summary: 'x'.repeat(301), link: 'https://a.example' }, ['summary']],
    ['broadside', { title: 'Oak', link: 'https://a.example', text: 'x'.repeat(90_000) }, []],
  ] as const)('%s, %j: %j', (id, post, expected) => {
    expect(fields(id, post as Partial<SentPost>)).toEqual(expected)
  })
})
