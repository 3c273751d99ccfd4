import { wordsFound } from '../../house'
import type { Rule } from '../rule'

/** Whether it says what the brand never says. */
export const neverSay: Rule = {
  code: 'never-say',
  english: false,
  blocks: true,
  finds: ({ prose }, { house, beside }) => {
    const all = [prose, beside?.title ?? '', ...(beside?.parts ?? [])].join('\n')
    return house.style.neverSay.flatMap((phrase) => {
      const found = wordsFound(all, phrase)
      if (!found) return []
      return {
        severity: 'block',
        message: `“${found}” is on the brand’s never-say list. Say it another way.`,
        words: found,
      }
    })
  },
}
