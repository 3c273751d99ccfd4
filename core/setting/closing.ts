import type { House } from '../house'
import { wordsFound } from '../house'

/**
 * The first of the house's closing lines that may stand under a body: one that has not closed a post
 * lately, and whose condition holds, which is that the body says one of its words in any form.
 */
export function closingFor({ style }: House, body: string, closed: ReadonlySet<string>): string | null {
  const may = style.closingLines.find(
    ({ text, where }) =>
      !closed.has(text) && (where.length === 0 || where.some((word) => wordsFound(body, word) !== null)),
  )
  return may?.text ?? null
}
