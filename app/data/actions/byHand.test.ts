import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { beforeEach, describe, expect, it } from 'vitest'
import { connectTo, emptyDatabase } from '../testing/browser'
import {
  aBrand,
  aDrip,
  aPassage,
  aPiece,
  aPipeline,
  aPost,
  aRow,
  aSource,
  aWholePiece,
  aWording,
  aWorkspace,
  anAccount,
} from '../../../core/model/samples'
import type { Post } from '../../../core/model'
import { takeWriting, toPassages, type HandRow } from '../../../core/pipeline'
import { readFragment } from '../../../core/reading'
import { readArticle } from '../../../demo/content'
import { addDays } from '../../../core/planning'
import { setWorkspace } from '../api'
import { nowIso } from '../clock'
import { all, commit, must, patch, put, putPiece } from '../store'
import { undo } from '../undo'
import { copyPost, replaceByNext } from './copies'
import { end, goOn, plannedOf, setAsideBy, type Endable } from './ending'
import { keepHandPosts, openPostSheet, readPosts, tryHandPosts } from './hand'
import { hold, lift } from './holds'
import { boundPost, editText } from './posts'
import { changeRecurrence, extendRecurrences, startRecurrence, tryRecurrence } from './recurring'
import { takeOver, tryRehearsal } from './rehearsal'

const article = readArticle(
  readFileSync(join(import.meta.dirname, '../../../demo/content/oakum-yard/seven-tools.md'), 'utf8'),
)
const seven = takeWriting(
  readFragment(article.html, { title: article.title }),
  { id: 'piece', brand: 'brand', source: 'source', now: '2026-11-24T10:00:00.000Z' },
  { itemId: 'seven', kind: 'manuscript' },
)
let made = 0
const sevenPassages = toPassages(seven, () => `passage ${made++}`)
const day = (n: number): string => addDays(nowIso().slice(0, 10), n + 1)
const at = (n: number): string => `${day(n)}T09:00:00.000Z`
const daily = [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({ weekday, at: '09:00' }))
const account = (id: string, network = 'murmur') =>
  anAccount({ id, network, handle: id, zone: 'UTC', slots: daily, maxPerDay: 2, gapMinutes: 0 })
const post = (id: string, n: number, change: Partial<Post> = {}): Post =>
  aPost({
    id,
    account: 'one',
    pipeline: 'pipeline',
    piece: 'piece',
    drip: 'drip',
    passage: null,
    wording: aWording({ text: `What ${id} says of seams` }),
    wished: at(n),
    at: at(n),
    ...change,
  })
const row = (text: string, change: Partial<HandRow> = {}): HandRow => ({
  words: { title: null, text, link: null, picture: null },
  accounts: ['one'],
  on: null,
  earliest: null,
  latest: null,
  ...change,
})
const pipeline = { table: 'pipelines', id: 'pipeline', brand: 'brand', name: 'Journal' } as const
const states = async (): Promise<string[]> => (await all('posts')).map((p) => `${p.id} ${p.state}`).toSorted()

beforeEach(async () => {
  connectTo(null)
  setWorkspace('ws')
  await emptyDatabase()
  await commit('machine', [
    put('workspace', aWorkspace()),
    put('brands', aBrand({ quiet: [], zone: 'UTC' })),
    put('accounts', account('one')),
    put('accounts', account('hall', 'guildhall')),
    put('sources', aSource()),
    put('pipelines', aPipeline({ release: [aRow({ accounts: ['one'] })], createdAt: nowIso() })),
    put(
      'drips',
      aDrip({ pipeline: 'pipeline', row: 'row', accounts: ['one'], startDay: day(0), days: [0, 3] }),
    ),
    ...putPiece({ ...seven, dealt: { by: 'Journal', at: nowIso() } }),
    ...sevenPassages.map((p) => put('passages', p)),
    put('posts', post('a', 0)),
    put('posts', post('b', 3, { beat: 1 })),
  ])
})

