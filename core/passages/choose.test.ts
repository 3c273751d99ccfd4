import { expect, it } from 'vitest'
import { readFragment } from '../reading'
import { studyOf } from '../study'
import { choosePassages } from './choose'
import type { SentenceOdds } from './model'

const TEXTS = [
  'Oak splits along the grain.',
  'Larch drinks the river slowly.',
  'Tar hides every lazy joint.',
  'Copper nails outlive their owners.',
  'Ropes fray this year in salt.',
]
/** The choice where only the first sentence's standing alone counts, so that its chance is the score. */
const chosen = (chances: readonly number[], ends: { start: number; end: number }[] | null = null) => {
  const study = studyOf(readFragment(TEXTS.map((t) => `<p>${t}</p>`).join('')))
  const odds = chances.map((p): SentenceOdds => ({
    alone: Math.log(p / (1 - p)),
    worth: 0,
    quotable: 0,
    never: 0,
    good: 0,
  }))
  return choosePassages(study, odds, [1, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0], ends).map(
    ({ run, score, kept }) => [run.from, score, kept] as const,
  )
}

it('keeps what is good enough, and of the best three what is fair', () => {
  expect(chosen([0.9, 0.8, 0.7, 0.61, 0.1]).map(([, , kept]) => kept)).toEqual([
    true,
    true,
    true,
    true,
    false,
  ])
  expect(chosen([0.9, 0.8, 0.7, 0.59, 0.1]).map(([, , kept]) => kept)).toEqual([
    true,
    true,
    true,
    false,
    false,
  ])
  expect(chosen([0.5, 0.41, 0.39, 0.3, 0.1]).map(([, , kept]) => kept)).toEqual([
    true,
    true,
    false,
    false,
    false,
  ])
})

it('counts what ages for two fifths, and keeps it where the piece ends with it', () => {
  expect(chosen([0.1, 0.1, 0.1, 0.1, 0.9]).find(([from]) => from === 4)).toEqual([4, 0.36, false])
  const at = TEXTS.slice(0, 4).join('\n\n').length + 2
  expect(chosen([0.1, 0.1, 0.1, 0.1, 0.2], [{ start: at, end: at + 5 }])[0]).toEqual([4, 0.4, true])
})
