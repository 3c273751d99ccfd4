import { plainly } from '../draft'
import type { Shape } from './shape'

/** A description with the words people look for, under a title. */
export const searchable: Shape = {
  name: 'searchable',
  asks: 'plain, with the words people look for',
  lays: (paragraphs) => paragraphs.map(plainly).join(paragraphs.some((p) => p.kind === 'list') ? '\n' : ' '),
  suits: (sentences) => (sentences <= 4 ? 1 : 0.85),
  good: ['A turning time named before breakfast beats a turning place.'],
  bad: ['A turning time.\n\nNamed before breakfast.'],
}
