import type { Check } from '../../model'
import { ageingWords } from '../../reading'
import { when, type Rule } from '../rule'

/** Whether its words will not be true for long. */
export const ages: Rule = {
  code: 'ages',
  english: true,
  blocks: false,
  finds: ({ prose }, { writtenAt, house: { dated } }) => {
    // What names the day that the post hangs on is true on it.
    const words = ageingWords(dated ? prose.split(dated).join('') : prose, writtenAt)
    return when(words, () => ({
      severity: 'flag',
      message: `“${words}” will not be true for long. Reword it, or accept it for a short drip.`,
      words: words ?? '',
    }))
  },
}

/** The flag on a post that goes out after the last day for which its piece keeps, or null; local dates. */
export function outlivesCheck(keepsUntil: string | null, goesOut: string | null): Check | null {
  if (!keepsUntil || !goesOut || goesOut <= keepsUntil) return null
  return {
    code: 'outlives-piece',
    severity: 'flag',
    message: `The piece keeps until ${keepsUntil}, and this post goes out after that. Move it to an earlier day, accept it, or say in the Reader that the piece keeps.`,
  }
}

/** Whether it goes out while its piece still keeps. */
export const outlives: Rule = {
  code: 'outlives-piece',
  english: false,
  blocks: false,
  finds: (_, { keepsUntil, goesOut }) => {
    const check = outlivesCheck(keepsUntil ?? null, goesOut ?? null)
    return check ? [check] : []
  },
}
