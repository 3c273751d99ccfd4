import { expect, it } from 'vitest'
import {
  count,
  distance,
  longDay,
  moment,
  monthName,
  shortDay,
  weekdayName,
  withDays,
  zoneCity,
} from './time'
import { readTime } from './TimeField'

it('writes moments as a clock in the zone shows them', () => {
  expect(moment('2026-11-24T10:42:00.000Z', 'Europe/Lisbon')).toBe('Tue 24 Nov 10:42')
  expect(moment('2026-07-01T23:30:00.000Z', 'Europe/Lisbon')).toBe('Thu 2 Jul 00:30')
  expect(moment(Date.parse('2026-11-24T10:42:00.000Z'), 'Asia/Kolkata')).toBe('Tue 24 Nov 16:12')
})

it('says how far a moment lies from now, both ways', () => {
  const now = Date.parse('2026-11-24T10:00:00.000Z')
  const at = (minutes: number): string => distance(new Date(now + minutes * 60_000).toISOString(), now)
  expect([at(0), at(1), at(-30), at(90), at(-47 * 60), at(72 * 60)]).toEqual([
    'now',
    'in 1 minute',
    '30 minutes ago',
    'in 2 hours',
    '47 hours ago',
    'in 3 days',
  ])
})

it('counts with the right number of the noun', () => {
  expect([count(1, 'post'), count(0, 'post'), count(1200, 'post'), count(2, 'try', 'tries')]).toEqual([
    '1 post',
    '0 posts',
    '1,200 posts',
    '2 tries',
  ])
})

it('names days, months, weekdays and cities', () => {
  expect([shortDay('2026-02-03'), longDay('2026-02-03'), monthName('2026-02-03')]).toEqual([
    '3 Feb',
    '3 February',
    'February 2026',
  ])
  expect([weekdayName(1), weekdayName(7)]).toEqual(['Mon', 'Sun'])
  expect(zoneCity('America/Argentina/Buenos_Aires')).toBe('Buenos Aires')
})

it('understands a time of day as people type it, and nothing else', () => {
  expect(['9', '930', '9:30', '09.30', ' 17h06 ', '0000', '23:59'].map(readTime)).toEqual([
    '09:00',
    '09:30',
    '09:30',
    '09:30',
    '17:06',
    '00:00',
    '23:59',
  ])
  for (const text of ['', '24', '9:60', '12:345', 'noon', '-1']) expect(readTime(text)).toBeNull()
})

it('writes the dates of a sentence as people do', () => {
  expect(withDays('Wished for 2026-11-28, it stands 2 days later; 2026-12-01 was taken.')).toBe(
    'Wished for Sat 28 Nov, it stands 2 days later; Tue 1 Dec was taken.',
  )
  expect(withDays('The same picture stands there.')).toBe('The same picture stands there.')
})
