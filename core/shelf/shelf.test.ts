import { describe, expect, it } from 'vitest'
import { aPassage, aPiece, aPost, anAccount } from '../model/samples'
import type { FromShelf, Passage, Piece, Post, ShelfRow } from '../model'
import { choicesFor, firstOf, ordered, Shelf, wishesOf, type ShelfChoice } from '.'

const TODAY = '2026-11-30'
const YARD = anAccount({ id: 'yard', network: 'murmur', zone: 'UTC' })
const HAND = anAccount({ id: 'hand', network: 'murmur', zone: 'UTC' })
const ELSEWHERE = anAccount({ id: 'elsewhere', network: 'guildhall', zone: 'UTC' })

const out = (id: string, day: string, change: Partial<Post> = {}): Post =>
  aPost({
    id,
    account: 'yard',
    network: 'murmur',
    drip: null,
    piece: 'piece',
    passage: 'passage',
    state: 'published',
    at: `${day}T12:00:00.000Z`,
    publishedAt: `${day}T12:00:00.000Z`,
    wording: { ...aPost().wording, spans: [] },
    ...change,
  })

const shelfOf = (
  passages: readonly Passage[],
  posts: readonly Post[],
  pieces: readonly Piece[] = [aPiece()],
): Shelf => new Shelf({ passages, pieces, posts, accounts: [YARD, HAND, ELSEWHERE], today: TODAY })

const LONG_AGO = out('long ago', '2026-01-10')
const choice = (change: Partial<ShelfChoice> = {}, by: Partial<FromShelf> = {}): ShelfChoice => ({
  by: { order: 'the longest unseen first', restDays: 90, earned: null, ...by },
  passageDays: 60,
  takes: new Set(['piece', 'other', 'third']),
  worth: new Map(),
  ...change,
})
const ids = (shelf: Shelf, day: string, how = choice(), account = YARD): string[] =>
  firstOf(choicesFor(shelf, account, day, how), shelf, account, how, 99).map((i) => i.passage.id)

describe('what stands on the shelf', () => {
  const offOf = (passage: Partial<Passage>, piece: Partial<Piece>): string | null | undefined =>
    shelfOf([aPassage(passage)], [LONG_AGO], [aPiece(piece)]).items[0]?.off

  it('is what is kept of pieces that were out, or was put there by hand', () => {
    const of = (passage: Partial<Passage>, posts: Post[]): number =>
      shelfOf([aPassage(passage)], posts).items.length
    expect(of({}, [LONG_AGO])).toBe(1)
    expect(of({}, [])).toBe(0)
    expect(of({}, [{ ...LONG_AGO, state: 'approved', publishedAt: null }])).toBe(0)
    expect(of({ choice: 'spare' }, [LONG_AGO])).toBe(0)
    expect(of({ choice: 'spare', shelf: 'on' }, [])).toBe(1)
    // Of a piece whose drip is under way, what was not out yet comes by that.
    const coming = out('c', '2027-02-01', {
      state: 'approved',
      publishedAt: null,
      drip: 'drip',
      passage: 'x',
    })
    expect(of({ id: 'unseen' }, [LONG_AGO])).toBe(1)
    expect(of({ id: 'unseen' }, [LONG_AGO, coming])).toBe(0)
    expect(of({}, [LONG_AGO, coming])).toBe(1)
  })

  it('stands off it with a reason', () => {
    expect(offOf({}, {})).toBeNull()
    expect(offOf({ shelf: 'off' }, {})).toBe('You took it off.')
    expect(offOf({ lostPlace: true }, {})).toContain('no longer in the piece')
    expect(offOf({}, { dealt: { by: 'set aside', at: TODAY } })).toContain('set aside')
    expect(offOf({}, { double: { of: 'x', likeness: 1, why: 'the same story' } })).toContain('another one')
    const keeps = { span: 'months' as const, until: TODAY, phrases: [], because: 'It names a price.' }
    expect(offOf({}, { keeps })).toBe(`Its piece kept until ${TODAY}: It names a price.`)
    expect(offOf({}, { keeps: { ...keeps, until: '2026-12-01' } })).toBeNull()
    expect(offOf({}, { keeps: { span: 'past', until: null, phrases: [] } })).toBe('Its piece is past.')
    expect(offOf({}, { linkCheck: { at: TODAY, trouble: 'It answers 404.' } })).toContain('404')
  })

  it('knows how often its words were out, also in posts of a passage beside it', () => {
    const beside = out('beside', '2026-05-01', {
      passage: 'another',
      wording: { ...aPost().wording, spans: [{ start: 40, end: 90 }] },
    })
    const after = out('after', '2026-06-01', {
      passage: 'another',
      wording: { ...aPost().wording, spans: [{ start: 47, end: 90 }] },
    })
    const [item] = shelfOf([aPassage({ start: 0, end: 47 })], [LONG_AGO, beside, after]).items
    // 1 May 2026 is day 20,574 since 1970.
    expect(item).toMatchObject({ out: 2, lastDay: 20_574, nextDay: null })
  })
})

