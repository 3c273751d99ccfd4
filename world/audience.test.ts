import { describe, expect, it } from 'vitest'
import { NETWORKS, network } from '../core/networks'
import type { TRAITS } from './audience'
import {
  audienceOf,
  followersAt,
  measuresOf,
  shareSeen,
  tiredness,
  traitsOf,
  type Audience,
} from './audience'
import type { WorldPost } from './posts'
import { aWorldPost } from './testing/samples'

const HOUR = 3_600_000
const DAY = 24 * HOUR
/** A Monday, 0:00 in UTC. */
const MONDAY = Date.parse('2026-11-23T00:00:00Z')
const murmur = network('murmur')
const account = (id: string, change = {}) => ({
  id,
  network: 'murmur',
  handle: id,
  name: id,
  about: '',
  zone: 'UTC',
  targets: [],
  ...change,
})
/** A short word for a number. */
const named = (i: number): string => i.toString(26).replace(/\d/g, (d) => 'qrstuvwxyz'[Number(d)] ?? '')
const noClip = (): boolean => false
const post = (text: string, change: Partial<WorldPost> = {}): WorldPost =>
  aWorldPost(text, { text, at: MONDAY + 9 * HOUR, ...change })
const seen = (audience: Audience, p: WorldPost, earlier: WorldPost[] = [], days = 30, on = murmur): number =>
  measuresOf(audience, on, p, earlier, noClip, p.at + days * DAY).impressions ?? 0

describe('an audience', () => {
  it('is the same for the same seed and account, and another for others', () => {
    expect(audienceOf('s', account('a'))).toEqual(audienceOf('s', account('a')))
    const sizes = new Set(
      Array.from({ length: 40 }, (_, i) => audienceOf(`s${i % 20}`, account(i < 20 ? 'a' : 'b')).size),
    )
    expect(sizes.size).toBeGreaterThan(37)
  })

  it('has on average as many awake as it has, and fewest at night', () => {
    for (let i = 0; i < 50; i++) {
      const { awake } = audienceOf('s', account(`a${i}`))
      expect(awake).toHaveLength(168)
      expect(awake.reduce((sum, a) => sum + a, 0) / 168).toBeCloseTo(1, 9)
      const at = (hour: number): number => awake.filter((_, h) => h % 24 === hour).reduce((s, a) => s + a, 0)
      expect(at(3)).toBeLessThan(at(12))
    }
  })

  it('sees a post as many small steps summed up say, also over weeks', () => {
    const audience = audienceOf('s', account('a'))
    // A sum over hours, far into the future, with no series.
    const brute = (life: number, start: number, hours: number): number => {
      let sum = 0
      for (let h = 0; h < hours; h++)
        sum += (audience.awake[(start + h) % 168] ?? 0) * Math.exp(-h / life) * Math.min(1, hours - h)
      return sum
    }
    for (const life of [4, 22, 700])
      for (const hours of [0.5, 1, 30, 167, 168, 400, 2160.25]) {
        const from = MONDAY + 50 * HOUR
        const expected = brute(life, 50, hours) / brute(life, 50, 168 * 300)
        expect(shareSeen(audience, life, from, from + hours * HOUR)).toBeCloseTo(expected, 6)
      }
  })

  it('goes by the clock of its own zone', () => {
    const here = audienceOf('s', account('a'))
    const there = audienceOf('s', account('a', { zone: 'Asia/Tokyo' }))
    // Nine in the morning in Tokyo is midnight in UTC.
    expect(shareSeen(there, 5, MONDAY, MONDAY + HOUR)).toBeCloseTo(
      shareSeen(here, 5, MONDAY + 9 * HOUR, MONDAY + 10 * HOUR),
      9,
    )
  })
})

