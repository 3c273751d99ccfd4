import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  addDays,
  clockMinutes,
  clockTime,
  daysBetween,
  fromWall,
  mondayOf,
  startOfDay,
  toWall,
  weekdayOf,
} from './zone'

const iso = (at: number | null): string | null => (at === null ? null : new Date(at).toISOString())

describe('fromWall', () => {
  it('reads a wall clock in winter and in summer', () => {
    expect(iso(fromWall('2026-01-15', '09:00', 'Europe/Berlin'))).toBe('2026-01-15T08:00:00.000Z')
    expect(iso(fromWall('2026-07-15', '09:00', 'Europe/Berlin'))).toBe('2026-07-15T07:00:00.000Z')
  })

  it('gives null for a time that summer time skips', () => {
    expect(fromWall('2026-03-29', '02:30', 'Europe/Berlin')).toBeNull()
    expect(fromWall('2026-03-08', '02:30', 'America/New_York')).toBeNull()
    expect(iso(fromWall('2026-03-29', '03:00', 'Europe/Berlin'))).toBe('2026-03-29T01:00:00.000Z')
  })

  it('takes the first of a doubled hour', () => {
    expect(iso(fromWall('2026-10-25', '02:30', 'Europe/Berlin'))).toBe('2026-10-25T00:30:00.000Z')
    expect(iso(fromWall('2026-11-01', '01:30', 'America/New_York'))).toBe('2026-11-01T05:30:00.000Z')
  })

  it('knows zones with odd offsets and southern summers', () => {
    expect(iso(fromWall('2026-06-01', '12:00', 'Asia/Kathmandu'))).toBe('2026-06-01T06:15:00.000Z')
    expect(fromWall('2026-10-04', '02:15', 'Australia/Lord_Howe')).toBeNull()
  })

  it('comes back to the same wall time wherever it exists', () => {
    fc.assert(
      fc.property(
        fc.integer({
          min: Date.parse('2020-01-01T00:00:00Z') / 60000,
          max: Date.parse('2035-01-01T00:00:00Z') / 60000,
        }),
        fc.constantFrom(
          'Europe/Lisbon',
          'America/New_York',
          'Asia/Kathmandu',
          'Pacific/Apia',
          'Australia/Sydney',
          'UTC',
        ),
        (minute, zone) => {
          const wall = toWall(minute * 60000, zone)
          const back = fromWall(wall.date, wall.time, zone)
          expect(back).not.toBeNull()
          // Only the second of a doubled hour comes back as the first.
          expect([0, 3_600_000, 1_800_000]).toContain(minute * 60000 - (back as number))
        },
      ),
    )
  })
})

describe('calendar arithmetic', () => {
  it('counts days across months and leap years', () => {
    expect(addDays('2028-02-28', 1)).toBe('2028-02-29')
    expect(daysBetween('2026-12-30', '2027-01-02')).toBe(3)
    expect(weekdayOf('2026-11-24')).toBe(2)
    expect(mondayOf('2026-11-29')).toBe('2026-11-23')
  })

  it('writes and reads times of day', () => {
    expect(clockTime(570)).toBe('09:30')
    expect(clockMinutes('23:59')).toBe(1439)
  })

  it('begins a day where midnight is skipped', () => {
    expect(iso(startOfDay('2026-03-29', 'Atlantic/Azores'))).toBe('2026-03-29T01:00:00.000Z')
  })
})