describe('what may come on a day', () => {
  it('has rested on its account, before and after', () => {
    const shelf = shelfOf([aPassage()], [out('a', '2026-09-01'), out('b', '2027-03-10')])
    // 90 days after 1 September is 30 November; 90 before 10 March is 10 December.
    expect(ids(shelf, '2026-11-29')).toEqual([])
    expect(ids(shelf, '2026-11-30')).toEqual(['passage'])
    expect(ids(shelf, '2026-12-10')).toEqual(['passage'])
    expect(ids(shelf, '2026-12-11')).toEqual([])
    expect(ids(shelf, '2026-11-30', choice({ passageDays: 91 }))).toEqual([])
  })

  it('does not mind what was set aside', () => {
    const aside = out('a', '2026-11-25', { state: 'set aside', publishedAt: null, drip: 'drip' })
    expect(ids(shelfOf([aPassage()], [LONG_AGO, aside]), '2026-11-30')).toEqual(['passage'])
  })

  it('is of no piece that was there within a week, or of which a drip is under way there', () => {
    const passages = [aPassage(), aPassage({ id: 'second', start: 100, end: 120 })]
    const shelf = shelfOf(passages, [out('a', '2026-11-25'), out('b', '2026-01-01', { passage: 'second' })])
    expect(ids(shelf, '2026-12-01')).toEqual([])
    expect(ids(shelf, '2026-12-02')).toEqual(['second'])
    const coming = out('c', '2027-02-01', {
      state: 'approved',
      publishedAt: null,
      drip: 'drip',
      passage: 'x',
    })
    expect(ids(shelfOf(passages, [LONG_AGO, coming]), '2026-12-02')).toEqual([])
    expect(ids(shelfOf(passages, [LONG_AGO, { ...coming, drip: null }]), '2026-12-02')).toHaveLength(2)
    expect(ids(shelfOf(passages, [LONG_AGO, coming]), '2026-12-02', choice(), ELSEWHERE)).toHaveLength(1)
  })

  it('is not said on another account of the network within a week', () => {
    const shelf = shelfOf([aPassage()], [out('a', '2026-11-25', { account: 'hand' })])
    expect(ids(shelf, '2026-12-01')).toEqual([])
    expect(ids(shelf, '2026-12-02')).toEqual(['passage'])
    expect(ids(shelf, '2026-12-01', choice(), ELSEWHERE)).toEqual(['passage'])
  })

  it('is of a piece that the row takes and that keeps until then, and earned what the row asks', () => {
    const keeps = { span: 'months' as const, until: '2026-12-05', phrases: [] }
    const shelf = shelfOf([aPassage()], [LONG_AGO], [aPiece({ keeps })])
    expect(ids(shelf, '2026-12-05')).toEqual(['passage'])
    expect(ids(shelf, '2026-12-06')).toEqual([])
    expect(ids(shelf, '2026-12-05', choice({ takes: new Set() }))).toEqual([])
    const earning = (times: number, earned: number): string[] =>
      ids(shelf, '2026-12-05', choice({ worth: new Map([['passage', times]]) }, { earned }))
    expect([earning(1.19, 1.2), earning(1.2, 1.2)]).toEqual([[], ['passage']])
    // What nobody has read of yet has not earned it.
    expect(ids(shelf, '2026-12-05', choice({}, { earned: 1 }))).toEqual([])
    const byHand = shelfOf([aPassage({ shelf: 'on' })], [LONG_AGO])
    expect(ids(byHand, '2026-12-05', choice({ takes: new Set() }, { earned: 2 }))).toEqual(['passage'])
  })

  it('is no longer there once it was taken', () => {
    const beside = aPassage({ id: 'beside', start: 30, end: 60 })
    const shelf = shelfOf([aPassage(), beside, aPassage({ id: 'apart', start: 100, end: 120 })], [LONG_AGO])
    const [item] = shelf.items
    if (item) shelf.take(item, 'yard', 20_800)
    expect(shelf.daysFrom('beside', 'yard', 20_810)).toBe(10)
    expect(shelf.daysFrom('apart', 'yard', 20_810)).toBe(Infinity)
    expect(shelf.pieceDaysFrom('piece', 'yard', 20_810)).toBe(10)
    expect(shelf.daysFrom('beside', 'elsewhere', 20_810)).toBe(Infinity)
  })

  it('comes in the order of the row', () => {
    const pieces = [
      aPiece({ id: 'piece', publishedAt: '2025-03-01T00:00:00.000Z' }),
      aPiece({ id: 'other', publishedAt: '2024-01-01T00:00:00.000Z' }),
      aPiece({ id: 'third', publishedAt: '2026-01-01T00:00:00.000Z' }),
    ]
    const passages = [
      aPassage({ id: 'p1', piece: 'piece' }),
      aPassage({ id: 'p2', piece: 'other' }),
      aPassage({ id: 'p3', piece: 'third' }),
    ]
    const posts = [
      out('1', '2026-02-01', { piece: 'piece', passage: 'p1' }),
      out('2', '2026-04-01', { piece: 'other', passage: 'p2' }),
      out('3', '2026-03-01', { piece: 'third', passage: 'p3' }),
    ]
    const shelf = shelfOf(passages, posts, pieces)
    const worth = new Map([
      ['p1', 0.7],
      ['p3', 1.4],
    ])
    const by = (order: FromShelf['order']): string[] => ids(shelf, '2026-12-05', choice({ worth }, { order }))
    expect(by('the longest unseen first')).toEqual(['p1', 'p3', 'p2'])
    expect(by('the oldest first')).toEqual(['p2', 'p1', 'p3'])
    expect(by('the best first')).toEqual(['p3', 'p2', 'p1'])
    expect(ordered(shelf.items, 'the best first', worth).map((i) => i.passage.id)).toEqual(['p3', 'p2', 'p1'])
    expect(ordered(shelf.items, 'the longest unseen first', worth)[0]?.passage.id).toBe('p1')
  })
})

