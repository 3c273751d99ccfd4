import type { Occasion, OccasionDay } from '../model'
import { addDays, startOfDay } from '../planning'
import { daysOfOccasion } from './days'

/** The halves of the earth, whose seasons are turned round. */
export const REGIONS = ['north of the equator', 'south of the equator'] as const
export type Region = (typeof REGIONS)[number]

/** What an occasion is before it belongs to a brand. */
export type OccasionGiven = Pick<Occasion, 'name' | 'on' | 'theme' | 'lines'>

/** Spring, summer, autumn and winter: the words of each, and the month with which it begins by the weather calendar up north. */
const SEASONS = [
  {
    name: 'spring',
    month: 3,
    theme: [
      'in spring',
      'early spring',
      'late spring',
      'every spring',
      'each spring',
      'spring weather',
      'thaw',
      'in April',
      'bud',
      'sow',
      'seedling',
    ],
    opens: [
      'Spring begins today, by the weather calendar.',
      'First day of spring.',
      'It is spring, on paper at least.',
    ],
  },
  {
    name: 'summer',
    month: 6,
    theme: [
      'summer',
      'midsummer',
      'heat',
      'hot day',
      'hot weather',
      'in July',
      'in August',
      'in June',
      'sunny',
      'sunburn',
      'shade',
    ],
    opens: [
      'Summer begins today, by the weather calendar.',
      'First day of summer.',
      'It is summer, on paper at least.',
    ],
  },
  {
    name: 'autumn',
    month: 9,
    theme: [
      'autumn',
      'in September',
      'in October',
      'in November',
      'harvest',
      'fallen leaves',
      'fog',
      'mist',
      'storm',
      'first frost',
    ],
    opens: [
      'Autumn begins today, by the weather calendar.',
      'First day of autumn.',
      'It is autumn, on paper at least.',
    ],
  },
  {
    name: 'winter',
    month: 12,
    theme: [
      'winter',
      'frost',
      'snow',
      'ice',
      'freeze',
      'in December',
      'in January',
      'in February',
      'cold night',
      'cold weather',
    ],
    opens: [
      'Winter begins today, by the weather calendar.',
      'First day of winter.',
      'It is winter, on paper at least.',
    ],
  },
] as const

/** What the days are about on which the light turns. */
const LIGHT = ['daylight', 'dusk', 'dawn', 'sunrise', 'sunset', 'long evening', 'short day']

const ALSO: Readonly<Record<'longest' | 'shortest' | 'to light' | 'to dark', readonly string[]>> = {
  longest: [
    'Today is the longest day of the year.',
    'The summer solstice is today.',
    'No day of the year has more light than today.',
  ],
  shortest: [
    'Today is the shortest day of the year.',
    'The winter solstice is today: the longest night of the year.',
    'From tomorrow on the days grow longer again.',
  ],
  'to light': [
    'The spring equinox is today.',
    'From today the days are longer than the nights.',
    'Today day and night are about the same length, and the days go on growing.',
  ],
  'to dark': [
    'The autumn equinox is today.',
    'From today the nights are longer than the days.',
    'Today day and night are about the same length, and the nights go on growing.',
  ],
}

/**
 * Plain days of the year that belong to nobody, as they are called on one half of the earth: turns of the sun, first days of
 * seasons by the weather calendar, changes of the clocks where the zone has them, and the ends of the year.
 * @param today the local date, from whose year the days are counted
 */
export function plainOccasions(region: Region, zone: string, today: string): OccasionGiven[] {
  const turned = region === 'south of the equator' ? 2 : 0
  const season = (i: number): (typeof SEASONS)[number] =>
    SEASONS[(i + turned) % 4] as (typeof SEASONS)[number]
  const yearly = (parts: string): OccasionDay => ({
    rule: `FREQ=YEARLY;${parts}`,
    from: `${today.slice(0, 4)}-01-01`,
  })
  const given = (
    name: string,
    on: OccasionDay,
    theme: readonly string[],
    lines: readonly string[],
  ): OccasionGiven => ({
    name,
    on,
    theme: [...theme],
    lines: [...lines],
  })
  const [march, june, september, december] = [season(0), season(1), season(2), season(3)]
  const south = turned > 0
  const equinox = (s: { name: string }): string => `${capital(s.name)} equinox`
  const solstice = (s: { name: string }): string => `${capital(s.name)} solstice`
  const firstMonday = south ? 'BYMONTH=9;BYDAY=1MO' : 'BYMONTH=3;BYDAY=1MO'
  return [
    given(
      'New Year’s Day',
      yearly('BYMONTH=1;BYMONTHDAY=1'),
      ['new year', 'January', 'first step', 'begin', 'beginner', 'plan'],
      ['A new year begins today.', 'First day of the year.', 'Day one of the new year.'],
    ),
    given(
      'Leap day',
      yearly('BYMONTH=2;BYMONTHDAY=29'),
      ['extra day', 'rare', 'patience', 'once in'],
      ['Today is 29 February: one more day than most years have.', 'Leap day.'],
    ),
    given('First Monday of spring', yearly(firstMonday), SEASONS[0].theme, [
      'First Monday of spring.',
      'Spring has its first Monday today.',
    ]),
    ...SEASONS.map((s, i) =>
      given(
        `First day of ${s.name}`,
        yearly(`BYMONTH=${((s.month + (south ? 6 : 0) - 1) % 12) + 1};BYMONTHDAY=1`),
        s.theme,
        SEASONS[i]?.opens ?? [],
      ),
    ),
    given(
      equinox(march),
      { sun: 'March equinox' },
      [...march.theme, ...LIGHT],
      ALSO[south ? 'to dark' : 'to light'],
    ),
    given(
      solstice(june),
      { sun: 'June solstice' },
      [...june.theme, ...LIGHT],
      ALSO[south ? 'shortest' : 'longest'],
    ),
    given(
      equinox(september),
      { sun: 'September equinox' },
      [...september.theme, ...LIGHT],
      ALSO[south ? 'to light' : 'to dark'],
    ),
    given(
      solstice(december),
      { sun: 'December solstice' },
      [...december.theme, ...LIGHT],
      ALSO[south ? 'longest' : 'shortest'],
    ),
    ...(changesClocks(zone, today)
      ? [
          given('Clocks go forward', { clocks: 'forward' }, LIGHT, [
            'The clocks went forward this morning.',
            'An hour less of sleep, an hour more of evening light: the clocks have gone forward.',
          ]),
          given('Clocks go back', { clocks: 'back' }, LIGHT, [
            'The clocks went back this morning.',
            'An hour more of sleep, an hour less of evening light: the clocks have gone back.',
          ]),
        ]
      : []),
    given(
      'Last day of the year',
      yearly('BYMONTH=12;BYMONTHDAY=31'),
      ['end of the year', 'in December', 'the year', 'finish', 'look back'],
      ['Last day of the year.', 'The year ends today.'],
    ),
  ]
}

const capital = (word: string): string => word.charAt(0).toUpperCase() + word.slice(1)

/** Whether the clocks of a zone change within a year. */
function changesClocks(zone: string, today: string): boolean {
  return daysOfOccasion({ clocks: 'forward' }, zone, today, addDays(today, 366)).length > 0
}

/** On which half of the earth a zone is taken to lie: where clocks run ahead about the turn of the year, it is the southern one. */
export function regionOf(zone: string, today: string): Region {
  const year = today.slice(0, 4)
  const offset = (month: string): number =>
    Date.parse(`${year}-${month}-01T00:00:00Z`) - startOfDay(`${year}-${month}-01`, zone)
  return offset('01') > offset('07') ? REGIONS[1] : REGIONS[0]
}
