import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Account } from '../core/model'
import type { HandRow } from '../core/pipeline'
import { toWall, type Random } from '../core/planning'

const DAY = 24 * 3_600_000
/** The last days before the demo begins, on which no note goes out. */
const QUIET = 4
/** Hours of the day between which notes go out, and how many of them show a picture. */
const HOURS = { first: 7, last: 21 }
const SHOWN = 0.4

/** Short notes of a brand's own, one a line of a file in `content`. */
export function readNotes(file: string): string[] {
  return readFileSync(join(import.meta.dirname, 'content', file), 'utf8')
    .trim()
    .split('\n')
}

/**
 * Notes as posts written by hand for one account, spread over so many days before `now` in an order of its own (`turn`), at one
 * hour or another and some with a picture. `pictures` are addresses with what is told of them.
 */
export function noteRows(
  notes: readonly string[],
  account: Pick<Account, 'id' | 'zone'>,
  of: {
    now: number
    days: number
    turn: number
    pictures: readonly { url: string; alt: string }[]
    random: Random
  },
): HandRow[] {
  const { now, random, pictures } = of
  const apart = Math.floor((of.days - QUIET) / notes.length)
  const upTo = (count: number): number => Math.floor(random() * count)
  return notes.map((_, i): HandRow => {
    const at = now + (i * apart + upTo(apart) - of.days) * DAY
    const hour = HOURS.first + upTo(HOURS.last - HOURS.first + 1)
    return {
      words: {
        title: null,
        text: notes[(i + of.turn) % notes.length] ?? '',
        link: null,
        picture: random() < SHOWN ? (pictures[upTo(pictures.length)] ?? null) : null,
      },
      accounts: [account.id],
      on: {
        date: toWall(at, account.zone).date,
        time: `${String(hour).padStart(2, '0')}:${random() < 0.5 ? '05' : '35'}`,
      },
      earliest: null,
      latest: null,
    }
  })
}