describe('the days that want a post from the shelf', () => {
  const asked = (by: Pick<FromShelf, 'posts' | 'per'>): Pick<ShelfRow, 'id' | 'by'> => ({
    id: 'row',
    by: { kind: 'shelf', order: 'the oldest first', restDays: 90, earned: null, ...by },
  })
  const wishes = (by: Pick<FromShelf, 'posts' | 'per'>, made: readonly string[] = []): string[] =>
    wishesOf(
      asked(by),
      'yard',
      made.map((day) => ({ account: 'yard', shelf: { row: 'row', day } })),
      TODAY,
    ).map((w) => w.day)

  it('are those of the coming week, each as often as it is asked for', () => {
    expect(wishes({ posts: 2, per: 'day' })).toHaveLength(14)
    expect(wishes({ posts: 1, per: 'day' })[0]).toBe('2026-12-01')
    expect(wishes({ posts: 1, per: 'day' }).at(-1)).toBe('2026-12-07')
    // 30 November 2026 is a Monday. One a week stands in the middle of it, two on Tuesday and Friday.
    expect(wishes({ posts: 1, per: 'week' })).toEqual(['2026-12-03'])
    expect(wishes({ posts: 2, per: 'week' })).toEqual(['2026-12-01', '2026-12-04'])
    expect(wishes({ posts: 7, per: 'week' })).toHaveLength(7)
    expect(wishes({ posts: 14, per: 'week' })).toHaveLength(14)
  })

  it('are fewer by what was made for them, on that account and by that row', () => {
    expect(wishes({ posts: 2, per: 'week' }, ['2026-12-01'])).toEqual(['2026-12-04'])
    expect(wishes({ posts: 2, per: 'day' }, ['2026-12-01', '2026-12-01', '2026-12-02'])).toHaveLength(11)
    const others = [
      { account: 'hand', shelf: { row: 'row', day: '2026-12-03' } },
      { account: 'yard', shelf: { row: 'another', day: '2026-12-03' } },
      { account: 'yard' },
    ]
    expect(wishesOf(asked({ posts: 1, per: 'week' }), 'yard', others, TODAY)).toHaveLength(1)
  })

  it('share a week, each with days of its own from tomorrow on', () => {
    const days = (posts: number, today = TODAY): string[] =>
      wishesOf(asked({ posts, per: 'week' }), 'yard', [], today).map(
        (w) => `${w.from.slice(8)} ${w.day.slice(8)} ${w.until.slice(8)}`,
      )
    expect(days(1)).toEqual(['01 03 06'])
    // Monday to Wednesday and Thursday to Sunday; Monday the 30th is today.
    expect(days(2)).toEqual(['01 01 02', '03 04 06'])
    expect(days(2, '2026-11-29')).toEqual(['30 01 02', '03 04 06'])
    // Tuesday from tomorrow on is all that is left of the first third, whose name was Monday.
    expect(days(3)).toEqual(['02 02 03', '04 05 06', '07 07 08'])
    expect(days(9)).toHaveLength(9)
    expect(days(7)).toEqual([
      '01 01 01',
      '02 02 02',
      '03 03 03',
      '04 04 04',
      '05 05 05',
      '06 06 06',
      '07 07 07',
    ])
  })
})
