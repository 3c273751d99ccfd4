import { beforeEach, describe, expect, it } from 'vitest'
import { connectTo, emptyDatabase } from '../testing/browser'
import { aBrand, aPost, anAccount, aWholePiece, aWorkspace } from '../../../core/model/samples'
import { USUAL_WEIGHTS } from '../../../core/model'
import { addDays } from '../../../core/planning'
import { setWorkspace } from '../api'
import { nowIso } from '../clock'
import { commit, must, put, putPiece } from '../store'
import { undo } from '../undo'
import {
  applyMoves,
  difference,
  pinPosts,
  placedAnew,
  placesFor,
  putAt,
  readCalendar,
  saveWeights,
  shifted,
  startsFor,
  swapped,
  wishedAt,
} from './plan'

/** Days from tomorrow on, so that the test stands in the future of whatever clock there is. */
const day = (n: number): string => addDays(nowIso().slice(0, 10), n + 2)
const at = (n: number, time = '09:00'): string => `${day(n)}T${time}:00.000Z`
const account = (id: string) =>
  anAccount({
    id,
    zone: 'UTC',
    quiet: [],
    slots: [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({ weekday, at: '09:00' })),
    maxPerDay: 2,
    maxPerWeek: 14,
    gapMinutes: 0,
  })
const post = (id: string, n: number, change: Parameters<typeof aPost>[0] = {}) =>
  aPost({
    id,
    account: 'one',
    piece: 'piece',
    drip: null,
    passage: null,
    media: [],
    state: 'approved',
    wished: at(n),
    at: at(n),
    ...change,
  })

beforeEach(async () => {
  connectTo(null)
  setWorkspace('ws')
  await emptyDatabase()
  await commit('machine', [
    put('workspace', aWorkspace()),
    put('brands', aBrand({ quiet: [] })),
    put('accounts', account('one')),
    put('accounts', account('two')),
    ...putPiece(aWholePiece({ id: 'piece' })),
    put('posts', post('a', 0)),
    put('posts', post('b', 1, { wording: { ...aPost().wording, text: 'Another.' } })),
    put('posts', post('c', 5, { wording: { ...aPost().wording, text: 'A third.' } })),
  ])
})

describe('a difference', () => {
  it('is tried first, applied as one action, and undone as one', async () => {
    const moves = await shifted(['a', 'b'], 2)
    expect(moves.map((m) => [m.post.id, m.to])).toEqual([
      ['a', at(2)],
      ['b', at(3)],
    ])
    expect((await must('posts', 'a')).at).toBe(at(0))
    await applyMoves(moves, 'Later', true)
    expect(await must('posts', 'a')).toMatchObject({ at: at(2), pinned: true })
    await undo('brand')
    expect(await must('posts', 'a')).toMatchObject({ at: at(0), pinned: false })
    expect((await must('posts', 'b')).at).toBe(at(1))
  })

  it('leaves what is not touched, what is pinned and what is past', async () => {
    await pinPosts(['b'], true)
    const quiet = { ...(await must('accounts', 'one')), quiet: [{ date: day(0) }, { date: day(1) }] }
    expect((await difference({ accounts: [quiet] })).map((m) => m.post.id)).toEqual(['a'])
    await commit('machine', [put('posts', post('a', -30))])
    expect(await difference({ accounts: [quiet] })).toEqual([])
  })

  it('of moments asked for takes them where they are legal, else the nearest place', async () => {
    await pinPosts(['b'], true)
    const moves = await wishedAt([
      { id: 'a', at: at(5) },
      { id: 'b', at: at(7) },
    ])
    expect(moves.map((m) => [m.post.id, m.to])).toEqual([
      ['a', at(4)],
      ['b', at(7)],
    ])
  })

  it('of posts placed anew brings them back to their wish', async () => {
    await commit('machine', [put('posts', post('a', 0, { wished: at(3) }))])
    expect((await placedAnew(['a'])).map((m) => m.to)).toEqual([at(3)])
  })
})

describe('moving one post', () => {
  it('pins it where it was put, and keeps why', async () => {
    await putAt(await must('posts', 'a'), at(8))
    expect(await must('posts', 'a')).toMatchObject({
      at: at(8),
      pinned: true,
      reasons: [{ code: 'by-hand' }],
    })
    await pinPosts(['a'], false)
    expect(await must('posts', 'a')).toMatchObject({ at: at(8), pinned: false })
  })

  it('knows its places: free, and forbidden with the rule', async () => {
    const places = await placesFor(await must('posts', 'a'), day(0), 3)
    expect(places.map((p) => [p.date, p.rule])).toEqual([
      [day(0), null],
      [day(1), 'taken'],
      [day(2), null],
    ])
  })
})

describe('two posts', () => {
  it('change places on one account', async () => {
    const moves = await swapped('a', 'c')
    expect(moves.map((m) => [m.post.id, m.to])).toEqual([
      ['a', at(5)],
      ['c', at(0)],
    ])
  })

  it('do not where a rule forbids it, and it is said which', async () => {
    await commit('machine', [put('posts', post('c', 5, { latest: day(6) }))])
    await commit('machine', [put('posts', post('a', 0, { latest: day(3) }))])
    await expect(swapped('a', 'c')).rejects.toThrow(/cannot change places: .* after its last/)
    await commit('machine', [put('posts', post('elsewhere', 2, { account: 'two' }))])
    await expect(swapped('a', 'elsewhere')).rejects.toThrow(/of one account/)
  })
})

it('a drip’s start is found where it collides least', async () => {
  const starts = await startsFor(['one'], { name: 'Two', list: [0, 1] }, day(0))
  expect(starts[0]?.day).toBe(day(2))
})

it('weights are kept, and undone', async () => {
  await saveWeights('brand', { ...USUAL_WEIGHTS, picture: 9 })
  expect((await must('brands', 'brand')).weights.picture).toBe(9)
  await undo('brand')
  expect((await must('brands', 'brand')).weights.picture).toBe(USUAL_WEIGHTS.picture)
})

it('a calendar file that is none is refused with a sentence', async () => {
  await expect(readCalendar('not a calendar')).rejects.toThrow(/\.ics and try again/)
})
