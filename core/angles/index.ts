import type { Angle } from '../model'
import type { SentenceFeatures } from '../study'
import type { AngleOf } from './angle'
import { checklist } from './checklist'
import { contrast } from './contrast'
import { definition } from './definition'
import { howTo } from './howTo'
import { lesson } from './lesson'
import { myth } from './myth'
import { number } from './number'
import { question } from './question'
import { quotation } from './quotation'
import { story } from './story'

/** All angles, in the order in which a run of sentences is asked for them. */
const ALL: readonly AngleOf[] = [
  question,
  myth,
  checklist,
  howTo,
  story,
  number,
  definition,
  contrast,
  quotation,
  lesson,
]

/** How a run of sentences argues: the one place where that is decided. */
export function angleOf(run: readonly SentenceFeatures[]): Angle {
  return ALL.find((a) => a.is(run))?.angle ?? 'lesson'
}

/** What an angle asks of a connected writer. */
export const ASKS = Object.fromEntries(ALL.map((a) => [a.angle, a.asks])) as Readonly<Record<Angle, string>>

export { interviewOf, SPEAKS } from './interview'
export { anglesOf, MATERIAL_KINDS, materialOf } from './material'
