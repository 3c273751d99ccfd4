import { afterAll, beforeEach, expect, it, vi } from 'vitest'
import { readShortTexts } from '../../../core/formats'
import { Fault } from '../../../core/model'
import { aPipeline, aRow, aShelf, anAccount } from '../../../core/model/samples'
import { runPipelines } from '../runner/pipelines'
import { all, commit, must, patch, put } from '../store'
import { NOONS, oneBrand } from '../testing/brand'
import { setClock } from '../testing/browser'
import { keepCollection } from './collection'
import { dripAgain } from './copies'
import { startDrip } from './drips'

// Files of one worker share the clock: the next one finds it as it is.
afterAll(() => setClock(new Date().toISOString()))

vi.mock('../../workers', async () => (await import('../testing/workers')).inProcess())

/** A connected writer that says what it is told to of a passage, and what it was asked. */
const writer = vi.hoisted(() => ({ asked: [] as string[], say: (passage: string): string => passage }))
vi.mock('../services', async (original) => ({
  ...(await original<object>()),
  askWriter: async (messages: { content: string }[]) => {
    const question = messages.at(-1)?.content ?? ''
    writer.asked.push(question)
    const [, passage = ''] = /The passage:\n"""\n([^]*?)\n"""/.exec(question) ?? []
    return { text: JSON.stringify({ text: writer.say(passage) }) }
  },
}))

const TEXTS = [
  'Frost lifts the pointing out of a wall long before anybody sees it from the road.',
  'Varnish is patience in a tin, and most tins are opened too early in the year.',
]
/** The same as the writer says it. */
const OTHERWISE = [
  'Long before anybody sees it from the road, frost lifts the pointing out of a wall.',
  'Most tins of varnish are opened too early in the year; it is patience in a tin.',
]
const otherwise = (passage: string): string =>
  OTHERWISE[TEXTS.findIndex((t) => passage.includes(t))] ?? passage

beforeEach(async () => {
  await oneBrand('2026-11-30T06:00:00.000Z', [
    anAccount({ id: 'one', network: 'murmur', zone: 'UTC', slots: NOONS }),
  ])
  const brand = await must('brands', 'brand')
  await commit('machine', [
    put('brands', { ...brand, houseStyle: { ...brand.houseStyle, writer: 'connected' } }),
  ])
  writer.asked.length = 0
  writer.say = otherwise
})

const shelfRuns = async () => {
  await keepCollection('brand', 'Sayings', readShortTexts(TEXTS.join('\n\n')))
  const by = aShelf({ posts: 1, per: 'day' })
  const release = [aRow({ id: 'again', accounts: ['one'], by })]
  await commit('machine', [put('pipelines', aPipeline({ gate: 'what is flagged', release }))])
  await runPipelines()
  return (await all('posts')).sort((a, b) => ((a.at ?? '') < (b.at ?? '') ? -1 : 1))
}

it('what comes from the shelf is in the words of the connected writer, with the built-in ones beside them', async () => {
  const posts = await shelfRuns()
  expect(posts.map((p) => p.wording.text).sort()).toEqual([...OTHERWISE].sort())
  for (const post of posts) {
    expect(post).toMatchObject({ fallback: null, state: 'approved', wording: { by: 'connected' } })
    expect(post.others.map((w) => w.by)).toEqual(['built-in'])
    expect(post.at).not.toBeNull()
  }
})

it('and in the built-in ones where it cannot write, which the post says', async () => {
  writer.say = () => {
    throw new Fault('unreachable', 'The writer does not answer.')
  }
  const posts = await shelfRuns()
  expect(posts.map((p) => p.wording.text).sort()).toEqual([...TEXTS].sort())
  for (const post of posts) expect(post.fallback).toContain('The writer does not answer.')
})

it('what is dripped again is written anew, and the writer is told how what was said of it before opens', async () => {
  const [first] = await shelfRuns()
  const out = { state: 'published', publishedAt: first?.at ?? null } as const
  await commit('machine', [patch('posts', first?.id ?? '', (p) => ({ ...p, ...out }))])
  writer.asked.length = 0
  writer.say = (passage) =>
    passage.startsWith('Frost')
      ? 'A wall has its pointing lifted by frost long before anybody sees it from the road.'
      : 'Too early in the year most tins of varnish are opened: it is patience in a tin.'
  await setClock('2027-12-20T06:00:00.000Z')
  const again = await dripAgain(first?.id ?? '')
  // Where the built-in writer has no other words of its passage it is another one of its piece, which was out too.
  const of = TEXTS.indexOf((await must('passages', again.passage ?? '')).text)
  const opening = (text = ''): string => text.toLowerCase().split(' ').slice(0, 3).join(' ')
  expect(writer.asked[0]).toContain(`\n- ${opening(OTHERWISE[of])}`)
  expect(writer.asked[0]).not.toContain(`\n- ${opening(OTHERWISE[1 - of])}`)
  expect(again).toMatchObject({ state: 'for review', fallback: null, wording: { by: 'connected' } })
})

it('in a drip no answer opens like one before it', async () => {
  const texts = [
    'Frost lifts the pointing out of a wall long before anybody sees the damage.',
    'Most people sand too soon; before anybody sees the damage, varnish is patience in a tin.',
  ]
  const id = await keepCollection('brand', 'Two', readShortTexts(texts.join('\n\n')))
  writer.say = (passage) =>
    passage.startsWith('Frost')
      ? 'Before anybody sees the damage, frost lifts the pointing out of a wall.'
      : 'Before anybody sees the damage, varnish is patience in a tin: most people sand too soon.'
  await startDrip({
    piece: id,
    accounts: ['one'],
    rhythm: { name: 'Mine', list: [0, 3] },
    startDay: '2026-12-01',
    pipeline: null,
    gate: 'everything',
    actor: 'machine',
  })
  const posts = (await all('posts')).filter((p) => p.drip !== null)
  expect(posts.map((p) => p.wording.by).sort()).toEqual(['built-in', 'connected'])
  expect(posts.find((p) => p.wording.by === 'built-in')?.fallback).toMatch(/opens/i)
})

it('a story is not asked for, whose words are those of its card; what comes within reach later is one too', async () => {
  await commit('machine', [
    put('accounts', anAccount({ id: 'tall', network: 'shutterleaf', zone: 'UTC', slots: NOONS })),
  ])
  const piece = await keepCollection('brand', 'Sayings', readShortTexts(TEXTS.join('\n\n')))
  const row = aRow({ id: 'row', format: 'story', accounts: ['tall'] })
  const pipeline = aPipeline({ release: [row], gate: 'everything' })
  const ahead = { ...pipeline, limits: { ...pipeline.limits, ahead: 7 } }
  await commit('machine', [put('pipelines', ahead)])
  await startDrip({
    piece,
    accounts: ['tall'],
    rhythm: { name: 'Mine', list: [0, 20] },
    startDay: '2026-12-01',
    pipeline: ahead,
    row: 'row',
    gate: 'everything',
    actor: 'machine',
  })
  const stories = async () =>
    (await all('posts')).map((p) => [p.wording.format, p.wording.by, p.media.length])
  expect(await stories()).toEqual([['story', 'built-in', 1]])
  await setClock('2026-12-16T06:00:00.000Z')
  await runPipelines()
  expect(await stories()).toEqual([
    ['story', 'built-in', 1],
    ['story', 'built-in', 1],
  ])
  expect(writer.asked).toEqual([])
})
