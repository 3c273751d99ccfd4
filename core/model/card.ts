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
  'code',
] as const
export const Layout = z.enum(LAYOUTS)
export type Layout = z.infer<typeof Layout>

/** The layouts that words can be found for by themselves; a code stands where a person puts it. */
export const WORD_LAYOUTS: readonly Layout[] = LAYOUTS.filter((layout) => layout !== 'code')

/** The most that each field of a card holds, in characters, and how many items there may be. */
export const CARD_MOST = {
  head: 80,
  text: 280,
  items: 7,
  item: 140,
  speaker: 80,
  marks: 6,
  mark: 80,
} as const

/**
 * The words of a card. `head` is a number with its unit, the term that is defined, or what a list is of; `text` the
 * sentence, saying, question or title; `items` the points, the steps, or the two sides of a contrast; `speaker` who
 * said it. What a layout has no place for is kept and not drawn. With `code` the post's link stands on it as a QR code;
 * `marked` are those of its words that stand out.
 */
export const Card = z.object({
  layout: Layout,
  head: z.string().max(CARD_MOST.head),
  text: z.string().max(CARD_MOST.text),
  items: z.array(z.string().min(1).max(CARD_MOST.item)).max(CARD_MOST.items),
  speaker: z.string().max(CARD_MOST.speaker),
  code: z.boolean().optional(),
  marked: z.array(z.string().min(1).max(CARD_MOST.mark)).max(CARD_MOST.marks).optional(),
})
export type Card = z.infer<typeof Card>

/** Which fields of a card a layout sets, with what each is called there. */
export const CARD_FIELDS: Readonly<
  Record<Layout, Partial<Record<'head' | 'text' | 'items' | 'speaker', string>>>
> = {
  words: { text: 'Words' },
  quotation: { text: 'What was said', speaker: 'Said by' },
  number: { head: 'Number with its unit', text: 'What it counts' },
  contrast: { items: 'The two sides, one a line' },
  list: { head: 'What the list is of', items: 'Points, one a line' },
  steps: { head: 'What is done', items: 'Steps, one a line' },
  question: { text: 'Question' },
  definition: { head: 'Term', text: 'What it means' },
  title: { text: 'Title' },
  code: { text: 'What the code leads to' },
}

/** Whether the link of its post stands on a card as a code. */
export function hasCode({ layout, code }: Card): boolean {
  return code === true || layout === 'code'
}

/** What a card says, for those who cannot see it: the words that are drawn. */
export function cardAlt(card: Card): string {
  const { layout, head, text, items, speaker } = card
  const fields = CARD_FIELDS[layout]
  const drawn = [fields.head ? head : '', fields.text ? text : '', ...(fields.items ? items : [])]
  const said = drawn.filter((part) => part !== '')
  const whole = said.map((part) => (/[.!?…:”"]$/u.test(part) ? part : `${part}.`)).join(' ')
  const told = fields.speaker && speaker ? `“${whole}” — ${speaker}` : whole
  return hasCode(card) ? `${told} With the link as a QR code.` : told
}

/** What a card still lacks to be drawn, in a sentence; null where it is whole. */
export function cardLacks(card: Card): string | null {
  const fields = CARD_FIELDS[card.layout]
  if (fields.text && card.text.trim() === '') return `It has no words yet: fill in “${fields.text}”.`
  const needsHead = card.layout === 'number' || card.layout === 'definition'
  if (needsHead && card.head.trim() === '') return `“${fields.head}” is empty.`
  if (card.layout === 'contrast' && card.items.length !== 2)
    return 'A contrast has two sides: write one on each of two lines.'
  if (fields.items && card.items.length < 2) return 'Write at least two, one a line.'
  const parsed = Card.safeParse(card)
  if (parsed.success) return null
  const where = String(parsed.error.issues[0]?.path[0] ?? 'text') as keyof typeof CARD_MOST | 'marked'
  if (where === 'marked')
    return `At most ${CARD_MOST.marks} times may words stand out, each time of at most ${CARD_MOST.mark} characters.`
  return where === 'items'
    ? `At most ${CARD_MOST.items} of at most ${CARD_MOST.item} characters fit on a card.`
    : `“${fields[where as 'text'] ?? where}” holds at most ${CARD_MOST[where]} characters.`
}

/** The typefaces that come with Dripline. */
export const FACES = ['Literata', 'Schibsted Grotesk', 'Spline Sans Mono'] as const
export const FaceName = z.enum(FACES)
export type FaceName = z.infer<typeof FaceName>

/** The SHA-256 of a file's bytes, in hexadecimal. */
const Hash = z.string().regex(/^[0-9a-f]{64}$/)

/**
 * A typeface of a brand's own: the family that its files name, and the bytes of each weight; `strong` is null where one file
 * does for both.
 */
export const OwnFace = z.object({
  name: z.string().min(1).max(60),
  regular: Hash,
  strong: Hash.nullable(),
})
export type OwnFace = z.infer<typeof OwnFace>

/** A brand's mark: a picture by the hash of its bytes, and its size in pixels. */
export const Mark = z.object({ hash: Hash, width: z.int().positive(), height: z.int().positive() })
export type Mark = z.infer<typeof Mark>

/** The most typefaces of its own that a brand has. */
export const OWN_FACES = 6

/** A colour as six hexadecimal digits after a number sign. */
export const Colour = z.string().regex(/^#[0-9a-f]{6}$/)

/** How a brand's cards look. */
export const Look = z.object({
  ground: Colour,
  ink: Colour,
  accent: Colour,
  /** The typeface of what is said, and of what stands beside it: one that comes with Dripline, or one of the brand's own. */
  words: z.string().min(1).max(60),
  labels: z.string().min(1).max(60),
  own: z.array(OwnFace).max(OWN_FACES).optional(),
  /** The line at the foot of each card: the brand's name, unless it says otherwise. Empty for none. */
  sign: z.string().max(60),
  /** What stands before that line in place of a small square. */
  mark: Mark.optional(),
  /** Whether cards carry the link as a code where a network's links cannot be followed. */
  codes: z.boolean().optional(),
  /** The layouts that are chosen from; any may be taken by hand. */
  layouts: z.array(Layout).min(1),
})
export type Look = z.infer<typeof Look>

/** The files that a look is drawn with and that are the brand's own, by the hashes of their bytes: typefaces that it uses, its mark. */
export function ownFiles({ words, labels, mark, own = [] }: Look): string[] {
  const used = own.filter(({ name }) => name === words || name === labels)
  const fonts = used.flatMap(({ regular, strong }) => (strong ? [regular, strong] : [regular]))
  return [...new Set(mark ? [...fonts, mark.hash] : fonts)]
}

/** The look that a new brand begins with. */
export function usualLook(name: string): Look {
  return {
    ground: '#f3efe4',
    ink: '#22302e',
    accent: '#12686b',
    words: 'Literata',
    labels: 'Schibsted Grotesk',
    sign: name.slice(0, 60),
    layouts: [...WORD_LAYOUTS],
  }
}
