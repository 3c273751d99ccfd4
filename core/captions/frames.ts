import type { Angle, Voice } from '../model'
import type { Opens } from './drafts'
import type { Topic } from './topics'

/**
 * An opener that is not the piece's own words: a label that its sentences follow. It says only what
 * kind of thing follows, or names the piece; it holds no fact, no praise and no promise.
 *
 * Grammar: `{label}` is a headline and stands only first; `{noun}` and `{doing}` follow a
 * preposition. A frame whose slot the piece cannot fill is not used. `before` says what must
 * follow: an order, a statement, or a statement with two figures.
 */
export interface Frame {
  id: string
  text: string
  before?: Exclude<Opens, 'other'> | 'figures'
  /** The voices it suits; where left out, all. */
  voice?: (voice: Voice) => boolean
}

const we = (v: Voice): boolean => v.speaker === 'we'
const I = (v: Voice): boolean => v.speaker === 'I'
const you = (v: Voice): boolean => v.speaker === 'you'
const formal = (v: Voice): boolean => v.formality >= 1
const casual = (v: Voice): boolean => v.formality <= -1
const vivid = (v: Voice): boolean => v.vividness >= 1
const warm = (v: Voice): boolean => v.warmth >= 1
const notFormal = (v: Voice): boolean => v.formality <= 0

const frame = (text: string, before?: Frame['before'] | null, voice?: Frame['voice']): Omit<Frame, 'id'> => ({
  text,
  ...(before ? { before } : {}),
  ...(voice ? { voice } : {}),
})

/** Frames that say no more than what the piece is about. */
const ANYTHING = [
  frame('On {doing}:'),
  frame('On {noun}:'),
  frame('About {noun}:'),
  frame('About {doing}:'),
  frame('Filed under {field}:'),
  frame('Filed under {doing}:'),
  frame('For anyone new to {field}:'),
  frame('For anyone new to {doing}:'),
  frame('A word on {noun}:', null, warm),
  frame('A word on {doing}:', null, warm),
  frame('For reference:', null, formal),
  frame('From our notes on {noun}:', null, we),
  frame('From our notes on {doing}:', null, we),
  frame('From my notes on {noun}:', null, I),
  frame('From my notes on {doing}:', null, I),
]

/** Frames for what tells the reader to do something. */
const ORDERS = [
  frame('When {doing}:', 'order'),
  frame('While {doing}:', 'order'),
  frame('If you are {doing}:', 'order', you),
  frame('For anyone {doing}:', 'order'),
  frame('One way of {doing}:', 'order'),
  frame('A rule for {doing}:', 'order'),
  frame('Advice on {noun}:', 'order'),
  frame('Advice on {doing}:', 'order'),
  frame('A piece of advice:', 'order'),
  frame('Our advice:', 'order', we),
  frame('My advice:', 'order', I),
  frame('In practice:', 'order'),
  frame('What to do:', 'order'),
  frame('The procedure:', 'order', formal),
]

