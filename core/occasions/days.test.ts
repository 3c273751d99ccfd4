import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Occasion, type OccasionDay } from '../model'
import { MONTHS, WEEKDAYS } from '../planning'
import {
  daysOfOccasion,
  nextDayOf,
  occasionText,
  occasionWords,
  plainOccasions,
  readOccasionDay,
  regionOf,
  REGIONS,
  sunTurn,
} from '.'

const TODAY = '2026-11-30'
const DAY = 86_400_000

/** Every date of some years. */
const datesOf = (from: number, to: number): string[] => {
  const dates: string[] = []
  for (let at = Date.UTC(from, 0, 1); at < Date.UTC(to + 1, 0, 1); at += DAY)
    dates.push(new Date(at).toISOString().slice(0, 10))
  return dates
}

describe('turns of the sun', () => {
  it('come when the tables of observatories have them', () => {
    // To the minute, as published for these years.
    for (const [turn, year, at] of [
      ['March equinox', 2026, '2026-03-20T14:46'],
      ['June solstice', 2026, '2026-06-21T08:24'],
      ['September equinox', 2026, '2026-09-23T00:05'],
      ['December solstice', 2026, '2026-12-21T20:50'],
      ['March equinox', 2020, '2020-03-20T03:50'],
      ['December solstice', 2023, '2023-12-22T03:27'],
    ] as const)
      expect(Math.abs(sunTurn(turn, year) - Date.parse(`${at}:00Z`)), `${turn} ${year}`).toBeLessThan(90_000)
    // Example 27.a of the source: JDE 2437837.39245, on whose scale the clocks of then stood 34 seconds behind.
    expect(Math.abs(sunTurn('June solstice', 1962) - Date.parse('1962-06-21T21:24:42Z'))).toBeLessThan(80_000)
  })

  it('are when the sun stands at a quarter of its way', () => {
    // The sun's apparent longitude of low accuracy (the same source, chapter 25), good to a hundredth of a degree.
    const longitude = (at: number): number => {
      const t = (at / DAY + 2440587.5 + 70 / 86400 - 2451545) / 36525
      const sine = (d: number): number => Math.sin((d * Math.PI) / 180)
      const mean = 280.46646 + 36000.76983 * t + 0.0003032 * t * t
      const m = 357.52911 + 35999.05029 * t - 0.0001537 * t * t
      const centre =
        (1.914602 - 0.004817 * t - 0.000014 * t * t) * sine(m) +
        (0.019993 - 0.000101 * t) * sine(2 * m) +
        0.000289 * sine(3 * m)
      const omega = 125.04 - 1934.136 * t
      return mean + centre - 0.00569 - 0.00478 * sine(omega)
    }
    for (let year = 1990; year <= 2060; year++)
      for (const [turn, quarter] of [
        ['March equinox', 0],
        ['June solstice', 90],
        ['September equinox', 180],
        ['December solstice', 270],
      ] as const) {
        const off = (((longitude(sunTurn(turn, year)) - quarter + 180) % 360) + 360) % 360
        expect(Math.abs(off - 180), `${turn} ${year}`).toBeLessThan(0.012)
      }
  })

  it('fall on the day that the zone’s clocks show', () => {
    expect(daysOfOccasion({ sun: 'December solstice' }, 'Europe/Lisbon', '2026-01-01', '2027-12-31')).toEqual(
      ['2026-12-21', '2027-12-22'],
    )
    // At 20:50 in Greenwich it is the next morning in Tokyo.
    expect(daysOfOccasion({ sun: 'December solstice' }, 'Asia/Tokyo', '2026-12-01', '2026-12-31')).toEqual([
      '2026-12-22',
    ])
  })
})

