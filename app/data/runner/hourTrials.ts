import type { Account, HourTrial, HourTrials, Post } from '../../../core/model'
import { addDays, clockMinutes, mondayOf, spanOf, toWall } from '../../../core/planning'
import { commitRecalled, happensIfMay } from '../actions/life'
import { isMovable, tryPlaces } from '../actions/plan'
import { clockNow } from '../clock'
import { drawnTrials } from '../results'
import { all, patch } from '../store'

/** So many days ahead trials are drawn: what is handed over sooner stays as it is. */
const AHEAD_DAYS = 14
/** So many days after its day a trial is still known. */
const KEPT_DAYS = 60

/** The last day for which an account's trials are to be drawn by now: the Sunday of the week that begins within reach. */
function wantedUntil({ zone }: Account): string {
  const reach = addDays(toWall(clockNow(), zone).date, AHEAD_DAYS)
  return addDays(mondayOf(reach), 6)
}

/** Draws the coming trials of accounts that try other hours, week by week, and moves what stands at the slots that they take. */
export async function drawHourTrials(): Promise<void> {
  for (const account of await all('accounts')) {
    const { hourTrials } = account
    if (!hourTrials || account.endedAt !== null) continue
    const until = wantedUntil(account)
    if ((hourTrials.until ?? '') >= until) continue
    await drawWeek(account, hourTrials, until)
  }
}

async function drawWeek(account: Account, before: HourTrials, until: string): Promise<void> {
  const monday = addDays(until, -6)
  const moves: Post[] = []
  let days = before.days.filter((t) => t.date >= addDays(until, -KEPT_DAYS - AHEAD_DAYS))
  for (const trial of await drawnTrials(account, before.share, monday)) {
    const tried = { ...account, hourTrials: { ...before, days: [...days, trial] } }
    const moved = await movedFor(tried, trial, moves)
    if (moved === null) continue
    days = [...days, trial]
    moves.push(...moved)
  }
  await commitRecalled('machine', moves, [
    patch('accounts', account.id, (a) =>
      // Who switched them off meanwhile is heard.
      a.hourTrials ? { ...a, hourTrials: { ...a.hourTrials, until, days } } : undefined,
    ),
    ...moves.map(({ id, at, reasons }) => happensIfMay(id, 'move', (p) => ({ ...p, at, reasons }))),
  ])
}

/**
 * The posts that stand at a trial's slot, where they would stand with it, on the same day each, beside what was moved for
 * other trials. Null where some cannot.
 */
async function movedFor(
  account: Account,
  { date, slot }: HourTrial,
  before: readonly Post[],
): Promise<Post[] | null> {
  const { from, to } = spanOf(slot)
  const moved = new Map(before.map((p) => [p.id, p]))
  const posts = (await all('posts')).map((p) => moved.get(p.id) ?? p)
  const here = posts.filter((p) => {
    if (p.account !== account.id || p.at === null || p.publishedAt !== null || p.state === 'set aside')
      return false
    const wall = toWall(Date.parse(p.at), account.zone)
    const minute = clockMinutes(wall.time)
    return wall.date === date && minute >= from && minute <= to
  })
  if (here.some((p) => !isMovable(p) || p.state === 'handed over')) return null
  const others = (await all('accounts')).filter((a) => a.id !== account.id)
  const placed = await tryPlaces(here, { accounts: [...others, account], posts })
  const stays = placed.every((p) => p.at !== null && toWall(Date.parse(p.at), account.zone).date === date)
  return stays ? placed : null
}

/** The next moment at which trials are drawn (ISO 8601 in UTC), or null where no account tries other hours. */
export async function nextDraw(): Promise<string | null> {
  const moments = (await all('accounts')).flatMap((a) =>
    a.hourTrials?.until && a.endedAt === null
      ? [`${addDays(a.hourTrials.until, 1 - AHEAD_DAYS)}T00:00:00.000Z`]
      : [],
  )
  return moments.sort()[0] ?? null
}