describe('posts by hand', () => {
  it('are tried without being kept, then kept as one action that can be undone', async () => {
    const made = await tryHandPosts('brand', [row('The kettle is on.'), row('Bring a chair along.')], {
      kind: 'behind what waits',
    })
    expect(made.map((m) => m.post.at)).toEqual([at(4), at(5)])
    expect(await all('posts')).toHaveLength(2)
    await keepHandPosts('brand', made)
    expect(await all('posts')).toHaveLength(4)
    await undo('brand')
    expect(await all('posts')).toHaveLength(2)
  })

  it('come out of a sheet, whose ended accounts are not known any more', async () => {
    await commit('machine', [patch('accounts', 'hall', (a) => ({ ...a, endedAt: nowIso() }))])
    const csv = `text,date,accounts\nThe kettle is on,${day(6)},one\nNobody hears this,${day(6)},hall\n`
    const { table, columns } = await openPostSheet(new TextEncoder().encode(csv))
    const { rows, faults } = await readPosts('brand', table, { columns, monthFirst: null, accounts: [] })
    expect(rows.map((r) => r.row.words.text)).toEqual(['The kettle is on'])
    expect(faults).toMatchObject([{ line: 3 }])
    await expect(openPostSheet(new Uint8Array())).rejects.toThrow(/empty/)
  })

  it('keep within the days that they are given later', async () => {
    const moved = await boundPost('a', { earliest: day(2), latest: null, priority: 1 })
    expect(moved.at?.slice(0, 10)).toBe(day(2))
    expect(await must('posts', 'a')).toMatchObject({ earliest: day(2), priority: 1, at: moved.at })
    await expect(boundPost('a', { earliest: day(5), latest: day(2), priority: 0 })).rejects.toThrow(
      /last day/,
    )
  })
})

describe('a recurring post', () => {
  const draft = {
    words: { title: null, text: 'The kettle is on every day.', link: null, picture: null },
    accounts: ['one'],
    rule: 'FREQ=WEEKLY',
    from: '',
    time: '18:30' as string | null,
  }

  it('has its posts of eight weeks made, and later ones as time goes on, none twice', async () => {
    await startRecurrence('brand', { ...draft, from: day(1) })
    const [recurrence] = await all('recurrences')
    const mine = async () => (await all('posts')).filter((p) => p.recurrence === recurrence?.id)
    expect((await mine()).map((p) => p.at).toSorted()).toEqual(
      [1, 8, 15, 22, 29, 36, 43, 50].map((n) => `${day(n)}T18:30:00.000Z`),
    )
    await extendRecurrences()
    expect(await mine()).toHaveLength(8)
    // As if it had been made up to four weeks ago only.
    await commit('machine', [
      patch('recurrences', recurrence?.id ?? '', (r) => ({ ...r, madeUntil: day(27) })),
    ])
    for (const p of (await mine()).filter((x) => (x.at ?? '') > day(28)))
      await commit('machine', [{ table: 'posts', id: p.id, change: () => null }])
    await extendRecurrences()
    expect(await mine()).toHaveLength(8)
  })

  it('without a time takes a slot of its day, and moves where the day is closed', async () => {
    const tried = await tryRecurrence('brand', {
      ...draft,
      time: null,
      from: day(1),
      rule: 'FREQ=DAILY;COUNT=3',
    })
    expect(tried.map((m) => m.post.at)).toEqual([at(1), at(2), at(4)])
    expect(await all('recurrences')).toEqual([])
  })

  it('is refused where its rule names no day to come', async () => {
    await expect(
      startRecurrence('brand', { ...draft, from: day(1), rule: 'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30' }),
    ).rejects.toThrow(/names no day/)
    await expect(startRecurrence('brand', { ...draft, from: day(1), rule: 'often' })).rejects.toThrow(
      /cannot be followed/,
    )
  })

  it('that is changed has its posts written anew in their places, and is undone', async () => {
    await startRecurrence('brand', { ...draft, from: day(1) })
    const [r] = await all('recurrences')
    const id = r?.id ?? ''
    const mine = async () =>
      (await all('posts'))
        .filter((p) => p.recurrence === id)
        .toSorted((a, b) => (a.wished < b.wished ? -1 : 1))
    const before = await mine()
    await editText(before[1]?.id ?? '', 'The kettle is on, but come early.')
    const said = { ...draft.words, text: 'The stove is lit every day.' }
    const next = { ...draft, words: said, from: day(1), rule: 'FREQ=WEEKLY;COUNT=6' }
    expect((await tryRecurrence('brand', next, id)).map((m) => m.post.wording.text)).toEqual(
      Array(5).fill(said.text),
    )
    expect(await mine()).toHaveLength(8)
    expect(await changeRecurrence(id, next)).toEqual({ written: 5, gone: 2, left: 1 })
    expect((await mine()).map((p) => [p.id, p.at, p.wording.text])).toEqual(
      before
        .slice(0, 6)
        .map((p, i) => [p.id, p.at, i === 1 ? 'The kettle is on, but come early.' : said.text]),
    )
    expect(await must('recurrences', id)).toMatchObject({ words: said, rule: next.rule })
    await undo('brand')
    expect((await mine()).map((p) => [p.id, p.at])).toEqual(before.map((p) => [p.id, p.at]))
    expect(await must('recurrences', id)).toMatchObject({ words: draft.words, rule: 'FREQ=WEEKLY' })
    await expect(changeRecurrence(id, { ...next, from: '2031-01-01' })).rejects.toThrow(/names no day/)
  })

  it('that was ended makes no more', async () => {
    await startRecurrence('brand', { ...draft, from: day(1) })
    const [r] = await all('recurrences')
    const what: Endable = {
      table: 'recurrences',
      id: r?.id ?? '',
      brand: 'brand',
      name: 'the recurring post',
    }
    await end(what, { kind: 'leave' })
    await commit('machine', [patch('recurrences', what.id, (x) => ({ ...x, madeUntil: day(3) }))])
    await extendRecurrences()
    expect((await all('posts')).filter((p) => p.recurrence === what.id)).toHaveLength(8)
  })
})

