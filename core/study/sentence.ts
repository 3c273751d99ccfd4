import {
  contentLemmas,
  danglingWords,
  hasVerb,
  isContrast,
  isDefinition,
  isImperative,
  isPast,
  isSurprise,
  numbersIn,
  STRONG_VERBS,
  withoutOpener,
} from '../language'
import { ageingWords, type ReadSentence } from '../reading'

/** What is known of each sentence of a piece before runs are formed. */
export interface SentenceFeatures {
  sentence: ReadSentence
  dangling: string | null
  verb: boolean
  imperative: boolean
  past: boolean
  numbers: number
  names: number
  contrast: boolean
  definition: boolean
  question: boolean
  surprise: boolean
  strongVerb: boolean
  ageing: string | null
  lemmas: string[]
}

/** What is known of a sentence; `writtenAt` (ISO 8601, or null) decides which dates in it age. */
export function sentenceFeatures(sentence: ReadSentence, writtenAt: string | null = null): SentenceFeatures {
  const { text } = sentence
  const tokens = withoutOpener(sentence.tokens)
  return {
    sentence,
    dangling: danglingWords(tokens, text),
    verb: hasVerb(tokens),
    imperative: isImperative(tokens),
    past: isPast(tokens),
    numbers: numbersIn(tokens).length,
    names: tokens.filter((t, i) => i > 0 && t.pos === 'PROPN').length,
    contrast: isContrast(text),
    definition: isDefinition(tokens),
    question: text.endsWith('?'),
    surprise: isSurprise(text),
    strongVerb: tokens.some((t) => t.pos === 'VERB' && STRONG_VERBS.has(t.lemma)),
    ageing: ageingWords(text, writtenAt),
    lemmas: contentLemmas(tokens),
  }
}
