import { afterAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { NOONS, oneBrand } from '../testing/brand'
import { setClock } from '../testing/browser'
import { anAccount, aPost } from '../../../core/model/samples'
import { readShortTexts } from '../../../core/formats'
import { readOccasionDay } from '../../../core/occasions'
import type { OccasionMake, Post } from '../../../core/model'
import { all, commit, must, put } from '../store'
import { undo } from '../undo'
import { keepCollection } from './collection'
import { standing } from './notices'
import { nextRenewal, renewOccasions, writeOccasions } from './occasionPosts'
import {
  changeOccasion,
  keepOccasions,
  readOccasionFile,
  removeOccasions,
  yearOf,
  type OccasionDraft,
} from './occasions'

// Files of one worker share the clock: the next one finds it as it is.
afterAll(() => setClock(new Date().toISOString()))

vi.mock('../../workers', async () => (await import('../testing/workers')).inProcess())

/** A connected writer that gives the passage back as it stands, and what it was asked. */
const questions = vi.hoisted(() => [] as string[])
vi.mock('../services', async (original) => ({
  ...(await original<object>()),
  askWriter: async (messages: { content: string }[]) => {
    const question = messages.at(-1)?.content ?? ''
    questions.push(question)
    const [, passage = ''] = /The passage:\n"""\n([^]*?)\n"""/.exec(question) ?? []
    return { text: JSON.stringify({ text: passage }) }
  },
}))

const TODAY = '2026-11-30'
const TEXTS = [
  'Frost lifts the pointing out of a wall long before anybody sees it from the road.',
  'A boat that is laid up dry fears no frost, and a wet one fears every night of it.',
  'Ice on the inside of a window says that the room breathes out more than it can hold.',
  'Snow on a cover weighs more each day that nobody brushes it off in the morning.',
  'Varnish is patience in a tin, and most tins are opened too early in the year.',
  'Oak bends where it is warm and breaks wherever it is hurried along by cold hands.',
]
const make: OccasionMake = { accounts: ['one', 'two'], angle: null, reader: null }
const drafted = (name: string, when: string, change: Partial<OccasionDraft> = {}): OccasionDraft => ({
  name,
  on: readOccasionDay(when, TODAY),
  theme: ['frost', 'ice', 'snow'],
  lines: ['The year turns today.', 'From today it grows lighter.'],
  ...change,
})

beforeEach(async () => {
  await oneBrand(`${TODAY}T06:00:00.000Z`, [
    anAccount({ id: 'one', network: 'murmur', zone: 'UTC', slots: NOONS }),
    anAccount({ id: 'two', network: 'guildhall', zone: 'UTC', slots: NOONS }),
  ])
  await keepCollection('brand', 'Sayings of the yard', readShortTexts(TEXTS.join('\n\n')))
})

const year = async () => yearOf(await all('occasions'), 'UTC', TODAY)
const ofOccasions = async (): Promise<Post[]> => (await all('posts')).filter((p) => p.occasion)
const live = async (): Promise<Post[]> => (await ofOccasions()).filter((p) => p.state !== 'set aside')

describe('the calendar of a brand', () => {
  it('takes days down once each by their name, fills in what a file knows, and is undone', async () => {
    expect(
      await keepOccasions('brand', [drafted('Turn', '21 December'), drafted('Late', '31 January')]),
    ).toEqual({
      added: 2,
      changed: 0,
    })
    expect(
      await keepOccasions('brand', [
        drafted('turn', '22 December', { theme: [], lines: [] }),
        drafted('Late', '31 January'),
      ]),
    ).toEqual({ added: 0, changed: 1 })
    const days = await year()
    expect(days.map((d) => [d.occasion.name, d.day])).toEqual([
      ['turn', '2026-12-22'],
      ['Late', '2027-01-31'],
    ])
    // A file that knows no words leaves those that stand.
    expect(days[0]?.occasion.theme).toEqual(['frost', 'ice', 'snow'])
    await undo('brand')
    expect((await year())[0]?.day).toBe('2026-12-21')
  })

  it('reads calendars and sheets, and says what of them is left', async () => {
    const brand = await must('brands', 'brand')
    const of = (name: string, text: string) => readOccasionFile(brand, name, new TextEncoder().encode(text))
    const sheet = await of('days.csv', 'name,day\nTurn,December solstice\nBad,soon\n')
    expect(sheet.occasions.map((o) => o.on)).toEqual([{ sun: 'December solstice' }])
    expect(sheet.left).toEqual([expect.stringMatching(/^Line 3: “soon” is no day/)])
    const calendar = await of(
      'days.ics',
      'BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nSUMMARY:Turn\r\nDTSTART;VALUE=DATE:20261221\r\nEND:VEVENT\r\nEND:VCALENDAR',
    )
    expect(calendar.occasions).toMatchObject([{ name: 'Turn', on: { dates: ['2026-12-21'] } }])
    await expect(of('days.ics', 'nothing')).rejects.toThrow(/calendar/)
  })
})

describe('the captions of occasions', () => {
  it('are written for each account on its day, wait for review, close with a line, and are undone as one', async () => {
    await keepOccasions('brand', [drafted('Turn', '21 December'), drafted('Late', '31 January')])
    const came = await writeOccasions('brand', await year(), make)
    expect(came).toMatchObject({ posts: 4, missing: [], stopped: false })
    const posts = await ofOccasions()
    expect(posts.map((p) => `${p.account} ${p.at?.slice(0, 10)}`).sort()).toEqual([
      'one 2026-12-21',
      'one 2027-01-31',
      'two 2026-12-21',
      'two 2027-01-31',
    ])
    for (const post of posts) {
      expect(post.state).toBe('for review')
      expect(post.wording.text).toMatch(/frost|ice|snow/i)
      expect(post.wording.text).toContain(post.wording.closing ?? 'no line')
      // “Today” ages elsewhere; here the post hangs on its day.
      expect(post.checks.filter((c) => c.severity !== 'note')).toEqual([])
    }
    expect(new Set(posts.map((p) => p.passage)).size).toBe(4)
    expect((await must('occasions', posts[0]?.occasion?.id ?? '')).make).toEqual(make)
    // The morning's summary knows of the days, and of those that were decided against.
    const [first] = posts
    await commit('machine', [
      put('posts', { ...first, state: 'set aside' } as Post),
      put('posts', aPost({ id: 'no occasion', state: 'set aside' })),
    ])
    const { occasions, posts: known } = (await standing())?.of('brand') ?? { occasions: [], posts: [] }
    expect(occasions.map((o) => o.name).sort()).toEqual(['Late', 'Turn'])
    expect(known.map((p) => p.id).sort()).toEqual(posts.map((p) => p.id).sort())
    await commit('machine', [put('posts', first as Post)])
    // Nothing is written twice.
    expect((await writeOccasions('brand', await year(), make)).posts).toBe(0)
    await undo('brand')
    expect(await ofOccasions()).toEqual([])
  })

  it('are the connected writer’s where the house has one, which is told the day, and close with the line all the same', async () => {
    const brand = await must('brands', 'brand')
    await commit('machine', [
      put('brands', { ...brand, houseStyle: { ...brand.houseStyle, writer: 'connected' } }),
    ])
    await keepOccasions('brand', [drafted('Turn', '21 December')])
    await writeOccasions('brand', await year(), make)
    expect(questions.length).toBeGreaterThanOrEqual(2)
    for (const question of questions) expect(question).toContain('It goes out on this day: Turn.')
    for (const post of await live()) {
      expect(post).toMatchObject({ state: 'for review', fallback: null, wording: { by: 'connected' } })
      expect(post.wording.text).toContain(post.wording.closing ?? 'no line')
      expect(post.at?.slice(0, 10)).toBe('2026-12-21')
    }
  })

  it('that cannot be are noted with the reason, and what is written stays where it is stopped', async () => {
    await keepOccasions('brand', [
      drafted('Turn', '21 December'),
      drafted('Glue', '31 January', { theme: ['glue'] }),
    ])
    const days = await year()
    let done = 0
    const stopped = await writeOccasions('brand', days, make, {
      onProgress: (n) => (done = n),
      stopped: () => done > 0,
    })
    expect(stopped).toMatchObject({ posts: 2, stopped: true })
    const came = await writeOccasions('brand', await year(), make)
    expect(came.posts).toBe(0)
    expect(came.missing.map((m) => m.message)).toEqual([
      expect.stringContaining('No passage that you keep says “glue”'),
      expect.stringContaining('No passage that you keep says “glue”'),
    ])
    const glue = (await all('occasions')).find((o) => o.name === 'Glue')
    expect(glue?.missing.map((m) => [m.day, m.account])).toEqual([
      ['2027-01-31', 'one'],
      ['2027-01-31', 'two'],
    ])
    await expect(writeOccasions('brand', days, { ...make, accounts: [] })).rejects.toThrow(
      /at least one account/,
    )
  })

  it('move with their day, and are set aside where it is gone', async () => {
    await keepOccasions('brand', [drafted('Turn', '21 December')])
    await writeOccasions('brand', await year(), make)
    const { occasion } = (await year())[0]!
    expect(await changeOccasion(occasion.id, { on: readOccasionDay('23 December', TODAY) })).toEqual({
      moved: 2,
      aside: 0,
    })
    for (const post of await live())
      expect(post).toMatchObject({
        occasion: { day: '2026-12-23' },
        earliest: '2026-12-23',
        latest: '2026-12-23',
        at: '2026-12-23T12:00:00.000Z',
      })
    const words = (await live()).map((p) => p.wording.text)
    expect(await changeOccasion(occasion.id, { theme: ['ice'] })).toEqual({ moved: 0, aside: 0 })
    expect((await live()).map((p) => p.wording.text)).toEqual(words)
    expect(await changeOccasion(occasion.id, { on: { dates: ['2028-06-01'] } })).toEqual({
      moved: 0,
      aside: 2,
    })
    expect(await live()).toEqual([])
    await undo('brand')
    expect(await live()).toHaveLength(2)
    expect(await removeOccasions(await all('occasions'))).toBe(2)
    expect(await all('occasions')).toEqual([])
    expect(await live()).toEqual([])
  })

  it('are of what is being changed as they are asked for, and changes at one time undo none of each other', async () => {
    await keepOccasions('brand', [drafted('Turn', '21 December', { theme: ['glue'], lines: [] })])
    const days = await year()
    const { id } = days[0]!.occasion
    const saved = [changeOccasion(id, { theme: ['frost'] }), changeOccasion(id, { lines: ['It turns.'] })]
    const came = await writeOccasions('brand', days, make)
    await Promise.all(saved)
    expect(came.posts).toBe(2)
    expect(await must('occasions', id)).toMatchObject({ theme: ['frost'], lines: ['It turns.'] })
    expect((await live()).map((p) => p.wording.closing)).toEqual(['It turns.', 'It turns.'])
  })

  it('come again the year after, eight weeks ahead, in other words, and once', async () => {
    await keepOccasions('brand', [drafted('Turn', '21 December', { again: true })])
    await writeOccasions('brand', await year(), make)
    await renewOccasions()
    expect(await ofOccasions()).toHaveLength(2)
    // The first day on which the next one is 56 days off.
    expect(await nextRenewal()).toBe('2027-10-26T00:00:00.000Z')
    await setClock('2027-10-25T23:00:00.000Z')
    await renewOccasions()
    expect(await ofOccasions()).toHaveLength(2)
    await setClock('2027-10-26T01:00:00.000Z')
    await renewOccasions()
    await renewOccasions()
    const posts = await ofOccasions()
    const after = posts.filter((p) => p.occasion?.day === '2027-12-21')
    expect(posts).toHaveLength(4)
    expect(after.map((p) => p.account).sort()).toEqual(['one', 'two'])
    for (const post of after) {
      const before = posts.find((p) => p.account === post.account && p.occasion?.day === '2026-12-21')
      expect(post.wording.text).not.toBe(before?.wording.text)
      expect(post.wording.closing).not.toBe(before?.wording.closing)
      expect(post.state).toBe('for review')
    }
    expect(await nextRenewal()).toBe('2028-10-26T00:00:00.000Z')
    // What could not be written then is left to a person.
    await keepOccasions('brand', [drafted('Glue', '1 December', { theme: ['glue'], again: true })])
    const glue = (await all('occasions')).find((o) => o.name === 'Glue')!
    await commit('machine', [put('occasions', { ...glue, make })])
    await renewOccasions()
    expect((await must('occasions', glue.id)).missing).toHaveLength(2)
    await keepCollection(
      'brand',
      'Glues',
      readShortTexts('Glue holds what nails only point at, and so it wants a dry day.'),
    )
    await renewOccasions()
    expect((await ofOccasions()).filter((p) => p.occasion?.id === glue.id)).toEqual([])
  })
})