const LIBRARY: Readonly<Record<Angle, readonly Omit<Frame, 'id'>[]>> = {
  question: [
    frame('Asked about {noun}:'),
    frame('Asked about {doing}:'),
    frame('A question about {noun}:'),
    frame('A question about {doing}:'),
    frame('A fair question:'),
    frame('A question worth asking:'),
    frame('A question that comes up:'),
    frame('Question and answer:'),
    frame('Asked in earnest:', null, formal),
    frame('One to ask yourself:', null, you),
    ...ANYTHING,
  ],
  number: [
    frame('In figures:', 'figures'),
    frame('In numbers:', 'figures'),
    frame('For the record:', 'figures', formal),
    ...ORDERS,
    ...ANYTHING,
  ],
  'how-to': [
    frame('For the to-do list:', 'order', casual),
    frame('Something to try:', 'order', notFormal),
    frame('Sleeves up:', 'order', vivid),
    ...ORDERS,
    ...ANYTHING,
  ],
  contrast: [
    frame('Something to keep in mind:', 'statement'),
    frame('For the wall above the bench:', null, vivid),
    ...ORDERS,
    ...ANYTHING,
  ],
  myth: [
    frame('A common belief, and what is so:', 'statement'),
    frame('A misconception:', 'statement', formal),
    ...ANYTHING,
  ],
  story: [
    frame('A story about {noun}:', 'event'),
    frame('A story from {doing}:', 'event'),
    frame('What happened:', 'event'),
    frame('A small story:', 'event', warm),
    frame('A case in point:', 'event', formal),
    frame('Remembered:', 'event', vivid),
    ...ANYTHING,
  ],
  checklist: [
    frame('A short list for {doing}:'),
    frame('One after the other:', 'order'),
    frame('In order:', 'order'),
    frame('To tick off:', 'order'),
    frame('Step by step:', 'order'),
    frame('To copy out:'),
    frame('A list for the pocket:', null, vivid),
    frame('Our list:', null, we),
    frame('My list:', null, I),
    frame('Your list:', null, you),
    ...ORDERS,
    ...ANYTHING,
  ],
  lesson: [
    frame('Something to keep in mind:', 'statement'),
    frame('To be remembered:', 'statement', formal),
    frame('A line for the wall:', 'statement', vivid),
    ...ORDERS,
    ...ANYTHING,
  ],
  quotation: [
    frame('Word for word:'),
    frame('In their own words:'),
    frame('Said about {noun}:'),
    frame('Said about {doing}:'),
    frame('A sentence to keep:'),
    frame('To quote:', null, formal),
    frame('Overheard:', null, casual),
    ...ANYTHING,
  ],
  definition: [
    frame('A word to know:', 'statement'),
    frame('The word, explained:', 'statement'),
    frame('For the glossary:', 'statement'),
    frame('Defined:', 'statement', formal),
    frame('Trade talk, translated:', 'statement', vivid),
    ...ANYTHING,
  ],
}

/** The openers by angle. A frame's id is its text. */
export const FRAMES: Readonly<Record<Angle, readonly Frame[]>> = Object.fromEntries(
  Object.entries(LIBRARY).map(([angle, list]) => [angle, list.map((f) => ({ ...f, id: f.text }))]),
) as unknown as Record<Angle, readonly Frame[]>

const filled = new WeakMap<Topic, Map<string, string | null>>()

/** A frame's words for a piece, or null where the piece cannot fill its slot. */
export function fill(text: string, topic: Topic): string | null {
  let known = filled.get(topic)
  if (!known) filled.set(topic, (known = new Map()))
  let words = known.get(text)
  if (words === undefined) known.set(text, (words = fillNow(text, topic)))
  return words
}

function fillNow(text: string, topic: Topic): string | null {
  let whole = true
  const said = text.replace(
    /\{(label|noun|field|doing)\}/g,
    (_, slot: 'label' | 'noun' | 'field' | 'doing') => {
      const words = topic[slot]
      if (words === null) whole = false
      return words ?? ''
    },
  )
  return whole ? said : null
}

/** The frames of an angle that suit a voice and what follows, filled; `taken` are ids used lately, `figures` the numbers of the first paragraph. */
export function framesFor(
  angle: Angle,
  topic: Topic,
  voice: Voice,
  follows: Opens,
  taken: ReadonlySet<string>,
  figures = 0,
): { id: string; text: string; names: boolean }[] {
  return FRAMES[angle].flatMap((f) => {
    const fits = f.before === 'figures' ? follows === 'statement' && figures >= 2 : f.before === follows
    if (taken.has(f.id) || (f.before && !fits) || (f.voice && !f.voice(voice))) return []
    const text = fill(f.text, topic)
    return text === null ? [] : [{ id: f.id, text, names: f.text.includes('{') }]
  })
}
