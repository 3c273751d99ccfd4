import type { Post } from '../model'
import { describe, expect, it } from 'vitest'
import { aPost, anAccount } from '../model/samples'
import { laneFigures } from './figures'

const media = (url: string): Post['media'] => [
  { source: { from: 'address', url }, alt: '', shape: null, hash: null },
]
const on = (date: string, change: Parameters<typeof aPost>[0] = {}) =>
  aPost({ id: date, at: `${date}T09:00:00.000Z`, passage: date, media: [], ...change })

describe('the figures of an account', () => {
  const posts = [
    on('2026-11-20', { media: media('oak') }),
    on('2026-11-30', { media: media('oak') }),
    on('2026-12-02', { media: media('ash'), latest: '2026-12-31' }),
    on('2026-12-21', { media: media('oak'), passage: '2026-12-02' }),
    on('2026-12-22', { state: 'set aside' }),
  ]
  const figures = laneFigures(anAccount(), posts, '2026-11-30', '2026-12-27')

  it('count posts by the week, without what is set aside', () => {
    expect(figures).toMatchObject({ posts: 3, perWeek: 0.75, slots: anAccount().slots.length, gaps: 2 })
  })

  it('tell the longest silence, also at the ends', () => {
    expect(figures.silence).toEqual({ days: 18, after: '2026-12-02' })
    expect(laneFigures(anAccount(), [on('2026-12-30')], '2026-12-01', '2026-12-31').silence).toEqual({
      days: 29,
      after: null,
    })
    expect(laneFigures(anAccount(), [], '2026-12-01', '2026-12-31').silence).toEqual({
      days: 31,
      after: null,
    })
  })

  it('count what comes again within 30 days, also from before', () => {
    expect(figures.repeats).toEqual({ pictures: 2, passages: 1 })
    expect(figures.pictures).toBe(2)
  })

  it('count like pictures as one, under whichever address they come', () => {
    const like = (url: string, print: string): Post['media'] => media(url).map((m) => ({ ...m, print }))
    const again = [
      on('2026-12-01', { media: like('oak', '00000000ffffffff') }),
      on('2026-12-05', { media: like('oak-small', '00000000fffffffe') }),
      on('2026-12-09', { media: like('ash', 'ff00ff00ff00ff00') }),
    ]
    const told = laneFigures(anAccount(), again, '2026-11-30', '2026-12-27')
    expect([told.repeats.pictures, told.pictures]).toEqual([1, 2])
  })

  it('tell what keeps from what has a last day', () => {
    expect(figures.evergreen).toBeCloseTo(2 / 3)
  })

  it('count weeks with more than the account takes as crowded', () => {
    const many = ['2026-12-01', '2026-12-02', '2026-12-03'].map((d) => on(d))
    expect(laneFigures(anAccount({ maxPerWeek: 2 }), many, '2026-11-30', '2026-12-13').crowded).toBe(1)
  })
})
