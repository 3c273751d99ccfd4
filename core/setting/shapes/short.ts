import { plainly } from '../draft'
import type { Shape } from './shape'

/** One or two sentences in one paragraph. */
export const short: Shape = {
  name: 'short',
  asks: 'one or two sentences in one paragraph, no throat-clearing',
  lays: (paragraphs) => paragraphs.map(plainly).join(paragraphs.some((p) => p.kind === 'list') ? '\n' : ' '),
  suits: (sentences) => (sentences <= 2 ? 1 : sentences === 3 ? 0.95 : 0.85),
  good: ['Buy one good flat brush. Never let it dry.'],
  bad: ['A brush is a tool.\n\nBuy a good one.'],
}
