export { danglingWords, leanOf, type LeanKind } from './alone'
export {
  contentLemmas,
  isBalanced,
  isContrast,
  isDefinition,
  isSurprise,
  numbersIn,
  opensOnKnown,
  promisesList,
  withoutOpener,
} from './form'
export { readSentences, type SentenceTokens, type Token } from './sentences'
export { hasVerb, isImperative, isNoun, isPast, isPlural, isVerb } from './verbs'
export { IRREGULAR_PAST, NUMBER_WORDS, STOP_WORDS, STRONG_VERBS, THIRD_PERSON } from './words'
export { CLASS_OF, WORD_CLASSES } from './lexicon'
export { rarity } from './rarity'
export { cased, gerund, indefinite, past, plural, upperFirst } from './grammar'
export { turned, unjoined } from './reorder'
export { shortenUntil, shorterSentences } from './shorten'
export { respell } from './spelling'
export { stem } from './stem'
export { contract, inVoice, outside } from './voice'
export { readingEase } from './ease'
export { asked } from './asked'
export { isBelief } from './belief'
