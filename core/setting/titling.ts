import type { PieceContent } from '../model'
import { plainly, type Draft } from './draft'
import type { Headline } from './titles'

/**
 * The first of some titles that may stand over a draft: it is not the draft's first sentence over
 * again, and one that asks is answered right under it. One that the draft says nowhere goes first.
 */
export function titleFor(
  draft: Draft,
  titles: readonly Headline[],
  piece: Pick<PieceContent, 'blocks'>,
): string | null {
  let later: string | null = null
  for (const headline of titles) {
    const where = says(draft, headline.text)
    if (where === 'at once' || !answers(draft, headline, piece)) continue
    if (where === null) return headline.text
    later ??= headline.text
  }
  return later
}

/** So much of a title in one sentence is the title over again. */
const SAID_AGAIN = 0.8

/** Where a draft's text would say its title over again: at once, later, or nowhere that a reader minds. */
function says(draft: Draft, title: string): 'at once' | 'later' | null {
  const { length, first, rest } = spoken(draft)
  const own = wordsIn(title)
  const over = ({ words }: Said): boolean =>
    own.length > 0 && own.filter((w) => words.has(w)).length >= own.length * SAID_AGAIN
  const label = first.text.endsWith(':') && [...first.words].every((w) => own.includes(w))
  if (label || over(first)) return 'at once'
  if (length >= 600 || !rest.some(over)) return null
  return length < 300 ? 'at once' : 'later'
}

interface Said {
  text: string
  words: ReadonlySet<string>
}

const wordsIn = (text: string): string[] => text.toLowerCase().match(/\p{L}{3,}/gu) ?? []

/** A draft's sentences with their words, headings left out. */
function spoken(draft: Draft): { length: number; first: Said; rest: Said[] } {
  const said = draft.paragraphs
    .filter((p) => p.kind !== 'heading')
    .map(plainly)
    .join('\n')
  const [first = { text: '', words: new Set<string>() }, ...rest] = said
    .split(/(?<=[.!?:]) |\n/)
    .map((text) => ({ text, words: new Set(wordsIn(text)) }))
  return { length: said.length, first, rest }
}

/** A heading that asks is a title for what answers it, which stands right under it. */
function answers(draft: Draft, headline: Headline, piece: Pick<PieceContent, 'blocks'>): boolean {
  if (headline.why !== 'a question' || headline.span === null) return true
  const { start } = headline.span
  const next = piece.blocks.find((b) => b.start > start && b.furniture === null)
  return next !== undefined && draft.spans.some((s) => s.start <= next.start && s.end > next.start)
}
