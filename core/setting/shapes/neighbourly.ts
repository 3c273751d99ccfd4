import { plainly, type Paragraph } from '../draft'
import { unparted, type Shape } from './shape'

/** So many sentences read well in one paragraph. */
const RUN = 4

/** As one neighbour tells another: the piece's own paragraphs, up to three. */
export const neighbourly: Shape = {
  name: 'neighbourly',
  asks: 'as one neighbour tells another; up to three paragraphs',
  lays: (paragraphs) => paragraphs.flatMap(parted).join('\n\n'),
  suits: (sentences, paragraphs) => (paragraphs > 4 ? 0.8 : sentences === 1 ? 0.9 : 1),
  good: ['We ask every walker to name a turning time. A place pulls you towards it.'],
  bad: ['We ask.\n\nEvery walker.\n\nNames a time.\n\nBefore breakfast.\n\nAlways.'],
}

function parted(paragraph: Paragraph): string[] {
  if (paragraph.kind !== 'prose' || paragraph.sentences.length <= RUN) return [plainly(paragraph)]
  const sentences = unparted(paragraph.sentences)
  const half = Math.ceil(sentences.length / 2)
  return [sentences.slice(0, half).join(' '), sentences.slice(half).join(' ')].filter(Boolean)
}
