import {
  Fault,
  isPieceRow,
  type Account,
  type FromPiece,
  type Keeps,
  type Pipeline,
  type Piece,
  type PieceRow,
  type ReleaseRow,
  type Rhythm,
  type SieveRule,
} from '../model'
import { addDays, beatDays, daysBetween, occurrences, readDate, rhythmWithin, ruleWords } from '../planning'
import { fieldOf, sieve, type SieveContext, type Sieved } from '../sieve'

/** The accounts of a row in the order of the brand's, each once; those that were ended are not among them. */
export function accountsOf(
  row: Pick<ReleaseRow, 'accounts' | 'groups'>,
  accounts: readonly Account[],
): Account[] {
  return accounts.filter(
    (a) =>
      a.endedAt === null && (row.accounts.includes(a.id) || a.groups.some((g) => row.groups.includes(g))),
  )
}

/** Every account to which a pipeline releases. */
export function releasedTo(pipeline: Pick<Pipeline, 'release'>, accounts: readonly Account[]): Account[] {
  const ids = new Set(pipeline.release.flatMap((row) => accountsOf(row, accounts).map((a) => a.id)))
  return accounts.filter((a) => ids.has(a.id))
}

/** Whether a row takes a piece, and why or why not, in a sentence. */
export interface RowVerdict {
  row: PieceRow
  takes: boolean
  reason: string
}

/** What every row of a release says of a piece that has come, in their order; rows that drip from the shelf take none. */
export function rowsFor(piece: Sieved, rows: readonly ReleaseRow[], context: SieveContext): RowVerdict[] {
  const verdicts: RowVerdict[] = []
  for (const row of rows.filter(isPieceRow)) {
    const { pieces } = row
    if (pieces.kind === 'all') verdicts.push({ row, takes: true, reason: 'It takes every piece.' })
    else if (pieces.kind === 'that') {
      const { passed, reason } = sieve(piece, pieces.rules, context)
      verdicts.push({ row, takes: passed, reason })
    } else {
      const taker = verdicts.find((v) => v.takes)?.row
      verdicts.push(
        taker
          ? { row, takes: false, reason: `Row ${rows.indexOf(taker) + 1} takes it.` }
          : { row, takes: true, reason: 'No row above takes it.' },
      )
    }
  }
  return verdicts
}

/** All rules that a pipeline holds pieces against: its sieve's and its rows'. */
export function rulesOf(pipeline: Pick<Pipeline, 'takeIn' | 'release'>): SieveRule[] {
  return [
    ...pipeline.takeIn.sieve,
    ...pipeline.release.flatMap(({ pieces }) => (pieces.kind === 'that' ? pieces.rules : [])),
  ]
}

/** The beats of a drip: their days, counted from the start day, and within how many hours the first must go out. */
export interface Beats {
  startDay: string
  rhythm: Rhythm
  hours: number | null
}

/** So far ahead the days of a rule are looked for. */
const RULE_DAYS = 1500

/**
 * The days on which a row's timing puts the posts of a piece that is released on `today` (a local date), none of
 * them after it has aged. Refuses (`bad-request`) with a sentence where no day is left.
 */
export function beatsOf(by: FromPiece, piece: Pick<Piece, 'fields' | 'keeps'>, today: string): Beats {
  const beats = daysOf(by, piece, today)
  // Nobody looks, so nothing of it may go out after it has aged.
  const rhythm = rhythmWithin(beats.rhythm, piece.keeps, beats.startDay)
  if (!rhythm) throw aged(piece.keeps)
  return { ...beats, rhythm }
}

function daysOf(by: FromPiece, { fields }: Pick<Piece, 'fields'>, today: string): Beats {
  const from = (name: string, list: number[]): Beats => ({
    startDay: today,
    rhythm: { name, list },
    hours: null,
  })
  switch (by.kind) {
    case 'rhythm':
      return { startDay: today, rhythm: by.rhythm, hours: null }
    case 'next openings':
      return from(
        'Next openings',
        Array.from({ length: by.posts }, (_, i) => i),
      )
    case 'soon':
      return { ...from('As soon as possible', [0]), hours: by.hours }
    case 'field': {
      const entry = fieldOf(fields, by.name)
      if (!entry) throw new Fault('bad-request', `it has no field called ${by.name}.`)
      const day = readDate(entry.trim(), false)
      if (!day) throw new Fault('bad-request', `its ${by.name}, “${entry}”, is no day that can be read.`)
      const list = by.before.map((n) => daysBetween(today, addDays(day, -n))).filter((n) => n >= 0)
      if (list.length === 0)
        throw new Fault('bad-request', `its ${by.name}, ${day}, leaves no day that is still to come.`)
      return from(
        `By its ${by.name}`,
        [...new Set(list)].sort((a, b) => a - b),
      )
    }
    case 'rule': {
      const days = occurrences(by.rule, today, null, addDays(today, RULE_DAYS)).slice(0, by.posts)
      if (days.length === 0) throw new Fault('bad-request', `“${ruleWords(by.rule)}” names no day to come.`)
      return from(
        ruleWords(by.rule),
        days.map((d) => daysBetween(today, d)),
      )
    }
  }
}

const aged = (keeps: Pick<Keeps, 'until'>): Fault =>
  new Fault('bad-request', `it kept until ${keeps.until ?? 'long ago'}, which has passed.`)

/** How many posts a row makes of a piece for each account at most. */
export function postsEach(by: FromPiece): number {
  switch (by.kind) {
    case 'rhythm':
      return beatDays(by.rhythm).length
    case 'field':
      return by.before.length
    case 'soon':
      return 1
    default:
      return by.posts
  }
}
