import { ungrounded, type Ungrounded } from '../grounding'
import { when, type Caption, type CheckContext, type Rule } from '../rule'

const NOT_THERE: Readonly<Record<Exclude<Ungrounded['kind'], 'word'>, (words: string) => string>> = {
  number: (w) => `The number “${w}” is`,
  name: (w) => `The name “${w}” is`,
  superlative: (w) => `The superlative “${w}” is`,
  quotation: () => 'These quoted words are',
}

/** From this share of its words of substance on, what the piece does not use makes another text of it. */
const FOREIGN = 0.3
/** So few foreign words are a matter of taste, whatever their share. */
const FEW = 4

function foundIn({ prose }: Caption, { house, source, beside }: CheckContext): Ungrounded[] {
  // What a person wrote by itself answers to no piece.
  if (source === null) return []
  const allowed = [
    house.brand,
    ...house.style.closingLines.map((c) => c.text),
    beside?.closing ?? '',
    ...house.style.swaps.map((s) => s.to),
    'Link in the first comment. Link in the profile.',
  ]
  return ungrounded([prose, beside?.title ?? '', ...(beside?.parts ?? [])].join('\n'), source, allowed)
}

/** Whether its numbers, names, superlatives and quotations stand in the piece. */
export const grounded: Rule = {
  code: 'not-grounded',
  english: true,
  blocks: false,
  finds: (caption, context) =>
    foundIn(caption, context).flatMap(({ kind, words }) =>
      when(kind !== 'word', () => ({
        severity: 'flag',
        message: `${NOT_THERE[kind as keyof typeof NOT_THERE](words)} not in the piece. Take it out, or accept it if it is true.`,
        words,
      })),
    ),
}

/** Whether it uses words of substance that the piece does not. */
export const ownWords: Rule = {
  code: 'other-words',
  english: true,
  blocks: false,
  finds: (caption, context) => {
    const foreign = foundIn(caption, context).flatMap((f) => (f.kind === 'word' ? [f.words] : []))
    const words = foreign.slice(0, 6).join(', ')
    const many = foreign.length >= FEW && foreign.length >= FOREIGN * substance(caption.prose)
    return when(foreign.length, () => ({
      severity: many ? 'flag' : 'note',
      message: `${foreign.length === 1 ? 'A word' : 'Words'} that the piece does not use: ${words}. See that it says no more than the piece does.`,
      words,
    }))
  },
}

/** About how many words of substance a text has: those of four letters and more. */
const substance = (text: string): number => new Set(text.toLowerCase().match(/\p{L}{4,}/gu)).size
