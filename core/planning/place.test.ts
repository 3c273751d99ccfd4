import { describe, expect, it } from 'vitest'
import { NO_LIMITS, type Account, type Post } from '../model'
import { aBrand, aDrip, aPipeline, aPost, anAccount } from '../model/samples'
import { placePosts, planOf, startDays } from '.'

const now = '2026-11-24T10:00:00.000Z'

describe('placing', () => {
  const accounts = [anAccount()]
  const place = (moving: Post[], standing: Post[] = []) =>
    placePosts({
      now,
      accounts,
      brands: [aBrand({ quiet: [{ date: '2026-11-26' }] })],
      standing,
      moving,
      drips: [aDrip()],
      pipelines: [],
    })

  it('leaves a place that another post takes, and keeps the brand’s quiet days', () => {
    const other = aPost({ id: 'other', piece: 'p2', at: '2026-11-25T09:00:00.000Z' })
    const [placed] = place([aPost({ at: null, wished: '2026-11-25T09:00:00.000Z' })], [other])
    expect(placed?.at).toBe('2026-11-25T17:00:00.000Z')
    const [quiet] = place([aPost({ at: null, wished: '2026-11-26T12:00:00.000Z' })])
    expect(quiet?.at?.slice(0, 10)).not.toBe('2026-11-26')
  })

  it('takes like pictures for one, under whichever address they come', () => {
    const shows = (id: string, print: string) =>
      aPost({
        id,
        at: '2026-11-25T09:00:00.000Z',
        media: [
          {
            source: { from: 'address', url: `https://a.example/${id}` },
            alt: '',
            shape: null,
            print,
            hash: null,
          },
        ],
      })
    const { posts } = planOf(
      {
        now,
        accounts,
        brands: [aBrand()],
        standing: [shows('a', '00000000ffffffff')],
        moving: [shows('b', '00000000fffffffe'), shows('c', 'ff00ff00ff00ff00')],
        drips: [],
        pipelines: [],
      },
      true,
    )
    const known = new Map(posts.map((p) => [p.id, p.picture]))
    expect(known.get('a')).toBe(known.get('b'))
    expect(known.get('c')).not.toBe(known.get('a'))
  })

  it('does not count what is set aside', () => {
    const aside = aPost({ id: 'aside', state: 'set aside', at: '2026-11-25T09:00:00.000Z' })
    const [placed] = place([aPost({ at: null, wished: '2026-11-25T09:00:00.000Z' })], [aside])
    expect(placed?.at).toBe('2026-11-25T09:00:00.000Z')
  })

  it('never moves what a person pinned', () => {
    const pinned = aPost({ at: '2026-11-29T03:33:00.000Z', pinned: true })
    expect(place([pinned])[0]).toMatchObject({ at: pinned.at, reasons: [{ code: 'pinned' }] })
  })

  it('keeps within the post’s own days, its drip’s end and its pipeline’s run window', () => {
    const wished = '2026-11-30T12:00:00.000Z'
    const bounded = (post: Partial<Post>, around: Partial<Parameters<typeof placePosts>[0]> = {}) =>
      placePosts({
        now,
        accounts,
        brands: [aBrand()],
        standing: [],
        moving: [aPost({ at: null, wished, drip: 'drip', pipeline: 'pipeline', ...post })],
        drips: [],
        pipelines: [],
        ...around,
      })[0]?.at?.slice(0, 10)
    expect(bounded({})).toBe('2026-11-30')
    expect(bounded({ latest: '2026-11-27' })).toBe('2026-11-27')
    expect(bounded({ earliest: '2026-12-02' })).toBe('2026-12-02')
    expect(bounded({}, { drips: [aDrip({ until: '2026-11-28', days: [6, 7] })] })).toBe('2026-11-28')
    const limits = { ...NO_LIMITS, from: '2026-12-03' }
    expect(bounded({}, { pipelines: [aPipeline({ limits })] })).toBe('2026-12-03')
  })

  it('keeps within the posts that a pipeline makes a day and a week, over all of its accounts', () => {
    const two = [anAccount({ id: 'a' }), anAccount({ id: 'b', network: 'guildhall' })]
    const days = (limits: Partial<typeof NO_LIMITS>): string[] =>
      placePosts({
        now,
        accounts: two,
        brands: [aBrand()],
        standing: [
          aPost({
            id: 'stands',
            account: 'b',
            network: 'guildhall',
            pipeline: 'pipeline',
            piece: 'old',
            drip: null,
            at: '2026-11-26T09:00:00.000Z',
          }),
        ],
        moving: ['x', 'y'].map((id) =>
          aPost({
            id,
            account: 'a',
            piece: id,
            drip: null,
            pipeline: 'pipeline',
            at: null,
            wished: '2026-11-26T12:00:00.000Z',
          }),
        ),
        drips: [],
        pipelines: [aPipeline({ limits: { ...NO_LIMITS, ...limits } })],
      })
        .map((p) => p.at?.slice(0, 10) ?? 'nowhere')
        .sort()
    expect(days({})).toEqual(['2026-11-26', '2026-11-26'])
    expect(days({ aDay: 2 })[0]).toBe('2026-11-26')
    expect(days({ aDay: 2 })[1]).not.toBe('2026-11-26')
    const [first = '', second = ''] = days({ aDay: 1 })
    expect([first, second]).not.toContain('2026-11-26')
    expect(first).not.toBe(second)
    // 26 November 2026 is a Thursday: of that week one place is left, and the next is another week's.
    const weekly = days({ aWeek: 2 })
    expect(weekly[0]).toBe('2026-11-26')
    expect((weekly[1] ?? '') >= '2026-11-30').toBe(true)
  })

  it('leaves the reasons of a post that stays', () => {
    const reasons = [{ code: 'moved', message: 'Wished for another day.' }]
    const stays = aPost({ at: '2026-11-25T09:00:00.000Z', reasons })
    expect(place([stays])[0]).toMatchObject({ at: stays.at, reasons })
  })

  it('warms a young account up by its network’s steps, or its own', () => {
    const young = (warmUp: Account['warmUp']) =>
      placePosts({
        now,
        accounts: [{ ...anAccount(), openedOn: '2026-11-24', maxPerDay: 4, warmUp }],
        brands: [aBrand()],
        standing: [],
        moving: ['a', 'b'].map((id) =>
          aPost({ id, piece: id, at: null, wished: '2026-11-25T12:00:00.000Z' }),
        ),
        drips: [],
        pipelines: [],
      }).map((p) => p.at?.slice(0, 10))
    expect(new Set(young([{ days: 7, postsPerDay: 1 }])).size).toBe(2)
    expect(new Set(young([])).size).toBe(1)
  })

  it('finds the start on which a drip collides least', () => {
    const standing = ['2026-11-25', '2026-11-26'].flatMap((date) =>
      ['09:00', '17:00'].map((time) =>
        aPost({ id: `${date} ${time}`, piece: `${date} ${time}`, at: `${date}T${time}:00.000Z` }),
      ),
    )
    const around = { now, accounts, brands: [aBrand()], standing, moving: [], drips: [], pipelines: [] }
    const drip = { accounts: [anAccount().id], days: [0, 1] }
    const starts = startDays(planOf(around, true), drip, '2026-11-25')
    expect(starts[0]?.day).toBe('2026-11-27')
    expect(starts.at(-1)?.day).not.toBe('2026-11-27')
    const free = startDays(planOf({ ...around, standing: [] }, true), drip, '2026-11-25')
    expect(free[0]?.day).toBe('2026-11-25')
  })

  it('keeps a beat after the one before it: it goes back at most half way', () => {
    const [placed] = place([aPost({ beat: 1, at: null, wished: '2026-11-28T12:00:00.000Z' })])
    expect((placed?.at ?? '') >= '2026-11-27').toBe(true)
  })
})