describe('changes of the clocks', () => {
  /** Hours that a zone's clocks stand ahead, read hour by hour out of what a formatter prints. */
  const byFormatter = (zone: string, year: number): Record<'forward' | 'back', string[]> => {
    const format = new Intl.DateTimeFormat('sv-SE', {
      timeZone: zone,
      dateStyle: 'short',
      timeStyle: 'medium',
    })
    const local = (at: number): number => Date.parse(`${format.format(at).replace(' ', 'T')}Z`)
    const days: Record<'forward' | 'back', string[]> = { forward: [], back: [] }
    for (let at = Date.UTC(year - 1, 11, 31); at < Date.UTC(year + 1, 0, 2); at += 1_800_000) {
      const jump = local(at + 1_800_000) - local(at) - 1_800_000
      // The day is that of the last moment before the change, unless the change stands at its very end.
      const day = new Date(local(at + 1_800_000 - 1000) + (jump > 0 ? 1000 : 0)).toISOString().slice(0, 10)
      if (jump !== 0 && day.startsWith(String(year))) days[jump > 0 ? 'forward' : 'back'].push(day)
    }
    return days
  }

  it('are those that a formatter shows, in zones of every kind', () => {
    for (const zone of [
      'Europe/Lisbon',
      'Europe/Dublin',
      'America/New_York',
      'Australia/Sydney',
      'Australia/Lord_Howe',
      'America/Santiago',
      'Africa/Cairo',
      'Asia/Tokyo',
    ]) {
      const shown = byFormatter(zone, 2027)
      for (const way of ['forward', 'back'] as const)
        expect(daysOfOccasion({ clocks: way }, zone, '2027-01-01', '2027-12-31'), `${zone} ${way}`).toEqual(
          shown[way],
        )
    }
  })
})

describe('days in words', () => {
  const daysOf = (words: string): string[] =>
    daysOfOccasion(readOccasionDay(words, TODAY), 'Europe/Lisbon', '2026-01-01', '2035-12-31')

  it('are the days that they say, year by year', () => {
    const all = datesOf(2026, 2035)
    const weekday = (date: string): string => WEEKDAYS[(new Date(date).getUTCDay() + 6) % 7] ?? ''
    const month = (date: string): string => MONTHS[Number(date.slice(5, 7)) - 1] ?? ''
    const day = (date: string): number => Number(date.slice(8))
    fc.assert(
      fc.property(
        fc.constantFrom(...MONTHS),
        fc.constantFrom(...WEEKDAYS),
        fc.constantFrom('first', 'second', 'third', 'fourth', 'last'),
        fc.integer({ min: 1, max: 28 }),
        (m, w, place, d) => {
          const named = all.filter((date) => weekday(date) === w && month(date) === m)
          const nth = ['first', 'second', 'third', 'fourth'].indexOf(place)
          const expected = named.filter((date) => {
            const same = named.filter((o) => o.slice(0, 4) === date.slice(0, 4))
            return date === (nth < 0 ? same.at(-1) : same[nth])
          })
          expect(daysOf(`${place} ${w} of ${m}`)).toEqual(expected)
          expect(daysOf(`every year on the ${d} ${m}`)).toEqual(
            all.filter((date) => month(date) === m && day(date) === d),
          )
        },
      ),
      { numRuns: 60 },
    )
    expect(daysOf('29 February')).toEqual(['2028-02-29', '2032-02-29'])
    expect(daysOf('last day of Feb').slice(0, 3)).toEqual(['2026-02-28', '2027-02-28', '2028-02-29'])
    expect(daysOf('day 60 of the year').slice(1, 3)).toEqual(['2027-03-01', '2028-02-29'])
    expect(daysOf('12-21').slice(0, 2)).toEqual(['2026-12-21', '2027-12-21'])
    expect(daysOf('2027-04-05 2028-04-03, 2027-04-05')).toEqual(['2027-04-05', '2028-04-03'])
    expect(daysOf('5 April 2027')).toEqual(['2027-04-05'])
    expect(daysOf('last Fri of May').slice(0, 2)).toEqual(['2026-05-29', '2027-05-28'])
    expect(daysOf('FREQ=YEARLY;INTERVAL=2;BYMONTH=3;BYDAY=2SU from 2027-01-01').slice(0, 2)).toEqual([
      '2027-03-14',
      '2029-03-11',
    ])
  })

  it('are read again as they are written', () => {
    const some = fc.oneof(
      fc.constantFrom<OccasionDay>(
        { sun: 'June solstice' },
        { clocks: 'back' },
        { dates: ['2027-04-05'] },
        { dates: ['2027-04-05', '2028-04-03'] },
        { rule: 'FREQ=YEARLY;INTERVAL=3;BYMONTH=4;BYDAY=1MO', from: '2025-04-01' },
        { rule: 'FREQ=YEARLY;BYMONTH=4,10;BYMONTHDAY=1', from: '2026-01-01' },
        { rule: 'FREQ=YEARLY;BYMONTH=4;BYMONTHDAY=-3', from: '2026-01-01' },
        { rule: 'FREQ=MONTHLY;BYDAY=-1FR', from: '2026-01-01' },
        { rule: 'FREQ=YEARLY;BYYEARDAY=-1', from: '2026-01-01' },
      ),
      fc
        .record({ m: fc.integer({ min: 1, max: 12 }), d: fc.integer({ min: 1, max: 28 }) })
        .map(({ m, d }) => ({ rule: `FREQ=YEARLY;BYMONTH=${m};BYMONTHDAY=${d}`, from: '2026-01-01' })),
    )
    fc.assert(
      fc.property(some, (on) => {
        expect(readOccasionDay(occasionText(on), TODAY)).toEqual(on)
        expect(occasionWords(on)).not.toBe('')
      }),
    )
  })

  it('are refused with what would be read where they say no day', () => {
    for (const words of [
      '',
      'soon',
      '31 June',
      '32 May',
      'first Monday',
      'day 400 of the year',
      '2027-02-30',
    ])
      expect(() => readOccasionDay(words, TODAY), words).toThrow(/first Monday of April/)
    expect(() => readOccasionDay('FREQ=HOURLY', TODAY)).toThrow(/cannot be followed/)
    expect(() => readOccasionDay('FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30', TODAY)).toThrow(/names no day/)
    expect(() => readOccasionDay('FREQ=YEARLY;BYMONTH=4;BYDAY=1MO from then', TODAY)).toThrow(/2027-01-01/)
  })

  it('give the next day, however far it is', () => {
    const next = (words: string): string | null =>
      nextDayOf(readOccasionDay(words, TODAY), 'Europe/Lisbon', TODAY)
    expect(next('30 November')).toBe('2026-11-30')
    expect(next('29 November')).toBe('2027-11-29')
    expect(next('29 February')).toBe('2028-02-29')
    expect(next('2026-11-29')).toBeNull()
    expect(next('2026-11-30')).toBe('2026-11-30')
    // Both ends count.
    const dates = { dates: ['2026-12-01', '2026-12-24', '2026-12-31', '2027-01-01'] }
    expect(daysOfOccasion(dates, 'UTC', '2026-12-01', '2026-12-31')).toEqual(dates.dates.slice(0, 3))
  })
})

