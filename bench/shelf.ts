import { aPassage, aPiece, aPost, anAccount, aWording } from '../core/model/samples'
import { NETWORKS } from '../core/networks'
import { addDays, seededRandom } from '../core/planning'
import { choicesFor, firstOf, Shelf, type ShelfChoice } from '../core/shelf'

const TODAY = '2026-11-30'
const PIECES = 20_000
const PASSAGES = 12
const POSTS = 50_000

/** Twenty thousand pieces of twelve passages each, with fifty thousand posts of two years on eighteen accounts. */
export function fullShelf(): Record<'lay' | 'choose', () => unknown> {
  const random = seededRandom(7)
  const some = (count: number): number => Math.floor(random() * count)
  const accounts = NETWORKS.flatMap((n) =>
    [1, 2].map((i) => anAccount({ id: `${n.id}-${i}`, network: n.id, zone: 'Europe/Lisbon' })),
  )
  const pieces = Array.from({ length: PIECES }, (_, i) => aPiece({ id: `piece ${i}` }))
  const passages = pieces.flatMap((piece) =>
    Array.from({ length: PASSAGES }, (_, k) =>
      aPassage({ id: `${piece.id} ${k}`, piece: piece.id, start: k * 100, end: k * 100 + 90 }),
    ),
  )
  const posts = Array.from({ length: POSTS }, (_, i) => {
    const account = accounts[some(accounts.length)]
    const passage = passages[some(passages.length)]
    return aPost({
      id: `p${i}`,
      account: account?.id ?? '',
      network: account?.network ?? '',
      piece: passage?.piece ?? null,
      passage: passage?.id ?? null,
      drip: null,
      state: 'published',
      publishedAt: `${addDays(TODAY, -some(730))}T09:00:00.000Z`,
      wording: aWording({ spans: [{ start: passage?.start ?? 0, end: passage?.end ?? 0 }] }),
    })
  })
  const lay = (): Shelf => new Shelf({ passages, pieces, posts, accounts, today: TODAY })
  const shelf = lay()
  const choice: ShelfChoice = {
    by: { order: 'the longest unseen first', restDays: 90, earned: null },
    passageDays: 90,
    takes: new Set(pieces.map((p) => p.id)),
    worth: new Map(),
  }
  const [first = anAccount()] = accounts
  return {
    lay,
    choose: () => firstOf(choicesFor(shelf, first, addDays(TODAY, 3), choice), shelf, first, choice, 12),
  }
}
