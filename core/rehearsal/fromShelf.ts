import { isShelfRow, type Account, type Pipeline, type Post, type ShelfRow } from '../model'
import { accountsOf, blankPost, nothingYet } from '../pipeline'
import { addDays, dayNumber, instantAt } from '../planning'
import { choicesFor, firstOf, Shelf, SHELF_PRIORITY, takenBy, wishesOf, type ShelfChoice } from '../shelf'
import { sieveContext } from '../sieve'
import type { RehearsalRequest } from './request'

/**
 * What the rows of pipelines would take from the shelf over a span, each post wished on its day and bound to the days on
 * which it may stand: from the passages that are there now, as they rest by then. Rules about words see the title alone.
 */
export function fromShelf(
  request: RehearsalRequest,
  pipelines: readonly Pipeline[],
  accounts: readonly Account[],
  standing: readonly Post[],
): Post[] {
  const mine = pipelines.filter(
    (p) => p.brand === request.brand && p.on && p.held === null && p.endedAt === null,
  )
  const rows = mine.flatMap((pipeline) =>
    pipeline.release.filter(isShelfRow).map((row) => ({ pipeline, row })),
  )
  if (rows.length === 0) return []
  const { passages, pieces, from, to } = request
  const shelf = new Shelf({ passages, pieces, posts: standing, accounts, today: from })
  const brand = request.brands.find((b) => b.id === request.brand)
  const passageDays = brand?.weights.passageDays ?? 0
  const zone = brand?.zone ?? 'UTC'
  const context = sieveContext({ now: request.now, zone, lists: [], sources: request.sources, pieces })
  // Rules about words see the title alone.
  const titles = pieces.map((p) => ({ ...p, text: '' }))
  const choiceOf = (row: ShelfRow): ShelfChoice => ({
    by: row.by,
    passageDays,
    takes: takenBy(row, titles, context),
    worth: request.worth,
  })
  const asked = rows.map(({ pipeline, row }) => ({ pipeline, row, choice: choiceOf(row) }))
  const made: Post[] = []
  for (let today = addDays(from, -1); today < to; today = addDays(today, 7))
    for (const { pipeline, row, choice } of asked)
      for (const account of accountsOf(row, accounts))
        for (const { day, from: first, until } of wishesOf(row, account.id, [...standing, ...made], today)) {
          if (day > to) continue
          const [item] = firstOf(choicesFor(shelf, account, day, choice), shelf, account, choice, 1)
          if (!item) continue
          shelf.take(item, account.id, dayNumber(day))
          made.push(
            blankPost(account, {
              id: ` from the shelf ${row.id} ${account.id} ${day} ${made.length}`,
              brand: pipeline.brand,
              pipeline: pipeline.id,
              piece: item.piece.id,
              passage: item.passage.id,
              shelf: { row: row.id, day },
              wording: nothingYet(`${row.id} ${account.id} ${day} ${made.length}`),
              wished: instantAt(day, '12:00', account.zone),
              earliest: first,
              latest: until,
              priority: SHELF_PRIORITY,
            }),
          )
        }
  return made
}
