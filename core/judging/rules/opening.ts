import { danglingWords, leanOf, readSentences, type Token } from '../../language'
import { graphemes, sliceGraphemes } from '../../networks'
import { firstSentence } from '../../text'
import { when, type Rule } from '../rule'

/** Whether the first sentence ends before the network folds the rest away. */
export const hook: Rule = {
  code: 'hook-after-fold',
  english: true,
  blocks: false,
  finds: ({ prose }, { profile, beside }) => {
    const first = firstSentence(prose.trim().split('\n')[0] ?? '')
    const fold = profile.text.fold ?? Infinity
    return when(!beside?.title && graphemes(first) > fold, () => ({
      severity: 'flag',
      message: `The first sentence runs past the ${fold} characters a reader sees. Open with a shorter one.`,
      words: sliceGraphemes(first, 40),
    }))
  },
}

/** Whether its first words point at something that is not in it, or any of them at another place of the piece. */
export const points: Rule = {
  code: 'points-nowhere',
  english: true,
  blocks: false,
  finds: ({ prose }, { source, beside }) => {
    const left = source === null ? 'that is not there' : 'left behind in the piece'
    const opening = pointsOut(prose.trim())
    const elsewhere = [prose, ...(beside?.parts ?? [])].map(pointsElsewhere).find((words) => words !== null)
    return [
      ...when(opening, () => ({
        severity: 'flag',
        message: `It opens with “${opening}”, which points at something ${left}.`,
        words: opening ?? '',
      })),
      ...when(elsewhere && elsewhere !== opening, () => ({
        severity: 'flag',
        message: `“${elsewhere}” points to another place, which is not in the post. Take it out.`,
        words: elsewhere ?? '',
      })),
    ]
  },
}

/** What in the first sentence points out of it and is not said by the one before or after; a label is not asked. */
function pointsOut(prose: string): string | null {
  const said = (prose.split('\n')[0] ?? '').replace(/^[^:.!?\n]{3,70}: (?=\p{Lu})/u, '')
  const [first, next] = readSentences(said)
  if (!first) return null
  const words = danglingWords(first.tokens, said.slice(first.start, first.end))
  // "They had decided. The walkers had …": a pronoun may be held back to make one read on.
  return words !== null && next && isHeldBack(words, next.tokens) ? null : words
}

const PRONOUN = /^(?:he|she|they|it|him|her|them|his|their|its)$/i

/** Whether a pronoun's noun comes at once, in the subject of the next sentence. */
function isHeldBack(words: string, next: readonly Token[]): boolean {
  if (!PRONOUN.test(words)) return false
  const verb = next.findIndex((t) => t.pos === 'VERB' || t.pos === 'AUX')
  return next.slice(0, Math.max(0, verb)).some((t) => t.pos === 'PROPN')
}

/** Words by which a text sends its reader to another place: "as noted above", "see number 2". */
function pointsElsewhere(text: string): string | null {
  for (const s of readSentences(text)) {
    const lean = leanOf(s.tokens, text.slice(s.start, s.end), s.tokens)
    if (lean?.kind === 'elsewhere') return lean.words
  }
  return null
}
