import { describe, expect, it } from 'vitest'
import { PLAIN_MAKE, NO_LIMITS, type FromPiece } from '../model'
import { aBrand, anAccount, aPiece, aPipeline, aPost, aRow, aSource } from '../model/samples'
import { sieveContext } from '../sieve'
import { houseOf, briefOf } from '../house'
import { network } from '../networks'
import { accountsOf, beatsOf, isInReach, postsEach, releasedTo, rowsFor } from '.'
import { placeSoon } from './soon'

const now = '2026-11-24T10:00:00.000Z'
const context = sieveContext({ now, zone: 'UTC', lists: [], sources: [aSource()], pieces: [] })
const piece = (change: Parameters<typeof aPiece>[0] = {}) => ({ ...aPiece(change), text: '' })
const taken = (change: Parameters<typeof aPiece>[0], rows: Parameters<typeof aRow>[0][]) =>
  rowsFor(
    piece(change),
    rows.map((r, i) => aRow({ id: `${i + 1}`, ...r })),
    context,
  ).map((v) => [v.row.id, v.takes])
const that = (rule: object) => ({ pieces: { kind: 'that' as const, rules: [rule as never] } })
const rest = { pieces: { kind: 'rest' as const } }

describe('the rows of a release', () => {
  const rows = [
    that({ kind: 'kind', kinds: ['video'] }),
    that({ kind: 'tags', take: true, tags: ['news'] }),
    rest,
    { pieces: { kind: 'all' as const } },
  ]

  it('take a piece each for itself; the rest is what none above takes', () => {
    expect(taken({ kind: 'video', categories: ['News'] }, rows)).toEqual([
      ['1', true],
      ['2', true],
      ['3', false],
      ['4', true],
    ])
    expect(taken({ kind: 'article' }, rows)).toEqual([
      ['1', false],
      ['2', false],
      ['3', true],
      ['4', true],
    ])
  })

  it('say why', () => {
    const [video, , other] = rowsFor(
      piece({ categories: ['news'] }),
      rows.map((r, i) => aRow({ id: `${i}`, ...r })),
      context,
    )
    expect(video?.reason).toBe('It is an article.')
    expect(other?.reason).toBe('Row 2 takes it.')
    const shelf = aRow({
      id: 'shelf',
      by: { kind: 'shelf', posts: 1, per: 'week', order: 'the best first', restDays: 90, earned: null },
    })
    const below = rowsFor(piece(), [shelf, aRow({ id: 'all' }), aRow({ id: 'rest', ...rest })], context)
    expect(below.map((v) => [v.row.id, v.reason])).toEqual([
      ['all', 'It takes every piece.'],
      ['rest', 'Row 2 takes it.'],
    ])
  })

  it('go to the accounts they name and to those of their groups, each once, and to none that was ended', () => {
    const accounts = [
      anAccount({ id: 'a', groups: ['public'] }),
      anAccount({ id: 'b', groups: ['public', 'slow'] }),
      anAccount({ id: 'c' }),
      anAccount({ id: 'd', groups: ['public'], endedAt: now }),
    ]
    const row = aRow({ accounts: ['b'], groups: ['public'] })
    expect(accountsOf(row, accounts).map((a) => a.id)).toEqual(['a', 'b'])
    const pipeline = aPipeline({ release: [aRow({ accounts: ['c'] }), row] })
    expect(releasedTo(pipeline, accounts).map((a) => a.id)).toEqual(['a', 'b', 'c'])
  })
})

