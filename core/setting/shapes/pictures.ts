import { plainly } from '../draft'
import type { Shape } from './shape'

/** Few words under a picture. */
export const pictures: Shape = {
  name: 'pictures speak',
  asks: 'what one sees or feels first, then the use; one or two short paragraphs',
  lays: (paragraphs) => paragraphs.map(plainly).join('\n\n'),
  suits: (sentences, paragraphs) => (sentences <= 2 ? 1 : sentences === 3 && paragraphs <= 2 ? 0.95 : 0.8),
  good: ['Green oak bends best. Old oak breaks.'],
  bad: ['Oak.\n\nIt bends.\n\nIt breaks.\n\nIt dries.'],
}
