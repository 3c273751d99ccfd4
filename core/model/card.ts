import { z } from 'zod'

/** The ways in which the words of a card are set out; what each makes of a card's fields is told at `Card`. */
export const LAYOUTS = [
  'words',
  'quotation',
  'number',
  'contrast',
  'list',
  'steps',
  'question',
  'definition',
  'title',
] as const
export const Layout = z.enum(LAYOUTS)
export type Layout = z.infer<typeof Layout>

/** The most that each field of a card holds, in characters, and how many items there may be. */
export const CARD_MOST = { head: 80, text: 280, items: 7, item: 140, speaker: 80 } as const

/**
 * The words of a card. `head` is a number with its unit, the term that is defined, or what a list is of; `text` the
 * sentence, saying, question or title; `items` the points, the steps, or the two sides of a contrast; `speaker` who
 * said it. What a layout does not use is empty.
 */
export const Card = z.object({
  layout: Layout,
  head: z.string().max(CARD_MOST.head),
  text: z.string().max(CARD_MOST.text),
  items: z.array(z.string().min(1).max(CARD_MOST.item)).max(CARD_MOST.items),
  speaker: z.string().max(CARD_MOST.speaker),
})
export type Card = z.infer<typeof Card>

/** The typefaces that come with Dripline. */
export const FACES = ['Literata', 'Schibsted Grotesk', 'Spline Sans Mono'] as const
export const FaceName = z.enum(FACES)
export type FaceName = z.infer<typeof FaceName>

/** A colour as six hexadecimal digits after a number sign. */
export const Colour = z.string().regex(/^#[0-9a-f]{6}$/)

/** How a brand's cards look. */
export const Look = z.object({
  ground: Colour,
  ink: Colour,
  accent: Colour,
  /** The typeface of what is said, and of what stands beside it. */
  words: FaceName,
  labels: FaceName,
  /** The line at the foot of each card: the brand's name, unless it says otherwise. Empty for none. */
  sign: z.string().max(60),
  /** The layouts that are chosen from; any may be taken by hand. */
  layouts: z.array(Layout).min(1),
})
export type Look = z.infer<typeof Look>

/** The look that a new brand begins with. */
export function usualLook(name: string): Look {
  return {
    ground: '#f3efe4',
    ink: '#22302e',
    accent: '#12686b',
    words: 'Literata',
    labels: 'Schibsted Grotesk',
    sign: name.slice(0, 60),
    layouts: [...LAYOUTS],
  }
}
