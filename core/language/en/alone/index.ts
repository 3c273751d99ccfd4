import type { Token } from '../sentences'
import { CUT } from './cut'
import { OPENINGS } from './openings'
import { ELSEWHERE, PHRASES } from './phrases'
import { REFERENCE } from './reference'
import { look, type LeanKind, type Rule } from './rule'

export type { LeanKind, Rule } from './rule'

/** All rules, in the order in which they are asked. Each carries its own examples, which are its tests. */
export const LEAN_RULES: readonly Rule[] = [...ELSEWHERE, ...OPENINGS, ...PHRASES, ...CUT, ...REFERENCE]

const INSIDE = LEAN_RULES.filter((rule) => !rule.opening)

/** What in a sentence leans on something outside of it: the rule that found it, and the words. */
export interface Lean {
  rule: string
  kind: LeanKind
  words: string
}

/**
 * What in a sentence points out of it, by the first rule that finds something, or null when it stands
 * alone. `before` are the tokens of the run that precede it and may hold what it points to. There is no
 * parser, so each rule goes by parts of speech and words, and says nothing where it is not certain.
 */
export function leanOf(tokens: readonly Token[], text: string, before: readonly Token[] = []): Lean | null {
  const looked = look(tokens, text, before)
  if (looked.words.length === 0) return { rule: 'no words', kind: 'left out', words: 'nothing' }
  for (const rule of looked.opens ? LEAN_RULES : INSIDE) {
    const words = rule.finds(looked)
    if (words !== null) return { rule: rule.name, kind: rule.kind, words }
  }
  return null
}

/** The words by which a sentence points out of itself, or null; see `leanOf`. */
export function danglingWords(
  tokens: readonly Token[],
  text: string,
  before: readonly Token[] = [],
): string | null {
  return leanOf(tokens, text, before)?.words ?? null
}