describe('ending', () => {
  it('sets aside what was planned, and going on places it anew for review', async () => {
    expect((await plannedOf(pipeline)).map((p) => p.id)).toEqual(['a', 'b'])
    await setAsideOne()
    expect(await end(pipeline, { kind: 'set aside' })).toBe(1)
    expect(await states()).toEqual(['a set aside', 'b set aside'])
    expect(await must('pipelines', 'pipeline')).toMatchObject({ on: false, endedAt: expect.any(String) })
    // What a person had set aside before stays so.
    expect((await setAsideBy(pipeline)).map((p) => p.id)).toEqual(['b'])
    expect(await goOn(pipeline, 'place anew')).toBe(1)
    expect(await must('posts', 'b')).toMatchObject({ state: 'for review', at: at(3) })
    expect(await must('pipelines', 'pipeline')).toMatchObject({ endedAt: null })
  })

  it('lets what is planned still go out, or leaves it aside when it goes on', async () => {
    await end(pipeline, { kind: 'leave' })
    expect(await states()).toEqual(['a approved', 'b approved'])
    await goOn(pipeline, 'leave aside')
    await end(pipeline, { kind: 'set aside' })
    await goOn(pipeline, 'leave aside')
    expect(await states()).toEqual(['a set aside', 'b set aside'])
  })

  it('an account moves what it had, worded for another', async () => {
    await commit('machine', [
      patch('posts', 'b', (p) => ({ ...p, drip: null, piece: null, recurrence: null })),
    ])
    const what: Endable = { table: 'accounts', id: 'one', brand: 'brand', name: '@one' }
    await end(what, { kind: 'move', account: 'hall' })
    const moved = (await all('posts')).filter((p) => p.account === 'hall')
    expect(moved).not.toHaveLength(0)
    expect(moved.every((p) => p.network === 'guildhall' && p.at !== null)).toBe(true)
    expect(
      (await all('posts')).filter((p) => p.account === 'one').every((p) => p.state === 'set aside'),
    ).toBe(true)
    await undo('brand')
    expect(await states()).toEqual(['a approved', 'b approved'])
    expect(await must('accounts', 'one')).toMatchObject({ endedAt: null })
    expect((await must('drips', 'drip')).accounts).toEqual(['one'])
  })

  it('is one action that can be undone', async () => {
    await end(pipeline, { kind: 'set aside' })
    await undo('brand')
    expect(await states()).toEqual(['a approved', 'b approved'])
    expect((await must('pipelines', 'pipeline')).endedAt).toBeNull()
  })

  it('of a hold sets aside what missed its time where that is asked for', async () => {
    await hold(pipeline)
    await commit('machine', [patch('posts', 'a', (p) => ({ ...p, at: '2020-01-01T09:00:00.000Z' }))])
    expect(await lift(pipeline, 'set aside')).toBe(1)
    expect(await states()).toEqual(['a set aside', 'b approved'])
  })
})

describe('a copy', () => {
  it('of a post by hand keeps its words on another network', async () => {
    const [made] = await tryHandPosts(
      'brand',
      [
        row('The kettle is on.', {
          words: { title: null, text: 'The kettle is on.', link: 'https://yard.example/day', picture: null },
        }),
      ],
      { kind: 'next openings' },
    )
    await keepHandPosts('brand', made ? [made] : [])
    const copy = await copyPost(made?.post.id ?? '', 'hall')
    expect(copy).toMatchObject({ account: 'hall', network: 'guildhall', piece: null })
    expect(copy.wording.text).toBe('The kettle is on.')
    expect(copy.at?.slice(0, 10)).toBe(made?.post.at?.slice(0, 10))
  })

  it('of a post of a drip is worded anew, and its drip has a column more', async () => {
    const copy = await copyPost('a', 'hall')
    expect(copy).toMatchObject({
      account: 'hall',
      drip: 'drip',
      beat: 0,
      state: 'for review',
      piece: 'piece',
    })
    expect(copy.wording.text).not.toBe((await must('posts', 'a')).wording.text)
    expect((await must('drips', 'drip')).accounts).toEqual(['one', 'hall'])
    // The beat has its post there now, so another stands by itself.
    expect(await copyPost('a', 'hall')).toMatchObject({ drip: null, account: 'hall' })
  })
})

