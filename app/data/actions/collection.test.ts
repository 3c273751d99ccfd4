import fc from 'fast-check'
import { beforeEach, expect, it, vi } from 'vitest'
import { NOONS, oneBrand } from '../testing/brand'
import { aPipeline, aRow, aShelf, anAccount } from '../../../core/model/samples'
import { readShortTexts } from '../../../core/formats'
import { readFragment } from '../../../core/reading'
import { runPipelines } from '../runner/pipelines'
import { shelfOf } from '../shelf'
import { all, commit, must, put } from '../store'
import { undo } from '../undo'
import { keepCollection } from './collection'
import { takeWriting } from './writing'

vi.mock('../../workers', async () => (await import('../testing/workers')).inProcess())

const SAYINGS = [
  'Never climb a ladder that you did not tie yourself.',
  'Varnish is patience in a tin, and most tins are opened too early.',
  'A dull chisel slips. A sharp one goes where it is sent.',
  'Oak bends where it is warm and breaks where it is hurried.',
  'The best time to oil a hinge is the day before it squeaks.',
  '🌱 Water cuttings in the evening, never at noon.',
  'Two thin coats dry before one thick coat has made up its mind.',
]
const texts = (of: readonly string[]) => readShortTexts(of.join('\n\n'))

beforeEach(() =>
  oneBrand('2026-11-30T06:00:00.000Z', [
    anAccount({ id: 'one', network: 'murmur', zone: 'UTC', slots: NOONS }),
  ]),
)

it('stands on the shelf text by text, out of Intake, and is undone as one', async () => {
  const id = await keepCollection('brand', ' Sayings of the yard ', texts(SAYINGS))
  const passages = await all('passages', 'piece', id)
  expect(passages.map((p) => p.text).sort()).toEqual([...SAYINGS].sort())
  expect(passages.every((p) => p.choice === 'kept' && p.by === 'person' && p.shelf === 'on')).toBe(true)
  expect(await must('pieces', id)).toMatchObject({ title: 'Sayings of the yard', dealt: { by: 'the shelf' } })
  const { shelf } = await shelfOf(await must('brands', 'brand'))
  expect(shelf.items.filter((i) => i.off === null)).toHaveLength(SAYINGS.length)
  expect(await undo('brand')).toBe('Put 7 short texts on the shelf')
  for (const table of ['pieces', 'texts', 'passages', 'sources', 'sketches'] as const)
    expect(await all(table)).toEqual([])
})

it('is undone as one where it was changed: what stood there stands again', async () => {
  await keepCollection('brand', 'Sayings', texts(SAYINGS))
  const state = async () => [
    await all('pieces'),
    await all('texts'),
    await all('passages'),
    await all('sources'),
  ]
  const before = await state()
  await keepCollection(
    'brand',
    'Sayings',
    texts([...SAYINGS.slice(2), 'A plane that sings is sharp enough.']),
  )
  expect(await state()).not.toEqual(before)
  await undo('brand')
  expect(await state()).toEqual(before)
})

it('goes out day by day, each text whole and once, although all stand in one piece', async () => {
  await keepCollection('brand', 'Sayings of the yard', texts(SAYINGS))
  const by = aShelf({ posts: 1, per: 'day' })
  await commit('machine', [
    put(
      'pipelines',
      aPipeline({ gate: 'what is flagged', release: [aRow({ id: 'again', accounts: ['one'], by })] }),
    ),
  ])
  await runPipelines()
  const posts = (await all('posts')).filter((p) => p.shelf)
  expect(posts).toHaveLength(SAYINGS.length)
  expect(new Set(posts.map((p) => p.at?.slice(0, 10))).size).toBe(SAYINGS.length)
  expect(posts.map((p) => p.wording.text).sort()).toEqual([...SAYINGS].sort())
  expect(posts.filter((p) => p.checks.some((c) => c.severity === 'block'))).toEqual([])
})

it('is changed under its name: what stays is the same passage, what is gone stands off', async () => {
  const id = await keepCollection('brand', 'Sayings', texts(SAYINGS))
  const before = new Map((await all('passages', 'piece', id)).map((p) => [p.text, p.id]))
  const fresh = 'A plane that sings is a plane that is sharp.'
  expect(await keepCollection('brand', 'Sayings', texts([...SAYINGS.slice(1), fresh]))).toBe(id)
  const { shelf } = await shelfOf(await must('brands', 'brand'))
  const on = shelf.items.filter((i) => i.off === null)
  expect(on.map((i) => i.passage.text).sort()).toEqual([...SAYINGS.slice(1), fresh].sort())
  for (const text of SAYINGS.slice(1))
    expect(on.find((i) => i.passage.text === text)?.passage.id).toBe(before.get(text))
  expect(shelf.items.find((i) => i.passage.text === SAYINGS[0])?.off).toMatch(/no longer in the piece/)
})

it('keeps every text as it was written, whatever is in it', async () => {
  const word = fc.oneof(
    fc.constantFrom(
      'Read more',
      '1.',
      '-',
      '#',
      '&amp;',
      '<b>',
      '“Oak”',
      '(see',
      '*.PL',
      '```',
      '|',
      '🌱',
      'bends.',
      'a\u00a0b',
    ),
    fc.string({ unit: 'grapheme', maxLength: 8 }),
  )
  const text = fc.array(word, { minLength: 3, maxLength: 14 }).map((words) => words.join(' '))
  let made = 0
  await fc.assert(
    fc.asyncProperty(fc.array(text, { maxLength: 6 }), async (written) => {
      const read = await Promise.resolve([...SAYINGS.slice(0, 1), ...written])
        .then(texts)
        .catch(() => null)
      // Too short ones and the like are refused before.
      fc.pre(read !== null)
      const id = await keepCollection('brand', `Texts ${made++}`, read)
      const kept = (await all('passages', 'piece', id)).map((p) => p.text)
      expect(kept.sort()).toEqual([...read.texts].sort())
    }),
    { numRuns: 60 },
  )
})

it('wants a name, and one that no piece of writing has', async () => {
  const [id = ''] = await takeWriting(
    'brand',
    'Handbook',
    [readFragment('<p>Oak bends.</p>', { title: 'Handbook' })],
    'manuscript',
  )
  await expect(keepCollection('brand', 'Handbook', texts(SAYINGS))).rejects.toThrow(/another name/)
  expect((await must('pieces', id)).collection).toBeUndefined()
  expect(await all('passages')).toEqual([])
  await expect(keepCollection('brand', '  ', texts(SAYINGS))).rejects.toThrow(/Give the collection a name/)
})
