import { plainly } from '../draft'
import type { Shape } from './shape'

/** What a video shows, over its chapters. */
export const video: Shape = {
  name: 'video',
  asks: 'what the video shows',
  lays: (paragraphs) => paragraphs.map(plainly).join('\n\n'),
  suits: (sentences) => (sentences >= 2 ? 1 : 0.9),
  good: ['Two coats in a day, and the first one sets the pace.'],
  bad: [],
}
