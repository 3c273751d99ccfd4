import type { WholeBrief } from '../../house'
import type { Paragraph } from '../draft'

/** How the readers of one kind of network expect a post to look. */
export interface Shape {
  name: WholeBrief['shape']
  /** What is asked of a connected writer. */
  asks: string
  /** A draft's paragraphs as the text of the post. */
  lays: (paragraphs: readonly Paragraph[]) => string
  /** How well so many sentences in so many paragraphs, as laid, suit its readers: a factor up to 1. */
  suits: (sentences: number, paragraphs: number) => number
  /** Posts that have the shape, and others that have not: they are its tests. */
  good: readonly string[]
  bad: readonly string[]
}

/** Sentences put together where a quotation goes on from one to the next, so that no paragraph parts it. */
export function unparted(sentences: readonly string[]): string[] {
  const parts: string[] = []
  let open = false
  for (const sentence of sentences) {
    const last = parts.length - 1
    if (open && last >= 0) parts[last] = `${parts[last] ?? ''} ${sentence}`
    else parts.push(sentence)
    const said = parts[parts.length - 1] ?? ''
    open = said.split('“').length > said.split('”').length || (said.split('"').length - 1) % 2 === 1
  }
  return parts
}
