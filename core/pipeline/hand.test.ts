import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { handPosts, wordsOf, type HandRequest, type HandRow } from '.'
import type { HandWords } from '../model'
import { aBrand, anAccount, aPost } from '../model/samples'
import { planOf } from '../planning'
import { brokenRules } from '../planning/testing/oracle'

const now = '2026-11-24T10:00:00.000Z'
const daily = [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({ weekday, at: '09:00' }))
const one = anAccount({ id: 'one', zone: 'UTC', slots: daily, gapMinutes: 60 })
const hall = anAccount({ id: 'hall', network: 'guildhall', zone: 'UTC', slots: daily })
const pictures = anAccount({ id: 'pictures', network: 'shutterleaf', zone: 'UTC', slots: daily })
const words: HandWords = { title: null, text: 'The kettle is on from ten.', link: null, picture: null }
const row = (change: Partial<HandRow> = {}): HandRow => ({
  words,
  accounts: ['one'],
  on: null,
  earliest: null,
  latest: null,
  ...change,
})
const made = (rows: HandRow[], change: Partial<HandRequest> = {}) => {
  let n = 0
  return handPosts({
    now,
    newId: () => `id-${n++}`,
    brand: aBrand({ quiet: [] }),
    rows,
    when: { kind: 'next openings' },
    recurrence: null,
    accounts: [one, hall, pictures],
    brands: [aBrand({ quiet: [] })],
    drips: [],
    pipelines: [],
    standing: [],
    ...change,
  })
}
const texts = ['First of all, tea.', 'Second, a chair by the stove.', 'Third: bring your own mallet.']
const several = texts.map((text) => row({ words: { ...words, text } }))
const waiting = aPost({
  id: 'waits',
  account: 'one',
  at: '2026-11-28T09:00:00.000Z',
  passage: null,
  piece: null,
  drip: null,
  wording: { ...aPost().wording, text: 'Something else altogether waits here.' },
})

describe('posts written by hand', () => {
  it('take the next openings in their order, and go out by themselves where nothing is against them', () => {
    const posts = made(several)
    expect(posts.map((m) => [m.row, m.post.at?.slice(0, 10), m.post.state])).toEqual([
      [0, '2026-11-25', 'approved'],
      [1, '2026-11-26', 'approved'],
      [2, '2026-11-27', 'approved'],
    ])
    expect(posts[0]?.post).toMatchObject({
      piece: null,
      drip: null,
      passage: null,
      pinned: false,
      wording: { by: 'person', angle: null, text: texts[0] },
    })
  })

  it('go behind what waits, and evenly over days', () => {
    expect(
      made(several, { when: { kind: 'behind what waits' }, standing: [waiting] }).map((m) =>
        m.post.at?.slice(0, 10),
      ),
    ).toEqual(['2026-11-29', '2026-11-30', '2026-12-01'])
    const spread = made(several, { when: { kind: 'spread', from: '2026-12-01', to: '2026-12-30' } })
    expect(spread.map((m) => m.post.at?.slice(0, 10))).toEqual(['2026-12-06', '2026-12-16', '2026-12-26'])
  })

  it('stand at their very moment and are pinned there', () => {
    const [post] = made([row({ on: { date: '2026-12-01', time: '13:37' } })]).map((m) => m.post)
    expect(post).toMatchObject({
      at: '2026-12-01T13:37:00.000Z',
      pinned: true,
      reasons: [{ code: 'by-hand' }],
    })
    const [same] = made([row({ on: { at: '2026-12-01T05:05:00.000Z' } })]).map((m) => m.post)
    expect(same?.at).toBe('2026-12-01T05:05:00.000Z')
  })

  it('stand beside a moment that a rule forbids, and say which', () => {
    const quiet = [aBrand({ quiet: [{ date: '2026-12-01' }] })]
    const [post] = made([row({ on: { date: '2026-12-01', time: '13:37' } })], { brands: quiet }).map(
      (m) => m.post,
    )
    expect(post?.pinned).toBe(false)
    expect(post?.at?.slice(0, 10)).toBe('2026-12-02')
    expect(post?.reasons[0]).toEqual({ code: 'quiet-day', message: '2026-12-01 is a quiet day.' })
  })

  it('on a day without a time take a slot of it, each account on its own clock', () => {
    const far = { ...hall, zone: 'Pacific/Auckland' }
    const posts = made([row({ accounts: ['one', 'hall'], on: { date: '2026-12-01', time: null } })], {
      accounts: [one, far],
    }).map((m) => m.post)
    expect(posts.map((p) => p.at)).toEqual(['2026-12-01T09:00:00.000Z', '2026-11-30T20:00:00.000Z'])
  })

  it('are sent now, also on a quiet day, but not over a limit', () => {
    const quiet = [aBrand({ quiet: [{ weekday: 2 }] })]
    const [sent] = made([row()], { when: { kind: 'now' }, brands: quiet }).map((m) => m.post)
    expect(sent).toMatchObject({ at: now, pinned: true, reasons: [{ code: 'now' }] })
    const near = { ...waiting, at: '2026-11-24T09:30:00.000Z' }
    const [kept] = made([row()], { when: { kind: 'now' }, standing: [near] }).map((m) => m.post)
    expect(kept?.at).toBe('2026-11-25T09:00:00.000Z')
    expect(kept?.reasons.map((r) => r.code)).toEqual(['gap', 'next-opening'])
  })

  it('keep within their days', () => {
    const bounded = row({ earliest: '2026-12-03', latest: '2026-12-03' })
    expect(made([bounded])[0]?.post.at).toBe('2026-12-03T09:00:00.000Z')
    const [nowhere] = made([{ ...bounded, latest: '2026-12-02', earliest: '2026-12-02' }], {
      brands: [aBrand({ quiet: [{ date: '2026-12-02' }] })],
    })
    expect(nowhere?.post.at).toBeNull()
  })

  it('have their link where each network takes it, with the house’s tags', () => {
    const linked = row({
      words: { ...words, link: 'https://yard.example/day' },
      accounts: ['one', 'hall'],
    })
    const house = aBrand().houseStyle
    const brand = aBrand({ houseStyle: { ...house, linkTags: [{ name: 'from', value: '{network}' }] } })
    const [short, long] = made([linked], { brand }).map((m) => m.post)
    expect(short?.wording.text).toBe(`${words.text}\n\nhttps://yard.example/day?from=murmur`)
    expect(short?.link).toBe('https://yard.example/day?from=murmur')
    expect(long?.wording.text).toBe(words.text)
    expect(long?.wording.firstComment).toBe('https://yard.example/day?from=guildhall')
    const said = row({
      words: { ...words, text: 'See https://yard.example/day, do.', link: 'https://yard.example/day' },
    })
    expect(made([said], { brand })[0]?.post.wording.text).toBe(
      'See https://yard.example/day?from=murmur, do.',
    )
  })

  it('wait for review where a network or the house is against them', () => {
    const [post] = made([row({ accounts: ['pictures'] })]).map((m) => m.post)
    expect(post?.state).toBe('for review')
    expect(post?.checks.map((c) => c.code)).toContain('no-media')
    expect(post?.checks.find((c) => c.code === 'no-media')?.message).toMatch(/this post has none/)
    const sibling = anAccount({ id: 'sibling', zone: 'UTC', slots: daily })
    const twins = made([row({ accounts: ['one', 'sibling'] })], { accounts: [one, sibling] })
    expect(twins.map((m) => m.post.checks.some((c) => c.code === 'same-words'))).toEqual([true, true])
  })

  it('of one recurring post may say the same each time', () => {
    const again = made([row(), row()], { recurrence: 'thursdays' }).map((m) => m.post)
    expect(again.map((p) => [p.state, p.recurrence])).toEqual([
      ['approved', 'thursdays'],
      ['approved', 'thursdays'],
    ])
    expect(made([row(), row()]).every((m) => m.post.state === 'for review')).toBe(true)
  })

  it('give their words back without what a network made of them', () => {
    const all = {
      ...words,
      link: 'https://yard.example/day',
      picture: { url: 'https://yard.example/x.png', alt: 'A kettle' },
    }
    const [post] = made([row({ words: all })]).map((m) => m.post)
    expect(post && wordsOf(post)).toEqual(all)
  })

  it('names whose its picture is where that has to be said, and takes it out of the words again', () => {
    const credit = { author: 'Ada Wren', from: 'The shed', licence: 'free', page: null, mustShow: true }
    const picture = { url: 'https://yard.example/x.png', alt: 'A kettle', credit }
    const [post] = made([row({ words: { ...words, picture } })]).map((m) => m.post)
    expect(post?.wording.text).toBe('The kettle is on from ten.\n\nPicture: Ada Wren, The shed')
    expect(post?.media[0]?.credit).toEqual(credit)
    expect(post && wordsOf(post)).toEqual({ ...words, picture })
    const free = { ...picture, credit: { ...credit, mustShow: false } }
    const [quiet] = made([row({ words: { ...words, picture: free } })]).map((m) => m.post)
    expect(quiet?.wording.text).toBe('The kettle is on from ten.')
  })
})

