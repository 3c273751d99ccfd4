export { findPassages, passageAt } from './find'
export { jaccard } from './centrality'
export {
  ageingWords,
  danglingWords,
  isBalanced,
  isImperative,
  contentLemmas,
  opensOnKnown,
  promisesList,
  numbersIn,
  sentenceFeatures,
  type SentenceFeatures,
} from './features'
export { AGEING, NUMBER_WORDS, STOP_WORDS, THIRD_PERSON } from './words'
