import { bareWords } from '../../text'
import { likeness, LIKENESS_BOUND, LONG_AGO_BOUND } from '../likeness'
import { when, type CheckContext, type Rule } from '../rule'

/** Whether another account says the very same bare words, which is but for links and tags. */
function isRepeated(mine: string, other: CheckContext['others'][number]): boolean {
  return mine !== '' && other.sibling && bareWords(other.text) === mine
}

/** Whether the same words go out on another account of the network. */
export const sameWords: Rule = {
  code: 'same-words',
  english: false,
  blocks: true,
  finds: ({ text }, { others }) => {
    const mine = bareWords(text)
    return when(
      others.some((o) => isRepeated(mine, o)),
      () => ({
        severity: 'block',
        message: 'The same words go out on another account of this network. Take another wording.',
      }),
    )
  },
}

/** Whether it is too like what else goes out on its account or a sibling. */
export const tooAlike: Rule = {
  code: 'too-alike',
  english: false,
  blocks: false,
  finds: ({ text }, { others }) => {
    // The very same on a sibling is blocked, and need not be said twice.
    const mine = bareWords(text)
    const near = others.reduce((top, o) => {
      const alike = likeness(text, o.text)
      const counts = alike > (o.longAgo ? LONG_AGO_BOUND : LIKENESS_BOUND) && !isRepeated(mine, o)
      return counts ? Math.max(top, alike) : top
    }, 0)
    return when(near > 0, () => ({
      severity: 'flag',
      message: `${Math.round(near * 100)} % like another caption of this account or a sibling. Take another wording.`,
    }))
  },
}
