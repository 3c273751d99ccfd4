import { plainly, type Paragraph } from '../draft'
import { unparted, type Shape } from './shape'

/** A hook that stands alone before the fold. */
const HOOK = 200

/**
 * A first sentence by itself, then short paragraphs of one or two sentences, as many as the piece gives.
 * A paragraph of the piece ends one here too.
 */
export const considered: Shape = {
  name: 'considered',
  asks: 'a first sentence that stands alone, a blank line, then three to five short paragraphs',
  lays: (paragraphs) => paragraphs.flatMap(apart).join('\n\n'),
  suits: (sentences, paragraphs) =>
    sentences === 1 ? 0.8 : paragraphs === 1 ? 0.85 : paragraphs === 2 ? 0.95 : paragraphs <= 6 ? 1 : 0.85,
  good: ['A time does not care how close you are.\n\nA place pulls you towards it. So name a time.'],
  bad: ['A time does not care how close you are. A place pulls you towards it. So name a time.'],
}

function apart(paragraph: Paragraph, index: number): string[] {
  if (paragraph.kind === 'list') return [paragraph.lead, plainly({ ...paragraph, lead: '' }).trimStart()]
  if (paragraph.kind !== 'prose') return [plainly(paragraph)]
  const sentences = unparted(paragraph.sentences)
  const [first = '', ...rest] = sentences
  if (index > 0 || rest.length === 0 || first.length > HOOK) return inPairs(sentences)
  return [first, ...inPairs(rest)]
}

function inPairs(sentences: readonly string[]): string[] {
  const parts: string[] = []
  for (let i = 0; i < sentences.length; i += 2) parts.push(sentences.slice(i, i + 2).join(' '))
  return parts
}