describe('what a network counts', () => {
  it('never falls, begins with nothing, and is what its profile names', () => {
    for (const on of NETWORKS)
      for (let i = 0; i < 6; i++) {
        const audience = audienceOf('s', account(`a${i}`, { network: on.id }))
        const p = post(`Why ${i} frames bend?`, {
          format: i % 2 ? 'story' : '',
          visibleFrom: MONDAY + i * 4 * HOUR,
        })
        const over = [0, 1, 2, 5, 9, 24, 50, 168, 700, 2160].map((h) =>
          measuresOf(audience, on, p, [], noClip, p.at + h * HOUR),
        )
        expect(Object.values(over[0] ?? {}).every((n) => n === 0)).toBe(true)
        for (const now of over) expect(Object.keys(now).sort()).toEqual([...on.measures].sort())
        for (const m of on.measures) {
          const line = over.map((o) => o[m] ?? -1)
          expect(line).toEqual([...line].sort((a, b) => a - b))
          // Nobody does anything with a post without seeing it.
          over.forEach((o) => expect(o[m]).toBeLessThanOrEqual(o.impressions ?? 0))
        }
      }
  })

  it('is no click where a link leads nowhere', () => {
    const audience = { ...audienceOf('s', account('a')), size: 100_000 }
    const clicks = (p: WorldPost): number =>
      measuresOf(audience, murmur, p, [], noClip, p.at + 9 * DAY).clicks ?? 0
    expect(clicks(post('Oak.'))).toBe(0)
    expect(clicks(post('Oak.', { link: 'https://a.example/oak' }))).toBeGreaterThan(10)
  })

  it('ends for a story after a day', () => {
    const audience = { ...audienceOf('s', account('a', { network: 'shutterleaf' })), size: 100_000 }
    const on = network('shutterleaf')
    const story = post('', { format: 'story' })
    expect(seen(audience, story, [], 30, on)).toBe(seen(audience, story, [], 1, on))
    expect(seen(audience, post(''), [], 30, on)).toBeGreaterThan(seen(audience, post(''), [], 1, on))
  })

  it('grows by what it likes: over many posts each liking shows as large as it is', () => {
    // No word is its subject.
    const audience = { ...audienceOf('s', account('a')), size: 1_000_000, subject: 2 }
    const texts: Partial<Record<(typeof TRAITS)[number], (i: number) => WorldPost>> = {
      question: (i) => post(`Does plank ${named(i)} bend? It does.`),
      number: (i) => post(`We bent 4 planks ${named(i)} at noon.`),
      quotation: (i) => post(`“Wet oak bends ${named(i)},” says the owner.`),
      poll: (i) => post(`Planks ${named(i)} bend.`, { poll: ['yes', 'no'] }),
      picture: (i) => post(`Planks ${named(i)} bend.`, { media: [{ id: `${i}`, alt: '' }] }),
    }
    const mean = (make: (i: number) => WorldPost): number => {
      let sum = 0
      for (let i = 1; i <= 800; i++) sum += Math.log(seen(audience, make(i)))
      return sum / 800
    }
    const plain = mean((i) => post(`Planks ${named(i)} bend.`))
    for (const [trait, make] of Object.entries(texts)) {
      expect(traitsOf(make(1), murmur, noClip)).toEqual([trait])
      const found = mean(make) - plain
      // Two means of 800 draws each with a spread of 0.3 differ by less than 0.045 in 99.7 of 100 cases.
      expect(Math.abs(found - Math.log(audience.likes[trait as (typeof TRAITS)[number]]))).toBeLessThan(0.06)
    }
  })

  it('is less where the same was said or shown before, and on a crowded day', () => {
    const words = 'Green oak bends without steam if you ask it slowly and keep it wet all day'
    const at = (days: number, change: Partial<WorldPost> = {}) =>
      aWorldPost(`b${days}`, {
        text: 'Something else was said that day about tar',
        at: MONDAY - days * DAY,
        ...change,
      })
    const p = aWorldPost('p', { text: words, at: MONDAY, media: [{ id: 'pic', alt: '' }] })
    expect(tiredness(p, [])).toBe(1)
    expect(tiredness(p, [at(3)])).toBe(1)
    // Ten days ago: of six tenths e^(-1/2) is left.
    expect(tiredness(p, [at(10, { text: `${words}, they say.` })])).toBeCloseTo(1 - 0.6 * Math.exp(-0.5), 9)
    expect(tiredness(p, [at(20, { media: [{ id: 'pic', alt: '' }] })])).toBeCloseTo(1 - 0.25 / Math.E, 9)
    expect(tiredness(p, [at(61, { text: words })])).toBe(1)
    expect(tiredness(p, [at(0.9), at(0.5), at(0.1)])).toBeCloseTo(1 / 1.6, 9)
    // What comes later takes nothing from it, nor does it itself.
    expect(tiredness(p, [p, at(-1, { text: words })])).toBe(1)
  })

  it('is less on a network where a link in the text costs reach', () => {
    const on = network('guildhall')
    const audience = { ...audienceOf('s', account('a', { network: 'guildhall' })), size: 1_000_000 }
    const bare = seen(audience, post('Oak bends.'), [], 30, on)
    const linked = seen(audience, post('Oak bends. https://a.example/'), [], 30, on)
    expect(linked / bare).toBeLessThan(0.95)
  })
})

describe('how many follow', () => {
  const born = MONDAY
  const posts = (count: number, from: number) =>
    Array.from({ length: count }, (_, i) => ({ at: from + i * DAY, target: null }))
  const at = (id: string, days: number, of: ReturnType<typeof posts>, place: string | null = null): number =>
    followersAt(audienceOf('s', account(id)), murmur, place, of, born, born + days * DAY)

  it('is its size when the world begins, whatever it posted before', () => {
    for (let i = 0; i < 20; i++) {
      const { size } = audienceOf('s', account(`a${i}`))
      expect(at(`a${i}`, 0, posts(200, born - 200 * DAY))).toBe(size)
    }
  })

  it('grows with what is posted, by those who see it, and less without', () => {
    for (let i = 0; i < 20; i++) {
      const { size, reach, moves } = audienceOf('s', account(`a${i}`))
      const [silent, posting] = [at(`a${i}`, 365, []), at(`a${i}`, 365, posts(365, born))]
      expect(Math.abs(silent - size * (1 + moves.come - moves.leave))).toBeLessThanOrEqual(1)
      // All but the last few posts have been seen by all who will.
      const won = 365 * size * reach * moves.win
      expect((posting - silent) / won).toBeGreaterThan(0.97)
      expect((posting - silent) / won).toBeLessThan(1.01)
      expect(at(`a${i}`, -100, posts(100, born - 100 * DAY))).toBeLessThan(size)
    }
  })

  it('is a part of it at each place', () => {
    const [page, group] = ['page', 'group'].map((p) => at('a', 0, [], p)) as [number, number]
    const { size } = audienceOf('s', account('a'))
    expect(page).not.toBe(group)
    for (const part of [page, group]) expect([part > 0.19 * size, part < 0.91 * size]).toEqual([true, true])
  })
})
