import Papa from 'papaparse'
import { fromWall, toWall } from '../planning'
import { readClock, readDate, strokeOrder, type StrokeOrder } from '../planning'
import { parseSheet, type RowFault } from './sheet'

/** A post as a line of the plan's sheet. */
export interface PlanLine {
  id: string
  account: string
  network: string
  zone: string
  /** ISO 8601 in UTC, or null where it has no place. */
  at: string | null
  state: string
  text: string
}

/** A post that the sheet wants at another moment. */
export interface PlanChange {
  id: string
  /** ISO 8601 in UTC. */
  at: string
}

const COLUMNS = ['post', 'date', 'time', 'account', 'network', 'zone', 'state', 'text'] as const

/** The plan as CSV (RFC 4180), in the order of its moments; dates and times as the account's clock shows them. */
export function writePlanSheet(lines: readonly PlanLine[]): string {
  const rows = [...lines].sort(inTime).map((l) => {
    const wall = l.at ? toWall(Date.parse(l.at), l.zone) : null
    return [
      guarded(l.id),
      wall?.date ?? '',
      wall?.time ?? '',
      guarded(l.account),
      l.network,
      l.zone,
      l.state,
      guarded(l.text),
    ]
  })
  return `${Papa.unparse([[...COLUMNS], ...rows], { newline: '\r\n' })}\r\n`
}

/** Sorts by moment, then by id; what has no place comes last. */
export function inTime(a: Pick<PlanLine, 'at' | 'id'>, b: Pick<PlanLine, 'at' | 'id'>): number {
  const order = ({ at, id }: Pick<PlanLine, 'at' | 'id'>): string => `${at ?? '~'} ${id}`
  return order(a) < order(b) ? -1 : 1
}

/** A text that a spreadsheet would take for a formula gets an apostrophe before it. */
export function guarded(text: string): string {
  return /^[=+\-@\t\r]/.test(text) ? `'${text}` : text
}

/**
 * What a plan's sheet, changed in a spreadsheet, wants otherwise: posts whose date or time differs
 * from where they stand. Columns may come in any order; only `post` and `date` must be there.
 * Dates are read as 2026-12-04, 4.12.2026 or 4/12/2026 and times as 9:05, 09:05 or 9:05 pm. Which way
 * round those with strokes are is settled by the dates that the posts have (`strokeOrder`) unless `monthFirst`
 * says it; where it stays open nothing is taken. A line that cannot be read, or names no post that may move,
 * is a fault with its number; the others are taken. Refuses (`bad-file`) what is no table.
 */
export function readPlanSheet(
  bytes: Uint8Array,
  known: ReadonlyMap<string, { at: string | null; zone: string; movable: boolean }>,
  monthFirst: boolean | null = null,
): { changes: PlanChange[]; faults: RowFault[]; same: number; order: StrokeOrder } {
  const table = parseSheet(bytes)
  const column = (name: string): number => table.columns.findIndex((c) => c.trim().toLowerCase() === name)
  const post = column('post')
  const date = column('date')
  const time = column('time')
  const changes: PlanChange[] = []
  const faults: RowFault[] = [...table.faults]
  if (post < 0 || date < 0) {
    const missing = post < 0 ? 'post' : 'date'
    return {
      changes,
      faults: [
        { line: 1, reason: `There is no column “${missing}”. Keep the first line as it was given out.` },
      ],
      same: 0,
      order: { monthFirst: null, doubt: null },
    }
  }
  const idOf = (row: readonly string[]): string => (row[post] ?? '').trim().replace(/^'(?=[=+\-@])/, '')
  const settled = strokeOrder(
    table.rows.map((r) => r.cells[date] ?? ''),
    {
      zone: [...known.values()][0]?.zone ?? null,
      known: table.rows.map((r) => {
        const there = known.get(idOf(r.cells))
        return there?.at ? toWall(Date.parse(there.at), there.zone).date : null
      }),
    },
  )
  const order = monthFirst === null ? settled : { monthFirst, doubt: null }
  if (order.doubt !== null) return { changes, faults, same: 0, order }
  const american = order.monthFirst ?? false
  const seen = new Set<string>()
  let same = 0
  table.rows.forEach(({ line, cells: row }) => {
    const say = (reason: string): void => void faults.push({ line, reason })
    const id = idOf(row)
    const there = known.get(id)
    if (!there) return say(id ? `There is no post “${id}” in this brand.` : 'It names no post.')
    if (seen.has(id)) return say('This post stands in the sheet twice; the first line counts.')
    seen.add(id)
    const before = there.at ? toWall(Date.parse(there.at), there.zone) : null
    const wantedDate = row[date]?.trim() ?? ''
    const wantedTime = (time < 0 ? '' : (row[time]?.trim() ?? '')) || (before?.time ?? '12:00')
    if (!wantedDate) {
      if (before) say('The date is empty. A post cannot lose its place here; set it aside in Writing.')
      else same++
      return undefined
    }
    const day = readDate(wantedDate, american)
    if (!day) return say(`“${wantedDate}” is not a date. Write it like 2026-12-04.`)
    const clock = readClock(wantedTime)
    if (!clock) return say(`“${wantedTime}” is not a time. Write it like 09:05.`)
    if (before && before.date === day && before.time === clock) {
      same++
      return undefined
    }
    if (!there.movable) return say('This post has gone out, or is set aside, so it stays.')
    const at = fromWall(day, clock, there.zone)
    if (at === null) return say(`${day} has no ${clock} in ${there.zone}: the clocks go forward then.`)
    changes.push({ id, at: new Date(at).toISOString() })
    return undefined
  })
  return { changes, faults, same, order }
}
