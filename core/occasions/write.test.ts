import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Fault, type Account, type Passage, type Piece, type Post } from '../model'
import { aBrand, aPassage, aPiece, aPost, aWholePiece, anAccount } from '../model/samples'
import { blankPost, nothingYet } from '../pipeline'
import { addDays, dayNumber, placePosts, toWall } from '../planning'
import { Shelf } from '../shelf'
import { lineFor, writeOccasion, type Hands, type Nearness, type OccasionRequest } from '.'

const NOW = '2026-11-30T10:00:00.000Z'
const TODAY = '2026-11-30'
const SOLSTICE = '2026-12-21'

const OCCASION = {
  id: 'solstice',
  name: 'Winter solstice',
  theme: ['frost'],
  lines: ['One.', 'Two.', 'Three.'],
}
const YARD = anAccount({ id: 'yard', zone: 'Europe/Lisbon' })
const HAND = anAccount({ id: 'hand', zone: 'Europe/Lisbon' })
const GUILD = anAccount({ id: 'guild', network: 'guildhall', zone: 'America/New_York' })

const passages = (count: number, pieces = count): Passage[] =>
  Array.from({ length: count }, (_, i) =>
    aPassage({ id: `p${i}`, piece: `piece${i % pieces}`, start: i * 100, end: i * 100 + 50, score: 0.9 }),
  )
const pieceOf = (id: string, change: Partial<Piece> = {}): Piece => aPiece({ id, ...change })

interface Given {
  accounts?: Account[]
  passages?: Passage[]
  pieces?: Piece[]
  standing?: Post[]
  brand?: OccasionRequest['brand']
  occasion?: OccasionRequest['occasion']
  day?: string
}

function requestOf(given: Given = {}): OccasionRequest {
  const accounts = given.accounts ?? [YARD]
  const kept = given.passages ?? passages(6)
  const pieces = given.pieces ?? [...new Set(kept.map((p) => p.piece))].map((id) => pieceOf(id))
  const standing = given.standing ?? []
  return {
    now: NOW,
    brand: given.brand ?? aBrand(),
    occasion: given.occasion ?? OCCASION,
    day: given.day ?? SOLSTICE,
    make: { angle: null, reader: null },
    accounts,
    near: kept.map(({ id }, i): Nearness => ({ id, score: 10 - i, says: ['frost'] })),
    passages: new Map(kept.map((p) => [p.id, p])),
    pieces: new Map(pieces.map((p) => [p.id, p])),
    shelf: new Shelf({ passages: kept, pieces, posts: standing, accounts, today: TODAY }),
    standing,
  }
}

/** The planner itself, and a writer that says which passage it was given. */
function handsOf(request: OccasionRequest, word: Partial<Hands> = {}): Hands & { lines: (string | null)[] } {
  const lines: (string | null)[] = []
  let count = 0
  return {
    lines,
    place: async (post, standing, yielding) =>
      placePosts({
        now: NOW,
        accounts: request.accounts,
        brands: [request.brand],
        standing,
        moving: [post, ...yielding],
        drips: [],
        pipelines: [],
      }),
    piece: async (id) => aWholePiece({ id }),
    word: async ({ account, passage, piece, line, wished }) => {
      lines.push(line ?? null)
      const id = `post${++count}`
      const wording = { ...nothingYet(`${passage} on ${account.id}, ${id}`), closing: line ?? null }
      return blankPost(account, {
        id,
        brand: request.brand.id,
        wording,
        wished,
        piece: piece.id,
        passage,
      })
    },
    ...word,
  }
}

const localDay = (post: Post, accounts: readonly Account[]): string =>
  toWall(Date.parse(post.at ?? ''), accounts.find((a) => a.id === post.account)?.zone ?? 'UTC').date

