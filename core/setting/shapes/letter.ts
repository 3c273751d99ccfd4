import { itemsOf, plainly, type Paragraph } from '../draft'
import type { Shape } from './shape'

/** A letter in Markdown: headings, paragraphs, lists and quotations. */
export const letter: Shape = {
  name: 'letter',
  asks: 'a letter of several paragraphs with a blank line between them',
  lays: (paragraphs) => paragraphs.map(inMarkdown).join('\n\n'),
  suits: (_, paragraphs) => Math.min(1, 0.7 + 0.1 * paragraphs),
  good: ['## The slip\n\nA boat comes up on the spring tide.\n\n- chocks\n- a long rope'],
  bad: [],
}

function inMarkdown(paragraph: Paragraph): string {
  switch (paragraph.kind) {
    case 'heading':
      return `## ${paragraph.text}`
    case 'quotation':
      return `> ${paragraph.text}`
    case 'list':
      return [paragraph.lead, itemsOf(paragraph, '-').join('\n')].filter(Boolean).join('\n\n')
    default:
      return plainly(paragraph)
  }
}
