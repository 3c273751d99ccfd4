import type { Angle, Place } from '../model'

/** A part of a draft before it is set. */
export type Paragraph =
  /** Sentences that run on. */
  | { kind: 'prose'; sentences: readonly string[] }
  /** Items that belong together, with what leads into them. */
  | { kind: 'list'; lead: string; items: readonly string[]; ordered: boolean }
  /** A heading of a letter. */
  | { kind: 'heading'; text: string }
  /** What somebody says, as a block of a letter. */
  | { kind: 'quotation'; text: string }

/** What a writer proposes for a post before it is set: what is said, how it argues, where it comes from. */
export interface Draft {
  angle: Angle
  paragraphs: readonly Paragraph[]
  /** Where its words stand in the piece. */
  spans: readonly Place[]
  /** How likely it is that readers would post it as it stands, 0 to 1. */
  worth: number
  /** Whether it gives the points of the whole piece, of which a drip has one. */
  whole: boolean
}

/** A draft of running text. */
export function proseDraft(
  angle: Angle,
  paragraphs: readonly string[],
  spans: readonly Place[],
  worth: number,
): Draft {
  return {
    angle,
    paragraphs: paragraphs.map((text) => ({ kind: 'prose', sentences: [text] })),
    spans,
    worth,
    whole: false,
  }
}

/** The words of a paragraph on one line or, for a list, one a line. */
export function plainly(paragraph: Paragraph): string {
  switch (paragraph.kind) {
    case 'prose':
      return paragraph.sentences.join(' ')
    case 'list':
      return [paragraph.lead, ...itemsOf(paragraph)].join('\n')
    default:
      return paragraph.text
  }
}

/** The items of a list as they stand in a text, numbered where the piece numbers them. */
export function itemsOf(list: Extract<Paragraph, { kind: 'list' }>, mark = '–'): string[] {
  return list.items.map((item, i) => `${list.ordered ? `${i + 1}.` : mark} ${item}`)
}
