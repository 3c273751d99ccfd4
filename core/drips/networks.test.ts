import { describe, expect, it } from 'vitest'
import { briefOf, houseOf, PLAIN_HOUSE, type House } from '../house'
import { likeness } from '../judging'
import { HouseStyle, type Brief, type PieceContent } from '../model'
import { graphemes, measure, network, NETWORKS } from '../networks'
import { weighPassages } from '../passages'
import { readTranscript, readWriting } from '../reading'
import { writeDrip, type WrittenPost } from '.'
import { KITES } from './testing/kites'
import { strangeSentences } from './testing/verbatim'

const accounts = NETWORKS.map((n) => ({ id: n.id, network: n.id }))
const write = (
  piece: PieceContent,
  house: House = PLAIN_HOUSE,
  change: Partial<Parameters<typeof writeDrip>[0]> = {},
): WrittenPost[] => {
  const found = weighPassages(piece).map((w) => w.passage)
  return writeDrip({
    piece,
    passages: found,
    accounts,
    days: [0, 7, 20, 50],
    house,
    link: 'https://hill.example/kites',
    seed: 2,
    ...change,
  })
}
const made = (posts: readonly WrittenPost[], id?: string) =>
  posts.flatMap((p) => (p.wording && (!id || p.network === id) ? [{ post: p, ...p.wording }] : []))
const house = (style: Partial<HouseStyle>, briefs: Partial<Brief>[] = []): House =>
  houseOf({
    name: 'Hill',
    houseStyle: HouseStyle.parse(style),
    briefs: briefs.map((b) => ({ ...BLANK, ...b })),
  })
const BLANK: Brief = {
  network: 'murmur',
  voice: null,
  reader: 'somebody who tries',
  length: null,
  angles: [],
  hashtags: null,
  hashtagsIn: 'text',
  emoji: 'none',
  link: null,
  closing: null,
}

