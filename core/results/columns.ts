import { AGES, MEASURES, type Age, type Measure, type Measures } from '../model'

/** What was read of posts at each age; null where nothing came. */
type ReadAtAges = Partial<Record<Age, Measures | null>>

/** How a post stands at an age. */
const NOT_READ = 0
const MISSING = 1
const READ = 2

/**
 * Readings of many posts, a column for each age and measure with a row for each post: of 400,000 readings a database gives these in
 * two seconds, and a record for each in nine, both while a page reads its posts beside it.
 */
export interface Columns {
  /** What each row is of. */
  keys: string[]
  ages: {
    age: Age
    /** 0 where nothing was read, 1 where the measures are missing, 2 where they are there. */
    state: Uint8Array
    /** What was counted; NaN where nobody said. A measure that nobody said of any post has no column. */
    counted: { measure: Measure; values: Float64Array }[]
  }[]
}

/** Counts up whenever columns are made another way, so that older ones are made anew. */
export const COLUMNS_FORMAT = 1

/** Where somebody stands who reads a brand's readings in the order in which they were taken. */
export interface ReadUntil {
  /** When the latest of all brands' readings was taken by then. */
  takenAt: string
  /** How many of the brand's were taken before that moment, and how many at it. */
  before: number
  there: number
}

/** A brand's readings in columns, by its id, as a workspace keeps them beside the readings that they are made of. */
export interface KeptColumns {
  id: string
  /** Another one whenever readings that were there changed or went; what was made before that is not kept. */
  stamp: string
  /** Null where they have to be made anew. */
  made: { format: number; columns: Columns; read: ReadUntil } | null
}

/** Readings by what they are of, as columns; what has none has no row. */
export function toColumns(readings: ReadonlyMap<string, ReadAtAges>): Columns {
  const rows = [...readings].filter(([, read]) => Object.keys(read).length > 0)
  const ages = (Object.keys(AGES) as Age[]).map((age) => {
    const state = Uint8Array.from(rows, ([, read]) =>
      read[age] === undefined ? NOT_READ : read[age] === null ? MISSING : READ,
    )
    const counted = MEASURES.map((measure) => ({
      measure,
      values: Float64Array.from(rows, ([, read]) => read[age]?.[measure] ?? NaN),
    }))
    return { age, state, counted: counted.filter(({ values }) => values.some((v) => !Number.isNaN(v))) }
  })
  return {
    keys: rows.map(([key]) => key),
    ages: ages.filter(({ state }) => state.some((s) => s !== NOT_READ)),
  }
}

/** Hands every reading of some columns on, one after the other. */
export function eachOf(
  { keys, ages }: Columns,
  tell: (key: string, age: Age, measures: Measures | null) => void,
): void {
  for (const { age, state, counted } of ages)
    keys.forEach((key, row) => {
      if (state[row] === MISSING) tell(key, age, null)
      else if (state[row] === READ) {
        const measures: Measures = {}
        for (const { measure, values } of counted) {
          const value = values[row] ?? NaN
          if (!Number.isNaN(value)) measures[measure] = value
        }
        tell(key, age, measures)
      }
    })
}
