import useSWR from 'swr'
import { quotable, textId, type Brand, type Passage, type Piece, type ShelfRow } from '../../core/model'
import { toWall } from '../../core/planning'
import { Shelf, takenBy, type ShelfChoice } from '../../core/shelf'
import { readsText, sieveContext } from '../../core/sieve'
import { nowIso } from './clock'
import { numberOf, useReadings, useRows } from './hooks'
import { passageWorth } from './results'
import { all, commit, one, patch } from './store'

/** The shelf of a brand, and what each passage earned where that is known. */
interface LaidOut {
  shelf: Shelf
  worth: ReadonlyMap<string, number>
}

/** What may be dripped again of a brand, as it stands now. */
export async function shelfOf({ id, zone }: Brand): Promise<LaidOut> {
  const [pieces, passages, posts, accounts, worth] = await Promise.all([
    all('pieces', 'brand', id),
    all('passages', 'brand', id),
    all('posts', 'brand', id),
    all('accounts', 'brand', id),
    passageWorth(id),
  ])
  const today = toWall(Date.parse(nowIso()), zone).date
  return { shelf: new Shelf({ passages, pieces, posts, accounts, today }), worth }
}

/** The shelf as a row sees it: what it takes of it, and in which order. */
export async function shelfFor(
  brand: Brand,
  row: Pick<ShelfRow, 'pieces' | 'by'>,
): Promise<{ shelf: Shelf; choice: ShelfChoice }> {
  const [{ shelf, worth }, pieces, lists, sources] = await Promise.all([
    shelfOf(brand),
    all('pieces', 'brand', brand.id),
    all('wordLists', 'brand', brand.id),
    all('sources', 'brand', brand.id),
  ])
  const context = sieveContext({ now: nowIso(), zone: brand.zone, lists, sources, pieces })
  const wanted = row.pieces.kind === 'that' && readsText(row.pieces.rules)
  const read = await Promise.all(
    pieces.map(async (piece) => ({ ...piece, text: wanted ? await wordsOf(piece) : '' })),
  )
  const takes = takenBy(row, read, context)
  return { shelf, choice: { by: row.by, passageDays: brand.weights.passageDays, takes, worth } }
}

/** The words of a piece. */
async function wordsOf({ id, revision }: Piece): Promise<string> {
  const words = await one('texts', textId(id, revision))
  return words ? quotable(words) : ''
}

/** What is worked out of a brand's rows, again whenever some of them change; undefined until then. */
function useWorkedOut<T>(brand: Brand, key: string, work: () => Promise<T>): T | undefined {
  const rows = [
    useRows('pieces', 'brand', brand.id),
    useRows('passages', 'brand', brand.id),
    useRows('posts', 'brand', brand.id),
    useRows('accounts', 'brand', brand.id),
  ]
  const numbers = [...rows.map((r) => r && numberOf(r)), useReadings(brand.id)]
  return useSWR(numbers.includes(undefined) ? null : ['shelf', key, numbers.join(' ')], work, {
    revalidateOnFocus: false,
    keepPreviousData: true,
  }).data
}

/** What may be dripped again of a brand; undefined while that is laid out. */
export function useShelf(brand: Brand): LaidOut | undefined {
  return useWorkedOut(brand, brand.id, () => shelfOf(brand))
}

/** The shelf as a row sees it (`shelfFor`); undefined while that is laid out. */
export function useShelfFor(
  brand: Brand,
  row: Pick<ShelfRow, 'pieces' | 'by'>,
): { shelf: Shelf; choice: ShelfChoice } | undefined {
  return useWorkedOut(brand, `${brand.id} ${JSON.stringify([row.pieces, row.by])}`, () =>
    shelfFor(brand, row),
  )
}

const SHELVED = { on: 'Put on the shelf', off: 'Take off the shelf', 'left to the rows': 'Leave to the rows' }

/** Puts passages on the shelf by hand, takes them off it, or leaves them to the rows again. */
export async function shelve(passages: readonly Passage[], how: keyof typeof SHELVED): Promise<void> {
  const [first] = passages
  if (!first) return
  const what = passages.length === 1 ? 'a passage' : `${passages.length} passages`
  await commit(
    { brand: first.brand, label: `${SHELVED[how]}: ${what}` },
    passages.map((p) =>
      patch('passages', p.id, ({ shelf: _, ...row }) =>
        how === 'left to the rows' ? row : { ...row, shelf: how },
      ),
    ),
  )
}