describe('the next piece', () => {
  it('takes the place of a post, which is set aside', async () => {
    await commit('machine', [
      ...putPiece(
        aWholePiece({
          ...aPiece({ id: 'next', title: 'Another seam', publishedAt: nowIso(), itemId: 'next' }),
          id: 'next',
        }),
      ),
      put('passages', aPassage({ id: 'other', piece: 'next' })),
    ])
    const fresh = await replaceByNext('a')
    expect(fresh).toMatchObject({
      piece: 'next',
      account: 'one',
      at: at(0),
      drip: null,
      pipeline: 'pipeline',
    })
    expect((await must('posts', 'a')).state).toBe('set aside')
    expect((await must('pieces', 'next')).dealt?.by).toBe('Journal')
    await expect(replaceByNext(fresh.id)).rejects.toThrow(
      /No piece that Journal’s sieve lets through is left/,
    )
  })

  it('is none for what is of no pipeline', async () => {
    await commit('machine', [patch('posts', 'a', (p) => ({ ...p, pipeline: null }))])
    await expect(replaceByNext('a')).rejects.toThrow(/no pipeline/)
  })
})

describe('a rehearsal', () => {
  const span = { from: '', to: '', arrivals: false }
  it('is taken over: settings and posts as they were played', async () => {
    const asked = { ...span, from: day(-1), to: day(40) }
    const changes = [
      { kind: 'rhythm' as const, pipeline: 'pipeline', rhythm: { name: 'Later', list: [0, 9] } },
      { kind: 'quiet' as const, brand: 'brand', days: [{ date: day(0) }] },
    ]
    const played = await tryRehearsal('brand', { ...asked, changes })
    expect(await must('posts', 'b')).toMatchObject({ at: at(3) })
    expect(await takeOver('brand', changes, played)).toBe(0)
    expect((await must('posts', 'b')).at).toBe(at(9))
    expect((await must('posts', 'a')).at?.slice(0, 10)).toBe(day(1))
    expect((await must('pipelines', 'pipeline')).release[0]?.by).toEqual({
      kind: 'rhythm',
      rhythm: changes[0]?.kind === 'rhythm' && changes[0].rhythm,
    })
    expect((await must('drips', 'drip')).days).toEqual([0, 9])
    expect((await must('brands', 'brand')).quiet).toEqual([{ date: day(0) }])
    // Played once more nothing moves.
    expect((await tryRehearsal('brand', { ...asked, changes: [] })).moves).toEqual([])
    await undo('brand')
    expect((await must('posts', 'b')).at).toBe(at(3))
  })

  it('holds what was paused, writes for the account that came, and sets aside what fell away', async () => {
    const asked = { ...span, from: day(-1), to: day(40) }
    const hall = await must('accounts', 'hall')
    const changes = [
      { kind: 'rhythm' as const, pipeline: 'pipeline', rhythm: { name: 'Once', list: [0] } },
      { kind: 'account' as const, pipeline: 'pipeline', account: hall },
    ]
    const played = await tryRehearsal('brand', { ...asked, changes })
    await takeOver('brand', changes, played)
    expect((await must('posts', 'b')).state).toBe('set aside')
    expect((await must('pipelines', 'pipeline')).release[0]?.accounts).toEqual(['one', 'hall'])
    expect((await all('posts')).filter((p) => p.account === 'hall')).toHaveLength(1)
    await undo('brand')
    expect(await states()).toEqual(['a approved', 'b approved'])
    expect((await must('pipelines', 'pipeline')).release[0]?.accounts).toEqual(['one'])
    await takeOver('brand', changes, played)
    const pause = [{ kind: 'pause' as const, pipeline: 'pipeline' }]
    await takeOver('brand', pause, await tryRehearsal('brand', { ...asked, changes: pause }))
    expect((await must('pipelines', 'pipeline')).held?.reason).toBe('Journal is held.')
    expect((await must('posts', 'a')).state).toBe('approved')
  })

  it('with an account that is not linked is not taken over, and says so', async () => {
    const changes = [{ kind: 'account' as const, pipeline: 'pipeline', account: account('new') }]
    const played = await tryRehearsal('brand', { ...span, from: day(-1), to: day(40), changes })
    await expect(takeOver('brand', changes, played)).rejects.toThrow(/not linked yet/)
  })
})

/** As a person sets one aside by hand. */
async function setAsideOne(): Promise<void> {
  await commit('machine', [patch('posts', 'a', (p) => ({ ...p, state: 'set aside', at: null }))])
}
