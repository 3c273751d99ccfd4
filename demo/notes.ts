import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Account } from '../core/model'
import type { HandRow } from '../core/pipeline'
import { network } from '../core/networks'
import { toWall, type Random } from '../core/planning'

const DAY = 24 * 3_600_000
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
 * Notes as posts written by hand for one account, spread over days from today (those before it count less than nought) in an order
 * of its own (`turn`), at one hour or another and some with a picture. `pictures` are addresses with what is told of them. Where a
 * network asks for a picture each note has one, which gives the title where it asks for that; `home` is the link where it asks for one.
 */
export function noteRows(
  notes: readonly string[],
  account: Pick<Account, 'id' | 'network' | 'zone'>,
  of: {
    now: number
    from: number
    until: number
    turn: number
    pictures: readonly { url: string; alt: string }[]
    home: string
    random: Random
  },
): HandRow[] {
  const { now, random, pictures } = of
  const { media, title, link } = network(account.network)
  const apart = Math.floor((of.until - of.from) / notes.length)
  const today = toWall(now, account.zone).date
  const upTo = (count: number): number => Math.floor(random() * count)
  return notes.map((_, i): HandRow => {
    const at = now + (i * apart + upTo(apart) + of.from) * DAY
    const { date } = toWall(at, account.zone)
    const hour = HOURS.first + upTo(HOURS.last - HOURS.first + 1)
    const time = `${String(hour).padStart(2, '0')}:${random() < 0.5 ? '05' : '35'}`
    const shows = random() < SHOWN || media.pictures.least > 0
    const picture = shows ? (pictures[upTo(pictures.length)] ?? null) : null
    return {
      words: {
        title: title === null ? null : (picture?.alt ?? null),
        text: notes[(i + of.turn) % notes.length] ?? '',
        link: link.required ? of.home : null,
        picture,
      },
      accounts: [account.id],
      // What is still to come stands at an opening of its day.
      on: { date, time: date < today ? time : null },
      earliest: null,
      latest: null,
    }
  })
}
