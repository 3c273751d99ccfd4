import type { Layout } from '../../model'
import type { Stage } from '../stage'
import { code } from './code'
import { contrast } from './contrast'
import { definition } from './definition'
import { number } from './number'
import { list, steps } from './points'
import { question } from './question'
import { quotation } from './quotation'
import { title } from './title'
import { words } from './words'

/** How each layout sets a card. */
export const DRAWN: Readonly<Record<Layout, (stage: Stage) => void>> = {
  words,
  quotation,
  number,
  contrast,
  list,
  steps,
  question,
  definition,
  title,
  code,
}