it('posts by hand, whatever is asked, break no hard rule unless a person named the moment', () => {
  const on: fc.Arbitrary<HandRow['on']> = fc.oneof(
    fc.constant(null),
    fc.record({
      date: fc.integer({ min: 1, max: 20 }).map((n) => `2026-12-${String(n).padStart(2, '0')}`),
      time: fc.option(fc.integer({ min: 0, max: 23 }).map((h) => `${String(h).padStart(2, '0')}:30`)),
    }),
  )
  const when: fc.Arbitrary<HandRequest['when']> = fc.constantFrom(
    { kind: 'next openings' },
    { kind: 'behind what waits' },
    { kind: 'spread', from: '2026-12-01', to: '2026-12-20' },
    { kind: 'now' },
  )
  fc.assert(
    fc.property(fc.array(on, { minLength: 1, maxLength: 12 }), when, (days, kind) => {
      const tight = { ...one, maxPerDay: 1, maxPerWeek: 4, gapMinutes: 600 }
      const brands = [aBrand({ quiet: [{ weekday: 7 }] })]
      const rows = days.map((d, i) => row({ on: d, words: { ...words, text: `Words of number ${i}` } }))
      const posts = made(rows, { when: kind, accounts: [tight], brands, standing: [waiting] }).map(
        (m) => m.post,
      )
      expect(posts).toHaveLength(rows.length)
      const all = [waiting, ...posts]
      const input = planOf({
        now,
        accounts: [tight],
        brands,
        drips: [],
        pipelines: [],
        standing: [],
        moving: all,
      })
      const free = new Set(posts.filter((p) => !p.pinned).map((p) => p.id))
      const broken = brokenRules(
        input,
        all.flatMap((p) => (p.at ? [{ id: p.id, at: p.at }] : [])),
      )
      expect(broken.filter((b) => free.has(b.split(':')[0] ?? ''))).toEqual([])
      // A named moment is kept to only where no limit forbids it, so two never crowd each other.
      for (const p of posts.filter((x) => x.pinned && kind.kind !== 'now'))
        expect(
          [...posts, waiting].filter((o) => o !== p && o.at?.slice(0, 10) === p.at?.slice(0, 10)),
        ).toEqual([])
    }),
    { numRuns: 150 },
  )
})
