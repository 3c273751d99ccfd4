import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { PLAIN_HOUSE } from '../house'
import { likeness, LIKENESS_BOUND, opening } from '../judging'
import type { FoundPassage, PieceContent } from '../model'
import { measure, network } from '../networks'
import { weighPassages } from '../passages'
import { readWriting } from '../reading'
import { writeDrip, type WrittenPost } from '.'
import { strangeSentences } from './testing/verbatim'

const SUBJECTS = [
  'lathe',
  'kiln',
  'loom',
  'press',
  'anvil',
  'bellows',
  'vice',
  'plane',
  'gauge',
  'mallet',
  'chisel',
  'rasp',
]
const CARE = [
  'wants a drop of oil on the first day of every month',
  'loses its edge in a damp shed within three weeks',
  'costs less to mend than to replace, until the ninth year',
  'teaches patience to anybody who rushes it before breakfast',
]

/** A piece of so many paragraphs, each about something else, and its passages. */
function workshop(paragraphs: number): { piece: PieceContent; passages: FoundPassage[] } {
  const text = SUBJECTS.slice(0, paragraphs)
    .map(
      (s, i) =>
        `An old ${s} ${CARE[i % 4]}. Every ${s} in our shop ${CARE[(i + 1) % 4]}. Nobody sells a ${s} that ${CARE[(i + 2) % 4]}.`,
    )
    .join('\n\n')
  const piece = { ...readWriting(`# The workshop\n\n${text}`, 'x'), images: [] as PieceContent['images'] }
  const passages = piece.blocks.map((b): FoundPassage => ({
    start: b.start,
    end: b.end,
    text: piece.text.slice(b.start, b.end),
    kind: 'statement',
    score: 0.7,
    reasons: [],
  }))
  return { piece, passages }
}

const write = (
  paragraphs: number,
  networks: readonly string[],
  beats: number,
  change: Partial<Parameters<typeof writeDrip>[0]> = {},
): WrittenPost[] => {
  const { piece, passages } = workshop(paragraphs)
  return writeDrip({
    piece,
    passages,
    accounts: networks.map((n, i) => ({ id: `${n}-${i}`, network: n })),
    days: Array.from({ length: beats }, (_, i) => i * 3),
    house: PLAIN_HOUSE,
    link: 'https://shop.example/a',
    seed: 5,
    ...change,
  })
}

describe('the rotation of passages', () => {
  it('gives no passage twice to an account or at a beat, however many there are of each', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 12 }),
        fc.array(fc.constantFrom('murmur', 'guildhall'), { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 1, max: 10 }),
        (paragraphs, networks, beats) => {
          const posts = write(paragraphs, networks, beats)
          expect(posts).toHaveLength(networks.length * beats)
          const used = new Set<string>()
          for (const post of posts.filter((p) => p.wording)) {
            for (const key of [
              `${post.account} ${post.passage?.start}`,
              `beat ${post.beat} ${post.passage?.start}`,
            ]) {
              expect(used.has(key)).toBe(false)
              used.add(key)
            }
          }
          for (const post of posts.filter((p) => !p.wording))
            expect(post.checks).toMatchObject([{ code: 'too-thin', severity: 'block' }])
        },
      ),
      { numRuns: 25 },
    )
  })

  it('says of every beat beyond its passages that the piece is too thin for it', () => {
    const posts = write(3, ['murmur'], 6)
    expect(posts.map((p) => p.wording !== null)).toEqual([true, true, true, false, false, false])
    expect(posts[4]?.checks[0]?.message).toMatch(/too thin for beat 5.*shorter rhythm/)
  })
})

