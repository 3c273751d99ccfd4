import { describe, expect, it } from 'vitest'
import { openPlaces, PlanInput } from '.'

const input = PlanInput.parse({
  now: '2026-11-24T10:00:00Z',
  accounts: [
    {
      id: 'a',
      network: 'murmur',
      zone: 'Europe/Lisbon',
      slots: [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({ weekday, at: '09:00' })),
      quiet: [{ date: '2026-11-27' }],
      maxPerWeek: 4,
    },
  ],
  posts: [
    {
      id: 'mine',
      account: 'a',
      picture: 'oak',
      wished: '2026-11-25',
      at: '2026-11-25T09:00:00Z',
      latest: '2026-12-01',
    },
    { id: 'other', account: 'a', picture: 'oak', wished: '2026-11-26', at: '2026-11-26T09:00:00Z' },
  ],
})

describe('the places of a post', () => {
  const places = openPlaces(input, 'mine', '2026-11-24', 10)

  it('tell of every opening whether it may go there, its own counted as free', () => {
    expect(places.map((p) => [p.date.slice(5), p.rule])).toEqual([
      ['11-24', 'past'],
      ['11-25', null],
      ['11-26', 'taken'],
      ['11-27', 'quiet day'],
      ['11-28', null],
      ['11-29', null],
      ['11-30', null],
      ['12-01', null],
      ['12-02', 'out of bounds'],
      ['12-03', 'out of bounds'],
    ])
    expect(places[1]?.at).toBe('2026-11-25T09:00:00.000Z')
    expect(places[3]?.against).toBe('is a quiet day')
  })

  it('name what the soft rules have against a free one', () => {
    expect(places[4]?.against).toMatch(/same picture/)
  })

  it('of a post that is gone are refused', () => {
    expect(() => openPlaces(input, 'gone', '2026-11-24', 1)).toThrow(/no longer there/)
  })
})