describe('each network gets its own shape', () => {
  const posts = write(KITES)

  it('with the fields it has, within its limits, every sentence accounted for', () => {
    for (const { post, title, summary, tags, text } of made(posts)) {
      const profile = network(post.network)
      expect(measure(text, profile.text)).toBeLessThanOrEqual(profile.text.limit ?? Infinity)
      expect(title === null).toBe(profile.title === null)
      if (profile.title) expect(graphemes(title ?? '')).toBeLessThanOrEqual(profile.title.limit)
      if (profile.summary) expect(graphemes(summary ?? '')).toBeLessThanOrEqual(profile.summary.limit)
      if (profile.tags) expect(tags.length).toBeGreaterThan(0)
      expect(strangeSentences(text, `${KITES.title}\n${KITES.text}`)).toEqual([])
    }
    expect(new Set(made(posts).map((m) => m.post.network)).size).toBeGreaterThan(NETWORKS.length - 2)
  })

  it('a letter is a part of the piece in Markdown, lists as lists; plates and films have titles of their own', () => {
    const letters = made(posts, 'broadside').map((m) => m.text)
    expect(letters.some((t) => /^## /m.test(t) || /^1\. /m.test(t))).toBe(true)
    for (const id of ['rackwell', 'longwave', 'broadside']) {
      const titles = made(posts, id).map((m) => m.title)
      expect(new Set(titles).size).toBe(titles.length)
    }
  })

  it('links stand where they are live, or are asked for', () => {
    for (const { post, text, firstComment } of made(posts)) {
      const { place } = network(post.network).link
      expect(/https:/.test(text)).toBe(place === 'text')
      expect(firstComment !== null).toBe(place === 'first comment')
    }
    const beside = write(
      KITES,
      house({ hashtags: ['Kites'] }, [{ network: 'guildhall', hashtagsIn: 'first comment', hashtags: 2 }]),
    )
    const [tagged] = made(beside, 'guildhall')
    expect(tagged?.text).not.toMatch(/#\w/)
    expect(tagged?.firstComment).toMatch(/https:\S+\n#\w+/)
    const none = write(KITES, house({}, [{ network: 'murmur', link: 'none' }]))
    for (const { text } of made(none, 'murmur')) expect(text).not.toMatch(/https:/)
  })

  it('a film’s description carries its chapters where a player takes them', () => {
    const SAID = [
      'A kite of silk flies in a wind that would not turn a leaf.',
      'Most lines break at the knot, because a knot is where the fibres are bent.',
      'A tail steadies a kite by its drag and never by its weight.',
      'Nobody learns to land a kite before losing one in a tree.',
      'Forty metres of line are enough for anybody who has to carry it home.',
      'A spar that bends saves the sail, and a stiff one saves nothing.',
      'Wet silk is twice as heavy as dry silk and half as strong.',
      'If the line hums, the wind is stronger up there than it is on the ground.',
    ]
    const clock = (s: number): string =>
      `00:${String(Math.floor(s / 60)).padStart(2, '0')}:${String(s % 60).padStart(2, '0')}.000`
    const cues = SAID.map((text, i) => `${clock(i * 7)} --> ${clock(i * 7 + 7)}\n${text}`)
    const film = readTranscript(`WEBVTT\n\n${cues.join('\n\n')}`, { title: 'Kites of silk' })
    const at = (...marks: number[]): PieceContent => ({
      ...film,
      video: { ...film.video!, chapters: marks.map((m, i) => ({ at: m, title: `Chapter ${i + 1}` })) },
    })
    const only = { accounts: [{ id: 'longwave', network: 'longwave' }] }
    const text = (piece: PieceContent): string => made(write(piece, PLAIN_HOUSE, only))[0]?.text ?? ''
    expect(text(at(0, 20, 40))).toContain('0:00 Chapter 1\n0:20 Chapter 2\n0:40 Chapter 3')
    // Too few, too near, or not from the beginning: no player would take them.
    for (const marks of [
      [0, 20],
      [0, 4, 40],
      [5, 20, 40],
    ])
      expect(text(at(...marks))).not.toContain('Chapter 1')
  })
})

describe('the house and the brief', () => {
  it('write in their words, spelling and voice, and close with the house’s lines', () => {
    const own = 'What flies where you are?'
    const style = {
      swaps: [{ from: 'kite', to: 'paper bird', network: null }],
      spelling: 'American' as const,
      closingLines: [
        { text: own, where: ['silk', 'wind'] },
        { text: 'Never said.', where: ['submarine'] },
      ],
      voice: { formality: -2, vividness: 0, warmth: 0, speaker: 'we' as const },
      credit: true,
    }
    const texts = made(write({ ...KITES, author: 'Ada Moor' }, house(style)))
    const all = texts.map((t) => t.text).join('\n')
    expect(all).toContain('paper bird')
    expect(all.replace(/https:\S+|#\S+/g, '')).not.toMatch(/\bkites?\b/i)
    expect(all).not.toMatch(/\b(?:does|do) not\b/)
    expect(all).toContain(own)
    expect(all).not.toContain('Never said.')
    expect(all).toContain('By Ada Moor.')
    for (const { summary } of texts) expect(summary ?? '').not.toMatch(/\bkites?\b/i)
  })

  it('keep to the angles, the length and the tags of the brief', () => {
    const brief = {
      network: 'murmur',
      angles: ['how-to' as const],
      length: { least: 40, most: 150 },
      hashtags: 3,
    }
    const texts = made(write(KITES, house({}, [brief])), 'murmur')
    expect(texts.length).toBeGreaterThan(0)
    for (const t of texts) {
      expect(t.angle).toBe('how-to')
      expect(measure(t.text, network('murmur').text)).toBeLessThanOrEqual(150)
    }
    expect(briefOf(network('murmur'), house({}, [brief])).hashtags).toBe(3)
  })

  it('put marks where a brief asks for them, never for a formal voice', () => {
    const emoji = {
      network: 'hearthside',
      emoji: 'where it helps' as const,
      angles: ['checklist' as const, 'how-to' as const],
    }
    const list = readWriting(
      '# Before you sail\n\nTake with you:\n\n- Water for two days at the least.\n- A rope of forty metres.\n- The chart, dry.',
      'x',
    )
    const only = { accounts: [{ id: 'hearthside', network: 'hearthside' }] }
    const marks = (style: Partial<HouseStyle>): string =>
      made(write(list, house(style, [emoji]), only))
        .map((m) => m.text)
        .join('')
    expect(marks({})).toContain('✅')
    expect(marks({ voice: { formality: 2, vividness: 0, warmth: 0, speaker: 'nobody' } })).not.toContain('✅')
  })
})

it('the same thought for two networks is shaped twice, and opens twice', () => {
  const posts = made(write(KITES))
  for (const [i, a] of posts.entries())
    for (const b of posts.slice(i + 1))
      if (a.post.network !== b.post.network && a.post.passage?.start === b.post.passage?.start)
        expect([a.text === b.text, likeness(a.text, b.text) < 1 || a.title !== b.title]).toEqual([
          false,
          true,
        ])
})
