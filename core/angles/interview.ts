import type { Block, PieceContent } from '../model'
import { headingOver } from '../study'

/** Headings that ask, from which on a text is a conversation. */
const LEAST = 3

export interface Interview {
  /** Who answers, where the text says it at its beginning. */
  name: string | null
  /** Whether a place is an answer. */
  answers: (place: Pick<Block, 'start'>) => boolean
}

/**
 * A text in questions and answers in which somebody speaks as "I", or null for every other. The one
 * who answers is named in what stands before the first question: the one name of two words and more
 * with which a sentence begins there.
 */
export function interviewOf(piece: PieceContent): Interview | null {
  const asks = (b: Block | null): boolean =>
    b?.kind === 'heading' && b.furniture === null && piece.text.slice(b.start, b.end).trimEnd().endsWith('?')
  const questions = piece.blocks.filter(asks)
  const [first] = questions
  const answers = (place: Pick<Block, 'start'>): boolean =>
    first !== undefined && place.start > first.start && headingOver(piece, place) !== null
  // Most answers speak of oneself; in a list of questions that anybody answers few do.
  const answered = questions.map((q, i) => piece.text.slice(q.end, questions[i + 1]?.start))
  const speaks = answered.filter((text) => SPEAKS.test(text)).length * 2 >= questions.length
  let interview: Interview | null = null
  if (questions.length >= LEAST && first && speaks) {
    const opening = piece.blocks
      .filter((b) => b.end <= first.start && b.kind === 'paragraph' && b.furniture === null)
      .map((b) => piece.text.slice(b.start, b.end))
      .join(' ')
    const names = new Set(
      [...opening.matchAll(/(?:^|[.!?] )(\p{Lu}[\p{L}’-]+(?: \p{Lu}[\p{L}’-]+)+) (?=\p{Ll})/gu)].map(
        (m) => m[1] ?? '',
      ),
    )
    interview = { name: names.size === 1 ? ([...names][0] ?? null) : null, answers }
  }
  return interview
}

/** Words by which somebody speaks of himself. */
export const SPEAKS = /\b(?:I|me|my|mine|myself)\b/
