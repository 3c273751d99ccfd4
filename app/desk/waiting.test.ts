import { describe, expect, it } from 'vitest'
import { aDrip, aPiece, aPipeline, aPost, aRow, anAccount, aSource } from '../../core/model/samples'
import type { Occasion } from '../../core/model'
import { waitingFor } from './waiting'

const now = Date.parse('2026-11-24T10:00:00.000Z')
type Rows = Parameters<typeof waitingFor>[0]
const rows = (change: Partial<Rows> = {}): Rows => ({
  posts: [],
  pipelines: [],
  pieces: [],
  accounts: [],
  sources: [],
  drips: [],
  occasions: [],
  now,
  zone: 'UTC',
  ...change,
})
const titles = (change: Partial<Rows>): string[] => waitingFor(rows(change)).map((w) => w.title)
const far = '2027-03-01T09:00:00.000Z'

describe('what waits for a person', () => {
  it('is nothing where everything runs', () => {
    const change = {
      accounts: [anAccount()],
      sources: [aSource({ lastVisit: { at: far, ok: true, message: '', newPieces: 0, notes: [] } })],
      pieces: [aPiece()],
      pipelines: [aPipeline()],
      drips: [aDrip()],
      posts: [aPost({ pipeline: 'pipeline', at: far, state: 'handed over' })],
    }
    expect(titles(change)).toEqual([])
  })

  it('leads to where a post stands: its drip’s sheet, or the Horizon for what was written by hand', () => {
    const review = { state: 'for review' as const, at: far, checks: [] }
    const byHand = aPost({ id: 'hand', drip: null, piece: null, ...review })
    const [line] = waitingFor(rows({ posts: [byHand] }))
    expect(line).toMatchObject({ to: '/horizon?post=hand&from=2027-03-01' })
    expect(line?.detail).toMatch(/^From 1 written by hand/)
    const ofDrip = aPost({ id: 'drip-post', ...review, at: '2027-02-01T09:00:00.000Z' })
    const [both] = waitingFor(rows({ posts: [byHand, ofDrip] }))
    expect(both).toMatchObject({ to: '/writing/drip?post=drip-post' })
    expect(both?.detail).toMatch(/^From 1 piece and 1 written by hand/)
    const day = aPost({ id: 'day', drip: null, occasion: { id: 'o', day: '2027-03-03' }, ...review })
    const [all] = waitingFor(rows({ posts: [byHand, ofDrip, day] }))
    expect(all?.detail).toMatch(/^From 1 piece, 1 for an occasion and 1 written by hand/)
    expect(waitingFor(rows({ posts: [day] }))[0]).toMatchObject({ to: '/writing/occasions?post=day' })
  })

  it('names a day of the calendar that is near, for which captions were written before and none now', () => {
    const occasion: Occasion = {
      id: 'o',
      brand: 'brand',
      name: 'Oiling day',
      on: { dates: ['2026-12-01', '2026-12-20', '2027-12-01'] },
      theme: [],
      lines: [],
      make: { accounts: ['one'], angle: null, reader: null },
      again: false,
      missing: [],
      createdAt: '2026-01-01T00:00:00.000Z',
    }
    const [line] = waitingFor(rows({ occasions: [occasion] }))
    expect(line).toMatchObject({
      title: '“Oiling day” is on 1 December and has no caption',
      detail: 'Captions were written for it before; for this day there are none.',
      to: '/writing/occasions',
    })
    const missing = [{ day: '2026-12-01', account: 'one', message: 'No passage is near it.' }]
    const soon = { ...occasion, id: 'p', name: 'Bell day', on: { dates: ['2026-12-03'] } }
    const [why] = waitingFor(rows({ occasions: [soon, { ...occasion, missing }] }))
    expect(why?.detail).toBe('No passage is near it. 1 more day until 8 December has none.')
    // Nobody asked for captions, or there are some, also where they were decided against.
    expect(titles({ occasions: [{ ...occasion, make: null }] })).toEqual([])
    const post = aPost({ drip: null, state: 'set aside', occasion: { id: 'o', day: '2026-12-01' } })
    expect(titles({ occasions: [occasion], posts: [post] })).toEqual([])
    // Today's day has gone, and one in three weeks is not near.
    expect(titles({ occasions: [{ ...occasion, on: { dates: ['2026-11-24', '2026-12-09'] } }] })).toEqual([])
  })

  it('names what a person has to publish by hand, and permissions that end within a week', () => {
    const held = { reason: 'Its time has come.', since: far }
    const hand = anAccount({ connector: 'hand' })
    const [line, ...rest] = waitingFor(
      rows({ accounts: [hand], posts: [aPost({ state: 'approved', held })] }),
    )
    expect(line).toMatchObject({ title: '1 post waits to be published by hand', action: 'Publish' })
    expect(rest.map((l) => l.title).filter((t) => /decision/.test(t))).toEqual([])
    const ending = (days: number) => ({
      accounts: [
        anAccount({
          connector: 'micropub',
          remoteId: 'https://a.example/',
          health: {
            state: 'linked' as const,
            since: far,
            message: '',
            endsAt: new Date(rows({}).now + days * 86_400_000).toISOString(),
          },
        }),
      ],
    })
    expect(titles(ending(8))).toEqual([])
    expect(titles(ending(6))).toEqual([expect.stringMatching(/^The permission for Murmur ends on /)])
    expect(waitingFor(rows(ending(6)))[0]?.here).toEqual({
      do: 'link',
      path: '/api/link/murmur/start?brand=brand&site=https%3A%2F%2Fa.example%2F',
    })
  })

  it('is nothing of an account that was ended', () => {
    const lost = {
      state: 'withdrawn' as const,
      since: far,
      message: 'The permission was withdrawn.',
      endsAt: null,
    }
    expect(titles({ accounts: [anAccount({ health: lost, endedAt: far })] })).toEqual([])
  })

  it('comes in order of urgency', () => {
    const lost = {
      state: 'withdrawn' as const,
      since: far,
      message: 'The permission was withdrawn.',
      endsAt: null,
    }
    const flag = { code: 'ages', severity: 'flag' as const, message: '“this year” ages.', words: 'this year' }
    const change = {
      accounts: [anAccount({ health: lost })],
      sources: [
        aSource({ lastVisit: { at: far, ok: false, message: 'It answered 404.', newPieces: 0, notes: [] } }),
      ],
      pieces: [aPiece(), aPiece({ id: 'stuck', title: 'A list', trouble: 'No passage stands alone.' })],
      pipelines: [aPipeline()],
      drips: [aDrip({ missing: [{ beat: 1, account: 'account', message: 'too thin' }] })],
      posts: [
        aPost({ id: 'failed', state: 'failed', failure: 'The text is too long.' }),
        aPost({ id: 'late', held: { reason: 'It came late.', since: far } }),
        aPost({ id: 'flagged', state: 'for review', checks: [flag] }),
        aPost({ id: 'plain', state: 'for review' }),
        aPost({ id: 'homeless', at: null }),
      ],
    }
    expect(titles(change)).toEqual([
      'Murmur lost its permission',
      'One post was refused',
      '1 post waits for a decision',
      'The journal could not be visited',
      '1 caption is flagged',
      '1 caption waits for a yes',
      '1 post has no place',
      'No drip could be made of “A list”',
      'A seam is thin',
      '“Journal” has run dry',
    ])
  })

  it('says what an account holds back, and leads to where it is mended', () => {
    const lost = { state: 'expired' as const, since: far, message: 'The token has expired.', endsAt: null }
    const [line] = waitingFor(
      rows({
        accounts: [anAccount({ health: lost })],
        posts: [aPost(), aPost({ id: 'p2', state: 'handed over' })],
      }),
    )
    expect(line).toMatchObject({
      detail: '@the.yard: The token has expired. 2 posts are held back, nothing is lost.',
      action: 'Link again',
      to: '/dispatch/accounts',
    })
  })

  it('does not count a flag that somebody accepted', () => {
    const flag = { code: 'ages', severity: 'flag' as const, message: 'It ages.', words: 'now' }
    const accepted = [{ code: 'ages', words: 'now', at: far }]
    expect(titles({ posts: [aPost({ state: 'for review', checks: [flag], accepted })] })).toEqual([
      '1 caption waits for a yes',
    ])
  })

  it('takes a week from the shelf for enough, and says which piece the shelf has lost', () => {
    const by = {
      kind: 'shelf',
      posts: 1,
      per: 'week',
      order: 'the best first',
      restDays: 90,
      earned: null,
    } as const
    const pipelines = [aPipeline({ release: [aRow({ by })] })]
    const near = aPost({ pipeline: 'pipeline', state: 'approved', at: '2026-11-24T12:00:00.000Z' })
    expect(titles({ pipelines, posts: [near] })).toEqual([])
    expect(waitingFor(rows({ pipelines }))[0]?.to).toBe('/writing/shelf')
    const keeps = { span: 'months' as const, until: '2026-11-20', phrases: [], because: 'It names a price.' }
    const aged = { pipelines, pieces: [aPiece({ keeps })] }
    const out = aPost({ state: 'published', piece: 'piece', publishedAt: '2026-10-01T12:00:00.000Z' })
    const [line] = waitingFor(rows({ ...aged, posts: [near, out] }))
    expect(line).toMatchObject({
      title: '“A seam” has left the shelf',
      detail: 'It kept until 20 November. It names a price.',
    })
    expect(titles({ ...aged, posts: [near] })).toEqual([])
    expect(
      titles({ ...aged, pieces: [aPiece({ keeps: { ...keeps, until: '2026-11-09' } })], posts: [near, out] }),
    ).toEqual([])
    expect(
      titles({ ...aged, pieces: [aPiece({ keeps: { ...keeps, until: '2026-11-25' } })], posts: [near, out] }),
    ).toEqual([])
  })

  it('sees a pipeline run dry three weeks ahead, and only one that is on', () => {
    const soon = '2026-12-02T09:00:00.000Z'
    const posts = [aPost({ pipeline: 'pipeline', at: soon })]
    expect(titles({ pipelines: [aPipeline()], posts })).toEqual(['“Journal” runs dry on Wed 2 Dec'])
    expect(titles({ pipelines: [aPipeline({ on: false })], posts })).toEqual([])
  })
})