describe('what a drip says', () => {
  it('opens alike nowhere and keeps apart what one account and its sibling say', () => {
    const posts = write(12, ['murmur', 'murmur', 'guildhall'], 6)
    const texts = posts.flatMap((p) => (p.wording ? [{ ...p, text: p.wording.text }] : []))
    expect(texts.length).toBeGreaterThan(10)
    expect(new Set(texts.map((t) => opening(t.text))).size).toBe(texts.length)
    for (const [i, a] of texts.entries())
      for (const b of texts.slice(i + 1).filter((x) => x.network === a.network))
        expect(likeness(a.text, b.text)).toBeLessThanOrEqual(LIKENESS_BOUND)
  })

  it('keeps away from what was said before it', () => {
    const first = write(12, ['murmur'], 4)
    const earlier = first.flatMap((p) =>
      p.wording ? [{ account: 'murmur-0', network: 'murmur', text: p.wording.text }] : [],
    )
    for (const post of write(12, ['murmur'], 4, { earlier }))
      for (const e of earlier)
        expect(likeness(post.wording?.text ?? '', e.text)).toBeLessThanOrEqual(LIKENESS_BOUND)
  })

  it('has other wordings that differ from the one it chose and from each other', () => {
    for (const post of write(12, ['murmur', 'guildhall'], 5)) {
      const all = [post.wording, ...post.others].flatMap((w) => w?.text ?? [])
      expect(new Set(all).size).toBe(all.length)
      expect(post.others.length).toBeLessThanOrEqual(6)
    }
  })

  it('closes with a line of the house once on a network, where its condition holds, and with none of ours', () => {
    const style = {
      ...PLAIN_HOUSE.style,
      closingLines: [
        { text: 'Who taught you to use yours?', where: ['kiln'] },
        { text: 'What flies where you are?', where: ['kite'] },
      ],
    }
    const texts = write(12, ['guildhall'], 8, { house: { ...PLAIN_HOUSE, style } }).flatMap(
      (p) => p.wording?.text ?? [],
    )
    const closed = texts.filter((t) => t.includes('Who taught you to use yours?'))
    expect(closed).toHaveLength(1)
    expect(closed[0]).toContain('kiln')
    for (const text of texts.filter((t) => !closed.includes(t))) expect(text).not.toContain('?')
  })

  it('takes turns with the pictures, and starts each account at another', () => {
    const { piece } = workshop(12)
    const images = [0, 1, 2].map((i) => ({
      url: `https://shop.example/${i}.png`,
      alt: '',
      caption: '',
      width: 900,
      height: 600,
      block: 0,
    }))
    const posts = write(12, ['shutterleaf', 'murmur'], 6, { piece: { ...piece, images } })
    const leaf = posts.filter((p) => p.network === 'shutterleaf' && p.wording).map((p) => p.picture)
    expect(leaf.slice(0, 4)).toEqual([0, 1, 2, 0].map((image) => ({ image })))
    const murmur = posts.filter((p) => p.network === 'murmur').map((p) => p.picture)
    expect(murmur.some((p) => p === null) && murmur.some((p) => p !== null)).toBe(true)
  })
})

describe('a piece that is a list', () => {
  const points = ['Dig before the frost', 'Plant on a dull day', 'Water at the root']
  const hedge = readWriting(
    `# Three rules for a hedge\n\n${points.map((p, i) => `## ${p}\n\n${CARE[i] ? `An old hedge ${CARE[i]}. Every hedge in our lane ${CARE[i + 1]}.` : ''}`).join('\n\n')}`,
    'hedge',
  )
  const drip = (change: object = {}): WrittenPost[] =>
    writeDrip({
      piece: hedge,
      passages: weighPassages(hedge).map((w) => w.passage),
      accounts: ['murmur', 'guildhall', 'hearthside'].map((id) => ({ id, network: id })),
      days: [0, 7],
      house: PLAIN_HOUSE,
      link: 'https://hedge.example/rules',
      seed: 1,
      ...change,
    })
  const lists = (posts: readonly WrittenPost[]): string[] =>
    posts.flatMap((p) => (p.wording?.text.includes('1. Dig before') ? [`${p.beat} ${p.account}`] : []))

  it('gives its points once, first, where there is room', () => {
    expect(lists(drip())).toEqual(['0 guildhall'])
    expect(drip()[1]).toMatchObject({ passage: null })
  })

  it('gives none where a passage was asked for', () => {
    expect(lists(drip({ whole: false }))).toEqual([])
  })
})

