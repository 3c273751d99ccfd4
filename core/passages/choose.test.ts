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
/** The choice where only the worth of a sentence counts, so that its chance is the score; `alone` is the chance that it stands alone. */
const chosen = (
  chances: readonly number[],
  { alone = [], ends = null }: { alone?: number[]; ends?: { start: number; end: number }[] | null } = {},
) => {
  const study = studyOf(readFragment(TEXTS.map((t) => `<p>${t}</p>`).join('')))
  const logit = (p: number): number => Math.log(p / (1 - p))
  const odds = chances.map((p, i): SentenceOdds => ({
    alone: logit(alone[i] ?? 0.9),
    worth: logit(p),
    quotable: 0,
    never: 0,
    good: 0,
  }))
  return choosePassages(study, odds, [0, 1, 0, 0, 0, 0, 0, 0, 0, 0, 0], ends).map(
    ({ run, score, kept }) => [run.from, score, kept] as const,
  )
}
const kept = (...said: Parameters<typeof chosen>): number[] =>
  chosen(...said).flatMap(([from, , is]) => (is ? [from] : []))

it('keeps what is more likely good than not, and of the best two what is fair', () => {
  expect(kept([0.9, 0.8, 0.7, 0.51, 0.1])).toEqual([0, 1, 2, 3])
  expect(kept([0.9, 0.8, 0.7, 0.49, 0.1])).toEqual([0, 1, 2])
  expect(kept([0.49, 0.41, 0.405, 0.3, 0.1])).toEqual([0, 1])
  expect(kept([0.49, 0.39, 0.3, 0.3, 0.1])).toEqual([0])
})

it('keeps beyond the best two only what stands alone', () => {
  expect(kept([0.9, 0.8, 0.7, 0.6, 0.1], { alone: [0.5, 0.5, 0.57, 0.59, 0.9] })).toEqual([0, 1, 3])
})

it('counts what ages for two fifths, and keeps it where the piece ends with it', () => {
  expect(chosen([0.1, 0.1, 0.1, 0.1, 0.9]).find(([from]) => from === 4)).toEqual([4, 0.36, false])
  const at = TEXTS.slice(0, 4).join('\n\n').length + 2
  expect(chosen([0.1, 0.1, 0.1, 0.1, 0.2], { ends: [{ start: at, end: at + 5 }] })[0]).toEqual([4, 0.4, true])
})
