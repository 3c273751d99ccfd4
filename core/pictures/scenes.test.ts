import { expect, it } from 'vitest'
import type { Card } from '../model'
import { scenesOf, secondsOf } from '.'

const card: Card = { layout: 'words', head: '', text: 'x'.repeat(150), items: [], speaker: '' }
const WIDE = { least: 1, most: 600 }

it('opens with what makes readers stay, then the card, then the brand’s own line', () => {
  const scenes = scenesOf({ card, hook: 'Why oak bends' }, 'The yard', WIDE)
  expect(scenes.map((s) => [s.card.layout, s.card.text])).toEqual([
    ['title', 'Why oak bends'],
    ['words', card.text],
    ['title', 'The yard'],
  ])
  expect(scenesOf({ card, hook: '' }, ' ', WIDE).map((s) => s.card)).toEqual([card])
})

it('shows each as long as it is read: 1.4 s and one more for every 15 characters, at least 2.4', () => {
  const [hook, said] = scenesOf({ card, hook: 'Oak' }, '', WIDE)
  expect(said?.seconds).toBeCloseTo(1.4 + 10)
  expect(hook?.seconds).toBeCloseTo(2.4)
  // What a reader sees as one character counts as one.
  const flags = { ...card, text: '🇵🇹'.repeat(30) }
  expect(scenesOf({ card: flags, hook: '' }, '', WIDE)[0]?.seconds).toBeCloseTo(3.4)
})

it('shows the points of a list and steps one by one, what they are of first', () => {
  const steps: Card = { ...card, layout: 'steps', head: 'Feeding', text: '', items: ['Boil it.', 'Stir it.'] }
  expect(scenesOf({ card: steps, hook: '' }, 'Yard', WIDE).map((s) => s.card.text)).toEqual([
    'Feeding',
    'Boil it.',
    'Stir it.',
    'Yard',
  ])
})

it('shows a code last, with the brand’s line or what there is', () => {
  const coded = { ...card, code: true }
  const codes = (line: string) => scenesOf({ card: coded, hook: 'Oak' }, line, WIDE).map((s) => s.card.code)
  expect(codes('Yard')).toEqual([undefined, undefined, true])
  expect(codes('')).toEqual([undefined, true])
})

it('is never shorter nor longer than the network takes a clip, each card in proportion', () => {
  const short = scenesOf({ card: { ...card, text: 'Oak.' }, hook: 'Why' }, '', { least: 12, most: 90 })
  expect(secondsOf(short)).toBeCloseTo(12)
  expect(short.map((s) => s.seconds)).toEqual([6, 6])
  const items = Array.from({ length: 7 }, () => 'y'.repeat(140))
  const long = { ...card, layout: 'list' as const, head: 'What', text: '', items }
  expect(secondsOf(scenesOf({ card: long, hook: '' }, '', WIDE))).toBeGreaterThan(60)
  expect(secondsOf(scenesOf({ card: long, hook: '' }, '', { least: 5, most: 60 }))).toBeCloseTo(60)
})