describe('whatever is written', () => {
  const SUBJECTS = [
    'The kiln',
    'A potter',
    'Wet clay',
    'Nobody',
    'My aunt',
    'Every glaze',
    'It',
    'Two of them',
  ]
  const VERBS = ['cracks', 'wants', 'does not like', 'was said to need', 'would have had', 'cost']
  const THINGS = [
    'a slow fire',
    '1,200 degrees',
    'the lid that came with it',
    'twelve hours (or more)',
    'no water',
    'a “steady hand”',
  ]
  const TAILS = [
    '.',
    '!',
    '?',
    ', because the shelf is cold.',
    '; the rest is luck.',
    ', which nobody told us, until June.',
    ': never less.',
    '',
  ]
  const sentence = fc
    .tuple(
      fc.constantFrom(...SUBJECTS),
      fc.constantFrom(...VERBS),
      fc.constantFrom(...THINGS),
      fc.constantFrom(...TAILS),
    )
    .map(([a, b, c, d]) => `${a} ${b} ${c}${d}`)
  const block = fc.oneof(
    { weight: 6, arbitrary: fc.array(sentence, { minLength: 1, maxLength: 6 }).map((s) => s.join(' ')) },
    {
      weight: 2,
      arbitrary: fc.constantFrom('## Before firing', '## Why does it crack?', '## Notes', '## 3. Cool it'),
    },
    {
      weight: 1,
      arbitrary: fc
        .array(sentence, { minLength: 2, maxLength: 4 })
        .map((s) => s.map((x) => `- ${x}`).join('\n')),
    },
    { weight: 1, arbitrary: fc.string({ minLength: 1, maxLength: 60 }).map((t) => t.replaceAll('#', '')) },
  )

  it('a paragraph’s last words are not told first where no full stop ends them', () => {
    const again = 'The kiln cracks a slow fire.'
    const blocks = [
      `Nobody cracks a slow fire. ${again} A potter does not like a slow fire`,
      again,
      again,
      `- ${again}\n- ${again}`,
    ]
    const piece = readWriting(
      `# Firing a kiln slowly\n\nA kiln is a slow oven.\n\n${blocks.join('\n\n')}`,
      'kiln',
    )
    const posts = writeDrip({
      piece,
      passages: weighPassages(piece).map((w) => w.passage),
      accounts: ['murmur', 'guildhall', 'shutterleaf'].map((id) => ({ id, network: id })),
      days: [0, 7, 14],
      house: PLAIN_HOUSE,
      link: 'https://kiln.example/fire',
      seed: 1,
    })
    for (const { wording } of posts) expect(wording?.text ?? '').not.toMatch(/slow fire (?=[A-Z])/)
  })

  it('no caption is over its limit, says what is not there, or cuts a sentence in two', () => {
    fc.assert(
      fc.property(
        fc.array(block, { minLength: 3, maxLength: 14 }),
        fc.integer({ min: 1, max: 99 }),
        (blocks, seed) => {
          const piece = readWriting(
            `# Firing a kiln slowly\n\nA kiln is a slow oven.\n\n${blocks.join('\n\n')}`,
            'kiln',
          )
          const found = weighPassages(piece).map((w) => w.passage)
          const posts = writeDrip({
            piece,
            passages: found,
            accounts: ['murmur', 'guildhall', 'shutterleaf', 'longwave', 'broadside'].map((id) => ({
              id,
              network: id,
            })),
            days: [0, 7, 14],
            house: PLAIN_HOUSE,
            link: 'https://kiln.example/fire',
            seed,
          })
          for (const { wording, network: id, checks } of posts) {
            if (!wording) continue
            for (const part of [wording.text, ...wording.parts])
              expect(measure(part, network(id).text)).toBeLessThanOrEqual(network(id).text.limit ?? Infinity)
            expect(checks.filter((c) => c.code === 'not-grounded')).toEqual([])
            expect(strangeSentences(wording.text, `${piece.title}\n${piece.text}`)).toEqual([])
          }
        },
      ),
      { numRuns: 25 },
    )
  })
})
