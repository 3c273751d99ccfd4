import { readSentences, upperFirst } from '../../language'
import type { PieceContent, Place } from '../../model'
import { graphemes, type NetworkProfile } from '../../networks'

/** A real alternative that a piece holds, as a question with its answers. */
export interface Poll {
  question: string
  answers: string[]
  span: Place | null
}

/** "Debt first, or fund first?", "cabin or deck", "Choosing larch or oak". */
const ALTERNATIVE =
  /(?:^|[:,] |\b(?:choosing|choose|between) )((?:[\p{L}’'-]+ ){0,3}[\p{L}’'-]+?),? or ((?:[\p{L}’'-]+ ){0,3}[\p{L}’'-]+)\??$/iu
const NO_ANSWER =
  /^(?:not|more|less|so|later|never|two|three|is|are|do|does|did|can|should|it|that|this|how|what|why|when|where|who|which|or|and|the|a|an)\b|\b(?:not|or|and|to|of|in|the|a|an)$/i

/** Whether an answer names something and tells nothing. */
function isThing(answer: string): boolean {
  const tokens = readSentences(answer).flatMap((s) => s.tokens)
  return (
    tokens.some((t) => t.pos === 'NOUN' || t.pos === 'PROPN') &&
    !tokens.some((t) => /^(?:VERB|AUX|PRON|ADV)$/.test(t.pos))
  )
}

/**
 * The alternatives that a piece puts in its title, a heading or a question, each of at most as
 * many characters as the network's answers take. None is made up.
 */
export function pollsOf(piece: PieceContent, profile: NetworkProfile): Poll[] {
  const rule = profile.poll
  if (!rule) return []
  const places: { text: string; span: Place | null }[] = [
    { text: piece.title, span: null },
    ...piece.blocks
      .filter((b) => b.kind === 'heading' && b.furniture === null)
      .map((b) => ({ text: piece.text.slice(b.start, b.end), span: { start: b.start, end: b.end } })),
    ...piece.sentences
      .map((s) => ({ text: piece.text.slice(s.start, s.end), span: { start: s.start, end: s.end } }))
      .filter((s) => s.text.endsWith('?') && s.text.length <= 80),
  ]
  const polls: Poll[] = []
  for (const { text, span } of places) {
    const [, one, other] = ALTERNATIVE.exec(text.trim()) ?? []
    if (!one || !other || NO_ANSWER.test(one) || NO_ANSWER.test(other)) continue
    // "Eat before you board, or very late" is advice and no choice between two things.
    if (!text.trim().endsWith('?') && ![one, other].every(isThing)) continue
    const answers = [one, other].map(upperFirst)
    if (answers.some((a) => graphemes(a) > rule.limit) || polls.some((p) => p.answers[0] === answers[0]))
      continue
    const question =
      text.trim().endsWith('?') && /^\p{Lu}/u.test(text) ? text.trim() : `${answers[0]}, or ${other}?`
    polls.push({ question, answers, span })
  }
  return polls
}