describe('the posts of an occasion', () => {
  it('stand on its day in each account’s own zone, for review, each of a passage of its own', async () => {
    const accounts = [YARD, HAND, GUILD]
    const request = requestOf({ accounts })
    const hands = handsOf(request)
    const { posts, missing } = await writeOccasion(request, hands)
    expect(missing).toEqual([])
    expect(posts.map((p) => p.account)).toEqual(['yard', 'hand', 'guild'])
    expect(posts.map((p) => localDay(p, accounts))).toEqual([SOLSTICE, SOLSTICE, SOLSTICE])
    expect(posts.map((p) => p.passage)).toEqual(['p0', 'p1', 'p2'])
    for (const post of posts)
      expect(post).toMatchObject({
        state: 'for review',
        earliest: SOLSTICE,
        latest: SOLSTICE,
        occasion: { id: 'solstice', day: SOLSTICE },
      })
    expect(new Set(hands.lines).size).toBe(3)
  })

  it('are written once: what stands for that day on an account stays, unless it was set aside', async () => {
    const first = requestOf({ accounts: [YARD, HAND] })
    const { posts } = await writeOccasion(first, handsOf(first))
    const again = requestOf({ accounts: [YARD, HAND], standing: posts })
    expect((await writeOccasion(again, handsOf(again))).posts).toEqual([])
    const aside = posts.map((p): Post => (p.account === 'yard' ? { ...p, state: 'set aside' } : p))
    const anew = requestOf({ accounts: [YARD, HAND], standing: aside })
    expect((await writeOccasion(anew, handsOf(anew))).posts.map((p) => p.account)).toEqual(['yard'])
  })

  it('are of another passage the year after, and close with another line', async () => {
    const first = requestOf()
    const one = handsOf(first)
    const { posts } = await writeOccasion(first, one)
    const next = requestOf({ standing: posts, day: '2027-12-21' })
    const two = handsOf(next)
    const after = await writeOccasion(next, two)
    expect(posts[0]?.passage).toBe('p0')
    expect(after.posts[0]?.passage).toBe('p1')
    expect(two.lines[0]).not.toBe(one.lines[0])
  })

  it('come of what may be said: kept, in its place, true by then, rested, and no sibling’s within a week', async () => {
    const firstOf = async (given: Given): Promise<string | null | undefined> => {
      const request = requestOf(given)
      return (await writeOccasion(request, handsOf(request))).posts[0]?.passage
    }
    const but = (change: Partial<Passage>): Passage[] =>
      passages(2).map((p) => (p.id === 'p0' ? { ...p, ...change } : p))
    expect(await firstOf({ passages: but({}) })).toBe('p0')
    expect(await firstOf({ passages: but({ choice: 'spare' }) })).toBe('p1')
    expect(await firstOf({ passages: but({ choice: 'spare', shelf: 'on' }) })).toBe('p0')
    expect(await firstOf({ passages: but({ shelf: 'off' }) })).toBe('p1')
    expect(await firstOf({ passages: but({ lostPlace: true }) })).toBe('p1')
    const keeps = (until: string): Piece[] => [
      pieceOf('piece0', { keeps: { span: 'months', until, phrases: [], because: '' } as Piece['keeps'] }),
      pieceOf('piece1'),
    ]
    expect(await firstOf({ passages: but({}), pieces: keeps('2026-12-20') })).toBe('p1')
    expect(await firstOf({ passages: but({}), pieces: keeps('2026-12-21') })).toBe('p0')
    const out = (days: number, account: Account): Post =>
      aPost({
        id: 'out',
        account: account.id,
        network: account.network,
        piece: 'piece0',
        passage: 'p0',
        state: 'published',
        at: `${addDays(SOLSTICE, -days)}T12:00:00.000Z`,
        publishedAt: `${addDays(SOLSTICE, -days)}T12:00:00.000Z`,
      })
    const rest = aBrand().weights.passageDays
    const given = { passages: but({}), accounts: [YARD, HAND] }
    expect(await firstOf({ ...given, standing: [out(rest - 1, YARD)] })).toBe('p1')
    expect(await firstOf({ ...given, standing: [out(rest, YARD)] })).toBe('p0')
    expect(await firstOf({ ...given, standing: [out(6, HAND)] })).toBe('p1')
    expect(await firstOf({ ...given, standing: [out(7, HAND)] })).toBe('p0')
  })

  it('take an opening from what may stand elsewhere, and from nothing that hangs on its day', async () => {
    const one = anAccount({
      id: 'yard',
      zone: 'UTC',
      slots: [1, 2].map((weekday) => ({ weekday, at: '09:00' })),
    })
    const there = (change: Partial<Post>): Post =>
      aPost({
        id: 'there',
        account: 'yard',
        drip: null,
        piece: 'elsewhere',
        passage: null,
        state: 'approved',
        at: `${SOLSTICE}T09:00:00.000Z`,
        wished: `${SOLSTICE}T09:00:00.000Z`,
        pinned: false,
        ...change,
      })
    const written = async (change: Partial<Post>) => {
      const request = requestOf({ accounts: [one], standing: [there(change)] })
      return writeOccasion(request, handsOf(request))
    }
    const made = await written({})
    expect(made.posts.map((p) => p.at)).toEqual([`${SOLSTICE}T09:00:00.000Z`])
    expect(made.moved).toHaveLength(1)
    expect(made.moved[0]).toMatchObject({ id: 'there' })
    expect(made.moved[0]?.at?.slice(0, 10)).toMatch(/^2026-12-(?:15|22)$/)
    // What fills an opening from the shelf gives it up.
    const bounds = { earliest: SOLSTICE, latest: SOLSTICE }
    const shelved = await written({ ...bounds, shelf: { row: 'row', day: SOLSTICE } })
    expect(shelved.posts).toHaveLength(1)
    expect(shelved.moved).toMatchObject([{ id: 'there', at: null }])
    for (const change of [
      { pinned: true },
      { state: 'handed over' },
      { recurrence: 'weekly' },
      { occasion: { id: 'other', day: SOLSTICE } },
      bounds,
    ] satisfies Partial<Post>[]) {
      const { posts, moved, missing } = await written(change)
      expect([posts, moved], JSON.stringify(change)).toEqual([[], []])
      expect(missing[0]?.message).toMatch(/No opening of this account/)
    }
  })

  it('are missing with a reason where there is no place, no passage, no rest, or no new words', async () => {
    const whyOf = async (given: Given, word: Partial<Hands> = {}): Promise<string | undefined> => {
      const request = requestOf(given)
      const { posts, missing } = await writeOccasion(request, handsOf(request, word))
      expect(posts).toEqual([])
      expect(missing[0]).toMatchObject({ day: SOLSTICE, account: 'yard' })
      return missing[0]?.message
    }
    expect(await whyOf({ brand: aBrand({ quiet: [{ date: SOLSTICE }] }) })).toMatch(/quiet/i)
    expect(await whyOf({ accounts: [{ ...YARD, slots: [] }] })).toMatch(/slot/i)
    expect(await whyOf({ passages: [] })).toBe(
      'No passage that you keep says “frost”. Give the occasion other words, or write the post by hand.',
    )
    const out = aPost({
      account: 'yard',
      piece: 'piece0',
      passage: 'p0',
      state: 'published',
      at: '2026-12-15T12:00:00.000Z',
      publishedAt: '2026-12-15T12:00:00.000Z',
    })
    expect(await whyOf({ passages: passages(1), standing: [out] })).toMatch(/too near to that day/)
    const none = async (): Promise<Post> => {
      throw new Fault('bad-request', 'No caption.')
    }
    expect(await whyOf({}, { word: none })).toMatch(/no words that are new/)
    const broken = requestOf()
    const failing = async (): Promise<Post> => {
      throw new Fault('internal', 'The worker stopped.')
    }
    await expect(writeOccasion(broken, handsOf(broken, { word: failing }))).rejects.toThrow('stopped')
  })

  it('never land on another day, and no passage comes before its rest, whatever stands and whenever one may post', async () => {
    const slot = fc.record({
      weekday: fc.integer({ min: 1, max: 7 }),
      at: fc.constantFrom('06:00', '12:30', '23:50'),
    })
    const zones = fc.constantFrom('Europe/Lisbon', 'Pacific/Auckland', 'America/Los_Angeles')
    const anyAccount = fc.record({
      slots: fc.uniqueArray(slot, { maxLength: 9, selector: (s) => `${s.weekday} ${s.at}` }),
      zone: zones,
      network: fc.constantFrom('murmur', 'guildhall'),
    })
    await fc.assert(
      fc.asyncProperty(
        fc.array(anyAccount, { minLength: 1, maxLength: 3 }),
        fc.array(fc.integer({ min: 2, max: 360 }), { minLength: 1, maxLength: 5 }),
        fc.uniqueArray(fc.integer({ min: 2, max: 360 }), { maxLength: 4 }),
        fc.integer({ min: 1, max: 8 }),
        async (kinds, ahead, quiet, many) => {
          const accounts = kinds.map((k, i) => anAccount({ id: `a${i}`, ...k }))
          const brand = aBrand({ quiet: quiet.map((d) => ({ date: addDays(TODAY, d) })) })
          let standing: Post[] = []
          for (const [i, days] of ahead.entries()) {
            const request = requestOf({
              accounts,
              brand,
              passages: passages(many, 3),
              standing,
              day: addDays(TODAY, days),
              occasion: { ...OCCASION, id: `occasion${i}` },
            })
            const hands = handsOf(request)
            const word: Hands['word'] = async (r) => ({
              ...(await hands.word(r)),
              id: `post ${i} ${r.account.id}`,
            })
            standing = [...standing, ...(await writeOccasion(request, { ...hands, word })).posts]
          }
          for (const post of standing) {
            expect(localDay(post, accounts)).toBe(post.occasion?.day)
            expect(quiet.map((d) => addDays(TODAY, d))).not.toContain(post.occasion?.day)
          }
          for (const [i, a] of standing.entries())
            for (const b of standing.slice(i + 1)) {
              const apart = Math.abs(dayNumber(a.occasion!.day) - dayNumber(b.occasion!.day))
              if (a.passage !== b.passage) continue
              if (a.account === b.account) expect(apart).toBeGreaterThanOrEqual(brand.weights.passageDays)
              if (a.network === b.network) expect(apart).toBeGreaterThanOrEqual(7)
            }
        },
      ),
      { numRuns: 60 },
    )
  })
})

