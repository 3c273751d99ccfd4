import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { handPosts, renewalOf, renewed } from '.'
import type { Post } from '../model'
import { aBrand, anAccount, aPost, aWording } from '../model/samples'

const now = '2026-11-24T10:00:00.000Z'
const daily = [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({ weekday, at: '09:00' }))
const one = anAccount({ id: 'one', zone: 'UTC', slots: daily })
const far = anAccount({ id: 'far', zone: 'Pacific/Auckland', slots: daily })
const words = { title: null, text: 'The kettle is on from ten.', link: null, picture: null }
const said = { words, accounts: ['one'], time: '18:30' as string | null }
const days = ['2026-11-25', '2026-12-02', '2026-12-09']
const standing = (occurrence: string, change: Partial<Post> = {}): Post =>
  aPost({
    id: `on ${occurrence}`,
    account: 'one',
    piece: null,
    drip: null,
    passage: null,
    recurrence: 'again',
    occurrence,
    wording: aWording({ text: 'The kettle is on from nine.' }),
    at: `${occurrence}T18:30:00.000Z`,
    wished: `${occurrence}T18:30:00.000Z`,
    ...change,
  })
const renewal = (posts: Post[], change: Partial<typeof said> = {}, asked = days, was = said) =>
  renewalOf(asked, { ...said, ...change }, was, { posts, accounts: [one, far], now })

describe('the days of a recurring post', () => {
  it('come to a post each on every account, but for what is over on that account’s clock', () => {
    const { rows, was } = renewal([], { accounts: ['one', 'far'], time: '20:00' }, ['2026-11-24', ...days])
    expect(rows.map((r) => [r.accounts[0], r.on])).toEqual([
      ['one', { date: '2026-11-24', time: '20:00' }],
      // It is 23:00 there already.
      ...days.flatMap((date) => ['one', 'far'].map((id) => [id, { date, time: '20:00' }])),
    ])
    expect(was.every((p) => p === null)).toBe(true)
  })

  it('name no account that was ended', () => {
    const ended = { ...one, endedAt: now }
    expect(renewalOf(days, said, null, { posts: [], accounts: [ended], now }).rows).toEqual([])
  })
})

describe('a recurring post that is changed', () => {
  it('writes its posts anew at the moments they have, also where one was moved to another day', () => {
    const moved = standing('2026-12-02', { at: '2026-12-04T09:00:00.000Z' })
    const { rows, was, gone } = renewal([standing('2026-11-25'), moved])
    expect(rows.map((r) => r.on)).toEqual([
      { at: '2026-11-25T18:30:00.000Z' },
      { at: '2026-12-04T09:00:00.000Z' },
      { date: '2026-12-09', time: '18:30' },
    ])
    expect(was.map((p) => p?.id)).toEqual(['on 2026-11-25', 'on 2026-12-02', undefined])
    expect(gone).toEqual([])
  })

  it('gives them another moment where the time of day changes, or where they had none', () => {
    expect(renewal([standing('2026-11-25')], { time: '08:00' }).rows[0]?.on).toEqual({
      date: '2026-11-25',
      time: '08:00',
    })
    expect(renewal([standing('2026-11-25', { at: null })]).rows[0]?.on).toEqual({
      date: '2026-11-25',
      time: '18:30',
    })
  })

  it('lets go what its days and accounts do not ask for any more', () => {
    const posts = [standing('2026-11-25'), standing('2026-11-30'), standing('2026-12-09', { account: 'far' })]
    expect(renewal(posts).gone.map((p) => p.id)).toEqual(['on 2026-11-30', 'on 2026-12-09'])
  })

  it('leaves alone what was edited, went out or was set aside, and does not write that again', () => {
    const posts = [
      standing('2026-11-25', { edited: true }),
      standing('2026-12-02', { state: 'set aside', at: null }),
      standing('2026-12-09', { state: 'published', publishedAt: now }),
      standing('2026-12-16', { edited: true }),
    ]
    const { rows, gone, edited } = renewal(posts)
    expect([rows, gone]).toEqual([[], []])
    expect(edited.map((p) => p.id)).toEqual(['on 2026-11-25', 'on 2026-12-16'])
  })

  it('writes every day and account once, and each post it had becomes one thing only', () => {
    const states: Post['state'][] = [
      'draft',
      'for review',
      'approved',
      'handed over',
      'published',
      'set aside',
    ]
    fc.assert(
      fc.property(
        fc.uniqueArray(
          fc.record({
            n: fc.integer({ min: 10, max: 30 }),
            state: fc.constantFrom(...states),
            edited: fc.boolean(),
            account: fc.constantFrom('one', 'far'),
          }),
          { selector: (p) => `${p.account} ${p.n}`, maxLength: 20 },
        ),
        fc.uniqueArray(fc.integer({ min: 10, max: 30 })),
        fc.subarray(['one', 'far'], { minLength: 1 }),
        fc.constantFrom(null, '08:00', '18:30'),
        (had, asked, accounts, time) => {
          const posts = had.map((p) => standing(`2026-12-${p.n}`, { ...p, id: `${p.account} ${p.n}` }))
          const made = renewal(
            posts,
            { accounts, time },
            asked.map((n) => `2026-12-${n}`),
          )
          const keys = made.rows.map(
            (r, i) => `${r.accounts[0]} ${made.was[i]?.occurrence ?? JSON.stringify(r.on)}`,
          )
          expect(new Set(keys).size).toBe(keys.length)
          const fates = [...made.was.flatMap((p) => p ?? []), ...made.gone, ...made.edited]
          expect(new Set(fates).size).toBe(fates.length)
          const open = posts.filter((p) => p.state !== 'published' && p.state !== 'set aside')
          expect(new Set(fates)).toEqual(new Set(open))
        },
      ),
      { numRuns: 200 },
    )
  })
})

describe('a post of a recurring one, written anew', () => {
  const made = (posts: Post[], change: Partial<typeof said> = {}) => {
    const asked = renewal(posts, change)
    let n = 0
    const fresh = handPosts({
      now,
      newId: () => `new ${n++}`,
      brand: aBrand({ quiet: [] }),
      rows: asked.rows,
      when: { kind: 'next openings' },
      recurrence: 'again',
      accounts: [one, far],
      brands: [aBrand({ quiet: [] })],
      drips: [],
      pipelines: [],
      standing: [],
    })
    return fresh.map((m) => renewed(m, asked))
  }

  it('keeps its id, its place and what it was handed over as, with the new words', () => {
    const before = standing('2026-12-02', {
      at: '2026-12-04T09:00:00.000Z',
      revision: 4,
      pinned: true,
      state: 'handed over',
      shortLink: 'https://s.example/1',
      reasons: [{ code: 'moved', message: 'A person moved it.' }],
    })
    const [, second] = made([standing('2026-11-25'), before])
    expect(second).toMatchObject({
      id: 'on 2026-12-02',
      at: '2026-12-04T09:00:00.000Z',
      occurrence: '2026-12-02',
      revision: 4,
      pinned: true,
      reasons: before.reasons,
      state: 'approved',
      shortLink: null,
      wording: { by: 'person', text: words.text },
    })
  })

  it('goes where another time of day puts it, and a new one knows its day', () => {
    const [first, second] = made([standing('2026-11-25')], { time: '12:15' })
    expect(first).toMatchObject({ id: 'on 2026-11-25', at: '2026-11-25T12:15:00.000Z' })
    expect(second).toMatchObject({
      id: 'new 1',
      occurrence: '2026-12-02',
      recurrence: 'again',
      edited: false,
    })
  })
})