describe('the plain days that ship', () => {
  it('are whole occasions, and name what the day is on each half of the earth', () => {
    for (const region of REGIONS)
      for (const given of plainOccasions(region, 'Europe/Lisbon', TODAY))
        expect(() =>
          Occasion.parse({
            id: 'o',
            brand: 'b',
            make: null,
            again: false,
            missing: [],
            createdAt: '2026-11-30T00:00:00.000Z',
            ...given,
          }),
        ).not.toThrow()
    const month = (region: (typeof REGIONS)[number], name: string): string | undefined => {
      const given = plainOccasions(region, 'UTC', TODAY).find((o) => o.name === name)
      return given && nextDayOf(given.on, 'UTC', TODAY)?.slice(5, 7)
    }
    expect(month(REGIONS[0], 'Winter solstice')).toBe('12')
    expect(month(REGIONS[1], 'Winter solstice')).toBe('06')
    expect(month(REGIONS[0], 'Spring equinox')).toBe('03')
    expect(month(REGIONS[1], 'Spring equinox')).toBe('09')
    expect(month(REGIONS[0], 'First day of autumn')).toBe('09')
    expect(month(REGIONS[1], 'First day of autumn')).toBe('03')
    expect(month(REGIONS[1], 'First Monday of spring')).toBe('09')
    // The lines say which way the light goes.
    const lines = (region: (typeof REGIONS)[number], name: string): string =>
      plainOccasions(region, 'UTC', TODAY)
        .find((o) => o.name === name)
        ?.lines.join(' ') ?? ''
    for (const region of REGIONS) {
      expect(lines(region, 'Summer solstice')).toContain('longest day')
      expect(lines(region, 'Winter solstice')).toContain('shortest day')
      expect(lines(region, 'Autumn equinox')).toContain('nights are longer')
    }
  })

  it('leave the clocks away where nobody turns them, and know the half of the earth by them', () => {
    const clocks = (zone: string): number =>
      plainOccasions('north of the equator', zone, TODAY).filter((o) => 'clocks' in o.on).length
    expect(clocks('Europe/Dublin')).toBe(2)
    expect(clocks('Asia/Tokyo')).toBe(0)
    expect(regionOf('Europe/Dublin', TODAY)).toBe('north of the equator')
    expect(regionOf('Asia/Tokyo', TODAY)).toBe('north of the equator')
    expect(regionOf('Pacific/Auckland', TODAY)).toBe('south of the equator')
    expect(regionOf('America/Santiago', TODAY)).toBe('south of the equator')
  })
})
