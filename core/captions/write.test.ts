import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Angle, FoundPassage, PieceContent, Voice } from '../model'
import { aWording } from '../model/samples'
import { measure, network } from '../networks'
import { weighPassages } from '../passages'
import { readWriting } from '../reading'
import { likeness, LIKENESS_BOUND, opening, originsOf, PLAIN_HOUSE, writeDrip, type WrittenPost } from '.'
import { briefOf } from './brief'
import { CLOSINGS } from './closings'
import { scoreWording } from './score'

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
    passages: passages.slice(0, beats),
    spare: passages.slice(beats),
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

  it('closes long posts with a question once each, the brand’s own first', () => {
    const own = 'Which of your tools is older than you?'
    const house = { ...PLAIN_HOUSE, style: { ...PLAIN_HOUSE.style, closingLines: [own] } }
    const texts = write(12, ['guildhall'], 8, { house }).flatMap((p) => p.wording?.text ?? [])
    const stock = new Set([own, ...Object.values(CLOSINGS).flat()])
    const closings = texts.flatMap((t) => t.split('\n').filter((line) => stock.has(line)))
    expect(closings).toContain(own)
    expect(new Set(closings).size).toBe(closings.length)
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
    expect(leaf.slice(0, 4)).toEqual([0, 1, 2, 0])
    const murmur = posts.filter((p) => p.network === 'murmur').map((p) => p.picture)
    expect(murmur.some((p) => p === null) && murmur.some((p) => p !== null)).toBe(true)
  })
})

describe('the score', () => {
  const profile = network('murmur')
  const passage = workshop(1).passages[0] as FoundPassage
  const score = (
    text: string,
    change: {
      framed?: boolean
      known?: boolean
      about?: boolean
      last?: Angle[]
      voice?: Partial<Voice>
    } = {},
  ): number =>
    scoreWording(aWording({ angle: 'lesson', text, spans: [{ start: passage.start, end: passage.end }] }), {
      draft: {
        angle: 'lesson',
        paragraphs: [text],
        spans: [],
        framed: change.framed ?? false,
        known: change.known ?? false,
        heading: null,
        opens: 'statement',
        lemmas: new Set(),
      },
      profile,
      brief: { ...briefOf(profile), voice: { ...PLAIN_HOUSE.style.voice, ...change.voice } },
      passage,
      about: change.about ?? true,
      before: (change.last ?? []).map((angle) => aWording({ angle, text: '' })),
    })
  const plain = 'An old lathe wants a drop of oil on the first day of every month, and a cover.'

  it('prefers what is particular, what hooks at a glance, and what is the piece’s own', () => {
    expect(score(`${plain} Use 30 grams.`)).toBeGreaterThan(score(`${plain} Use a little.`))
    const slow = `${'An old lathe that nobody has looked after '.repeat(4)}wants oil on the first day of every month.`
    expect(score(plain)).toBeGreaterThan(score(slow))
    expect(score(plain)).toBeGreaterThan(score(plain, { framed: true }))
    expect(score(plain)).toBeGreaterThan(score(plain, { known: true }))
  })

  it('prefers another angle than the account’s last one', () => {
    expect(score(plain)).toBeGreaterThan(score(plain, { last: ['story', 'lesson'] }))
    expect(score(plain, { last: ['story', 'lesson'] })).toBeGreaterThan(score(plain, { last: ['lesson'] }))
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
            passages: found.slice(0, 3),
            spare: found.slice(3),
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
            for (const { sentence: said, origin } of originsOf(wording.text, piece))
              expect([said, origin]).not.toEqual([said, null])
          }
        },
      ),
      { numRuns: 25 },
    )
  })
})
