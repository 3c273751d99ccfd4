import { plainly } from '../draft'
import { unparted, type Shape } from './shape'

/** Up to three lines and the link. */
export const news: Shape = {
  name: 'news',
  asks: 'up to three lines',
  lays: (paragraphs) =>
    paragraphs
      .flatMap((p) => (p.kind === 'prose' && p.sentences.length <= 3 ? unparted(p.sentences) : [plainly(p)]))
      .join('\n'),
  suits: (sentences) => (sentences <= 3 ? 1 : 0.8),
  good: ['One o’clock is the turning time in October.\nThe last light leaves the ridge at five.'],
  bad: ['One o’clock.\n\nThe last light.'],
}