describe('the days of a row', () => {
  const today = '2026-11-24'
  const days = (by: FromPiece, change: Parameters<typeof aPiece>[0] = {}): number[] => {
    const { rhythm } = beatsOf(by, aPiece(change), today)
    return 'list' in rhythm ? rhythm.list : []
  }

  it('are those of its rhythm, the next ones, or those of a rule', () => {
    expect(days({ kind: 'rhythm', rhythm: { name: 'Echo', list: [0, 3] } })).toEqual([0, 3])
    expect(days({ kind: 'next openings', posts: 3 })).toEqual([0, 1, 2])
    // 24 November 2026 is a Tuesday: Thursdays are the 26th, 3rd and 10th.
    expect(days({ kind: 'rule', rule: 'FREQ=WEEKLY;BYDAY=TH', posts: 3 })).toEqual([2, 9, 16])
    expect(beatsOf({ kind: 'soon', hours: 3 }, aPiece(), today)).toMatchObject({ hours: 3 })
  })

  it('count back from the day that a field names, and leave out what has passed', () => {
    const by = { kind: 'field' as const, name: 'begins', before: [0, 7, 14] }
    expect(days(by, { fields: { 'event:begins': '4 December 2026' } })).toEqual([3, 10])
    expect(days(by, { fields: { begins: '2026-12-24T18:00' } })).toEqual([16, 23, 30])
    expect(() => days(by, { fields: {} })).toThrow('it has no field called begins')
    expect(() => days(by, { fields: { begins: 'soon' } })).toThrow('“soon”, is no day')
    expect(() => days(by, { fields: { begins: '2026-11-20' } })).toThrow('no day that is still to come')
  })

  it('end with what the piece says, and refuse what has aged', () => {
    const keeps = { span: 'weeks' as const, until: '2026-12-04', phrases: [] }
    expect(days({ kind: 'next openings', posts: 20 }, { keeps })).toHaveLength(11)
    expect(() => days({ kind: 'soon', hours: 2 }, { keeps: { ...keeps, until: '2026-11-01' } })).toThrow(
      'it kept until 2026-11-01',
    )
  })

  it('are as many as a row promises at most', () => {
    expect(
      (
        [
          { kind: 'rhythm', rhythm: { name: 'x', days: 280, beats: 8, thinning: 1.6 } },
          { kind: 'next openings', posts: 4 },
          { kind: 'soon', hours: 5 },
          { kind: 'field', name: 'x', before: [0, 7] },
          { kind: 'rule', rule: 'FREQ=DAILY', posts: 9 },
        ] as FromPiece[]
      ).map(postsEach),
    ).toEqual([8, 4, 1, 2, 9])
  })

  it('are written when they come within reach', () => {
    const near = (day: number, ahead: number | null): boolean =>
      isInReach({ startDay: today }, day, { limits: { ...NO_LIMITS, ahead } }, now)
    expect([near(30, 30), near(31, 30), near(900, null)]).toEqual([true, false, true])
    expect(isInReach({ startDay: today }, 900, null, now)).toBe(true)
  })
})

describe('a post as soon as possible', () => {
  const account = anAccount({ zone: 'UTC', slots: [{ weekday: 2, at: '12:30' }], gapMinutes: 60 })
  const soon = (hours: number, standing: ReturnType<typeof aPost>[] = [], at = now) =>
    placeSoon(
      {
        now: at,
        accounts: [account],
        brands: [aBrand({ quiet: [] })],
        drips: [],
        pipelines: [],
        standing,
        moving: [aPost({ at: null, wished: '2026-12-30T12:00:00.000Z', drip: null, piece: 'new' })],
      },
      hours,
    )[0]

  it('takes an opening within its hours, and without one the first moment that the limits allow', () => {
    expect(soon(3)).toMatchObject({ at: '2026-11-24T12:30:00.000Z', pinned: false })
    expect(soon(2)).toMatchObject({
      at: '2026-11-24T10:05:00.000Z',
      pinned: true,
      reasons: [{ code: 'soon' }],
    })
  })

  it('keeps the account’s gap and its number of posts a day', () => {
    const other = aPost({ id: 'other', at: '2026-11-24T10:10:00.000Z', piece: 'old', drip: null })
    expect(soon(2, [other])?.at).toBe('2026-11-24T11:10:00.000Z')
    expect(soon(1, [other])?.at).toBeNull()
    const full = [other, { ...other, id: 'second', at: '2026-11-24T20:00:00.000Z' }]
    expect(soon(2, full)?.at).toBeNull()
  })
})

describe('the house of a pipeline', () => {
  const murmur = network('murmur')

  it('goes by the pipeline’s briefs and angles, and by the brand’s where it has none', () => {
    const brief = { ...aBrand().briefs[0], network: 'murmur', angles: ['story', 'number'] } as never
    const brand = aBrand({ briefs: [brief] })
    const angles = (...wanted: string[]) => [
      ...(briefOf(murmur, houseOf(brand, { ...PLAIN_MAKE, angles: wanted as never })).angles ?? []),
    ]
    expect(angles()).toEqual(['story', 'number'])
    expect(angles('number', 'question')).toEqual(['number'])
    expect(angles('question')).toEqual(['question'])
    const own = { network: 'murmur', angles: ['lesson'] } as never
    expect([...(briefOf(murmur, houseOf(brand, { ...PLAIN_MAKE, briefs: [own] })).angles ?? [])]).toEqual([
      'lesson',
    ])
  })
})
