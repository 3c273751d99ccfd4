import { describe, expect, it } from 'vitest'
import { dayNumber } from '../../core/planning'
import {
  DAYS,
  LANE_HEIGHT,
  markAt,
  placeAt,
  spotsOf,
  visible,
  xOfDay,
  yOfTime,
  ZOOMS,
  type Mark,
  type View,
} from './geometry'

const start = dayNumber('2026-11-23')
const view = (zoom: View['zoom'], scroll = 0): View => ({ zoom, start, width: 700, scroll })
const mark = (id: string, day: number, minute: number, lane = 0): Mark => ({
  id,
  lane,
  day: start + day,
  minute,
})

describe('the board', () => {
  it('lays the days of every zoom over its width', () => {
    for (const zoom of ZOOMS) {
      expect(xOfDay(view(zoom), start)).toBe(0)
      expect(xOfDay(view(zoom), start + DAYS[zoom])).toBeCloseTo(700)
    }
  })

  it('runs the time of day up the lane, within it also at night', () => {
    const v = view('week')
    expect(yOfTime(v, 1, 18 * 60)).toBeLessThan(yOfTime(v, 1, 9 * 60))
    for (const minute of [0, 1439]) {
      expect(yOfTime(v, 1, minute)).toBeGreaterThan(yOfTime(v, 0, minute))
      expect(yOfTime(v, 0, minute)).toBeLessThan(46 + LANE_HEIGHT.week)
    }
  })

  it('lets drops of nearly one time step aside, and no others', () => {
    const marks = [mark('a', 1, 540), mark('b', 1, 545), mark('c', 1, 1080), mark('d', 2, 540)]
    const spots = spotsOf(view('week'), marks)
    expect(spots[1]!.x - spots[0]!.x).toBeGreaterThanOrEqual(24)
    expect(spots[2]!.x).toBe(spots[0]!.x)
    expect(spots[3]!.x - spots[0]!.x).toBeCloseTo(100)
  })

  it('finds the drop under the pointer, and the day and lane, also when scrolled', () => {
    const marks = [mark('a', 0, 540), mark('b', 3, 540, 1)]
    for (const scroll of [0, 40]) {
      const v = view('week', scroll)
      const spots = spotsOf(v, marks)
      expect(markAt(v, marks, spots, spots[1]!.x + 3, spots[1]!.y - 2)).toBe('b')
      expect(markAt(v, marks, spots, spots[1]!.x + 40, spots[1]!.y)).toBeNull()
      expect(placeAt(v, spots[1]!.x, spots[1]!.y)).toEqual({ day: start + 3, lane: 1 })
    }
  })

  it('stands the days of a week one below the other in a year', () => {
    const marks = [mark('mon', 0, 540), mark('sun', 6, 540), mark('next', 7, 540)]
    const [mon, sun, next] = spotsOf(view('year'), marks)
    expect(sun!.x).toBe(mon!.x)
    expect(sun!.y).toBeGreaterThan(mon!.y)
    expect(next!.x).toBeGreaterThan(mon!.x)
    expect(next!.y).toBe(mon!.y)
  })

  it('leaves out what it does not show', () => {
    const marks = [mark('before', -9, 0), mark('in', 3, 0), mark('after', 30, 0)]
    expect(visible(view('week'), marks).map((m) => m.id)).toEqual(['in'])
    expect(visible(view('season'), marks).map((m) => m.id)).toEqual(['in', 'after'])
  })
})
