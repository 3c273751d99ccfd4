import ICAL from 'ical.js'
import { describe, expect, it } from 'vitest'
import { aBrand, aPipeline, aPost, anAccount } from '../../core/model/samples'
import { dayNumber } from '../../core/planning'
import { planSheet, readChangedPlan } from './files'
import { calendarEntries, writeCalendar } from '../../core/formats'
import { boardOf, countMarks, nearestDay, NO_FILTER, passes } from './marks'

const now = Date.parse('2026-11-24T10:00:00.000Z')
const accounts = [
  anAccount({ id: 'west', zone: 'America/New_York' }),
  anAccount({ id: 'home', zone: 'Europe/Lisbon' }),
]
const posts = [
  aPost({ id: 'late', account: 'home', pipeline: 'pipeline', piece: 'b', at: '2026-12-01T09:00:00.000Z' }),
  aPost({ id: 'early', account: 'home', pipeline: null, piece: 'a', at: '2026-11-26T09:00:00.000Z' }),
  aPost({ id: 'night', account: 'west', pipeline: null, piece: 'a', at: '2026-11-26T03:30:00.000Z' }),
  aPost({ id: 'homeless', account: 'home', at: null, publishedAt: null }),
]
const rows = {
  posts,
  accounts,
  pipelines: [aPipeline()],
  pieces: new Map([
    ['a', { title: 'A seam' }],
    ['b', { title: 'A frame' }],
  ]),
  brand: aBrand(),
  now,
}

describe('the lanes', () => {
  it('of accounts keep their order, and every post stands at its account’s own day and time', () => {
    const { lanes, marks } = boardOf(rows, 'account')
    expect(lanes.map((l) => l.id)).toEqual(['west', 'home'])
    expect(marks.map((m) => [m.id, m.lane, m.day, m.time])).toEqual([
      ['night', 0, dayNumber('2026-11-25'), '22:30'],
      ['early', 1, dayNumber('2026-11-26'), '09:00'],
      ['late', 1, dayNumber('2026-12-01'), '09:00'],
    ])
    expect(lanes[1]?.slots.length).toBe(anAccount().slots.length)
  })

  it('of pipelines end with what was begun by hand, those of pieces begin with what comes next', () => {
    expect(boardOf(rows, 'pipeline').marks.map((m) => [m.id, m.lane])).toEqual([
      ['late', 0],
      ['night', 1],
      ['early', 1],
    ])
    expect(boardOf(rows, 'piece').lanes.map((l) => l.name)).toEqual(['A seam', 'A frame'])
  })
})

it('days without a post lead to the next that has one, and the last days to the one before', () => {
  const { marks } = boardOf(rows, 'account')
  const near = (date: string, days = 7) => nearestDay(marks, dayNumber(date), days)
  expect(near('2026-11-16')).toEqual({ day: dayNumber('2026-11-25'), later: true })
  expect(near('2026-11-27', 3)).toEqual({ day: dayNumber('2026-12-01'), later: true })
  expect(near('2026-12-07')).toEqual({ day: dayNumber('2026-12-01'), later: false })
  expect(nearestDay([], dayNumber('2026-12-07'), 7)).toBeNull()
})

it('a filter lets through what has all it names', () => {
  const shown = (filter: Partial<typeof NO_FILTER>) =>
    posts.filter((p) => passes(p, { ...NO_FILTER, ...filter })).map((p) => p.id)
  expect(shown({})).toHaveLength(4)
  expect(shown({ account: 'west' })).toEqual(['night'])
  expect(shown({ pipeline: 'by hand', piece: 'a' })).toEqual(['early', 'night'])
  expect(shown({ state: 'failed' })).toEqual([])
})

it('the calendar file holds the posts that have a moment and are not set aside', () => {
  const shown = [...posts, aPost({ id: 'aside', account: 'home', state: 'set aside' })]
  const file = writeCalendar('Oakum Yard', calendarEntries(shown, accounts), '2026-11-24T10:00:00.000Z')
  const events = new ICAL.Component(ICAL.parse(file) as never).getAllSubcomponents('vevent')
  expect(events.map((e) => e.getFirstPropertyValue('uid'))).toEqual([
    'night@dripline',
    'early@dripline',
    'late@dripline',
  ])
  expect(String(events[0]?.getFirstPropertyValue('summary'))).toMatch(/^Murmur @/)
})

it('the plan’s sheet comes back without a change, and what went out stays', () => {
  const shown = [
    ...posts,
    aPost({ id: 'out', account: 'home', state: 'published', at: '2026-11-20T09:00:00.000Z' }),
  ]
  const sheet = planSheet(shown, accounts)
  const encode = (text: string): Uint8Array => new TextEncoder().encode(text)
  expect(readChangedPlan(encode(sheet), shown, accounts)).toMatchObject({ changes: [], faults: [] })
  const moved = sheet.replaceAll('2026-12-01', '2026-12-02').replaceAll('2026-11-20', '2026-11-21')
  const { changes, faults } = readChangedPlan(encode(moved), shown, accounts)
  expect(changes).toEqual([{ id: 'late', at: '2026-12-02T09:00:00.000Z' }])
  expect(faults.map((f) => f.reason)).toEqual(['This post has gone out, or is set aside, so it stays.'])
})

describe('the year', () => {
  it('counts the posts of each day by the hue of their pipeline, and of each week', () => {
    // 30 November 2026 is a Monday.
    const monday = dayNumber('2026-11-30')
    const mark = (lane: number, day: number, hue: 'sky' | 'rose' | null) => ({ lane, day, hue })
    const { days, weeks } = countMarks([
      mark(0, monday, 'sky'),
      mark(0, monday, null),
      mark(0, monday, 'sky'),
      mark(0, monday - 1, 'rose'),
      mark(1, monday, 'rose'),
    ])
    expect(days.get(`0 ${monday}`)).toEqual([
      { hue: 'sky', posts: 2 },
      { hue: null, posts: 1 },
    ])
    expect(days.get(`1 ${monday}`)).toEqual([{ hue: 'rose', posts: 1 }])
    const week = Math.floor((monday + 3) / 7)
    expect([weeks.get(`0 ${week}`), weeks.get(`0 ${week - 1}`), weeks.get(`1 ${week}`)]).toEqual([3, 1, 1])
  })
})
