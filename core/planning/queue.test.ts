import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { openPlaces, placeAsked, PlanInput, spreadOver } from '.'
import { brokenRules } from './testing/oracle'
import { anyInput, standing } from './testing/arbitrary'

const daily = [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({ weekday, at: '09:00' }))
const post = (id: string, at: string | null = null) => ({ id, account: 'a', wished: '2026-11-24', at })
const input = (posts: PlanInput['posts'], change: Partial<PlanInput['accounts'][number]> = {}) =>
  PlanInput.parse({
    now: '2026-11-24T10:00:00Z',
    accounts: [{ id: 'a', network: 'murmur', zone: 'UTC', slots: daily, ...change }],
    posts,
  })

describe('the next openings', () => {
  it('are taken in the order in which they are asked for, around what stands', () => {
    const stood = post('stands', '2026-11-26T09:00:00Z')
    const places = placeAsked(
      input([stood, post('x'), post('y'), post('z')], { quiet: [{ date: '2026-11-27' }] }),
      [{ id: 'y' }, { id: 'x' }, { id: 'z' }],
    )
    expect(places.map((p) => [p.id, p.at?.slice(0, 10)])).toEqual([
      ['y', '2026-11-25'],
      ['x', '2026-11-28'],
      ['z', '2026-11-29'],
    ])
    expect(places[0]?.reasons).toEqual([
      { code: 'next-opening', message: '2026-11-25 was the next opening that was free.' },
    ])
  })

  it('begin after a moment where one is given, and within the post’s days', () => {
    const bounded = { ...post('x'), earliest: '2026-12-03' }
    expect(placeAsked(input([bounded]), [{ id: 'x', after: '2026-12-01T09:01:00Z' }])[0]?.at).toMatch(
      /^2026-12-03/,
    )
    expect(placeAsked(input([post('x')]), [{ id: 'x', after: '2026-12-01T09:01:00Z' }])[0]?.at).toMatch(
      /^2026-12-02/,
    )
  })

  it('are none where no slot is, and it is said what to do', () => {
    const [place] = placeAsked(input([post('x')], { slots: [] }), [{ id: 'x' }])
    expect(place).toEqual({
      id: 'x',
      at: null,
      reasons: [{ code: 'no-slot', message: 'The account has no slots: give it at least one.' }],
    })
    const [late] = placeAsked(input([{ ...post('x'), latest: '2026-11-24' }]), [{ id: 'x' }])
    expect(late?.at).toBeNull()
    expect(late?.reasons.at(-1)).toEqual({
      code: 'room',
      message: 'Let it go out up to 1 day later: 2026-11-25 is free.',
    })
    const bounded = { ...post('x'), latest: '2026-11-27' }
    const [behind] = placeAsked(input([bounded]), [{ id: 'x', after: '2026-12-01T09:00:00.000Z' }])
    expect(behind?.reasons.map((r) => r.message)).toEqual([
      'What waits there already reaches beyond its last day, 2026-11-27.',
    ])
  })

  it('break no hard rule and leave no earlier one free, whatever stands', () => {
    fc.assert(
      fc.property(anyInput, (some) => {
        const stood = standing({ ...some, posts: some.posts.map((p) => ({ ...p, pinnedAt: null })) })
        const [asked, ...others] = stood.posts
        if (!asked) return
        const plan = PlanInput.parse({ ...stood, posts: [{ ...asked, at: null }, ...others] })
        const [place] = placeAsked(plan, [{ id: asked.id }])
        const found = [
          ...plan.posts.map((p) => ({
            id: p.id,
            at: p.id === asked.id ? (place?.at ?? null) : (p.at ?? null),
          })),
        ]
        expect(brokenRules(plan, found)).toEqual([])
        const first = openPlaces(plan, asked.id, '2026-03-24', 150).find((p) => p.at !== null)
        if (place?.at && first) expect(first.from <= place.at && place.at <= first.to).toBe(true)
      }),
      { numRuns: 60 },
    )
  })
})

describe('a very moment', () => {
  const ask = (at: string, posts: PlanInput['posts'] = [], change = {}) =>
    placeAsked(input([post('x'), ...posts], change), [{ id: 'x', at }])[0]

  it('is kept to also where no slot is', () => {
    expect(ask('2026-11-25T13:37:00Z')).toEqual({
      id: 'x',
      at: '2026-11-25T13:37:00.000Z',
      reasons: [{ code: 'by-hand', message: 'A person put it there.' }],
    })
  })

  it('is refused by the rule that stands in its way', () => {
    const taken = post('y', '2026-11-25T09:00:00Z')
    expect(ask('2026-11-24T09:00:00Z')?.reasons[0]?.code).toBe('past')
    expect(ask('2026-11-25T09:00:00Z', [taken])?.reasons[0]?.code).toBe('taken')
    expect(ask('2026-11-25T09:30:00Z', [taken], { gapMinutes: 60 })?.reasons[0]?.code).toBe('gap')
    expect(ask('2026-11-25T19:00:00Z', [taken], { maxPerDay: 1 })?.reasons[0]?.code).toBe('day-full')
    expect(ask('2026-11-25T19:00:00Z', [], { quiet: [{ weekday: 3 }] })?.reasons).toEqual([
      { code: 'quiet-day', message: '2026-11-25 is a quiet day.' },
    ])
  })

  it('on a quiet day is kept to by who says now', () => {
    const at = '2026-11-25T19:00:00Z'
    const plan = input([post('x')], { quiet: [{ weekday: 3 }] })
    expect(placeAsked(plan, [{ id: 'x', at, quietDays: true }])[0]?.at).toBe('2026-11-25T19:00:00.000Z')
  })

  it('goes before the openings of others that were asked for earlier', () => {
    const places = placeAsked(input([post('x'), post('y')]), [
      { id: 'x' },
      { id: 'y', at: '2026-11-25T09:00:00Z' },
    ])
    expect(places.map((p) => p.at?.slice(0, 10))).toEqual(['2026-11-26', '2026-11-25'])
  })
})

it('an even spread lies in the middles of equal parts', () => {
  expect(spreadOver(0, 100, 4)).toEqual([13, 38, 63, 88])
  expect(spreadOver(0, 100, 1)).toEqual([50])
  expect(spreadOver(0, 100, 0)).toEqual([])
})