describe('the lines of an occasion', () => {
  const linesOf = (list: string[], accounts: Account[], day = SOLSTICE): (string | null)[] =>
    accounts.map((a) => lineFor({ lines: list }, day, a, accounts))
  const on = (network: string, count: number): Account[] =>
    Array.from({ length: count }, (_, i) => anAccount({ id: `${network}${i}`, network }))

  it('are one an account among those of a network, each once, and none once they are used up', () => {
    const said = linesOf(['a', 'b', 'c'], on('murmur', 5))
    expect(new Set(said.slice(0, 3))).toEqual(new Set(['a', 'b', 'c']))
    expect(said.slice(3)).toEqual([null, null])
    expect(linesOf([], on('murmur', 1))).toEqual([null])
    // A single line serves one account of each network.
    expect(linesOf(['a'], [...on('murmur', 2), ...on('guildhall', 1)])).toEqual(['a', null, 'a'])
  })

  it('begin with another on each network and in each year', () => {
    const accounts = [...on('murmur', 1), ...on('guildhall', 1)]
    const [one, other] = linesOf(['a', 'b', 'c'], accounts)
    expect(one).not.toBe(other)
    const after = linesOf(['a', 'b', 'c'], accounts, '2027-12-21')
    expect(after[0]).not.toBe(one)
    expect(after[1]).not.toBe(other)
  })
})
