import { expect, it } from 'vitest'
import { aPassage, aPiece, aPost, anAccount } from '../model/samples'
import type { FromShelf, Passage, Piece, Post, ShelfRow } from '../model'
import { seededRandom, type Random } from '../planning'
import { choicesFor, firstOf, Shelf, wishesOf } from '.'

const DAY = 86_400_000
const BEGIN = Date.UTC(2026, 0, 5)
const dayOf = (n: number): string => new Date(BEGIN + n * DAY).toISOString().slice(0, 10)
const ACCOUNTS = ['a', 'b', 'c'].map((id) =>
  anAccount({ id, network: id === 'c' ? 'guildhall' : 'murmur', zone: 'UTC' }),
)

interface Year {
  pieces: Piece[]
  passages: Passage[]
  posts: Post[]
  row: ShelfRow
}

/** A year of pieces that came and were dripped, and of what the shelf gave day by day; nothing here knows its rules. */
function aYear(random: Random): Year {
  const upTo = (n: number): number => Math.floor(random() * n)
  const pieces: Piece[] = []
  const passages: Passage[] = []
  const posts: Post[] = []
  for (let i = 0; i < 4 + upTo(8); i++) {
    const until = random() < 0.3 ? dayOf(30 + upTo(330)) : null
    pieces.push(
      aPiece({ id: `piece ${i}`, keeps: { span: until ? 'months' : 'evergreen', until, phrases: [] } }),
    )
    const many = 2 + upTo(8)
    for (let k = 0; k < many; k++) {
      const start = upTo(900)
      passages.push(
        aPassage({ id: `passage ${i} ${k}`, piece: `piece ${i}`, start, end: start + 20 + upTo(150) }),
      )
    }
    const begin = upTo(250)
    for (let beat = 0; beat < 1 + upTo(5); beat++)
      for (const account of ACCOUNTS)
        posts.push(
          aPost({
            id: `drip ${i} ${beat} ${account.id}`,
            account: account.id,
            network: account.network,
            piece: `piece ${i}`,
            passage: `passage ${i} ${upTo(many)}`,
            drip: `drip ${i}`,
            state: 'approved',
            at: `${dayOf(begin + beat * 9)}T10:00:00.000Z`,
            wording: { ...aPost().wording, spans: [] },
          }),
        )
  }
  const by: FromShelf = {
    kind: 'shelf',
    posts: 1 + upTo(3),
    per: random() < 0.5 ? 'day' : 'week',
    order: (['the longest unseen first', 'the oldest first', 'the best first'] as const)[
      upTo(3)
    ] as FromShelf['order'],
    restDays: 7 + upTo(120),
    earned: null,
  }
  const row: ShelfRow = {
    id: 'row',
    pieces: { kind: 'all' },
    format: null,
    accounts: [],
    groups: [],
    by,
    again: null,
  }
  return { pieces, passages, posts, row }
}

/** Plays the year: what is due goes out, and each day what the shelf gives is planned. */
function play({ pieces, passages, posts, row }: Year, random: Random): Post[] {
  const upTo = (n: number): number => Math.floor(random() * n)
  const all = [...posts]
  const takes = new Set(pieces.map((p) => p.id))
  for (let n = 0; n < 365; n++) {
    const today = dayOf(n)
    for (const [i, post] of all.entries())
      if (post.state === 'approved' && (post.at ?? '') < `${today}T00`)
        all[i] = { ...post, state: 'published', publishedAt: post.at }
    const shelf = new Shelf({ passages, pieces, posts: all, accounts: ACCOUNTS, today })
    for (const account of ACCOUNTS)
      for (const { day, from, until } of wishesOf(row, account.id, all, today)) {
        const first = Date.parse(from)
        const on = new Date(first + upTo((Date.parse(until) - first) / DAY + 1) * DAY)
          .toISOString()
          .slice(0, 10)
        const choice = { by: row.by, passageDays: 20, takes, worth: new Map<string, number>() }
        const [item] = firstOf(choicesFor(shelf, account, on, choice), shelf, account, choice, 1)
        if (!item) continue
        shelf.take(item, account.id, Date.parse(on) / DAY)
        all.push(
          aPost({
            id: `shelf ${account.id} ${day} ${all.length}`,
            account: account.id,
            network: account.network,
            piece: item.piece.id,
            passage: item.passage.id,
            drip: null,
            shelf: { row: 'row', day },
            state: 'approved',
            at: `${on}T15:00:00.000Z`,
            wording: { ...aPost().wording, spans: [] },
          }),
        )
      }
  }
  return all
}

/** What of a year breaks a rule, each told in a line. */
function broken({ passages, pieces, row }: Year, posts: readonly Post[]): string[] {
  const found: string[] = []
  const places = new Map(passages.map((p) => [p.id, p]))
  const dayNumber = (p: Post): number => Math.floor((Date.parse(p.at ?? '') - BEGIN) / DAY)
  const rest = Math.max(20, row.by.restDays)
  const fromShelf = posts.filter((p) => p.shelf)
  for (const one of fromShelf) {
    const here = places.get(one.passage ?? '') as Passage
    const until = pieces.find((p) => p.id === one.piece)?.keeps.until ?? '9999'
    if (until < (one.at ?? '').slice(0, 10)) found.push(`${one.id} is after ${until}`)
    for (const other of posts) {
      if (other === one || other.piece !== one.piece) continue
      const there = places.get(other.passage ?? '') as Passage
      const same = here.start < there.end && there.start < here.end
      const days = Math.abs(dayNumber(one) - dayNumber(other))
      const least =
        other.account === one.account ? (same ? rest : 7) : same && other.network === one.network ? 7 : 0
      if (days < least) found.push(`${one.id} and ${other.id} are ${days} days apart`)
    }
  }
  const { posts: most, per } = row.by
  const counts = new Map<string, number>()
  for (const post of fromShelf) {
    // 5 January 2026 is a Monday.
    const key = `${post.account}, ${per} ${per === 'day' ? dayNumber(post) : Math.floor(dayNumber(post) / 7)}`
    counts.set(key, (counts.get(key) ?? 0) + 1)
  }
  for (const [key, count] of counts) if (count > most) found.push(`${count} on ${key}`)
  return found
}

it('never breaks rest, sameness or limits over random years', () => {
  let given = 0
  for (let seed = 1; seed <= 8; seed++) {
    const year = aYear(seededRandom(seed))
    const posts = play(year, seededRandom(1000 + seed))
    given += posts.filter((p) => p.shelf).length
    expect(broken(year, posts), `seed ${seed}`).toEqual([])
  }
  expect(given).toBeGreaterThan(300)
})
