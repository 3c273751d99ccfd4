import { isEnglish, languageName } from '../../language'
import { when, type Rule } from '../rule'

/** Whether it is in a language whose rules are known. */
export const knownLanguage: Rule = {
  code: 'other-language',
  english: false,
  blocks: false,
  finds: (_, { language }) =>
    when(!isEnglish(language ?? null), () => ({
      severity: 'flag',
      message: `It is in ${languageName(language ?? '')}, whose rules Dripline does not know: the words are the piece’s own, and nothing in them was checked. Read it before it goes out.`,
    })),
}
