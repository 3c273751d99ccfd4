export { findPassages, passageAt } from './find'
export { jaccard } from './centrality'
export {
  danglingWords,
  hasVerb,
  isBalanced,
  isImperative,
  opensOnKnown,
  promisesList,
  sentenceFeatures,
  type SentenceFeatures,
} from './features'
export { NUMBER_WORDS, STOP_WORDS, THIRD_PERSON } from './words'
