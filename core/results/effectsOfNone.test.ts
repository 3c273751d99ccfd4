import { expect, it } from 'vitest'
import { seededRandom } from '../planning'
import { effectsOf } from './effects'
import { aFact } from './testing/fact'
import { normals } from './testing/normal'

const HOUR = 3_600_000
const ANGLES = ['lesson', 'number', 'story', 'question', 'contrast', 'how-to'] as const

/** Posts of which nothing that is told apart makes any difference, and what is counted of them by chance alone. */
function chance(seed: number, posts: number): ReturnType<typeof effectsOf> {
  const random = seededRandom(seed)
  const normal = normals(random)
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)] as T
  const facts = Array.from({ length: posts }, (_, i) =>
    aFact({
      post: `p${i}`,
      account: pick(['one', 'two']),
      at: i * 20 * HOUR,
      hour: Math.floor(random() * 24),
      weekday: 1 + Math.floor(random() * 7),
      angle: pick(ANGLES),
      length: pick(['short', 'usual', 'long']),
      shows: pick(['nothing', 'a picture', 'a card'] as const),
      opening: pick(['a statement', 'a question', 'a number'] as const),
      listed: random() < 0.3,
      passage: null,
    }),
  )
  return effectsOf(
    facts,
    facts.map(() => Math.exp(5 + 0.6 * normal())),
  )
}

it('of dozens of effects that are none hardly any is named, since those of a kind are drawn together', () => {
  const told = Array.from({ length: 24 }, (_, i) => chance(i + 1, 60 + (i % 3) * 60).effects)
  const all = told.flat()
  expect(all.length).toBeGreaterThan(24 * 30)
  // Looked at one by one, five in a hundred would be named, and five fits in six would name some.
  expect(all.filter((e) => e.named).length / all.length).toBeLessThan(0.015)
  expect(told.filter((effects) => effects.some((e) => e.named)).length).toBeLessThanOrEqual(8)
})
