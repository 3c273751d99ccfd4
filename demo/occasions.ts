import type { Account, Brand, Occasion, Passage, Piece, Post, WholePiece } from '../core/model'
import {
  daysOfOccasion,
  plainOccasions,
  readOccasionDay,
  regionOf,
  ThemeIndex,
  themeOf,
  themeTexts,
  writeOccasion,
} from '../core/occasions'
import { singlePost } from '../core/pipeline'
import { addDays, isQuiet, placePosts } from '../core/planning'
import { Shelf } from '../core/shelf'

/** A made-up day of a brand's trade: its name, when it is, the words it is about, and lines that name it. */
type OwnDay = readonly [name: string, when: string, theme: string, lines: readonly string[]]

const OWN: Readonly<Record<string, readonly OwnDay[]>> = {
  'oakum-yard': [
    [
      'First Caulking Day',
      'first Monday of April',
      'caulk, seam, oakum, cotton, pitch',
      ['Today is First Caulking Day.', 'It is First Caulking Day on the slip.'],
    ],
    [
      'Sharpening Day',
      'first Monday of February',
      'sharp, sharpen, chisel, plane, blunt',
      ['Today is Sharpening Day: nothing else gets done until the tools cut.'],
    ],
    ['Steam Box Day', 'last Saturday of January', 'steam, frame, bend', ['Today is Steam Box Day.']],
    [
      'Launching Week begins',
      'second Monday of May',
      'launch, afloat, slip, tide',
      ['Launching Week begins today.'],
    ],
    [
      'Oar Day',
      'day 172 of the year',
      'oar, row, blade, leather',
      ['Today is Oar Day.', 'Oar Day: leave the engine be.'],
    ],
    [
      'Varnish Sunday',
      'third Sunday of June',
      'varnish, coat, damp, brush',
      ['Today is Varnish Sunday, if it stays dry.'],
    ],
    [
      'Rot Inspection Day',
      'first Saturday of October',
      'rot, rotten, screwdriver, bilge',
      ['Today is Rot Inspection Day. Bring a screwdriver.'],
    ],
    [
      'Lay-up Day',
      'last Friday of October',
      'lay up, winter, cover, drain',
      ['Today is Lay-up Day.', 'Lay-up Day: the boats come in.'],
    ],
    ['Larch Day', '12 November', 'larch, oak, plank, timber', ['Today is Larch Day.']],
    ['Founding of the yard', '17 March', 'yard, years, refit', ['The yard was founded on this day.']],
  ],
  fernhollow: [
    [
      'Hut Opening',
      'first Friday of May',
      'hut, warden, bunk, stove',
      ['The huts open today.', 'Hut Opening: the shutters come off today.'],
    ],
    [
      'Last Lamp',
      'last Sunday of October',
      'lamp, dark, evening, early',
      ['Last Lamp is tonight: the huts close for the winter.'],
    ],
    ['Blister Sunday', 'second Sunday of June', 'blister, sock, boot, heel', ['Today is Blister Sunday.']],
    [
      'Wardens’ Day',
      '1 July',
      'warden, hut, morning',
      ['Today is Wardens’ Day.', 'Wardens’ Day: say thank you.'],
    ],
    ['Packing Night', 'last Friday of April', 'pack, rucksack, weight, kilo', ['Tonight is Packing Night.']],
    [
      'Spring Water Day',
      'day 100 of the year',
      'water, spring, bottle, filter',
      ['Today is Spring Water Day.'],
    ],
    ['Cloud Watch', 'first Saturday of September', 'cloud, sky, wind, weather', ['Today is Cloud Watch.']],
    [
      'First Children’s Weekend',
      'third Saturday of May',
      'child, children, family',
      ['The first Children’s Weekend begins today.'],
    ],
    [
      'Turn-Back Day',
      '2 February',
      'turn back, summit, late, decide',
      ['Today is Turn-Back Day, for everybody who was wise enough.'],
    ],
  ],
}

/** The calendar of a brand: plain days and those of its own trade. */
export function calendarOf(brand: Brand, today: string, now: string, newId: () => string): Occasion[] {
  const own = (OWN[brand.id] ?? []).map(([name, when, theme, lines]) => ({
    name,
    on: readOccasionDay(when, today),
    theme: theme.split(', '),
    lines: [...lines],
  }))
  return [...own, ...plainOccasions(regionOf(brand.zone, today), brand.zone, today)].map((given) => ({
    id: newId(),
    brand: brand.id,
    ...given,
    make: null,
    again: false,
    missing: [],
    createdAt: now,
  }))
}

/** So many days from today on the first captions of the demo may be for. */
const SOON = { from: 12, to: 90 }

/** Writes the captions of the first occasion that comes soon, and notes on it how they were written. */
export async function writeFirst(
  occasions: readonly Occasion[],
  of: {
    now: string
    today: string
    brand: Brand
    accounts: readonly Account[]
    allAccounts: readonly Account[]
    allBrands: readonly Brand[]
    pieces: readonly WholePiece[]
    passages: readonly Passage[]
    standing: readonly Post[]
    newId: () => string
  },
): Promise<{ posts: Post[]; moved: Post[] }> {
  const { now, today, brand, accounts, pieces, passages, standing } = of
  const [from, to] = [addDays(today, SOON.from), addDays(today, SOON.to)]
  const [first] = occasions
    .flatMap((occasion) =>
      daysOfOccasion(occasion.on, brand.zone, from, to).map((day) => ({ occasion, day })),
    )
    .filter(({ day }) => !isQuiet(day, brand.quiet))
    .sort((a, b) => (a.day < b.day ? -1 : 1))
  if (!first) return { posts: [], moved: [] }
  const { occasion, day } = first
  const byId = new Map(pieces.map((p) => [p.id, p]))
  const index = new ThemeIndex(themeTexts(passages, byId))
  occasion.make = { accounts: accounts.map((a) => a.id), angle: null, reader: null }
  const { posts, moved, missing } = await writeOccasion(
    {
      now,
      brand,
      occasion,
      day,
      make: occasion.make,
      accounts,
      near: index.near(themeOf(occasion)),
      passages: new Map(passages.map((p) => [p.id, p])),
      pieces: byId as ReadonlyMap<string, Piece>,
      shelf: new Shelf({ passages, pieces, posts: standing, accounts: of.allAccounts, today }),
      standing,
    },
    {
      place: async (post, around, yielding) =>
        placePosts({
          now,
          accounts: of.allAccounts,
          brands: of.allBrands,
          standing: around,
          moving: [post, ...yielding],
          drips: [],
          pipelines: [],
        }),
      piece: async (id) => byId.get(id) as WholePiece,
      word: async (request) => singlePost({ ...request, newId: of.newId }),
    },
  )
  occasion.missing = missing
  return { posts, moved }
}
